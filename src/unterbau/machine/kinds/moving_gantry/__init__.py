"""The moving-gantry router: low rails, tall sides."""

from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import bill, bodies, geometry, model
from unterbau.machine.kinds.moving_gantry.dimension_lines import dimension_lines
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.kinds.moving_gantry.to_frame import to_frame


def _travel(machine: MovingGantry) -> tuple[float, float, float]:
    d = machine.dimensions
    return d.travel_x, d.travel_y, d.travel_z


KIND = Kind(
    MovingGantry, "moving-gantry-router", "router, moving gantry", "large bed in little space, easy to build",
    "tall sides nod and rack; the whole gantry is moved", model.LINKS, geometry.SIZES, _travel, to_frame, bodies.bodies,
    bill.lines, bill.moving_masses, bill.plate_widths, dimension_lines, model.ENDS, model.FITTING, model.RELATED,
    model.MORE, model.MOST_DRIVES,
)  # fmt: skip
