"""A place on a piece that something is fastened to."""

from dataclasses import dataclass

from unterbau.structure.vectors import Vector

BOLT = (0.009, 0.009)
"""Half the patch under a bolt with its washer, m."""
NUT = (0.02, 0.02)
"""Half the patch under a nut or a bearing."""


@dataclass(frozen=True, slots=True)
class Spot:
    """Where something is fastened."""

    piece: str
    """Name of the piece."""
    place: Vector
    """As laid out; it moves with the piece."""
    half: tuple[float, float] = BOLT
    """Half of what is kept rigid of a plate there, along it and across, m."""
