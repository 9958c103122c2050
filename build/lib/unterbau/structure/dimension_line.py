"""A size of the machine as a dimension line of its drawing."""

from dataclasses import dataclass
from typing import Literal

View = Literal["front", "side"]
"""Front: X to the right, Z up. Side, seen from the right: Y to the right, Z up."""
Flat = tuple[float, float]


@dataclass(frozen=True, slots=True)
class DimensionLine:
    """From start to end in a view; the end is taken hold of to drag the size."""

    attribute: str
    """Field of the machine's dimensions."""
    label: str
    view: View
    start: Flat
    """m, in the view's axes."""
    end: Flat
    pull: float
    """Change of the size per movement of the end away from the start: 2 where both ends move."""
    lane: int = 0
    """How many lines of text it is drawn beside its place: up or to the right, negative down or to the left."""
