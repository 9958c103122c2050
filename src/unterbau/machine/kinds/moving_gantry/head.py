"""The head: X plate, Z plate, spindle, cutter."""

from dataclasses import dataclass

from unterbau.band import Level
from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import Face
from unterbau.machine.frame_builder import Chain, X, Y, Z, merged, minus, subdivided
from unterbau.machine.kinds.moving_gantry.building import Building
from unterbau.machine.kinds.moving_gantry.gantry import Gantry
from unterbau.machine.kinds.moving_gantry.geometry import CLAMP
from unterbau.machine.member import round_values, strip_values

SPINDLE_SPREAD: dict[Level, float] = {"low": 0.6, "likely": 1.0, "high": 1.6}
"""Common practice, no source."""
SPINDLE_ZETA = 0.02


@dataclass(frozen=True, slots=True)
class Head:
    """What meets the work."""

    tip: int
    nose: int
    x_plate: Chain
    z_plate: Chain
    spindle: int


def build_head(b: Building, gantry: Gantry) -> Head:
    """Hang the head on the gantry beam and return its ends."""
    x_plate = _x_plate(b, gantry)
    z_plate, clamp = _z_plate(b, x_plate)
    spindle, nose, tip = _spindle(b, clamp)
    return Head(tip, nose, x_plate, z_plate, spindle)


def _x_plate(b: Building, gantry: Gantry) -> Chain:
    at, frame, m = b.at, b.frame, b.machine
    x, y = at.head_x, at.x_plate_y
    stops = merged([*at.x_plate_z, *at.x_rail_z, *at.z_block_z, at.beam_z])
    nodes = [frame.node(f"X plate {n + 1}", (x, y, z)) for n, z in enumerate(stops)]
    chain = frame.chain("x_plate", nodes, strip_values(m.x_plate, at.x_plate_width), Y)
    size = block(m.x_guides.block)
    strip = strip_values(m.x_plate, size.width + 0.03, mass_share=0.0)
    for z in at.x_rail_z:
        level = _nearest(b, nodes, z)
        for side in (-1, 1):
            place = (x + side * m.dimensions.x_stance / 2, at.rail_y - size.height / 2, z)
            node = frame.node(f"X block {'left' if side < 0 else 'right'} {z * 1e3:.0f}", place)
            frame.beam("x_plate", level, node, strip, Y, offset_j=minus((place[0], y, frame.places[level][2]), place))
            frame.mass(node, size.block_mass)
            b.block("x_guides", node, gantry.beam, m.x_guides, X, (0.0, -1.0, 0.0))
    bearing = gantry.beam.nodes[0]
    distance = x - frame.places[bearing][0]
    b.drive("x_drive", _nearest(b, nodes, at.beam_z), bearing, m.x_drive, X, distance, at.beam_length)
    kind = drive(m.z_drive.kind)
    frame.mass(nodes[-1], kind.motor_mass + kind.mass_per_metre * _z_screw(b), offset=(0.0, 0.0, 0.03))
    return chain


def _z_screw(b: Building) -> float:
    return b.machine.dimensions.travel_z + 0.06


def _nearest(b: Building, nodes: list[int], z: float) -> int:
    return min(nodes, key=lambda n: abs(b.frame.places[n][2] - z))


def _z_plate(b: Building, x_plate: Chain) -> tuple[Chain, int]:
    at, frame, m = b.at, b.frame, b.machine
    x, y = at.head_x, at.z_plate_y
    bottom, top = at.z_plate_z
    stops = subdivided(merged([bottom, top, at.clamp_z]), 6)
    nodes = [frame.node(f"Z plate {n + 1}", (x, y, z)) for n, z in enumerate(stops)]
    chain = frame.chain("z_plate", nodes, strip_values(m.z_plate, at.z_plate_width), Y)
    size = block(m.z_guides.block)
    strip = strip_values(m.x_plate, size.length + 0.02, mass_share=0.0)
    for z in at.z_block_z:
        level = _nearest(b, list(x_plate.nodes), z)
        for side in (-1, 1):
            place = (
                x + side * m.dimensions.z_rail_spacing / 2,
                y + m.z_plate.thickness / 2 + size.height / 2,
                z,
            )
            node = frame.node(f"Z block {'left' if side < 0 else 'right'} {z * 1e3:.0f}", place)
            offset = minus((place[0], at.x_plate_y, z), place)
            frame.beam("x_plate", level, node, strip, Y, offset_j=offset)
            frame.mass(node, size.block_mass)
            b.block("z_guides", node, chain, m.z_guides, Z, Y)
    frame.spread(chain.nodes, 2 * size.rail_mass * (top - bottom))
    nut = _nearest(b, nodes, (bottom + top) / 2)
    distance = frame.places[x_plate.nodes[-1]][2] - frame.places[nut][2]
    b.drive("z_drive", nut, x_plate.nodes[-1], m.z_drive, Z, abs(distance), _z_screw(b))
    return chain, _nearest(b, nodes, at.clamp_z)


def _spindle(b: Building, clamp: int) -> tuple[int, int, int]:
    at, frame, s, c = b.at, b.frame, b.machine.spindle, b.machine.cutter
    x, y = at.head_x, at.head_y
    body = frame.node("spindle body", (x, y, at.clamp_z))
    nose = frame.node("spindle nose", (x, y, at.nose_z))
    tip = frame.node("tool tip", (x, y, at.tip_z))
    b.join("spindle_mount", body, clamp, b.machine.spindle_mount, Face(2 * CLAMP, s.diameter), normal=Y, up=Z)
    r = s.diameter / 2
    across = s.mass * (3 * r**2 + s.length**2) / 12
    to_centre = at.nose_z + s.length / 2 - at.clamp_z
    frame.mass(body, s.mass, (0.0, 0.0, to_centre), (across, across, s.mass * r**2 / 2))
    f = SPINDLE_SPREAD[b.level]
    k = (s.axial * f, s.radial * f, s.radial * f, s.tilt * f, s.tilt * f, s.tilt * f)
    frame.spring("spindle", nose, body, k, Z, X, SPINDLE_ZETA)
    frame.beam("cutter", nose, tip, round_values(c.diameter, c.material), X)
    return body, nose, tip
