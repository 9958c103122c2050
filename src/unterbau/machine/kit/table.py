"""A cross table: saddle on the base, table on the saddle, work on the table."""

from unterbau.catalogue.guides import block
from unterbau.errors import InputError
from unterbau.machine.kit.bed import Bed, bed, work_on
from unterbau.machine.kit.guides import carriage, drive, rail
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.plates import NUT, LaidPlate, lay_plate
from unterbau.structure.vectors import X, Y, Z

DOWN = (0.0, 0.0, -1.0)
CLEAR = 0.01


def table_height(kit: Kit) -> float:
    """Return the table's surface over the seat of the rails on the base, m."""
    m = kit.machine
    thick: float = m.saddle.thickness + m.table.thickness
    return block(m.y_guides.block).height + block(m.x_guides.block).height + thick


def cross_table(kit: Kit, base: Laid, seat: float) -> Bed:
    """Put a cross table on a base along Y; its surface is at z = 0, the spindle's axis at x = y = 0.

    The table stands where the tool meets the work at the place of the head: a place right of
    the middle means a table moved to the left.

    Args:
        kit: The machine.
        base: Part under the Y rails.
        seat: Height of the rails' seat on it, m.
    """
    m, d = kit.machine, kit.machine.dimensions
    x, y = -(kit.place.x - 0.5) * d.travel_x, -(kit.place.y - 0.5) * d.travel_y
    y_block, x_block = block(m.y_guides.block), block(m.x_guides.block)
    reach = saddle_reach(kit)
    saddle_z = seat + y_block.height + m.saddle.thickness / 2
    for side in (-1, 1):
        ends = ((side * d.rail_spacing / 2, -reach, seat), (side * d.rail_spacing / 2, reach, seat))
        rail(kit, "y_guides", base, *ends, Z)
    with kit.moved_by("Y"):
        half = max(d.rail_spacing + y_block.width, d.x_stance + x_block.length) / 2
        deep = d.y_stance + y_block.length
        saddle = lay_plate(kit, "saddle", "saddle", (-half, y, saddle_z), (half, y, saddle_z), deep, Z)
        seats = [
            (base, (side * d.rail_spacing / 2, y + end * d.y_stance / 2, seat)) for side in (-1, 1) for end in (-1, 1)
        ]
        carriage(kit, "y_guides", saddle, seats, Y, Z)
    middle = kit.near(saddle, (0.0, y, saddle_z), NUT)
    nut = kit.near(saddle, (m.y_drive.offset, y, saddle_z), NUT)
    drive(kit, "y_drive", nut, base.chain.nodes[0], Y, 2 * reach, base)
    return _table(kit, saddle, x, y, middle)


def _table(kit: Kit, saddle: LaidPlate, x: float, y: float, middle: int) -> Bed:
    m, d = kit.machine, kit.machine.dimensions
    size = block(m.x_guides.block)
    spacing = min(d.y_stance, d.table_width - size.rail_width - 0.01)
    half, wide = d.table_length / 2, d.table_width / 2
    with kit.moved_by("XY"):
        table = bed(kit, "table", "table", (x - half, x + half), (y - wide, y + wide), 0.0)
        plate, low = table.plate, -m.table.thickness
        lines = [y + side * spacing / 2 for side in (-1, 1)]
        for line in lines:
            rail(kit, "x_guides", plate, (x - half, line, low), (x + half, line, low), DOWN)
    with kit.moved_by("Y"):
        seats = [(plate, (side * d.x_stance / 2, line, low)) for line in lines for side in (-1, 1)]
        carriage(kit, "x_guides", saddle, seats, X, DOWN)
    with kit.moved_by("XY"):
        aside = y + m.x_drive.offset
        bearing = kit.near(plate, (x + half, aside, low), NUT)
        nut = kit.near(saddle, (0.0, aside, saddle.start[2]), NUT) if m.x_drive.offset else middle
        drive(kit, "x_drive", nut, bearing, X, d.table_length, plate)
    work_on(kit, table, 0.0, 0.0)
    return table


def saddle_reach(kit: Kit) -> float:
    """Return how far the Y rails reach before and behind the spindle's axis, m."""
    m, d = kit.machine, kit.machine.dimensions
    reach: float = d.travel_y / 2 + d.y_stance / 2 + block(m.y_guides.block).length / 2 + d.stop
    return reach


def check_clear_of_column(kit: Kit) -> None:
    """Check that table and saddle pass in front of the column.

    Raises:
        InputError: Says how far the column has to stand off.
    """
    d = kit.machine.dimensions
    needed = max(d.travel_y / 2 + d.table_width / 2, saddle_reach(kit)) + CLEAR
    if d.throat < needed:
        expected = f"expected at least {needed * 1e3:.0f} mm: else table or saddle run into the column"
        raise InputError("dimensions.throat", expected)


def table_dimension_lines(kit: Kit, bottom: float) -> None:
    """Draw the sizes of a cross table."""
    m, d = kit.machine, kit.machine.dimensions
    kit.size_across("travel_x", "travel X", "front", (0.0, bottom), -1)
    kit.size_across("table_length", "table", "front", (-(kit.place.x - 0.5) * d.travel_x, 0.0), 1)
    kit.size_across("x_stance", "X blocks", "front", (0.0, -m.table.thickness), -1)
    kit.size_across("rail_spacing", "Y rails", "front", (0.0, bottom), -2)
    kit.size_across("travel_y", "travel Y", "side", (0.0, bottom), -1)
    y = -(kit.place.y - 0.5) * d.travel_y
    kit.size_across("table_width", "table", "side", (y, 0.0), 1)
    kit.size_across("y_stance", "Y blocks", "side", (y, bottom), -2)
