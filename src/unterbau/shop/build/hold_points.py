"""Hold points that hold: what a step still needs, and why a reading does not do by itself."""

from dataclasses import dataclass

from unterbau.shop.build.done import Done
from unterbau.shop.build.steps import Step
from unterbau.shop.measure.result import Measured
from unterbau.units import Units, tolerance_text


@dataclass(frozen=True, slots=True)
class HoldReading:
    """What was read at a hold point."""

    value: float
    """m."""
    uncertainty: float
    """Expanded, k = 2, m; more than 0."""
    simulated: bool = False
    """Whether a simulated instrument read it."""


def standing(steps: tuple[Step, ...], done: tuple[Done, ...], candidate: str) -> frozenset[str]:
    """Return the steps of a candidate that are done and whose needs are all done: no other counts as done."""
    marked = {one.step for one in done if one.candidate == candidate}
    found: set[str] = set()
    grown = True
    while grown:
        more = {one.id for one in steps if one.id in marked - found and found.issuperset(one.needs)}
        found |= more
        grown = bool(more)
    return frozenset(found)


def still_needed(step: Step, steps: tuple[Step, ...], stands: frozenset[str]) -> tuple[Step, ...]:
    """Return the steps that have to be done before a step can be."""
    return tuple(one for one in steps if one.id in step.needs and one.id not in stands)


def left_outside(one: Done) -> bool:
    """Return whether a step was marked done without a measured reading within its limit."""
    if not one.within:
        return False
    measured = one.uncertainty > 0.0 and not one.simulated
    return not measured or Measured(one.value, one.uncertainty, "m").verdict(one.within) != "within"


def outside_of(done: tuple[Done, ...], candidate: str) -> frozenset[str]:
    """Return the steps of a candidate that were marked done without a reading within their limit."""
    return frozenset(one.step for one in done if one.candidate == candidate and left_outside(one))


def objections(
    step: Step, steps: tuple[Step, ...], done: tuple[Done, ...], candidate: str, reading: HoldReading | None,
    units: Units = "mm",
) -> tuple[str, ...]:  # fmt: skip
    """Return why a step is marked done only with a reason, a sentence each; nothing where its reading does.

    Every step that depends on one that was left outside its limit asks for that measurement again.
    """
    found = []
    if step.hold is not None:
        limit = tolerance_text(step.hold.within, units)
        if reading is None:
            found.append(f"No reading was taken. The limit is {limit}.")
        elif reading.simulated:
            found.append("The reading is simulated: it says nothing about the built machine. Measure it there.")
        else:
            off, doubt = (tolerance_text(one, units) for one in (abs(reading.value), reading.uncertainty))
            verdict = Measured(reading.value, reading.uncertainty, "m").verdict(step.hold.within)
            if verdict == "not within":
                found.append(f"The reading of {off} ± {doubt} is outside the limit of {limit}.")
            elif verdict == "cannot tell":
                found.append(f"The reading of {off} ± {doubt} cannot tell whether the limit of {limit} is kept.")
    before = _before(step, steps)
    for one in done:
        if one.candidate == candidate and one.step in before and left_outside(one):
            words = next(other.words for other in steps if other.id == one.step)
            found.append(f"“{words}” was left outside its limit. Measure it again first.")
    return tuple(found)


def _before(step: Step, steps: tuple[Step, ...]) -> frozenset[str]:
    """Return all steps that a step depends on."""
    needs = {one.id: one.needs for one in steps}
    found: set[str] = set()
    waiting = list(step.needs)
    while waiting:
        one = waiting.pop()
        if one not in found:
            found.add(one)
            waiting += needs.get(one, ())
    return frozenset(found)
