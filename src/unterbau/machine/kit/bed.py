"""A plate that carries the work: a grid of strips both ways."""

from dataclasses import dataclass

from unterbau.catalogue.joints import Face
from unterbau.machine.bodies import Prism, Sheet, round_ring
from unterbau.machine.built import WorkPoint
from unterbau.machine.frame_builder import Y, Z, merged, subdivided
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.members import join
from unterbau.machine.member import grid_values, plate_line
from unterbau.machine.parts import Plate

SAME = 2e-3


@dataclass(frozen=True, slots=True)
class Bed:
    """A grid of nodes."""

    key: str
    name: str
    xs: tuple[float, ...]
    ys: tuple[float, ...]
    top: float
    thickness: float
    nodes: dict[tuple[int, int], int]
    rows: tuple[Laid, ...]
    """Lines along X, from front to back."""
    columns: tuple[Laid, ...]
    """Lines along Y, from left to right."""

    @property
    def middle(self) -> float:
        """Height of the plate's middle, m."""
        return self.top - self.thickness / 2


def bed(
    kit: Kit, key: str, name: str, xs: list[float], ys: list[float], top: float, pieces: tuple[int, int] = (6, 6)
) -> Bed:
    """Lay a plate over x and y with its surface at a height; crossings at all given stops."""
    plate: Plate = getattr(kit.machine, key)
    gx, gy = tuple(subdivided(merged(xs), pieces[0])), tuple(subdivided(merged(ys), pieces[1]))
    z = top - plate.thickness / 2
    nodes = {
        (i, j): kit.frame.node(f"{name} {i + 1},{j + 1}", (x, y, z)) for j, y in enumerate(gy) for i, x in enumerate(gx)
    }
    rows, columns = [], []
    for i, x in enumerate(gx):
        values = grid_values(plate, tributary(gx, i), carries_mass=True)
        line = kit.frame.chain(key, [nodes[i, j] for j in range(len(gy))], values, Z)
        wide = tributary(gx, i)
        columns.append(Laid(key, f"{name} column {i}", line, (x, gy[0], z), (x, gy[-1], z), Z, plate.thickness, wide))
    for j, y in enumerate(gy):
        values = grid_values(plate, tributary(gy, j), carries_mass=False)
        line = kit.frame.chain(key, [nodes[i, j] for i in range(len(gx))], values, Z)
        wide = tributary(gy, j)
        rows.append(Laid(key, f"{name} row {j}", line, (gx[0], y, z), (gx[-1], y, z), Z, plate.thickness, wide))
        kit.chains[f"{name} row {j}"] = line.nodes
    for (i, j), node in nodes.items():
        kit.chains[f"{name} {i},{j}"] = (node,)
    for column in columns:
        kit.chains[column.name] = column.chain.nodes
    kit.bodies.append(Sheet(key, name, gx, gy, top - plate.thickness, top))
    kit.widths[key] = gx[-1] - gx[0]
    kit.buy(plate_line(key, plate, 1, gx[-1] - gx[0], gy[-1] - gy[0]))
    return Bed(key, name, gx, gy, top, plate.thickness, nodes, tuple(rows), tuple(columns))


def tributary(stops: tuple[float, ...], index: int) -> float:
    """Return the width that a line of a grid stands for."""
    low = stops[max(index - 1, 0)]
    high = stops[min(index + 1, len(stops) - 1)]
    return (high - low) / 2


def row_near(plate: Bed, y: float) -> Laid:
    """Return the line along X nearest to a place."""
    return min(plate.rows, key=lambda row: abs(row.start[1] - y))


def column_near(plate: Bed, x: float) -> Laid:
    """Return the line along Y nearest to a place."""
    return min(plate.columns, key=lambda column: abs(column.start[0] - x))


def bolt_down(kit: Kit, key: str, plate: Bed, host: Laid) -> None:
    """Bolt a plate to a member below it, at each of the member's nodes that a crossing stands over."""
    face = Face(host.width, host.width)
    for node in host.chain.nodes:
        x, y, _ = kit.frame.places[node]
        i = next((n for n, stop in enumerate(plate.xs) if abs(stop - x) < SAME), None)
        j = next((n for n, stop in enumerate(plate.ys) if abs(stop - y) < SAME), None)
        if i is None or j is None:
            continue
        join(kit, key, plate.nodes[i, j], node, face, Z, Y)
        name = f"{plate.name} {i},{j}"
        kit.bodies.append(Prism(key, name, (x, y, plate.top), (x, y, plate.top + 0.004), Y, (round_ring(0.018, 10),)))


def work_on(kit: Kit, plate: Bed, x: float, y: float) -> None:
    """Let the work stand on a plate at a place, between its crossings."""
    i, a = _cell(plate.xs, x)
    j, c = _cell(plate.ys, y)
    shares = {
        (i, j): (1 - a) * (1 - c), (i + 1, j): a * (1 - c), (i, j + 1): (1 - a) * c, (i + 1, j + 1): a * c,
    }  # fmt: skip
    used = {cell: share for cell, share in shares.items() if share > 1e-12}
    kit.work = WorkPoint(tuple(plate.nodes[cell] for cell in used), tuple(used.values()), (x, y, plate.middle))


def _cell(stops: tuple[float, ...], at: float) -> tuple[int, float]:
    place = max(0, min(len(stops) - 2, sum(stop <= at for stop in stops) - 1))
    share = (at - stops[place]) / (stops[place + 1] - stops[place])
    return place, min(1.0, max(0.0, share))
