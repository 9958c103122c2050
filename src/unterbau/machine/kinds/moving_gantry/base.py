"""The base: feet, side beams, cross members, bed."""

from dataclasses import dataclass

from unterbau.catalogue.joints import Face
from unterbau.machine.frame_builder import Chain, X, Y, Z, merged, subdivided
from unterbau.machine.kind import REST
from unterbau.machine.kinds.moving_gantry.building import Building
from unterbau.machine.member import grid_values, member_size, member_values
from unterbau.machine.stand import ZETA, ground


@dataclass(frozen=True, slots=True)
class Base:
    """What the rest of the machine stands on."""

    side_beams: tuple[Chain, Chain]
    """Left (−x) and right."""
    cross_members: tuple[Chain, ...]
    bed: dict[tuple[int, int], int]
    """Node of each crossing of the bed's grid."""
    feet: tuple[int, ...]


def build_base(b: Building) -> Base:
    """Lay the base and return what it offers."""
    sides = (_side_beam(b, -1), _side_beam(b, 1))
    bed = _bed(b)
    crosses = tuple(_cross_member(b, k, sides, bed) for k in range(len(b.at.cross_y)))
    feet = [node for side in (-1, 1) for node in _feet(b, side, sides[0 if side < 0 else 1])]
    ground(b.frame, b.machine.stand, b.level, feet)
    return Base(sides, crosses, bed, tuple(feet))


def _side_beam(b: Building, side: int) -> Chain:
    at, frame = b.at, b.frame
    height, _ = member_size(b.machine.side_beam)
    first, last = at.side_beam_y
    stops = subdivided(merged([first, last, *at.cross_y]), 8)
    z = at.side_beam_top - height / 2
    name = "left side beam" if side < 0 else "right side beam"
    nodes = [frame.node(f"{name} {n + 1}", (side * at.side_x, y, z)) for n, y in enumerate(stops)]
    values = member_values(b.machine.side_beam)
    return frame.chain("side_beam", nodes, values, Z)


def _feet(b: Building, side: int, chain: Chain) -> list[int]:
    """Put a foot under each end of a side beam."""
    at, frame = b.at, b.frame
    height, _ = member_size(b.machine.side_beam)
    feet = []
    for node in (chain.nodes[0], chain.nodes[-1]):
        _, y, z = frame.places[node]
        foot = frame.node(f"foot of {frame.names[node]}", (side * at.side_x, y, z - height / 2))
        frame.spring(REST, foot, node, (1e9, 1e9, 1e9, 1e6, 1e6, 1e6), Z, X, ZETA)
        feet.append(foot)
    return feet


def _bed(b: Building) -> dict[tuple[int, int], int]:
    at, frame, plate = b.at, b.frame, b.machine.bed
    xs, ys = at.grid_x, at.grid_y
    z = -plate.thickness / 2
    nodes = {(i, j): frame.node(f"bed {i + 1},{j + 1}", (x, y, z)) for j, y in enumerate(ys) for i, x in enumerate(xs)}
    for i in range(len(xs)):
        values = grid_values(plate, _tributary(xs, i), carries_mass=True)
        frame.chain("bed", [nodes[i, j] for j in range(len(ys))], values, Z)
    for j in range(len(ys)):
        values = grid_values(plate, _tributary(ys, j), carries_mass=False)
        frame.chain("bed", [nodes[i, j] for i in range(len(xs))], values, Z)
    return nodes


def _tributary(stops: tuple[float, ...], index: int) -> float:
    low = stops[max(index - 1, 0)]
    high = stops[min(index + 1, len(stops) - 1)]
    return (high - low) / 2


def _cross_member(b: Building, number: int, sides: tuple[Chain, Chain], bed: dict[tuple[int, int], int]) -> Chain:
    at, frame = b.at, b.frame
    height, width = member_size(b.machine.cross_member)
    y, z = at.cross_y[number], at.side_beam_top - height / 2
    ends = (-at.cross_length / 2, at.cross_length / 2)
    stops = merged([*ends, *(x for x in at.grid_x if abs(x) < ends[1] - 1e-3)])
    nodes = [frame.node(f"cross member {number + 1}.{n + 1}", (x, y, z)) for n, x in enumerate(stops)]
    chain = frame.chain("cross_member", nodes, member_values(b.machine.cross_member), Z)
    face = Face(height, width)
    for node, side in ((nodes[0], sides[0]), (nodes[-1], sides[1])):
        host = next(n for n in side.nodes if abs(frame.places[n][1] - y) < 2e-3)
        b.join("cross_joint", node, host, b.machine.cross_joint, face)
    row = min(range(len(at.grid_y)), key=lambda j: abs(at.grid_y[j] - y))
    bolted = Face(width, width)
    for node in nodes:
        column = next((i for i, x in enumerate(at.grid_x) if abs(x - frame.places[node][0]) < 2e-3), None)
        if column is not None:
            b.join("bed_fixing", bed[column, row], node, b.machine.bed_fixing, bolted, normal=Z, up=Y)
    return chain
