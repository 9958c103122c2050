"""Try instead: every trial is what a fresh solution says; ranks; nothing impossible."""

from dataclasses import replace
from importlib.resources import files

import numpy as np
import pytest

from tests.machines import router
from unterbau.errors import InputError
from unterbau.files.project_json import parse_project
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bill_of, cost_of, links, with_part
from unterbau.model.built import Built
from unterbau.progress import Cancelled, Silent
from unterbau.structure.parts import Guide, Joint, Member, Mount, Place, Plate
from unterbau.studies import compliance
from unterbau.studies.advise import Trial, ranked, try_instead
from unterbau.studies.answers import likely_answers

DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
TUBE = router(DEMO.candidates[1].machine)
AT = Place(0.2, 0.7, 0.0)


def tried(key: str) -> tuple[Trial, ...]:
    return try_instead(TUBE, key, AT, DEMO.prices)


@pytest.mark.parametrize("key", ["gantry_beam", "z_guides", "beam_joint", "cutter"])
def test_a_trial_is_what_the_changed_machine_answers(key: str) -> None:
    now, _ = likely_answers(TUBE, AT)
    money = cost_of(TUBE, DEMO.prices).money
    for trial in tried(key)[::3]:
        after, _ = likely_answers(trial.machine, AT)
        gain = np.diag(now.compliance) / np.diag(after.compliance) - 1
        assert trial.gain == pytest.approx(tuple(gain), abs=1e-9)
        assert trial.mass == pytest.approx(after.mass - now.mass, abs=1e-9)
        items = bill_of(trial.machine, DEMO.prices)
        assert trial.money == pytest.approx(sum(item.money for item in items) - money)
        assert trial.machine != TUBE


@pytest.mark.parametrize("number", [0, 3])
def test_every_link_of_every_demo_has_something_to_try(number: int) -> None:
    machine = DEMO.candidates[number].machine
    for link in links(machine):
        trials = try_instead(machine, link.key, Place(), DEMO.prices)
        texts = [trial.alternative.text for trial in trials]
        assert len(texts) >= 2, link.key
        assert len({trial.machine for trial in trials}) == len(trials)


def test_ranks() -> None:
    trials = tried("gantry_beam")
    by_gain = [t.gain[1] for t in ranked(trials, 1, "stiffness") if t.gain[1] > 0.01]
    assert by_gain == sorted(by_gain, reverse=True)
    assert by_gain
    for order in ("money", "mass"):
        gaining = [getattr(t, order) for t in ranked(trials, 1, order) if t.gain[1] > 0.01]
        assert gaining == sorted(gaining)
    assert ranked(trials, 1, "money")[0].gain[1] > 0


def test_what_is_there_already_is_told_before_the_whole() -> None:
    told: list[tuple[Trial, ...]] = []

    class Listening(Silent):
        def found(self, so_far: object) -> None:
            assert isinstance(so_far, tuple)
            told.append(so_far)

    whole = try_instead(TUBE, "x_plate", AT, DEMO.prices, Listening())
    assert [len(one) for one in told] == list(range(1, len(whole) + 1))
    assert told[-1] == whole


def test_welds_are_for_steel_and_fills_for_hollows() -> None:
    assert not any("welded" in trial.alternative.text for trial in tried("beam_joint"))
    assert any("welded" in trial.alternative.text for trial in tried("cross_joint"))
    assert any("fill" in trial.alternative.text for trial in tried("side_beam"))
    solid = with_part(TUBE, "gantry_beam", Member("flat-120x60", "steel-s235"))
    assert not any("fill" in t.alternative.text for t in try_instead(solid, "gantry_beam", AT, DEMO.prices))


def test_a_size_of_ones_own_finds_its_neighbours() -> None:
    own = with_part(TUBE, "gantry_beam", Member("rhs-131x77x4.5", "steel-s235"))
    texts = [t.alternative.text for t in try_instead(own, "gantry_beam", AT, DEMO.prices)]
    assert "tube 160×80×5" in texts
    plate = with_part(TUBE, "z_plate", Plate(0.0131, "aluminium-5083"))
    assert "15 mm thick" in [t.alternative.text for t in try_instead(plate, "z_plate", AT, DEMO.prices)]


def test_it_can_be_stopped_and_says_what_cannot_be_built() -> None:
    class Impatient(Silent):
        def step(self, done: int, total: int, text: str) -> None:
            if done == 2:
                raise Cancelled

    with pytest.raises(Cancelled):
        try_instead(TUBE, "gantry_beam", AT, DEMO.prices, Impatient())
    broken = replace(TUBE, beam_joint=Joint("own"))
    with pytest.raises(InputError, match="own"):
        try_instead(broken, "beam_joint", AT, DEMO.prices)


@pytest.mark.parametrize("mount", ["front", "front-edges", "top-front", "top-bottom"])
@pytest.mark.parametrize(("section", "block"), [("shs-30x30x2", "20"), ("shs-30x30x2", "15"), ("shs-40x40x3", "20")])
def test_rails_wider_than_the_wall_they_lie_on_have_an_answer(section: str, block: str, mount: Mount) -> None:
    """Strips under two rails overlap: the wall is then held straight as one body, and a dent is no softer for it."""
    beam = Member(section, "steel-s235")
    machine = replace(MovingGantry(), gantry_beam=beam, x_guides=Guide(block, mount=mount))
    answer = likely_answers(machine, Place())[0]
    softer = likely_answers(replace(machine, gantry_beam=Member("shs-50x50x3", "steel-s235")), Place())[0]
    assert np.all(np.diag(answer.compliance)[:2] > np.diag(softer.compliance)[:2])


def test_an_alternative_fails_by_itself_and_says_so(monkeypatch: pytest.MonkeyPatch) -> None:
    solve = compliance.solve_tip

    def fails_on_small_ones(built: Built) -> object:
        fails_on_small_ones.calls += 1  # type: ignore[attr-defined]
        if fails_on_small_ones.calls == 3:  # type: ignore[attr-defined]
            raise KeyError(29)
        return solve(built)

    fails_on_small_ones.calls = 0  # type: ignore[attr-defined]
    monkeypatch.setattr("unterbau.studies.advise.solve_tip", fails_on_small_ones)
    trials = try_instead(TUBE, "z_guides", AT, DEMO.prices)
    (failed,) = [trial for trial in trials if trial.problem]
    assert "could not be computed" in failed.problem
    assert len([trial for trial in trials if not trial.problem]) >= 2
    assert ranked(trials, 1, "stiffness")[-1] == failed
