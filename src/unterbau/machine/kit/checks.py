"""Do the sizes and parts of a machine lie within what can be built?"""

from collections.abc import Mapping
from dataclasses import fields
from typing import Any

from unterbau.errors import InputError
from unterbau.machine.kind import SizeField
from unterbau.machine.parts import Cutter, Drive, Joint, Plate, Sizes, Spindle, Stand

PLATE, SLAB = 0.12, 0.5  # m
MOST_JOINTS = 24


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


def check_parts(machine: Any, most_drives: Mapping[str, int]) -> None:
    """Check plates, joints, drives, spindle and cutter of a machine.

    Raises:
        InputError: Names the value and says what was expected.
    """
    for field in fields(machine):
        part = getattr(machine, field.name)
        match part:
            case Plate():
                within(f"{field.name}.thickness", part.thickness, 0.002, thickest(field.name))
            case Joint() | Drive():
                most = most_drives.get(field.name, 1) if isinstance(part, Drive) else MOST_JOINTS
                if not 1 <= part.count <= most:
                    raise InputError(f"{field.name}.count", f"expected 1 to {most}, got {part.count}")
            case Cutter():
                thickest_bar, longest = bar_limits(field.name)
                within(f"{field.name}.diameter", part.diameter, 0.0005, thickest_bar)
                within(f"{field.name}.stick_out", part.stick_out, 0.002, longest)
            case Stand():
                within(f"{field.name}.height", part.height, 0.05, 1.5)
            case Spindle():
                check_spindle(field.name, part)
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
