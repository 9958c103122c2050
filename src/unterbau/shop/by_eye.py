"""What the machine's own places do not settle: brackets and plates set by eye, dowels at the end."""

from collections.abc import Iterator
from dataclasses import dataclass

from unterbau.catalogue.joints import joint
from unterbau.catalogue.screws import screw_lengths, screw_size
from unterbau.shop.holes import into_bar
from unterbau.shop.substrate import BOUGHT
from unterbau.structure.join import BasePlateJoin, EndJoin, Join
from unterbau.structure.piece import Bar
from unterbau.structure.screws import screws_of
from unterbau.structure.structure import Structure

SCREWS = {"bracket": (2, "M8", 0.008), "gusset": (6, "M8", 0.006), "bolted-plate": (4, "M8", 0.01),
          "flange": (4, "M8", 0.012)}  # fmt: skip
"""Screws of a piece of a joint that is set by eye, and what each goes through, m; of gussets four to eight."""
BROUGHT = ("anchor", "clamp", "cap", "printed")
"""Kinds of joint that come with their screws, or take those that their print asks for."""
DOWELS = ("flange", "bolts")
"""Kinds of joint that two dowels keep in their place; common practice, no source."""
DOWEL = "dowel 8 m6 × 40"
ENGAGED = 1.0
"""Thread of a screw that is set by eye, in diameters."""


@dataclass(frozen=True, slots=True)
class ByEye:
    """Something to buy whose place is found when the parts lie together."""

    words: str
    count: int
    of: str
    """What it holds."""


def by_eye(structure: Structure) -> tuple[ByEye, ...]:
    """Return screws, nuts and dowels that are counted, but not placed."""
    placed = {one.seen_with[0] for one in screws_of(structure)}
    found = list(_dowels(structure))
    for step in structure.flat:
        if isinstance(step, Join | EndJoin) and step.joint.kind in SCREWS and step.key not in placed:
            found += _screws(step, structure)
    return tuple(found)


def _screws(step: Join | EndJoin, structure: Structure) -> Iterator[ByEye]:
    each, size, grip = SCREWS[step.joint.kind]
    count = each * max(1, step.joint.count)
    d = screw_size(size)
    least = grip + d.washer + ENGAGED * d.d
    length = next(one for one in screw_lengths() if one >= least)
    of = step.key.replace("_", " ")
    yield ByEye(f"screw {size} × {length * 1e3:g}, set by eye", count, of)
    yield ByEye(f"washer {size}", count, of)
    names = (
        (step.bar, step.host) if isinstance(step, EndJoin) else (step.a.piece, "" if step.b is None else step.b.piece)
    )
    bars = [one for one in (structure.pieces.get(name) for name in names) if isinstance(one, Bar)]
    for bar in bars:
        nut = into_bar(bar, size)
        if nut in BOUGHT:
            yield ByEye(f"{nut} {size}", count // len(names), of)


def _dowels(structure: Structure) -> Iterator[ByEye]:
    for step in structure.flat:
        if isinstance(step, EndJoin | BasePlateJoin) and step.joint.kind in DOWELS:
            yield ByEye(DOWEL, 2, f"{step.key.replace('_', ' ')}, drilled and reamed through when it stands true")


def unsettled(structure: Structure) -> tuple[str, ...]:
    """Return in sentences what one has to settle oneself before drilling."""
    found: dict[str, None] = {}
    counts: dict[tuple[str, str], int] = {}
    for one in by_eye(structure):
        if "by eye" in one.words:
            counts[one.of, one.words] = counts.get((one.of, one.words), 0) + one.count
    for (of, words), count in counts.items():
        found[f"{of}: {count} × {words}; spot the holes through when the parts lie together"] = None
    for step in structure.flat:
        if isinstance(step, Join | EndJoin) and step.joint.kind in BROUGHT:
            of = step.key.replace("_", " ")
            found[f"{of}: {joint(step.joint.kind).label}, with its own screws; holes as the piece has them"] = None
    return tuple(found)
