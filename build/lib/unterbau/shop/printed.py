"""Printed pieces: what they weigh, how long they print, how stiff they are left, and that they creep."""

from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.materials.material import material
from unterbau.shop.pieces import ShopPiece
from unterbau.strict import STRICT

CREEP = (
    "lasting load halves its stiffness in some 1,000 hours, and bolts lose their preload: washers, metal sleeves, "
    "no belt tension through it; from memory"
)


@dataclass(frozen=True, slots=True)
class Printing:
    """How structural pieces are printed; start values are common practice, no source."""

    __pydantic_config__ = STRICT

    walls: int = 8
    line: float = 0.45e-3
    """Width of a line, m."""
    infill: float = 0.8
    """Share of the inside that is filled."""
    rate: float = 10e-6
    """Plastic laid down in an hour, m³."""


@dataclass(frozen=True, slots=True)
class Print:
    """What a piece becomes on a printer."""

    mass: float
    """kg."""
    hours: float
    solid: float
    """Share of its volume that is plastic."""
    bending: float
    """Of its stiffness in bending as a full piece: EI = shell + share of the inside."""


def print_of(piece: ShopPiece, how: Printing) -> Print:
    """Return a plate as it is printed lying.

    Source:
        Shell and core: EI = I(full) − I(core) + share·I(core) with the core as stiff as its share of plastic
        (cells along the layers); walls as thick all around.
    """
    long, wide, tall = piece.length, piece.width, piece.thickness
    wall = how.walls * how.line
    inside = [max(side - 2 * wall, 0.0) for side in (long, wide, tall)]
    core, full = inside[0] * inside[1] * inside[2], long * wide * tall
    plastic = (full - core + how.infill * core) * (0.5 if piece.halved else 1.0)
    full_i, core_i = wide * tall**3, inside[1] * inside[2] ** 3
    return Print(
        plastic * material(piece.material).rho, plastic / how.rate, plastic / (full * (0.5 if piece.halved else 1.0)),
        (full_i - core_i + how.infill * core_i) / full_i,
    )  # fmt: skip


def check_printing(how: Printing) -> None:
    """Check how prints are set.

    Raises:
        InputError: With the field at fault.
    """
    if not 1 <= how.walls <= 100:
        raise InputError("walls", f"expected 1 to 100 walls, got {how.walls}")
    if not 0.1e-3 <= how.line <= 3e-3:
        raise InputError("line", f"expected lines of 0.1 to 3 mm, got {how.line * 1e3:g} mm")
    if not 0.0 <= how.infill <= 1.0:
        raise InputError("infill", f"expected 0 to 100 %, got {how.infill * 100:g} %")
    if not 1e-7 <= how.rate <= 1e-3:
        raise InputError("rate", f"expected 0.1 to 1000 cm³ an hour, got {how.rate * 1e6:g}")
