"""Where the tool's pull is pushed back: on a plate, on a bar, at a point."""

import numpy as np

from unterbau.model.built import Ground, WorkPoint, on_node
from unterbau.model.footprint import footprint
from unterbau.model.modelled import Model


def stand_work(model: Model) -> None:
    """Let the work stand where the structure says."""
    work = model.structure.work
    x, y, z = model.moved(work.place, work.carrier)
    if work.on in model.sheets:
        _on_plate(model, x, y)
        return
    if work.on in model.points:
        node = model.points[work.on]
        model.work = on_node(node, model.frame.places[node])
        return
    bar = model.bars[work.on]
    node = model.near(bar, (x, y, z))
    model.work = on_node(node, model.frame.places[node])
    model.ground = Ground((), (), (), bar.chain)


def _on_plate(model: Model, x: float, y: float) -> None:
    """Let work stand on a plate, as tall as the tool is over it."""
    work, plate = model.structure.work, model.sheets[model.structure.work.on]
    carrier = model.structure.pieces[work.on].carrier
    left, front, _ = model.moved((0.0, 0.0, 0.0), carrier)
    xs, ys = tuple(left + one for one in work.xs), tuple(front + one for one in work.ys)
    crossings = tuple(plate.nodes[m, n] for n in range(len(ys)) for m in range(len(xs)))
    model.ground = Ground(xs, ys, crossings)
    middle = plate.start[2]
    height = model.frame.places[model.node(model.structure.tip)][2] - middle
    i, j, share = footprint(xs, ys, np.array([[x, y]]), np.array([height]))
    carrying = np.array([plate.nodes[m, n] for m, n in zip(i[0].tolist(), j[0].tolist(), strict=True)])
    model.work = WorkPoint(carrying, share[0], (x, y, middle))
