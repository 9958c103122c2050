"""Machines with the builder's own sections: every study that the screen asks of another process has its answer."""

import re
from collections.abc import Iterator
from dataclasses import replace
from functools import cache
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from unterbau.catalogue.prices import shipped_prices
from unterbau.files.drawn_section import solve_drawn
from unterbau.files.section_text import read_section_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.progress import Silent
from unterbau.project.project import Candidate, Project
from unterbau.sections.building import solve_built_up
from unterbau.sections.solved import CustomSection
from unterbau.structure.parts import Member, Place
from unterbau.studies.answers import answers, answers_shown, first_figures
from unterbau.studies.clash import counted
from unterbau.studies.cures import advised
from unterbau.ui.jobs.helper import Helper
from unterbau.ui.shell.main_window import MainWindow

DRAWN = "units mm\noutline 0,0 60,0 60,90 0,90\nhole 5,5 55,5 55,85 5,85\n"
STUDIES = {"answers_shown", "first_figures", "advised", "counted"}
UI = Path(__file__).parents[2] / "src" / "unterbau" / "ui"


@cache
def custom(what: str) -> Member:
    """Return a beam of a drawn section, of a built-up one that no file ships, of a drawn one built up; filled."""
    drawn = solve_drawn(read_section_text(DRAWN), "my tube")
    if what == "drawn":
        return Member(CustomSection(drawn), "steel-s235")
    if what == "built-up":
        built = CustomSection(solve_built_up("side2-of-rhs-100x50x4"))
        return Member(built, "steel-s235", fill="epoxy-granite-10", seam="welded")
    built = CustomSection(solve_built_up(f"stack2-of-{drawn.name}", drawn), drawn)
    return Member(built, "steel-s235", seam="bonded")


@pytest.fixture(scope="module")
def helper() -> Iterator[Helper]:
    """Return a process that has never seen these sections."""
    found = Helper()
    yield found
    found._end()


def test_these_are_all_studies_that_the_screen_asks_of_another_process() -> None:
    text = "\n".join(path.read_text(encoding="utf-8") for path in UI.rglob("*.py"))
    asked = set(re.findall(r"(?:Asker|super\(\)\.__init__)\((\w+), \w+, beside=True\)", text))
    assert text.count("beside=True") == len(asked)
    assert text.count(").compute(") == 2, "the feed's, and that of whatever asks beside the window"
    assert asked | {"answers_shown", "first_figures"} == STUDIES


@pytest.mark.parametrize("what", ["drawn", "built-up", "drawn and built up"])
def test_each_of_them_answers(helper: Helper, what: str) -> None:
    machine = replace(MovingGantry(), gantry_beam=custom(what))
    here = answers(machine, Place())
    shown = helper.compute(answers_shown, machine, Place(), progress=Silent())
    assert shown.stiffness == here.stiffness
    assert shown.modes[0].frequency.likely == pytest.approx(here.modes[0].frequency.likely)
    figures = helper.compute(first_figures, machine, Place(), progress=Silent())
    assert figures.mass == pytest.approx(here.likely.mass)
    book = shipped_prices()
    trials = helper.compute(advised, (machine, "gantry_beam", Place(), book), progress=Silent())
    assert not [trial for trial in trials if trial.problem]
    assert len(trials) > 3
    assert helper.compute(advised, (machine, 1, Place(), book), progress=Silent())
    helper.compute(counted, (machine,), progress=Silent())


def test_the_window_shows_ranges_of_all_of_them(window: MainWindow, qtbot: QtBot) -> None:
    beams = [custom(what) for what in ("drawn", "built-up", "drawn and built up")]
    beams.append(Member("rhs-91x47x3.5", "steel-s235"))  # typed
    candidates = tuple(Candidate(f"c{n}", replace(MovingGantry(), gantry_beam=beam)) for n, beam in enumerate(beams))
    window.document.replace(Project("own sections", "c0", candidates), None)
    settle(window, qtbot)
    for one in candidates:
        full = window.feed.full(one.machine)
        assert full is not None
        assert all(band.low < band.likely < band.high for band in full.stiffness)
        window.selection.choose_candidate(one.name)
        qtbot.waitUntil(lambda: not window.feed.busy, timeout=30_000)
        assert window.notice.isHidden()


def test_a_fill_counts_in_stiffness_and_mass_at_once(window: MainWindow, qtbot: QtBot) -> None:
    empty = replace(custom("built-up"), fill=None)
    window.document.replace(Project("p", "a", (Candidate("a", replace(MovingGantry(), gantry_beam=empty)),)), None)
    settle(window, qtbot)
    before = window.feed.full(window.feed.machine())
    window.machine.choose_link("gantry_beam")
    window.machine.bench.edited.emit("gantry_beam", custom("built-up"), "fill")
    settle(window, qtbot)
    after = window.feed.full(window.feed.machine())
    assert before is not None
    assert after is not None
    assert after.likely.mass > before.likely.mass + 2.0
    assert after.stiffness[2].likely > before.stiffness[2].likely
