"""A plate that carries the work."""

from dataclasses import dataclass

import numpy as np

from unterbau.catalogue.joints import Face
from unterbau.machine.built import Ground, WorkPoint
from unterbau.machine.footprint import footprint
from unterbau.machine.frame_builder import subdivided
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.members import join
from unterbau.machine.kit.plates import LaidPlate, lay_plate
from unterbau.structure.bodies import Prism, round_ring
from unterbau.structure.vectors import Vector, Y, Z

FIELDS = (8, 8)
"""In which a bed is drawn bending, and between whose corners the work stands."""
SCREW = 0.16
"""Between the screws of a bed on a member, m; common practice, no source."""
FROM_END = 0.03


@dataclass(frozen=True, slots=True)
class Bed:
    """A level plate."""

    plate: LaidPlate
    xs: tuple[float, ...]
    """Crossings along X, m."""
    ys: tuple[float, ...]
    top: float

    @property
    def middle(self) -> float:
        """Height of the plate's middle, m."""
        return self.top - self.plate.height / 2


def bed(kit: Kit, key: str, name: str, xs: tuple[float, float], ys: tuple[float, float], top: float) -> Bed:
    """Lay a plate over a range of x and of y with its surface at a height."""
    z, across = top - getattr(kit.machine, key).thickness / 2, ys[1] - ys[0]
    start: Vector = (xs[0], sum(ys) / 2, z)
    fields = subdivided([0.0, xs[1] - xs[0]], FIELDS[0]), subdivided([0.0, across], FIELDS[1])
    plate = lay_plate(kit, key, name, start, (xs[1], start[1], z), across, Z, fields)
    return Bed(plate, tuple(xs[0] + x for x in fields[0]), tuple(ys[0] + y for y in fields[1]), top)


def screw_places(half: float) -> tuple[float, ...]:
    """Return where screws stand along a member that reaches from -half to half, m."""
    inside = half - FROM_END
    count = max(2, round(2 * inside / SCREW) + 1)
    return tuple(-inside + 2 * inside * k / (count - 1) for k in range(count))


def bolt_down(kit: Kit, key: str, plate: Bed, host: Laid, places: tuple[float, ...]) -> None:
    """Bolt a plate to a member along X below it."""
    face = Face(host.width, host.width)
    y = host.start[1]
    for number, x in enumerate(places, 1):
        node = kit.near(host, (x, y, host.start[2]))
        held = plate.plate.hold((x, y, plate.middle))
        join(kit, key, held, node, face, Z, Y)
        name = f"{plate.plate.name} screw {number} on {host.name}"
        kit.chains[name] = (held,)
        kit.bodies.append(Prism(key, name, (x, y, plate.top), (x, y, plate.top + 0.004), Y, (round_ring(0.018, 10),)))


def work_on(kit: Kit, plate: Bed, x: float, y: float) -> None:
    """Let the work stand on a plate at a place, as tall as the tool is over it."""
    nodes = plate.plate.nodes
    crossings = tuple(nodes[m, n] for n in range(len(plate.ys)) for m in range(len(plate.xs)))
    kit.ground = Ground(plate.xs, plate.ys, crossings)

    def stand() -> WorkPoint:
        height = kit.frame.places[kit.tip][2] - plate.middle
        i, j, share = footprint(plate.xs, plate.ys, np.array([[x, y]]), np.array([height]))
        carrying = np.array([nodes[m, n] for m, n in zip(i[0].tolist(), j[0].tolist(), strict=True)])
        return WorkPoint(carrying, share[0], (x, y, plate.middle))

    kit.standing = stand
