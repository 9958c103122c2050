"""Plates put into a frame."""

from unterbau.materials.material import material
from unterbau.model.laid_plate import LaidPlate
from unterbau.model.modelled import Model
from unterbau.structure.piece import PlatePiece


def lay_sheet(model: Model, piece: PlatePiece, crossed: bool = True) -> LaidPlate:
    """Put a plate in its place, with nodes at its crossings where it has some."""
    start, end = model.moved(piece.start, piece.carrier), model.moved(piece.end, piece.carrier)
    name, xs, ys = piece.name, piece.xs, piece.ys
    laid = LaidPlate(
        model.frame, piece.key, name, start, end, piece.up, piece.height, piece.width, xs, ys, material(piece.material),
        piece.halved, piece.weighs,
    )  # fmt: skip
    for i, x in enumerate(xs):
        for j, y in enumerate(ys):
            node = laid.nodes[i, j] = model.frame.node(f"{name} {i + 1},{j + 1}", laid.at(x, y))
            model.chains[f"{name} {i},{j}"] = (node,)
    if crossed:
        model.chains[name] = tuple(laid.nodes[i, len(ys) // 2] for i in range(len(xs)))
    model.plates.append(laid)
    model.sheets[name] = laid
    return laid
