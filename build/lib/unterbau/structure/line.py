"""A line of the list of parts, before it has a price."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Line:
    """So many equal pieces of a part."""

    part: str
    """Key of the link it belongs to, or `feet`."""
    text: str
    count: int
    length: float
    """Of each piece, m; 0 where there is none to state."""
    mass: float
    """All pieces, kg."""
    names: tuple[str, ...]
    """In the price book, the more particular first; none where the price of its set has it in."""
    width: float = 0.0
    """Of each plate, m."""
