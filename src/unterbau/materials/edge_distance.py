"""How near an edge a hole may lie, by what it is drilled in."""

from unterbau.materials.material import material

METALS = ("steel", "iron", "aluminium", "brass")
METAL = 1.2
"""In diameters: EN 1993-1-8, table 3.3, least edge distance, there in diameters of the hole."""
OTHERS = {"stone": 3.0, "resin": 2.5, "plastic": 2.0, "timber": 2.5}
"""Least distance of a hole's middle from an edge, in diameters of its screw; common practice, no source."""


def least_edge(material_name: str, diameter: float) -> float:
    """Return how far a hole's middle lies from an edge at the least, m; by the diameter of its screw, m."""
    return OTHERS.get(material(material_name).kind, METAL) * diameter
