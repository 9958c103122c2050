"""What a machine's feet stand on: something firm, a workbench, a stand of legs or panels, a cast block.

Each foot becomes a levelling foot and the stand's own give in series. Legs that are welded keep their ends from
turning, bolted ones only one end: 12EI/h³ and 3EI/h³ sideways, EA/h upright (Timoshenko, Strength of
Materials). Panels carry sideways loads in shear: G·t·w/h. A block counts as firm and heavy.
"""

from math import pi

from unterbau.band import Level, at_levels
from unterbau.machine.bill import Line
from unterbau.machine.frame_builder import FrameBuilder
from unterbau.machine.kind import REST
from unterbau.machine.member import member_lines, member_rings, member_values, plate_line
from unterbau.materials.material import material
from unterbau.structure.bodies import Prism, box_ring
from unterbau.structure.parts import Member, Plate, Stand, StandKind
from unterbau.structure.vectors import Vector, X, Y, Z

KEY = "stand"
LABELS: dict[StandKind, str] = {
    "firm": "something firm", "bench": "a workbench", "welded": "welded legs",
    "profile": "bolted legs of slotted profile",
    "plywood": "plywood box", "block": "cast block",
}  # fmt: skip
LEGS: dict[StandKind, tuple[Member, int]] = {
    "welded": (Member("shs-60x60x4", "steel-s235"), 12),
    "profile": (Member("tslot-40L-1x1", "aluminium-6060"), 3),
}
"""Legs, and the factor of EI/h³."""
PANEL = Plate(0.018, "birch-ply")
BLOCK = "concrete-c30"
EDGE = 0.05  # of a block or box beyond the feet
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
        wide, deep = _extent(places)
        shear = 2 * base.G * PANEL.thickness * min(wide, deep) / h / len(places)
        press = 2 * base.E * PANEL.thickness * (wide + deep) / h / len(places)
        return 1 / shear, 1 / press
    return 0.0, 0.0


def stand_lines(stand: Stand, places: list[Vector]) -> tuple[Line, ...]:
    """Return what a stand adds to the list of parts."""
    feet = Line(REST, "caster" if stand.casters else "levelling foot", len(places), 0.0, 0.0, ("foot",))
    wide, deep = _extent(places)
    if stand.kind in LEGS:
        member = LEGS[stand.kind][0]
        frame = 2 * (wide + deep)
        return (feet, *member_lines(KEY, member, len(places), stand.height), *member_lines(KEY, member, 1, frame))
    if stand.kind == "plywood":
        return (feet, plate_line(KEY, PANEL, 2, stand.height, wide), plate_line(KEY, PANEL, 2, stand.height, deep))
    if stand.kind == "block":
        base = material(BLOCK)
        mass = base.rho * wide * deep * stand.height
        return (feet, Line(KEY, f"block of {base.label}", 1, wide, mass, (f"fill:{base.id}", f"fill:{base.kind}")))
    return (feet,)


def stand_bodies(stand: Stand, places: list[Vector], chains: list[str]) -> list[Prism]:
    """Return what is drawn of a stand: legs below the feet, or one box under all."""
    if stand.kind in ("firm", "bench") or not places:
        return []
    if stand.kind in LEGS:
        rings = member_rings(LEGS[stand.kind][0])
        return [
            Prism(KEY, chain, (x, y, z - stand.height), (x, y, z), Y, rings)
            for (x, y, z), chain in zip(places, chains, strict=True)
        ]
    wide, deep = _extent(places)
    x, y = ((min(p[n] for p in places) + max(p[n] for p in places)) / 2 for n in (0, 1))
    z = min(p[2] for p in places)
    return [Prism(KEY, chains[0], (x, y, z - stand.height), (x, y, z), Y, (box_ring(wide, deep),))]


def _extent(places: list[Vector]) -> tuple[float, float]:
    """Return how far the feet stand apart along X and Y, with an edge around them, m."""
    wide, deep = (max(p[n] for p in places) - min(p[n] for p in places) + 2 * EDGE for n in (0, 1))
    return wide, deep
