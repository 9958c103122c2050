"""Studies in a process of their own: answers, progress, refusal, cancelling, and what happens when it dies."""

from collections.abc import Callable, Iterator
from dataclasses import replace
from queue import SimpleQueue
from threading import Timer
from typing import Any

import pytest

from unterbau.errors import UnterbauError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.progress import Cancelled, Silent
from unterbau.structure.parts import Member, Place
from unterbau.studies.answers import Early, answers, first_figures, likely_answers
from unterbau.studies.clash import counted
from unterbau.ui.jobs import helping
from unterbau.ui.jobs.helper import Helper

MIDDLE = Place(0.5, 0.5, 0.5)


class Heard:
    """A progress that remembers, does something at the first step, and asks to stop after so many."""

    def __init__(self, most: int = 1000, at_first: Callable[[], None] | None = None) -> None:
        self.steps: list[tuple[int, int, str]] = []
        self.told: list[object] = []
        self._most, self._at_first = most, at_first

    def step(self, done: int, total: int, text: str) -> None:
        """Remember."""
        if not self.steps and self._at_first is not None:
            self._at_first()
        self.steps.append((done, total, text))
        if len(self.steps) > self._most:
            raise Cancelled

    def found(self, so_far: object) -> None:
        """Remember."""
        self.told.append(so_far)


@pytest.fixture(scope="module")
def helper() -> Iterator[Helper]:
    """Return a helper of these tests' own."""
    found = Helper()
    yield found
    found._end()


@pytest.fixture(scope="module")
def machine() -> MovingGantry:
    """Return a small router."""
    return MovingGantry()


def test_an_answer_is_what_it_is_here_and_what_is_told_comes_through(helper: Helper, machine: MovingGantry) -> None:
    """Figures agree with those computed in this process; steps and early bands come in order."""
    heard = Heard()
    found = helper.compute(answers, machine, MIDDLE, progress=heard)
    here, _ = likely_answers(machine, MIDDLE)
    assert found.likely.compliance == pytest.approx(here.compliance, rel=1e-12)
    steps = dict.fromkeys(done for done, _, _ in heard.steps if done)  # told again while the process is silent
    assert list(steps) == [1, 2, 3, 4]
    assert heard.told == [Early(found.stiffness)]


def test_what_is_refused_is_refused_in_the_same_words(helper: Helper, machine: MovingGantry) -> None:
    """A machine that cannot be built says so as it does here."""
    broken = replace(machine, gantry_beam=Member("no such section", "steel-s235"))
    with pytest.raises(UnterbauError) as here:
        first_figures(broken, MIDDLE, Silent())
    with pytest.raises(UnterbauError) as beside:
        helper.compute(first_figures, broken, MIDDLE, progress=Silent())
    assert str(beside.value) == str(here.value)


def test_a_fault_of_ours_is_told_in_a_sentence(helper: Helper) -> None:
    """What raises anything else comes as a sentence with its name."""
    with pytest.raises(UnterbauError, match=r"could not be computed \(TypeError"):
        helper.compute(first_figures, "no machine", progress=Silent())


def test_one_that_is_cancelled_leaves_the_process_for_the_next(helper: Helper, machine: MovingGantry) -> None:
    """It stops at its next step, and the next question is answered as ever."""
    with pytest.raises(Cancelled):
        helper.compute(answers, machine, MIDDLE, progress=Heard(1))
    assert helper.compute(counted, (machine,), progress=Silent()) == counted((machine,), Silent())


def test_a_process_that_dies_is_told_and_started_anew(helper: Helper, machine: MovingGantry) -> None:
    """Killed while it computes: one sentence, nothing hangs, the next question starts it again."""
    helper.compute(first_figures, machine, MIDDLE, progress=Silent())
    process = helper._process
    assert process is not None
    with pytest.raises(UnterbauError, match="ended by itself"):
        helper.compute(answers, machine, MIDDLE, progress=Heard(at_first=process.kill))
    assert helper.compute(first_figures, machine, MIDDLE, progress=Silent()).mass > 0.0
    assert helper._process is not process


def test_memory_is_given_back_when_nothing_is_wanted_for_a_while(monkeypatch: pytest.MonkeyPatch) -> None:
    """Not between answers that follow each other."""
    given: list[bool] = []
    monkeypatch.setattr(helping, "trim", lambda: given.append(True))
    monkeypatch.setattr(helping, "PAUSE", 0.05)
    wanted = SimpleQueue[Any]()
    wanted.put((1, len, ((),)))
    assert helping._next(wanted) == (1, len, ((),))
    assert not given
    Timer(0.2, wanted.put, (None,)).start()
    assert helping._next(wanted) is None
    assert given == [True]
