"""Do the sizes and parts of a machine lie within what can be built?"""

from collections.abc import Mapping
from dataclasses import fields

from unterbau.catalogue.guides import block
from unterbau.errors import InputError
from unterbau.machine.kind import SizeField
from unterbau.materials.material import material
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Part, Plate, Sizes, Spindle, Stand

PLATE, SLAB = 0.12, 0.5  # m
THIN = 0.001
"""Of a layer at the least, m."""
MOST_JOINTS = 24
TOUCHING = 1e-6
MOST_ADDED = 4
BED, MOST_STRIPS = "bed", 12
"""Link that plates with T-slots are offered for, and how many side by side."""
MOST_PLAY = 0.001
MOST_RIBS = 8
"""Of a cast base, each way."""
LONGEST_RUN = 1e5
"""That a motor is said to run without a rest, s."""


def check_sizes(sizes: Sizes, limits: tuple[SizeField, ...]) -> None:
    """Check every size.

    Raises:
        InputError: Names the size and says what was expected.
    """
    for one in limits:
        value = getattr(sizes, one.attribute)
        if one.count and not one.low <= value <= one.high:
            expected = f"expected {one.low:g} to {one.high:g}, got {value}"
            raise InputError(f"dimensions.{one.attribute}", expected)
        if not one.count:
            within(f"dimensions.{one.attribute}", value, one.low, one.high)


def check_parts(
    machine: object, most_drives: Mapping[str, int], ribbed: tuple[str, ...], gusseted: tuple[str, ...]
) -> None:
    """Check plates, joints, drives, spindle and cutter of a machine.

    Raises:
        InputError: Names the value and says what was expected.
    """
    for field in fields(machine):  # type: ignore[arg-type]
        part = getattr(machine, field.name)
        if isinstance(part, Joint | Drive):
            _check_pieces(field.name, part, most_drives.get(field.name, 1), gusseted)
        elif isinstance(part, Spindle):
            check_spindle(field.name, part)
        else:
            check_sizes_of(field.name, part, ribbed)


def check_stances(machine: object, sizes: Sizes) -> None:
    """Check that blocks on one rail stand apart.

    Raises:
        InputError: Names the stance and says how much it is at the least.
    """
    for field in fields(sizes):
        guide = getattr(machine, field.name.replace("_stance", "_guides"), None)
        if not field.name.endswith("_stance") or not isinstance(guide, Guide):
            continue
        size, stance = block(guide.block), getattr(sizes, field.name)
        least = size.length * max(1, guide.blocks - 1)
        if stance < least - TOUCHING:
            apart = f"{guide.blocks} blocks of {size.length * 1e3:g} mm on a rail"
            expected = (
                f"expected at least {least * 1e3:g} mm, got {stance * 1e3:g} mm: {apart} would stand in each other"
            )
            raise InputError(f"dimensions.{field.name}", expected)


def _check_pieces(name: str, part: Joint | Drive, most_drives: int, gusseted: tuple[str, ...]) -> None:
    most = most_drives if isinstance(part, Drive) else MOST_JOINTS
    if not 1 <= part.count <= most:
        raise InputError(f"{name}.count", f"expected 1 to {most}, got {part.count}")
    if isinstance(part, Drive):
        within(f"{name}.offset", part.offset, -0.5, 0.5)
    else:
        if not 0 <= part.across <= MOST_JOINTS:
            raise InputError(f"{name}.across", f"expected 0 to {MOST_JOINTS}, got {part.across}")
        within(f"{name}.edge", part.edge, 0.0, 0.3)
        within(f"{name}.play", part.play, 0.0, MOST_PLAY)
        _check_added(name, "gussets", part.gussets, gusseted)
        within(f"{name}.gusset_leg", part.gusset_leg, 0.02, 0.4)
        within(f"{name}.gusset_thickness", part.gusset_thickness, 0.002, 0.05)


def check_joint(name: str, part: Joint) -> None:
    """Check a joint where there is no corner for gussets.

    Raises:
        InputError: Names the value and says what was expected.
    """
    _check_pieces(name, part, 1, ())


def _check_added(name: str, what: str, count: int, where: tuple[str, ...]) -> None:
    if count and name not in where:
        raise InputError(f"{name}.{what}", f"expected 0: there is no room for {what} here")
    if not 0 <= count <= MOST_ADDED:
        raise InputError(f"{name}.{what}", f"expected 0 to {MOST_ADDED}, got {count}")


