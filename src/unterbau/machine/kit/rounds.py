"""Round bars: cutters, work."""

import math

from unterbau.machine.bill import Line
from unterbau.machine.frame_builder import Chain, merged, subdivided
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.member import round_values
from unterbau.materials.material import material
from unterbau.structure.bodies import Prism, round_ring
from unterbau.structure.parts import Cutter
from unterbau.structure.vectors import Vector, Z, plus


def round_bar(
    kit: Kit, key: str, name: str, start: Vector, end: Vector, at: tuple[float, ...], start_node: int | None = None,
    pieces: int = 4,
) -> Laid:  # fmt: skip
    """Lay a round bar that sticks out from start to end, with nodes at some distances from the start."""
    part: Cutter = getattr(kit.machine, key)
    values = round_values(part.diameter, part.material)
    length = math.dist(start, end)
    stops = subdivided(merged([0.0, *at, length]), pieces)
    line = tuple((b - a) / length for a, b in zip(start, end, strict=True))
    along: Vector = (line[0], line[1], line[2])
    first = kit.frame.node(f"{name} 1", start) if start_node is None else start_node
    inner = [kit.frame.node(f"{name} {n + 2}", plus(start, along, stop)) for n, stop in enumerate(stops[1:-1])]
    nodes = [first, *inner, kit.frame.node(f"{name} end", end)]
    chain: Chain = kit.frame.chain(key, nodes, values, Z)
    kit.chains[name] = chain.nodes
    kit.bodies.append(Prism(key, name, start, end, Z, (round_ring(max(part.diameter, 0.003), 16),)))
    mass = material(part.material).rho * math.pi * part.diameter**2 / 4 * length
    text = f"{name} ⌀{part.diameter * 1e3:g}"
    names = ("cutter",) if key == "cutter" else (f"bar:{part.material}", f"bar:{material(part.material).kind}")
    kit.buy(Line(key, text, 1, length, mass, names))
    return Laid(key, name, chain, start, end, Z, part.diameter, part.diameter)
