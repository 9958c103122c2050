"""The router's list of parts; its masses are those of the frame."""

import math

from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.catalogue.prices import PriceBook, shipped_prices
from unterbau.machine.bill import Item, total_mass
from unterbau.machine.kinds.moving_gantry.gantry import FOOT_STRIP
from unterbau.machine.kinds.moving_gantry.geometry import Geometry, geometry
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.member import member_values
from unterbau.machine.parts import Drive, Guide, Joint, Member, Place, Plate
from unterbau.materials.material import material
from unterbau.sections.section import section


def bill(machine: MovingGantry) -> tuple[Item, ...]:
    """Return every item of the machine."""
    at, book, m = geometry(machine, Place()), shipped_prices(), machine
    side_beam = at.side_beam_y[1] - at.side_beam_y[0]
    z_height = at.z_plate_z[1] - at.z_plate_z[0]
    return (
        *_member("side_beam", m.side_beam, 2, side_beam, book),
        *_member("cross_member", m.cross_member, len(at.cross_y), at.cross_length, book),
        *_member("gantry_beam", m.gantry_beam, 1, at.beam_length, book),
        _plate("bed", m.bed, 1, at.bed_width, at.bed_length, book),
        _plate("side", m.side, 2, *_side_area(m, at), book),
        _plate("x_plate", m.x_plate, 1, at.x_plate_width, at.x_plate_z[1] - at.x_plate_z[0], book),
        _plate("z_plate", m.z_plate, 1, at.z_plate_width, z_height, book),
        _joint("cross_joint", m.cross_joint, 2 * len(at.cross_y), book),
        _joint("beam_joint", m.beam_joint, 2, book),
        _joint("bed_fixing", m.bed_fixing, len(at.cross_y) * len(at.grid_x), book),
        _joint("spindle_mount", m.spindle_mount, 1, book),
        *_guide("y_guides", m.y_guides, side_beam, book),
        *_guide("x_guides", m.x_guides, at.beam_length, book),
        *_guide("z_guides", m.z_guides, z_height, book),
        _drive("y_drive", m.y_drive, side_beam, book),
        _drive("x_drive", m.x_drive, at.beam_length, book),
        _drive("z_drive", m.z_drive, m.dimensions.travel_z + 0.06, book),
        Item("spindle", "spindle", 1, 0.0, m.spindle.mass, book.spindle),
        Item(
            "cutter",
            f"cutter ⌀{m.cutter.diameter * 1e3:g}",
            1,
            m.cutter.stick_out,
            _cutter_mass(m),
            book.cutter,
        ),
        Item("feet", "levelling foot", 4, 0.0, 0.0, 4 * book.foot),
    )


def lengths(machine: MovingGantry) -> dict[str, float]:
    """Return the length of each part that is cut to length, m."""
    return {item.part: item.length for item in reversed(bill(machine)) if item.length}


def plate_widths(machine: MovingGantry) -> dict[str, float]:
    """Return the width of each plate, m."""
    at = geometry(machine, Place())
    return {"bed": at.bed_width, "side": at.side_width, "x_plate": at.x_plate_width, "z_plate": at.z_plate_width}


def moving_masses(machine: MovingGantry) -> dict[str, float]:
    """Return what each drive moves, kg, by axis.

    Rails count to what they are bolted on, motors to what carries them.
    """
    at, m = geometry(machine, Place()), machine
    items = bill(machine)

    def of(*parts: str) -> float:
        return total_mass(tuple(item for item in items if item.part in parts))

    blocks = {
        axis: 4 * block(g.block).block_mass for axis, g in (("X", m.x_guides), ("Y", m.y_guides), ("Z", m.z_guides))
    }
    z_rails = 2 * block(m.z_guides.block).rail_mass * (at.z_plate_z[1] - at.z_plate_z[0])
    z = of("spindle", "cutter", "z_plate") + z_rails
    x = z + of("x_plate", "z_drive") + blocks["Z"] + blocks["X"]
    x_rails = 2 * block(m.x_guides.block).rail_mass * at.beam_length
    y = x + of("gantry_beam", "side", "x_drive") + x_rails + blocks["Y"]
    return {"X": x, "Y": y, "Z": z}


def _member(part: str, member: Member, count: int, length: float, book: PriceBook) -> tuple[Item, ...]:
    shape, base = section(member.section), material(member.material)
    total = member_values(member).mass_per_metre * length * count
    own = base.rho * shape.properties.A * length * count
    slotted = member.section.startswith(("tslot", "cprofile"))
    price = book.slotted_per_kg if slotted else book.per_kg[base.kind]
    items = [Item(part, f"{shape.label}, {base.label}", count, length, own, own * price)]
    if member.fill is not None:
        inside = material(member.fill)
        items.append(
            Item(
                part,
                f"fill, {inside.label}",
                count,
                length,
                total - own,
                (total - own) * book.per_kg[inside.kind],
            )
        )
    return tuple(items)


def _plate(part: str, plate: Plate, count: int, width: float, length: float, book: PriceBook) -> Item:
    base = material(plate.material)
    mass = base.rho * plate.thickness * width * length * count
    money = mass * book.per_kg[base.kind] * book.plate_factor
    return Item(part, f"plate {plate.thickness * 1e3:g} mm, {base.label}", count, length, mass, money)


def _side_area(m: MovingGantry, at: Geometry) -> tuple[float, float]:
    """Return width and length with the area of one side plate's strips as modelled."""
    upright = at.side_width * (at.side_top - at.side_foot - FOOT_STRIP / 2)
    foot = FOOT_STRIP / 2 * m.dimensions.y_stance
    return at.side_width, (upright + foot) / at.side_width


def _joint(part: str, joint: Joint, faces: int, book: PriceBook) -> Item:
    pieces = faces * joint.count
    return Item(part, joint.kind, pieces, 0.0, 0.0, pieces * book.joint[joint.kind])


def _guide(part: str, guide: Guide, rail: float, book: PriceBook) -> tuple[Item, ...]:
    size = block(guide.block)
    rails = Item(
        part,
        f"rail {size.label}",
        2,
        rail,
        2 * rail * size.rail_mass,
        2 * rail * book.rail_per_m[guide.block],
    )
    carriages = Item(part, f"block {size.label}", 4, 0.0, 4 * size.block_mass, 4 * book.block[guide.block])
    return (rails, carriages)


def _drive(part: str, chosen: Drive, length: float, book: PriceBook) -> Item:
    kind = drive(chosen.kind)
    fixed, per_metre = book.drive[chosen.kind]
    mass = chosen.count * (kind.motor_mass + kind.mass_per_metre * length)
    return Item(
        part,
        f"{kind.label} with motor",
        chosen.count,
        length,
        mass,
        chosen.count * (fixed + per_metre * length),
    )


def _cutter_mass(m: MovingGantry) -> float:
    c = m.cutter
    return material(c.material).rho * math.pi * c.diameter**2 / 4 * c.stick_out