def check_sizes_of(name: str, part: Part, ribbed: tuple[str, ...]) -> None:
    """Check the sizes of a plate, a guide, a member or what is bought.

    Raises:
        InputError: Names the value and says what was expected.
    """
    match part:
        case Plate():
            within(f"{name}.thickness", part.thickness, 0.002, thickest(name))
            _check_added(name, "ribs", part.ribs, ribbed)
            within(f"{name}.rib_height", part.rib_height, 0.01, 0.2)
            within(f"{name}.rib_thickness", part.rib_thickness, 0.002, 0.05)
            if part.under is not None:
                material(part.under)
                within(f"{name}.under_thickness", part.under_thickness, THIN, part.thickness - THIN)
            _check_strips(name, part)
        case Guide():
            if not 1 <= part.blocks <= 6:
                raise InputError(f"{name}.blocks", f"expected 1 to 6, got {part.blocks}")
        case Member():
            within(f"{name}.pitch", part.pitch, 0.02, 1.0)
            if part.diaphragms:
                within(f"{name}.diaphragms", part.diaphragms, 0.03, 2.0)
            if part.backing:
                within(f"{name}.backing", part.backing, 0.001, 0.03)
        case _:
            _check_bought(name, part)


def _check_strips(name: str, part: Plate) -> None:
    if not 0 <= part.strips <= MOST_STRIPS:
        raise InputError(f"{name}.strips", f"expected 0 to {MOST_STRIPS}, got {part.strips}")
    if part.strips and (name != BED or material(part.material).kind != "aluminium" or part.under is not None):
        raise InputError(f"{name}.strips", "expected 0: plates with T-slots are aluminium, in one layer, for a bed")


def _check_bought(name: str, part: Part) -> None:
    match part:
        case Cutter():
            thickest_bar, longest = bar_limits(name)
            within(f"{name}.diameter", part.diameter, 0.0005, thickest_bar)
            within(f"{name}.stick_out", part.stick_out, 0.002, longest)
            within(f"{name}.flute_length", part.flute_length, 0.0, longest)
            within(f"{name}.shank", part.shank, 0.0, thickest_bar)
        case Motor():
            if not 0.0 <= part.torque <= 100.0:
                raise InputError(f"{name}.torque", f"expected 0 to 100 N·m, got {part.torque:g}")
            if not 0.0 <= part.on <= LONGEST_RUN:
                raise InputError(f"{name}.on", f"expected 0 to {LONGEST_RUN:g} s, got {part.on:g} s")
        case Stand():
            within(f"{name}.height", part.height, 0.05, 1.5)
            within(f"{name}.thickness", part.thickness, 0.02, SLAB)
            within(f"{name}.beyond", part.beyond, 0.03, 0.5)
            within(f"{name}.rib_height", part.rib_height, 0.02, 0.5)
            within(f"{name}.rib_thickness", part.rib_thickness, 0.01, 0.3)
            if part.ribs != 0 and not 2 <= part.ribs <= MOST_RIBS:
                raise InputError(f"{name}.ribs", f"expected none, or 2 to {MOST_RIBS} each way, got {part.ribs}")
        case _:
            pass


def thickest(key: str) -> float:
    """Return the largest thickness of a plate: slabs of stone or cast iron are more than plates, m."""
    return SLAB if key == "slab" else PLATE


def bar_limits(key: str) -> tuple[float, float]:
    """Return the largest diameter and stick-out of a cutter, or of round work, m."""
    return (0.5, 2.0) if key == "work" else (0.06, 0.3)


def check_spindle(where: str, s: Spindle) -> None:
    """Check a spindle.

    Raises:
        InputError: Names the value and says what was expected.
    """
    if not 0.0 < s.mass <= 500.0:
        raise InputError(f"{where}.mass", f"expected more than 0 and up to 500 kg, got {s.mass:g} kg")
    if not 1.0 <= s.power <= 1e6:
        raise InputError(f"{where}.power", f"expected 1 W to 1 MW, got {s.power:g} W")
    if not 0.0 <= s.torque <= 1e4:
        raise InputError(f"{where}.torque", f"expected 0 to 10000 N·m, got {s.torque:g}")
    within(f"{where}.diameter", s.diameter, 0.01, 0.5)
    within(f"{where}.length", s.length, 0.03, 1.5)
    for name in ("radial", "axial", "tilt"):
        if not 1.0 <= getattr(s, name) <= 1e12:
            raise InputError(f"{where}.{name}", f"expected a stiffness from 1 to 1e12, got {getattr(s, name):g}")


def within(where: str, value: float, low: float, high: float) -> None:
    """Check a length, m.

    Raises:
        InputError: Says what was expected.
    """
    if not low <= value <= high:
        raise InputError(where, f"expected {low * 1e3:g} to {high * 1e3:g} mm, got {value * 1e3:g} mm")
