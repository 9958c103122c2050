"""Places on a structure: a piece, one of its faces or ends, how far along it and across."""

import re
from dataclasses import dataclass
from typing import get_args

from unterbau.errors import InputError
from unterbau.structure.footing import Face, Footing
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Vector, X, Y, Z, cross, dot, plus, scaled

FACES: dict[str, Vector] = {
    "left": scaled(X, -1.0), "right": X, "front": scaled(Y, -1.0), "back": Y, "bottom": scaled(Z, -1.0), "top": Z
}  # fmt: skip
"""Faces by the way they look, in the machine as it is laid out."""
ENDS = ("start", "end")
NAMED = re.compile(r"(?P<piece>.+)/(?P<face>[a-z]+)(?:@(?P<along>[0-9.]+)(?:,(?P<across>[0-9.]+))?)?")
SQUARE = 0.7
"""A face looks a way where its normal has at least so much of it."""
SLACK = 1e-9


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
        name: Piece, a slash, the face that looks left, right, front, back, bottom or top, the start or end of a bar,
            or its axis; behind @ the share of the length from the start, and of the width across; a half each where
            none is told.

    Raises:
        InputError: Says what of the name is not there.
    """
    found = NAMED.fullmatch(name)
    if found is None:
        raise InputError(name, "expected a bar or plate of this machine, a slash and a face")
    along, across = (_share(name, found[part]) for part in ("along", "across"))
    faces: dict[str, Face] = {one: one for one in get_args(Face)}
    face = faces.get(found["face"])
    if face is None:
        raise InputError(name, f'there is no face "{found["face"]}"; expected {", ".join(faces)}')
    try:
        return stands(structure, Footing(found["piece"], face, along, across))
    except InputError as error:
        raise InputError(name, error.problem) from None


def stands(structure: Structure, footing: Footing) -> Place:
    """Return the place that a footing tells.

    Raises:
        InputError: Says what of it is not there.
    """
    piece = structure.pieces.get(footing.piece)
    if not isinstance(piece, Bar | PlatePiece):
        raise InputError("piece", f'expected a bar or plate of this machine: there is no "{footing.piece}"')
    if footing.face in ENDS:
        out = piece.along if footing.face == "end" else scaled(piece.along, -1.0)
        return Place(piece.name, piece.end if footing.face == "end" else piece.start, out)
    axis = plus(piece.start, piece.along, _along(piece, footing))
    if footing.face == "axis":
        return Place(piece.name, axis, piece.up)
    normal, deep, over, wide = _face(piece, footing.face)
    if not -SLACK <= footing.across <= 1.0 + SLACK:
        raise InputError("across", f"expected a share of the width from 0 to 1, got {footing.across:g}")
    return Place(piece.name, plus(plus(axis, over, (footing.across - 0.5) * wide), normal, deep / 2), normal)


def length_of(structure: Structure, footing: Footing) -> float:
    """Return the length of the piece that a footing is on, m; 0 where it is not there."""
    piece = structure.pieces.get(footing.piece)
    return piece.length if isinstance(piece, Bar | PlatePiece) else 0.0


def looks(piece: Bar | PlatePiece) -> tuple[Face, ...]:
    """Return the faces that a piece has, by the way they look."""
    faces: tuple[Face, ...] = get_args(Face)
    return tuple(
        one for one in faces
        if one in FACES and abs(dot(_face_towards(piece, FACES[one])[0], FACES[one])) >= SQUARE
    )  # fmt: skip


def _along(piece: Bar | PlatePiece, footing: Footing) -> float:
    at = {
        "share": footing.along * piece.length, "start": footing.along, "end": piece.length - footing.along
    }[footing.measured]  # fmt: skip
    if not -SLACK <= at <= piece.length + SLACK:
        long = f"0 to {piece.length * 1e3:.0f} mm" if footing.measured != "share" else "a share from 0 to 1"
        raise InputError("along", f"the {piece.name} ends before that; expected {long}")
    return at


def _face(piece: Bar | PlatePiece, face: Face) -> tuple[Vector, float, Vector, float]:
    towards = FACES[face]
    normal, deep, over, wide = _face_towards(piece, towards)
    if abs(dot(normal, towards)) < SQUARE:
        raise InputError("face", f"the {piece.name} has no face that looks {face}")
    return (normal if dot(normal, towards) > 0.0 else scaled(normal, -1.0)), deep, over, wide


def _face_towards(piece: Bar | PlatePiece, towards: Vector) -> tuple[Vector, float, Vector, float]:
    side = cross(piece.up, piece.along)
    faces = [(piece.up, piece.height, side, piece.width), (side, piece.width, piece.up, piece.height)]
    return max(faces, key=lambda face: abs(dot(face[0], towards)))


def _share(name: str, text: str | None) -> float:
    value = 0.5 if text is None else float(text) if text.count(".") < 2 and text != "." else -1.0
    if not 0.0 <= value <= 1.0:
        raise InputError(name, f'expected a share from 0 to 1 behind @, got "{text}"')
    return value
