"""A joint from its bolts: what is customary where the person leaves it open, and the springs that follow."""

from math import pi

from unterbau.band import Band, Level
from unterbau.catalogue.joints import BoltGroup, Face, Six, joint, pattern
from unterbau.mechanics.bolt_group import (
    SHEARED,
    Bolt,
    BoltStiffness,
    bolt_stiffness,
    gaps_at,
    group_stiffness,
    lip_stiffness,
    preload,
    slips_at,
)
from unterbau.sections.slotted import SERIES

EDGE = 1.5
"""From a bolt to the edge of the face, in diameters; common practice, no source."""
CUSTOMARY = {"M4": 2.5, "M5": 5.0, "M6": 8.5, "M8": 20.0, "M10": 40.0, "M12": 70.0}
"""Torque in a tapped hole, N·m: about 0.8 of the ceiling of 8.8 (VDI 2230 method)."""
IN_SLOT = {"M4": 2.0, "M5": 4.5, "M6": 8.0, "M8": 14.0, "M10": 20.0, "M12": 25.0}
"""Torque on a slot nut, N·m; common practice, no source."""
CONTACT = {
    "ground": Band(1.0, 0.7, 0.5), "milled": Band(3.0, 1.7, 1.0), "extruded": Band(20.0, 10.0, 5.0),
    "painted": Band(100.0, 45.0, 20.0),
}  # fmt: skip
"""c of δ = c·√p, µm and MPa; low is the soft end. Ground and milled from memory, the others guesses."""
MICRON = 1e-6 / 1e3
SCATTER = Band(0.7, 1.0, 1.3)
"""Of the preload by torque."""
LIPS = Band(0.5, 1.0, 1.5)
SHEAR = Band(*SHEARED)
NUT = {"slot-20": 10e-3, "slot-30": 14e-3, "slot-40": 16e-3, "slot-45": 20e-3}
OF_SLOT = {"slot-20": "20", "slot-30": "30L", "slot-40": "40L", "slot-45": "45L"}
CORES = {"core-20": "20", "core-30": "30L", "core-40": "40L", "core-45": "45L"}
"""A screw tapped into the end of a profile pulls on its core, from which the webs take over along SPREAD."""
SPREAD = 0.04
"""m; common practice, no source."""
E_JOINED, G_JOINED = 70e9, 26.9e9
"""Aluminium is counted on the other side: the softer of the usual pairs."""
BRACKET = {
    "aluminium": Band(70e9, 70e9, 70e9), "steel": Band(210e9, 210e9, 210e9), "printed": Band(1.2e9, 2.5e9, 5e9),
}  # fmt: skip
"""E of plate or bracket; printed: across its layers at the low end, solid and along them at the high; from memory."""
ZETA = 0.02
SOURCE = (
    "contact δ = c·√p (Levina; Back, Burdekin and Cowley; Rivin), clamped parts by Shigley's frustum, preload by "
    "torque with K 0.2; from memory; damping common practice, no source"
)


def bolt_of(bolts: BoltGroup, level: Level) -> Bolt:
    """Return one bolt of a group at a level: rough contact and little preload together are low."""
    diameter = float(bolts.size[1:]) * 1e-3
    torque = bolts.torque or (IN_SLOT if bolts.into in OF_SLOT else CUSTOMARY)[bolts.size]
    lips = 0.0
    if bolts.into in CORES:
        s = SERIES[CORES[bolts.into]]
        metal = (s.core**2 - pi / 4 * s.bore**2) * 1e-6
        lips = E_JOINED * metal / SPREAD * LIPS.at(level)
    elif bolts.into != "tapped":
        s = SERIES[OF_SLOT[bolts.into]]
        mm = 1e-3
        whole = lip_stiffness(s.chamber * mm, s.slot * mm, s.lip * mm, NUT[bolts.into], E_JOINED, G_JOINED)
        lips = whole * LIPS.at(level)
    E = BRACKET[bolts.bracket].at(level)
    return Bolt(
        diameter, preload(torque, diameter) * SCATTER.at(level), bolts.thickness, 2 / (1 / E + 1 / E_JOINED),
        CONTACT[bolts.surface].at(level) * MICRON, SHEAR.at(level), lips, bolts.leg, 4 * diameter, E,
    )  # fmt: skip


def places(bolts: BoltGroup, face: Face) -> list[tuple[float, float]]:
    """Return where the bolts stand, across and along the face from its middle, m."""
    edge = bolts.edge or EDGE * float(bolts.size[1:]) * 1e-3
    return list(pattern(bolts.across * bolts.along, face, bolts.across, edge))


def bolted_springs(bolts: BoltGroup, level: Level, face: Face) -> Six:
    """Return the six stiffnesses of a group on a face, along the normal, across, along up; about the same."""
    k = group_stiffness(places(bolts, face), bolt_of(bolts, level))
    if not bolts.bonded:
        return k
    line = joint("epoxied").springs(level, 1, face)
    a, b, c, d, e, f = (one + other for one, other in zip(k, line, strict=True))
    return a, b, c, d, e, f


def each(bolts: BoltGroup) -> tuple[Band, Band]:
    """Return the stiffness of one bolt off the face and along it, N/m."""
    found: list[BoltStiffness] = [bolt_stiffness(bolt_of(bolts, level)) for level in ("low", "likely", "high")]
    return Band(*(one.normal for one in found)), Band(*(one.shear for one in found))


def limits(bolts: BoltGroup, height: float) -> tuple[float, float, float]:
    """Return preload of each bolt, N; force at which the group slips, N; moment at which a face opens, N·m; likely."""
    bolt, count = bolt_of(bolts, "likely"), bolts.across * bolts.along
    return bolt.preload, slips_at(bolt, count), gaps_at(bolt, count, height)
