"""A cross table: saddle on the base, table on the saddle, work on the table."""

from unterbau.catalogue.guides import block
from unterbau.errors import InputError
from unterbau.machine.assemblies.bed import Bed, bed, work_on
from unterbau.machine.assemblies.cures import CLAMP_NEARER, X_STANCE, Y_STANCE, Z_STANCE
from unterbau.machine.assemblies.motion import carriage, drive, rail
from unterbau.machine.assemblies.needs import TableParts
from unterbau.machine.assemblies.pieces import lay_plate
from unterbau.machine.kind import Link, Related, SizeField
from unterbau.structure.layout import Layout
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import NUT, Spot
from unterbau.structure.vectors import X, Y, Z

TABLE_LINKS = (
    Link("y_guides", "Y guides", "guide", "saddle to base"),
    Link("y_drive", "Y drive", "drive", "moves the saddle"),
    Link("y_motor", "Y motor", "drive", "holds the Y drive still"),
    Link("saddle", "saddle", "part", "between table and base"),
    Link("x_drive", "X drive", "drive", "moves the table"),
    Link("x_motor", "X motor", "drive", "holds the X drive still"),
    Link("x_guides", "X guides", "guide", "table to saddle"),
    Link("table", "table", "part", "carries the work"),
)
TABLE_SIZES = (
    SizeField("travel_x", "travel X", 0.05, 2.0),
    SizeField("travel_y", "travel Y", 0.05, 1.0),
    SizeField("travel_z", "travel Z", 0.02, 1.0),
    SizeField("lowest_tip", "tool tip over table, lowest", 0.0, 0.5),
    SizeField("throat", "spindle axis to column", 0.05, 1.5),
    SizeField("table_length", "table, length", 0.1, 3.0),
    SizeField("table_width", "table, width", 0.08, 1.0),
    SizeField("x_stance", "stance of X blocks", 0.04, 1.5),
    SizeField("y_stance", "stance of Y blocks", 0.04, 1.0),
    SizeField("rail_spacing", "between Y rails", 0.06, 1.0),
    SizeField("z_stance", "stance of Z blocks", 0.03, 1.0),
    SizeField("z_rail_spacing", "between Z rails", 0.03, 0.8),
    SizeField("clamp_height", "nose to clamp", 0.02, 0.4),
    SizeField("stop", "way left at each end", 0.0, 0.2),
)
TABLE_RELATED = {
    "y_guides": (Y_STANCE, Related("rail_spacing", 1.3, "Y rails further apart")),
    "x_guides": (X_STANCE,),
    "saddle": (X_STANCE,),
    "table": (X_STANCE,),
    "z_guides": (Z_STANCE, Related("z_rail_spacing", 1.3, "Z rails further apart")),
    "spindle": (CLAMP_NEARER,),
    "spindle_mount": (CLAMP_NEARER,),
}
DOWN = (0.0, 0.0, -1.0)
CLEAR = 0.01


def table_height(lay: Layout[TableParts]) -> float:
    """Return the table's surface over the seat of the rails on the base, m."""
    m = lay.machine
    thick: float = m.saddle.thickness + m.table.thickness
    return block(m.y_guides.block).height + block(m.x_guides.block).height + thick


def cross_table(lay: Layout[TableParts], base: Bar, seat: float) -> Bed:
    """Put a cross table on a base along Y; its surface is at z = 0, the spindle's axis at x = y = 0.

    A place of the head right of the middle means a table moved to the left.

    Args:
        lay: The machine.
        base: Part under the Y rails.
        seat: Height of the rails' seat on it, m.
    """
    m, d = lay.machine, lay.machine.dimensions
    x = y = 0.0
    y_block, x_block = block(m.y_guides.block), block(m.x_guides.block)
    reach = saddle_reach(lay)
    saddle_z = seat + y_block.height + m.saddle.thickness / 2
    for side in (-1, 1):
        ends = ((side * d.rail_spacing / 2, -reach, seat), (side * d.rail_spacing / 2, reach, seat))
        rail(lay, "y_guides", m.y_guides, base, *ends, Z)
    with lay.moved_by("y"):
        half = max(d.rail_spacing + y_block.width, d.x_stance + x_block.length) / 2
        deep = d.y_stance + y_block.length
        saddle = lay_plate(lay, "saddle", m.saddle, "saddle", (-half, y, saddle_z), (half, y, saddle_z), deep, Z)
        seats = [
            (base, (side * d.rail_spacing / 2, y + end * d.y_stance / 2, seat)) for side in (-1, 1) for end in (-1, 1)
        ]
        carriage(lay, "y_guides", m.y_guides, saddle, seats, Y, Z)
    middle = lay.near(saddle, (0.0, y, saddle_z), NUT)
    nut = lay.near(saddle, (m.y_drive.offset, y, saddle_z), NUT)
    drive(lay, "y_drive", m.y_drive, ("y_motor", m.y_motor), nut, base.first, Y, 2 * reach, base,
          (-d.travel_y / 2, d.travel_y / 2), (0.0, 0.0, -(m.saddle.thickness + y_block.height) / 2))  # fmt: skip
    return _table(lay, saddle, x, y, middle)


