"""What is worth doing first, over the whole machine."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.catalogue.prices import shipped_prices
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.machine import cost_of, links
from unterbau.progress import Cancelled
from unterbau.structure.parts import Place
from unterbau.studies.advise import MISSED, is_spare, ranked
from unterbau.studies.answers import likely_answers
from unterbau.studies.cures import GAINS, GIVES, cures, softest_links
from unterbau.ui.shell.file_actions import demo_project

PLACE, BOOK = Place(), shipped_prices()


class Told:
    """Progress that keeps what was told, and stops after some steps."""

    def __init__(self, stop: int = 10**6) -> None:
        self.steps, self.stop, self.found_rows = 0, stop, [0]

    def step(self, done: int, total: int, text: str) -> None:
        self.steps += 1
        assert 0 <= done < total
        assert text
        if self.steps > self.stop:
            raise Cancelled

    def found(self, so_far: object) -> None:
        assert isinstance(so_far, tuple)
        self.found_rows.append(len(so_far))


def test_every_row_names_its_part_and_holds_when_it_is_done() -> None:
    machine, told = ColumnMill(), Told()
    found = cures(machine, PLACE, 1, BOOK, told)
    assert told.found_rows == list(range(len(found) + 1))
    labels = {one.key: one.label for one in links(machine)}
    soft = softest_links(machine, PLACE, 1)
    parts = {labels[key] for key in soft}
    assert len({trial.alternative.text.split(": ")[0] for trial in found} & parts) >= 3
    now = likely_answers(machine, PLACE)[0]
    best = max(found, key=lambda trial: trial.gain[1])
    for trial in (found[0], best):
        assert trial.alternative.text.split(": ")[0] in parts
        changed = likely_answers(trial.alternative.applied(machine), PLACE)[0]
        gain = np.diag(now.compliance) / np.diag(changed.compliance) - 1.0
        assert trial.gain == pytest.approx(tuple(gain), rel=1e-6, abs=1e-9)
        assert trial.mass == pytest.approx(changed.mass - now.mass, abs=1e-6)
        money = cost_of(trial.machine, BOOK).money - cost_of(machine, BOOK).money
        assert trial.money == pytest.approx(money)
    assert all(trial.gain[1] >= GAINS or is_spare(trial) for trial in found)
    assert all(trial.reason for trial in found)


def test_money_that_buys_nothing_is_told() -> None:
    """A side beam of double the usual size: one size less is hardly missed, and saves what the price book says."""
    project = demo_project()
    machine = project.candidate("plate box").machine
    spare = [one for one in cures(machine, PLACE, 1, project.prices) if is_spare(one) and "hardly missed" in one.reason]
    assert spare
    for trial in spare:
        changed = trial.alternative.applied(machine)
        before, after = (likely_answers(one, PLACE)[0].compliance for one in (machine, changed))
        assert min(np.diag(before) / np.diag(after)) > 1.0 - MISSED
        saved = cost_of(machine, project.prices).money - cost_of(changed, project.prices).money
        assert saved == pytest.approx(-trial.money)
        assert saved > 0.0
    assert ranked(tuple(spare), 1, "money")[0].money == min(one.money for one in spare)


def test_links_that_hardly_give_are_left_alone() -> None:
    machine = ColumnMill()
    likely = likely_answers(machine, PLACE)[0]
    for axis in range(3):
        give = likely.shares.compliance[axis].sum(axis=1)
        share = dict(zip(likely.shares.keys, (give / give.sum()).tolist(), strict=True))
        found = softest_links(machine, PLACE, axis)
        assert [share[key] for key in found] == sorted((share[key] for key in found), reverse=True)
        assert all(share[key] >= GIVES for key in found)


def test_it_can_be_stopped() -> None:
    with pytest.raises(Cancelled):
        cures(replace(ColumnMill()), PLACE, 0, BOOK, Told(stop=3))
