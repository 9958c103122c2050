"""From the machine to its frame, one pure function."""

from unterbau.band import Level
from unterbau.machine.built import Built, WorkPoint
from unterbau.machine.frame_builder import FrameBuilder
from unterbau.machine.kinds.moving_gantry.base import Base, build_base
from unterbau.machine.kinds.moving_gantry.building import Building
from unterbau.machine.kinds.moving_gantry.gantry import build_gantry
from unterbau.machine.kinds.moving_gantry.geometry import Geometry, check, geometry
from unterbau.machine.kinds.moving_gantry.head import build_head
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.parts import Place


def to_frame(machine: MovingGantry, place: Place, level: Level) -> Built:
    """Return the frame of a machine with its head at a place.

    Raises:
        InputError: Dimensions or names that make no machine.
    """
    check(machine)
    at = geometry(machine, place)
    b = Building(machine, at, level, FrameBuilder())
    base = build_base(b)
    gantry = build_gantry(b, base)
    head = build_head(b, gantry)
    chains = {
        **{f"foot {n + 1}": (node,) for n, node in enumerate(base.feet)},
        "left side beam": base.side_beams[0].nodes,
        "right side beam": base.side_beams[1].nodes,
        "left side": gantry.sides[0].nodes,
        "right side": gantry.sides[1].nodes,
        "gantry beam": gantry.beam.nodes,
        "X plate": head.x_plate.nodes,
        "Z plate": head.z_plate.nodes,
        "spindle": (head.spindle,),
        "cutter": (head.nose, head.tip),
        **{f"cross member {n + 1}": chain.nodes for n, chain in enumerate(base.cross_members)},
        **{f"bed {i},{j}": (node,) for (i, j), node in base.bed.items()},
    }
    return Built(b.frame.build(), head.tip, head.nose, _work(at, base, machine.bed.thickness), chains)


def _work(at: Geometry, base: Base, thickness: float) -> WorkPoint:
    """Return the bed's crossings around the tool with their bilinear shares."""
    i, a = _cell(at.grid_x, at.head_x)
    j, c = _cell(at.grid_y, at.head_y)
    shares = {
        (i, j): (1 - a) * (1 - c),
        (i + 1, j): a * (1 - c),
        (i, j + 1): (1 - a) * c,
        (i + 1, j + 1): a * c,
    }
    used = {cell: share for cell, share in shares.items() if share > 1e-12}
    nodes = tuple(base.bed[cell] for cell in used)
    return WorkPoint(nodes, tuple(used.values()), (at.head_x, at.head_y, -thickness / 2))


def _cell(stops: tuple[float, ...], at: float) -> tuple[int, float]:
    place = max(0, min(len(stops) - 2, sum(stop <= at for stop in stops) - 1))
    share = (at - stops[place]) / (stops[place + 1] - stops[place])
    return place, min(1.0, max(0.0, share))
