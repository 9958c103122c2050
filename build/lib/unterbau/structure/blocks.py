"""Blocks of guides: where they stand, and the shelves that reach out to them."""

from dataclasses import dataclass

from unterbau.catalogue.guides import block
from unterbau.structure.line import Line
from unterbau.structure.motion import Blocks
from unterbau.structure.parts import Plate
from unterbau.structure.piece import PlatePiece
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Vector, cross, dot, minus, plus
from unterbau.structure.wares import plate_line

SHELF = 0.03
"""A shelf to a block is wider than the block by this; nearer blocks need none, m."""
FLAT = 1e-6


@dataclass(frozen=True, slots=True)
class Shelf:
    """A piece of a plate that reaches out from it over a block."""

    start: Vector
    end: Vector
    normal: Vector
    width: float
    thickness: float
    line: Line


def shelf_of(structure: Structure, blocks: Blocks, seat: Vector) -> Shelf | None:
    """Return the shelf over a block on a seat; none where the plate itself lies on it."""
    plate, size = structure.pieces[blocks.plate], block(blocks.guide.block)
    if not isinstance(plate, PlatePiece):
        raise TypeError(f"{blocks.plate} is no plate")
    top = plus(seat, blocks.up, size.height)
    root = plate.under(top)
    off = dot(minus(top, root), plate.up)
    if abs(dot(blocks.up, plate.up)) * size.height / 2 > FLAT or abs(off) < SHELF:
        return None
    width = size.length + SHELF
    line = plate_line(plate.key, Plate(plate.height, plate.material), 1, width, abs(off))
    return Shelf(root, plus(root, plate.up, off), cross(plate.up, plate.across), width, plate.height, line)


def spread(seats: tuple[tuple[str, Vector], ...], along: Vector, count: int) -> tuple[tuple[str, Vector], ...]:
    """Return as many blocks on each rail as wanted, evenly between its first and last."""
    if count == 2:
        return seats
    rails: dict[tuple[str, Vector], list[tuple[str, Vector]]] = {}
    for host, seat in seats:
        across = dot(seat, along)
        x, y, z = (round(s - a * across, 6) for s, a in zip(seat, along, strict=True))
        rails.setdefault((host, (x, y, z)), []).append((host, seat))
    found = []
    for rows in rails.values():
        (host, first), (_, last) = rows[0], rows[-1]
        for n in range(count):
            share = 0.5 if count == 1 else n / (count - 1)
            found.append((host, plus(first, minus(last, first), share)))
    return tuple(found)
