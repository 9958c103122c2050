"""What of a machine can be filled: the closed hollows of its members, as long as they are sawn."""

from dataclasses import dataclass
from math import pi

from unterbau.catalogue.screws import screw_size
from unterbau.sections.section import section
from unterbau.shop.fasteners import length_of
from unterbau.shop.pour.cure import Room
from unterbau.shop.pour.plan import MOULD, PourPlan
from unterbau.structure.ends import sawn
from unterbau.structure.piece import Bar
from unterbau.structure.screws import straight_screws
from unterbau.structure.structure import Structure
from unterbau.structure.weights import inner_plates, member_size, wall_of


@dataclass(frozen=True, slots=True)
class Cavity:
    """The hollows of one link."""

    part: str
    names: tuple[str, ...]
    """Pieces that are filled."""
    volume: float
    """Of all of them, less screws and plates inside, m³."""
    screws: float
    """What screws take of it, m³."""
    length: float
    """Of the longest, m."""
    inside: tuple[float, float]
    """Height and width of the hollow, m."""
    wall: float
    filled: str
    """Material that the machine counts in it now, or nothing."""
    metal: str
    """Of the member."""


def cavities_of(structure: Structure) -> tuple[Cavity, ...]:
    """Return all links with hollows that can be filled, the largest first."""
    found: dict[str, list[Bar]] = {}
    for step in structure.flat:
        if isinstance(step, Bar) and section(step.part.section).cavity is not None:
            found.setdefault(step.key, []).append(step)
    cuts = sawn(structure)
    taken: dict[str, float] = {}
    for screw in straight_screws(structure):
        into = structure.pieces.get(screw.into)
        if isinstance(into, Bar) and section(into.part.section).cavity is not None:
            need = length_of(structure, screw)
            reach = max(0.0, (need.chosen() or need.grip + need.engaged) - need.grip - wall_of(into.part))
            taken[into.name] = taken.get(into.name, 0.0) + pi * screw_size(screw.size).d ** 2 / 4 * reach
    rows = []
    for key, bars in found.items():
        part = bars[0].part
        cavity = section(part.section).cavity
        assert cavity is not None
        lost = sum(taken.get(bar.name, 0.0) for bar in bars)
        plates = sum(
            (inner := inner_plates(bar.part, bar.length)).count * inner.thickness * cavity.A for bar in bars
        )  # fmt: skip
        volume = sum(cavity.A * cuts[bar.name].length for bar in bars) - plates - lost
        tall, wide = member_size(part)
        wall = wall_of(part)
        rows.append(Cavity(
            key, tuple(bar.name for bar in bars), volume, lost, max(cuts[bar.name].length for bar in bars),
            (tall - 2 * wall, wide - 2 * wall), wall, part.fill or "", part.material,
        ))  # fmt: skip
    return tuple(sorted(rows, key=lambda one: -one.volume))


def room_of(plan: PourPlan, cavities: tuple[Cavity, ...]) -> tuple[Room, float]:
    """Return the hollow that a plan fills, as heat sees it, and its volume, m³.

    Tubes are filled standing on end.

    Raises:
        KeyError: The machine has no such hollow.
    """
    if plan.part == MOULD:
        mould = plan.mould
        return Room(min(mould.length, mould.width), mould.height, mould.board, False), mould.volume
    one = next(row for row in cavities if row.part == plan.part) if cavities else None
    if one is None:
        raise KeyError(plan.part)
    return Room(min(one.inside), one.length, one.wall, True), one.volume
