"""Plates put into a frame."""

from unterbau.materials.layered import layered
from unterbau.materials.material import Material, material
from unterbau.materials.slotted_plate import slotted_plate
from unterbau.model.laid_plate import LaidPlate
from unterbau.model.modelled import Model
from unterbau.structure.piece import PlatePiece


def lay_sheet(model: Model, piece: PlatePiece, crossed: bool = True) -> LaidPlate:
    """Put a plate in its place, with nodes at its crossings where it has some."""
    start, end = model.moved(piece.start, piece.carrier), model.moved(piece.end, piece.carrier)
    name, xs, ys = piece.name, piece.xs, piece.ys
    laid = LaidPlate(
        model.frame, piece.key, name, start, end, piece.up, piece.height, piece.width, xs, ys, _made_of(piece),
        piece.halved, piece.weighs, piece.strips, _along(piece),
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


def _along(piece: PlatePiece) -> float:
    """Return how stiff it is along itself against across: less where slots run across."""
    return slotted_plate(piece.material).across if piece.strips else 1.0


def _made_of(piece: PlatePiece) -> Material:
    if piece.strips:
        return slotted_plate(piece.material).material
    if piece.lower is None:
        return material(piece.material)
    return layered(piece.material, piece.lower[0], piece.height, piece.lower[1])
