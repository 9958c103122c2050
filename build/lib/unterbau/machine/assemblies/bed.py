"""A plate that carries the work."""

from dataclasses import dataclass

from unterbau.catalogue.joints import Face
from unterbau.machine.assemblies.pieces import Lay, lay_plate
from unterbau.model.frame_builder import subdivided
from unterbau.structure.carrier import carrier
from unterbau.structure.join import Join
from unterbau.structure.keys import Key
from unterbau.structure.parts import Joint, Plate
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Work
from unterbau.structure.vectors import Vector, Y, Z

FIELDS = (8, 8)
"""In which a bed is drawn bending, and between whose corners the work stands."""
SCREW = 0.16
"""Between the screws of a bed on a member, m; common practice, no source."""
ALL_SCREWS = 200
"""Of a bed on all its members, at the most about so many: on a long bed with many members they stand further apart."""
FROM_END = 0.03


@dataclass(frozen=True, slots=True)
class Bed:
    """A level plate."""

    plate: PlatePiece
    xs: tuple[float, ...]
    """Crossings along X, m."""
    ys: tuple[float, ...]
    top: float

    @property
    def middle(self) -> float:
        """Height of the plate's middle, m."""
        return self.top - self.plate.height / 2


def bed(
    lay: Lay, key: Key, part: Plate, name: str, xs: tuple[float, float], ys: tuple[float, float], top: float
) -> Bed:
    """Lay a plate over a range of x and of y with its surface at a height."""
    z, across = top - part.thickness / 2, ys[1] - ys[0]
    start: Vector = (xs[0], sum(ys) / 2, z)
    fields = subdivided([0.0, xs[1] - xs[0]], FIELDS[0]), subdivided([0.0, across], FIELDS[1])
    plate = lay_plate(lay, key, part, name, start, (xs[1], start[1], z), across, Z, fields)
    return Bed(plate, tuple(xs[0] + x for x in fields[0]), tuple(ys[0] + y for y in fields[1]), top)


def screw_places(half: float, members: int = 1) -> tuple[float, ...]:
    """Return where screws stand along each of so many members that reach from -half to half, m."""
    inside = half - FROM_END
    count = max(2, round(2 * inside / max(SCREW, 2 * inside * members / ALL_SCREWS)) + 1)
    return tuple(-inside + 2 * inside * k / (count - 1) for k in range(count))


def strip_places(half: float, edge: float, strips: int) -> tuple[float, ...]:
    """Return where the screws of plates side by side stand along a member: two a plate, at a fifth from its edges.

    Args:
        half: The member reaches from -half to half, m.
        edge: The plates reach from -edge to edge together, m.
        strips: Plates.
    """
    wide, most = 2 * edge / strips, half - FROM_END
    found = (-edge + wide * (n + share) for n in range(strips) for share in (0.2, 0.8))
    return tuple(min(max(one, -most), most) for one in found)


def bolt_down(lay: Lay, key: Key, chosen: Joint, plate: Bed, host: Bar, places: tuple[float, ...]) -> None:
    """Bolt a plate to a bar along X below it."""
    face = Face(host.width, host.width)
    y = host.start[1]
    for number, x in enumerate(places, 1):
        name, head = f"{plate.plate.name} screw {number} on {host.name}", (x, y, plate.top)
        held, below = plate.plate.hold((x, y, plate.middle)), lay.near(host, (x, y, host.start[2]))
        lay.add(Join(key, chosen, held, below, face, Z, Y, name, head, lay.carrier))


def work_on(lay: Lay, plate: Bed, x: float, y: float, moves: str = "") -> None:
    """Let the work stand on a plate at a place, as tall as the tool is over it; the place moves with axes."""
    lay.work = Work(plate.plate.name, (x, y, plate.middle), carrier(moves), plate.xs, plate.ys)
