"""The two pieces of a clash as bodies that are lit up."""

from PyQt6.QtGui import QColor

from unterbau.machine.machine import Machine, lay_out
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.solids.solids import solids
from unterbau.structure.parts import Place
from unterbau.studies.clash import Clash
from unterbau.ui.theme import colour, heat
from unterbau.ui.viewport.lit_bodies import prism_faces

SECOND = 0.9
"""On the heat scale."""


def clashing(machine: Machine, place: Place, clash: Clash | None) -> list[tuple[FloatArray, IntArray, QColor]]:
    """Return points, faces and colour of the two pieces of a clash with the head at a place; none without a clash."""
    if clash is None:
        return []
    inks = {clash.first: colour("accent"), clash.second: heat(SECOND)}
    return [
        (one.body.corners, prism_faces(one.body.corners), inks[one.name])
        for one in solids(lay_out(machine), place) if one.name in inks
    ]  # fmt: skip
