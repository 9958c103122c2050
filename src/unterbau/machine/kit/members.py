"""Beams, strips of plate, joints between them, feet."""

from unterbau.catalogue.joints import Face
from unterbau.machine.bill import Line
from unterbau.machine.bodies import Prism, Ring, box_ring
from unterbau.machine.frame_builder import Vector, X, Z, merged, subdivided
from unterbau.machine.joining import joint_kind
from unterbau.machine.kind import REST
from unterbau.machine.kit.kit import Kit, Laid, plus
from unterbau.machine.member import (
    BeamValues,
    member_lines,
    member_rings,
    member_size,
    member_values,
    plate_line,
    strip_values,
)
from unterbau.machine.parts import Joint, Member, Plate
from unterbau.machine.stand import ZETA

COLLAR = 0.012
INSET = 0.02  # of a foot from the edge


def beam(
    kit: Kit,
    key: str,
    name: str,
    start: Vector,
    end: Vector,
    up: Vector = Z,
    at: tuple[float, ...] = (),
    pieces: int = 6,
) -> Laid:
    """Lay a member from start to end, with nodes at some distances from the start."""
    part: Member = getattr(kit.machine, key)
    height, width = member_size(part)
    laid = _lay(kit, key, name, start, end, up, at, pieces, member_values(part), height, width)
    rings = member_rings(part)[:1] if part.fill else member_rings(part)
    kit.bodies.append(Prism(key, name, start, end, up, rings))
    for line in member_lines(key, part, 1, laid.length):
        kit.buy(line)
    return laid


def strip(
    kit: Kit, key: str, name: str, start: Vector, end: Vector, width: float, face: Vector,
    at: tuple[float, ...] = (), pieces: int = 5, drawn_from: Vector | None = None,
) -> Laid:  # fmt: skip
    """Stand a plate from start to end as a strip that bends like a beam; `face` is its normal.

    `drawn_from` is where the plate itself begins if the strip stands higher, over a carriage.
    """
    part: Plate = getattr(kit.machine, key)
    laid = _lay(kit, key, name, start, end, face, at, pieces, strip_values(part, width), part.thickness, width)
    kit.widths[key] = width
    kit.bodies.append(Prism(key, name, drawn_from or start, end, face, (box_ring(width, part.thickness),)))
    kit.buy(plate_line(key, part, 1, width, laid.length))
    return laid


def _lay(
    kit: Kit, key: str, name: str, start: Vector, end: Vector, up: Vector, at: tuple[float, ...], pieces: int,
    values: BeamValues, height: float, width: float,
) -> Laid:  # fmt: skip
    length = sum((b - a) ** 2 for a, b in zip(start, end, strict=True)) ** 0.5
    inside = [stop for stop in at if 1e-3 < stop < length - 1e-3]
    stops = subdivided(merged([0.0, *inside, length]), pieces)
    stops[-1] = length
    line = tuple((b - a) / length for a, b in zip(start, end, strict=True))
    nodes = [kit.frame.node(f"{name} {n + 1}", plus(start, line, stop)) for n, stop in enumerate(stops)]
    chain = kit.frame.chain(key, nodes, values, up)
    kit.chains[name] = chain.nodes
    return Laid(key, name, chain, start, end, up, height, width)


def join(kit: Kit, key: str, i: int, j: int, face: Face, normal: Vector = X, up: Vector = Z) -> None:
    """Join two nodes at node i's place by a joint of the machine."""
    chosen: Joint = getattr(kit.machine, key)
    kind = joint_kind(chosen)
    kit.frame.spring(key, i, j, kind.springs(kit.level, chosen.count, face), normal, up, kind.zeta)
    kit.buy(Line(key, kind.label, chosen.count, 0.0, 0.0, (f"joint:{chosen.kind}",)))


def fasten(kit: Kit, key: str, part: Laid, last: bool, host: Laid) -> None:
    """Join an end of a part to the nearest node of another, and draw a collar there."""
    node = part.chain.nodes[-1 if last else 0]
    join(kit, key, node, kit.near(host, kit.frame.places[node]), Face(part.height, part.width), part.along, part.up)
    collar(kit, key, part, last)


def collar(kit: Kit, key: str, part: Laid, last: bool) -> None:
    """Draw a collar around an end of a part."""
    ring: Ring = box_ring(part.width + 0.016, part.height + 0.016)
    place = plus(part.end, part.along, -COLLAR) if last else part.start
    kit.bodies.append(Prism(key, part.name, place, plus(place, part.along, COLLAR), part.up, (ring,)))


def foot(kit: Kit, part: Laid, node: int, aside: float = 0.0) -> None:
    """Stand a node of a part on a levelling foot below it, or aside of it along X."""
    x, y, z = kit.frame.places[node]
    side = f" {'right' if aside > 0 else 'left'}" if aside else ""
    low = kit.frame.node(f"foot of {kit.frame.names[node]}{side}", (x + aside, y, z - part.height / 2))
    kit.frame.spring(REST, low, node, (1e9, 1e9, 1e9, 1e6, 1e6, 1e6), Z, X, ZETA)
    kit.feet.append(low)


def four_feet(kit: Kit, part: Laid) -> None:
    """Stand a wide part along Y on feet at its four corners."""
    for node in (part.chain.nodes[0], part.chain.nodes[-1]):
        for side in (-1, 1):
            foot(kit, part, node, side * (part.width / 2 - INSET))
