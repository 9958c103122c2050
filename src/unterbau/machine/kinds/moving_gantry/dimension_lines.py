"""The router's sizes as dimension lines of its front and side view."""

from unterbau.machine.dimension_line import DimensionLine, Flat, View
from unterbau.machine.kinds.moving_gantry.geometry import geometry
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.member import member_size
from unterbau.machine.parts import Place


def dimension_lines(machine: MovingGantry, place: Place) -> tuple[DimensionLine, ...]:
    """Return every size that shows in a drawing, at a place of the head."""
    d, at = machine.dimensions, geometry(machine, place)
    found: list[DimensionLine] = []

    def across(attribute: str, label: str, view: View, middle: Flat, lane: int) -> None:
        half = getattr(d, attribute) / 2
        u, v = middle
        found.append(DimensionLine(attribute, label, view, (u - half, v), (u + half, v), 2.0, lane))

    def along(attribute: str, label: str, start: Flat, end: Flat, lane: int, pull: float = 1.0) -> None:
        found.append(DimensionLine(attribute, label, "side", start, end, pull, lane))

    top = at.z_plate_z[1]
    bottom = at.side_beam_top - member_size(machine.side_beam)[0]
    across("travel_x", "travel X", "front", (0.0, bottom), -1)
    across("x_stance", "X blocks", "front", (at.head_x, top), 2)
    across("z_rail_spacing", "Z rails", "front", (at.head_x, top), 1)
    left = -at.side_x + 0.1 * at.beam_length
    found.append(DimensionLine("clearance", "bed to beam", "front", (left, 0.0), (left, d.clearance), 1.0))
    across("travel_y", "travel Y", "side", (0.0, bottom), -1)
    across("y_stance", "Y blocks", "side", (at.side_y, bottom), -2)
    front = at.head_y - machine.spindle.diameter / 2
    raised = at.tip_z - d.lowest_tip
    along("lowest_tip", "tip, lowest", (front, 0.0), (front, d.lowest_tip), -1)
    along("clamp_height", "nose to clamp", (front, at.nose_z), (front, at.clamp_z), -2)
    along("travel_z", "travel Z", (front, at.nose_z - raised), (front, at.nose_z - raised + d.travel_z), -3)
    along("spindle_overhang", "overhang", (at.z_plate_y, top), (at.head_y, top), 1)
    back = at.side_y + at.side_width / 2
    middle = sum(at.z_block_z) / 2
    along("z_stance", "Z blocks", (back, middle - d.z_stance / 2), (back, middle + d.z_stance / 2), 1, pull=2.0)
    return tuple(found)