def _table(lay: Layout[TableParts], saddle: PlatePiece, x: float, y: float, middle: Spot) -> Bed:
    m, d = lay.machine, lay.machine.dimensions
    size = block(m.x_guides.block)
    spacing = min(d.y_stance, d.table_width - size.rail_width - 0.01)
    half, wide = d.table_length / 2, d.table_width / 2
    with lay.moved_by("xy"):
        table = bed(lay, "table", m.table, "table", (x - half, x + half), (y - wide, y + wide), 0.0)
        plate, low = table.plate, -m.table.thickness
        lines = [y + side * spacing / 2 for side in (-1, 1)]
        for line in lines:
            rail(lay, "x_guides", m.x_guides, plate, (x - half, line, low), (x + half, line, low), DOWN)
    with lay.moved_by("y"):
        seats = [(plate, (side * d.x_stance / 2, line, low)) for line in lines for side in (-1, 1)]
        carriage(lay, "x_guides", m.x_guides, saddle, seats, X, DOWN)
    with lay.moved_by("xy"):
        aside = y + m.x_drive.offset
        bearing = lay.near(plate, (x + half, aside, low), NUT)
        nut = lay.near(saddle, (0.0, aside, saddle.start[2]), NUT) if m.x_drive.offset else middle
        drive(
            lay,
            "x_drive",
            m.x_drive,
            ("x_motor", m.x_motor),
            nut,
            bearing,
            X,
            d.table_length,
            plate,
            (-d.travel_x / 2, d.travel_x / 2),
            (0.0, 0.0, (m.saddle.thickness + size.height) / 2),
        )
    work_on(lay, table, 0.0, 0.0)
    return table


def saddle_reach(lay: Layout[TableParts]) -> float:
    """Return how far the Y rails reach before and behind the spindle's axis, m."""
    m, d = lay.machine, lay.machine.dimensions
    reach: float = d.travel_y / 2 + d.y_stance / 2 + block(m.y_guides.block).length / 2 + d.stop
    return reach


def check_clear_of_column(lay: Layout[TableParts]) -> None:
    """Check that table and saddle pass in front of the column.

    Raises:
        InputError: Says how far the column has to stand off.
    """
    d = lay.machine.dimensions
    needed = max(d.travel_y / 2 + d.table_width / 2, saddle_reach(lay)) + CLEAR
    if d.throat < needed:
        expected = f"expected at least {needed * 1e3:.0f} mm: else table or saddle run into the column"
        raise InputError("dimensions.throat", expected)


def table_dimension_lines(lay: Layout[TableParts], bottom: float) -> None:
    """Draw the sizes of a cross table."""
    m, d = lay.machine, lay.machine.dimensions
    lay.size_across("travel_x", "travel X", "front", (0.0, bottom), d.travel_x, -1)
    lay.size_across("table_length", "table", "front", (0.0, 0.0), d.table_length, 1, "x")
    lay.size_across("x_stance", "X blocks", "front", (0.0, -m.table.thickness), d.x_stance, -1)
    lay.size_across("rail_spacing", "Y rails", "front", (0.0, bottom), d.rail_spacing, -2)
    lay.size_across("travel_y", "travel Y", "side", (0.0, bottom), d.travel_y, -1)
    lay.size_across("table_width", "table", "side", (0.0, 0.0), d.table_width, 1, "y")
    lay.size_across("y_stance", "Y blocks", "side", (0.0, bottom), d.y_stance, -2, "y")
