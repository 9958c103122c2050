"""A place on the surface of a piece, told so that it follows when a size changes."""

from dataclasses import dataclass
from typing import Literal

from unterbau.strict import STRICT

Face = Literal["left", "right", "front", "back", "bottom", "top", "start", "end", "axis"]
Measured = Literal["share", "start", "end"]


@dataclass(frozen=True, slots=True)
class Footing:
    """A piece, which of its faces, and how far along and across."""

    __pydantic_config__ = STRICT

    piece: str
    face: Face = "axis"
    """The face that looks that way as the machine is laid out; its start or end; the axis in its middle."""
    along: float = 0.5
    """A share of the piece's length; or m from its start or its end."""
    across: float = 0.5
    """A share of the face's width."""
    measured: Measured = "share"
