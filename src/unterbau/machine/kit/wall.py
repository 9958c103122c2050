"""A plate that stands along Y: a grid of strips, upright and level."""

import itertools

from unterbau.machine.bodies import Prism, box_ring
from unterbau.machine.frame_builder import X, merged, subdivided
from unterbau.machine.kit.bed import tributary
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.member import grid_values, plate_line
from unterbau.machine.parts import Plate


def wall(kit: Kit, key: str, name: str, x: float, ys: list[float], zs: tuple[float, float]) -> tuple[Laid, Laid]:
    """Stand a plate on its edge along Y and return its lowest and highest line."""
    plate: Plate = getattr(kit.machine, key)
    gy, gz = subdivided(merged(ys), 6), subdivided(list(zs), 3)
    frame = kit.frame
    nodes = [[frame.node(f"{name} {j + 1},{k + 1}", (x, y, z)) for k, z in enumerate(gz)] for j, y in enumerate(gy)]
    for j in range(len(gy)):
        frame.chain(key, nodes[j], grid_values(plate, tributary(tuple(gy), j), carries_mass=True), X)
    lines = []
    for k, z in enumerate(gz):
        wide = tributary(tuple(gz), k)
        chain = frame.chain(key, [row[k] for row in nodes], grid_values(plate, wide, carries_mass=False), X)
        lines.append(Laid(key, f"{name} {k + 1}", chain, (x, gy[0], z), (x, gy[-1], z), X, plate.thickness, wide))
        kit.chains[lines[-1].name] = chain.nodes
    _draw(kit, key, lines, gz)
    kit.widths[key] = zs[1] - zs[0]
    kit.buy(plate_line(key, plate, 1, zs[1] - zs[0], gy[-1] - gy[0]))
    return lines[0], lines[-1]


def _draw(kit: Kit, key: str, lines: list[Laid], gz: list[float]) -> None:
    """Draw a wall as level bands, each moving with its own line."""
    edges = [gz[0], *((a + b) / 2 for a, b in itertools.pairwise(gz)), gz[-1]]
    for line, low, high in zip(lines, edges, edges[1:], strict=False):
        middle = (low + high) / 2
        start, end = ((p[0], p[1], middle) for p in (line.start, line.end))
        kit.bodies.append(Prism(key, line.name, start, end, X, (box_ring(high - low, line.height),)))
