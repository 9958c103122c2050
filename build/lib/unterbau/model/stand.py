"""What a machine's feet stand on: something firm, a workbench, a stand of legs or panels, a cast block.

Each foot becomes a levelling foot and the stand's own give in series. Legs that are welded keep their ends from
turning, bolted ones only one end: 12EI/h³ and 3EI/h³ sideways, EA/h upright (Timoshenko, Strength of
Materials). Panels carry sideways loads in shear: G·t·w/h. A block counts as firm and heavy.
"""

from math import pi

from unterbau.band import Level, at_levels
from unterbau.materials.material import material
from unterbau.model.frame_builder import FrameBuilder
from unterbau.model.member import member_values
from unterbau.structure.parts import Stand
from unterbau.structure.stand import LEGS, PANEL, REST, extent, stand_lines
from unterbau.structure.vectors import Vector, X, Z

FOOT: dict[Level, tuple[float, float]] = {"low": (2e6, 4e6), "likely": (6e6, 15e6), "high": (20e6, 60e6)}
"""Levelling foot on a firm floor, sideways and upright, N/m; common practice, no source."""
CASTER: dict[Level, tuple[float, float]] = {"low": (0.1e6, 0.5e6), "likely": (0.3e6, 1.5e6), "high": (1e6, 4e6)}
"""Locked caster instead of a foot; common practice, no source."""
ZETA = 0.04
BENCH: dict[Level, float] = {"low": 5.0, "likely": 10.0, "high": 20.0}
"""Frequency at which a workbench sways with what stands on it, Hz; common practice, no source."""
UPRIGHT = 8.0
"""A bench is so much stiffer upright than sideways."""


def ground(frame: FrameBuilder, stand: Stand, feet: list[int], carried: float) -> None:
    """Hold the feet of a frame of so many kilograms to the ground through the stand, and let it weigh on them."""
    places = [frame.places[node] for node in feet]
    k = at_levels(lambda level: _foot(stand, places, carried, level))
    mass = sum(line.mass for line in stand_lines(stand, places)) / max(1, len(feet))
    for node in feet:
        frame.spring(REST, node, -1, k, Z, X, ZETA)
        if mass:
            frame.mass(node, mass)


def _foot(stand: Stand, places: list[Vector], carried: float, level: Level) -> tuple[float, ...]:
    """Return the springs of one foot and what the stand gives under it: upright, across, across; about the same."""
    across, upright = (CASTER if stand.casters else FOOT)[level]
    give_across, give_upright = _give(stand, places)
    if stand.kind == "bench":
        give_across = len(places) / (max(carried, 1.0) * (2 * pi * BENCH[level]) ** 2)
        give_upright = give_across / UPRIGHT
    k_across, k_upright = 1 / (1 / across + give_across), 1 / (1 / upright + give_upright)
    return k_upright, k_across, k_across, 1e3, 1e3, 1e3


def _give(stand: Stand, places: list[Vector]) -> tuple[float, float]:
    """Return what the stand itself gives at each foot, sideways and upright, m/N."""
    h = stand.height
    if stand.kind in LEGS:
        member, factor = LEGS[stand.kind]
        v = member_values(member)
        return h**3 / (factor * v.E * min(v.Iy, v.Iz)), h / (v.E * v.A)
    if stand.kind == "plywood":
        base = material(PANEL.material)
        wide, deep = extent(places)
        shear = 2 * base.G * PANEL.thickness * min(wide, deep) / h / len(places)
        press = 2 * base.E * PANEL.thickness * (wide + deep) / h / len(places)
        return 1 / shear, 1 / press
    return 0.0, 0.0
