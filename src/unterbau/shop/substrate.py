"""What a screw finds in a material: a thread, or what has to take its place where none can be cut.

Common practice, no source: threads are cut in metals; stone takes bonded inserts, prints take heat-set ones, timber
takes T-nuts from behind through a face and wood screws in an edge.
"""

from typing import Literal

from unterbau.materials.edge_distance import METALS
from unterbau.materials.material import material

Sort = Literal[
    "clearance", "tapped", "slot nut", "insert", "plug", "bonded insert", "heat-set insert", "T-nut", "wood screw"
]
IN_FACE: dict[str, Sort] = {
    "stone": "bonded insert", "resin": "bonded insert", "plastic": "heat-set insert", "timber": "T-nut",
}  # fmt: skip
IN_EDGE: dict[str, Sort] = {**IN_FACE, "timber": "wood screw"}
PILOT = 0.7
"""Hole for a wood screw, in its diameters; common practice, no source."""
BOUGHT: tuple[Sort, ...] = ("slot nut", "insert", "plug", "bonded insert", "heat-set insert", "T-nut")
"""What is bought beside the screw."""


def seat(material_name: str, edge: bool = False) -> Sort:
    """Return what holds a screw in a material: in a face, or in an edge of a plate or the end of a solid bar."""
    kind = material(material_name).kind
    if kind in METALS:
        return "tapped"
    return (IN_EDGE if edge else IN_FACE).get(kind, "bonded insert")
