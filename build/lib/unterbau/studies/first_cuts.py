"""First cuts beside what was predicted for them: the error of a piece, and the depth at which it chatters."""

from dataclasses import dataclass

from unterbau.band import Band
from unterbau.catalogue.cuts import OwnCut
from unterbau.errors import InputError
from unterbau.machine.machine import Machine
from unterbau.progress import Progress, Silent
from unterbau.shop.build.cuts import FirstCut
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
from unterbau.studies.cutting import chosen_cut, force_at
from unterbau.studies.shake import shaking
from unterbau.studies.stability import chatter


@dataclass(frozen=True, slots=True)
class Judged:
    """A first cut beside its prediction."""

    cut: FirstCut
    label: str
    """Of the cut."""
    error: float
    """Read less wanted, m: the tool is pushed off the work, so that a piece comes out larger."""
    predicted: Band
    """m."""
    limit: float
    """Depth at which it chatters at its own speed, likely, m; inf where it does not, nan where that is not known."""

    @property
    def verdict(self) -> str:
        """Return how error and finish go with what was predicted, in words."""
        doubt = 2 * self.cut.doubt
        size = abs(self.error)
        if size - doubt > self.predicted.high:
            said = "more than predicted: look for play, a loose joint, a blunt tool"
        elif size + doubt < self.predicted.low:
            said = "less than predicted"
        elif self.predicted.low <= size <= self.predicted.high:
            said = "as predicted"
        else:
            said = "the reading's doubt does not tell: read it with something finer"
        rings, deep = self.cut.finish == "chatter", self.cut.depth > self.limit
        if rings and not deep:
            said += "; it chatters at a depth that should not: tap the machine again"
        elif deep and not rings:
            said += "; quieter than predicted"
        return said


def judged(
    machine: Machine, cuts: tuple[FirstCut, ...], own: OwnCut, progress: Progress | None = None
) -> tuple[Judged, ...]:  # fmt: skip
    """Return first cuts beside what is predicted for them at the middle of the travel, head lowest.

    The peak force of the cut at its depth, over the stiffness along the axis it was measured on, for each face that was
    cut: the band is that of force and stiffness together, low with high.

    Raises:
        InputError: The machine cannot be solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    if not cuts:
        return ()
    found = answers(machine, Place())
    report.step(1, 3, "stiffness")
    shakes = shaking(machine, Place())
    report.step(2, 3, "shaking")
    rows = []
    for one in cuts:
        try:
            cut = chosen_cut(one.cut, own)
        except InputError:
            rows.append(Judged(one, one.cut, one.read - one.wanted, Band(0.0, 0.0, 0.0), float("nan")))
            continue
        k = found.stiffness["XYZ".index(one.axis)]
        scatter = cut.force.scaled(force_at(cut, one.depth) / cut.force.likely * one.sides)
        predicted = Band(scatter.low / k.high, scatter.likely / k.likely, scatter.high / k.low)
        limited = chatter(shakes, cut)
        limit = float("nan") if limited is None else limited.depth
        rows.append(Judged(one, cut.label, one.read - one.wanted, predicted, limit))
    return tuple(rows)
