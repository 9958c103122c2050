"""Places on a structure by name: a piece, one of its faces or ends, how far along it and across."""

import re
from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Vector, X, Y, Z, cross, dot, plus, scaled

FACES: dict[str, Vector] = {
    "left": scaled(X, -1.0), "right": X, "front": scaled(Y, -1.0), "back": Y, "bottom": scaled(Z, -1.0), "top": Z
}  # fmt: skip
"""Faces by the way they look, in the machine as it is laid out."""
NAMED = re.compile(r"(?P<piece>.+)/(?P<face>[a-z]+)(?:@(?P<along>[0-9.]+)(?:,(?P<across>[0-9.]+))?)?")
SQUARE = 0.7
"""A face looks a way where its normal has at least so much of it."""


@dataclass(frozen=True, slots=True)
class Place:
    """Where on the surface of a piece."""

    piece: str
    place: Vector
    """As laid out, m."""
    normal: Vector
    """Off the face."""


def spot(structure: Structure, name: str) -> Place:
    """Return a place by name, as `gantry beam/front@0.25` or `bed/top@0.5,0.1`.

    Args:
        structure: A machine.
        name: Piece, a slash, the face that looks left, right, front, back, bottom or top, or the start or end of a bar;
            behind @ the share of the length from the start, and of the width across; a half each where none is told.

    Raises:
        InputError: Says what of the name is not there.
    """
    found = NAMED.fullmatch(name)
    piece = structure.pieces.get(found["piece"]) if found else None
    if found is None or not isinstance(piece, Bar | PlatePiece):
        raise InputError(name, "expected a bar or plate of this machine, a slash and a face")
    along, across = (_share(name, found[part]) for part in ("along", "across"))
    if found["face"] in ("start", "end"):
        out = piece.along if found["face"] == "end" else scaled(piece.along, -1.0)
        return Place(piece.name, piece.end if found["face"] == "end" else piece.start, out)
    towards = FACES.get(found["face"])
    if towards is None:
        raise InputError(name, f'there is no face "{found["face"]}"; expected {", ".join(FACES)}, start or end')
    side = cross(piece.up, piece.along)
    faces = [(piece.up, piece.height, side, piece.width), (side, piece.width, piece.up, piece.height)]
    normal, deep, over, wide = max(faces, key=lambda face: abs(dot(face[0], towards)))
    if abs(dot(normal, towards)) < SQUARE:
        raise InputError(name, f"the {piece.name} has no face that looks {found['face']}")
    normal = normal if dot(normal, towards) > 0.0 else scaled(normal, -1.0)
    middle = plus(plus(piece.start, piece.along, along * piece.length), over, (across - 0.5) * wide)
    return Place(piece.name, plus(middle, normal, deep / 2), normal)


def _share(name: str, text: str | None) -> float:
    value = 0.5 if text is None else float(text) if text.count(".") < 2 and text != "." else -1.0
    if not 0.0 <= value <= 1.0:
        raise InputError(name, f'expected a share from 0 to 1 behind @, got "{text}"')
    return value
