"""Wire ropes that hold a counterweight: by diameter, with stiffness and breaking force."""

from dataclasses import dataclass
from math import pi

STRANDED_E = 60e9
"""Of a stranded rope over its metallic area, Pa; 50 to 80 GPa as it beds in, from memory."""
FILLED = 0.42
"""Metallic area of a 6 × 19 rope with a fibre core as a share of its circle; from memory."""
GRADE = 1770e6
"""Of the wires, Pa."""
SPUN = 0.86
"""Of the wires' strength that is left in the rope; from memory (EN 12385-4 gives 0.330·d²·grade as breaking force)."""
DIAMETERS = (0.003, 0.004, 0.005, 0.006, 0.008, 0.010)
SAFETY = 8.0
"""Breaking force over load of a rope that holds a weight above people; common practice, no source."""
GRAVITY = 9.80665


@dataclass(frozen=True, slots=True)
class Rope:
    """A rope from a moved part over a pulley to its counterweight."""

    diameter: float
    """m."""
    length: float
    """From the hook to the weight, m."""

    @property
    def breaking(self) -> float:
        """Force at which it breaks, N."""
        return FILLED * pi / 4 * self.diameter**2 * GRADE * SPUN

    @property
    def stiffness(self) -> float:
        """Along it, N/m."""
        return STRANDED_E * FILLED * pi / 4 * self.diameter**2 / self.length


def rope_for(mass: float, length: float) -> Rope:
    """Return the thinnest rope that holds a mass with the usual safety; the thickest where none does."""
    ropes = [Rope(diameter, length) for diameter in DIAMETERS]
    return next((one for one in ropes if one.breaking >= SAFETY * mass * GRAVITY), ropes[-1])
