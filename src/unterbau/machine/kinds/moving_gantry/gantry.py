"""The gantry: Y blocks, side plates, beam, X rails."""

from dataclasses import dataclass
from math import dist

from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import Face
from unterbau.machine.frame_builder import Chain, X, Y, Z, merged, minus, subdivided
from unterbau.machine.kinds.moving_gantry.base import Base
from unterbau.machine.kinds.moving_gantry.building import Building
from unterbau.machine.member import member_size, member_values, strip_values

FOOT_STRIP = 0.08  # height of the side plate's lower edge that spreads its load to the blocks


@dataclass(frozen=True, slots=True)
class Gantry:
    """What the head runs on."""

    beam: Chain
    sides: tuple[Chain, Chain]


def build_gantry(b: Building, base: Base) -> Gantry:
    """Put up the gantry and return what it offers."""
    sides = (_side(b, base, -1), _side(b, base, 1))
    return Gantry(_beam(b, sides), sides)


def _side(b: Building, base: Base, side: int) -> Chain:
    at, frame, m = b.at, b.frame, b.machine
    name = "left side" if side < 0 else "right side"
    x, y = side * at.side_x, at.side_y
    low = at.side_foot + FOOT_STRIP / 2
    stops = subdivided(merged([low, at.side_top, max(at.beam_z, low + 0.005)]), 5)
    nodes = [frame.node(f"{name} {n + 1}", (x, y, z)) for n, z in enumerate(stops)]
    chain = frame.chain("side", nodes, strip_values(m.side, at.side_width), X)
    size = block(m.y_guides.block)
    strip = strip_values(m.side, FOOT_STRIP, mass_share=0.5)
    rail = base.side_beams[0 if side < 0 else 1]
    for end in (-1, 1):
        place = (x, y + end * m.dimensions.y_stance / 2, at.side_foot - size.height / 2)
        node = frame.node(f"{name} block {'front' if end < 0 else 'back'}", place)
        up_to_strip = minus((x, place[1], low), place)
        frame.beam("side", nodes[0], node, strip, X, offset_j=up_to_strip)
        frame.mass(node, size.block_mass)
        b.block("y_guides", node, rail, m.y_guides, Y, Z)
    frame.spread(rail.nodes, size.rail_mass * _length(b, rail))
    if m.y_drive.count == 2 or side < 0:
        _y_drive(b, nodes[0], rail)
    return chain


def _length(b: Building, chain: Chain) -> float:
    first, last = (b.frame.places[n] for n in (chain.nodes[0], chain.nodes[-1]))
    return dist(first, last)


def _y_drive(b: Building, nut: int, rail: Chain) -> None:
    bearing = rail.nodes[-1]
    length = _length(b, rail)
    distance = b.frame.places[bearing][1] - b.frame.places[nut][1]
    b.drive("y_drive", nut, bearing, b.machine.y_drive, Y, distance, length)
    kind = drive(b.machine.y_drive.kind)
    b.frame.mass(bearing, kind.motor_mass)
    b.frame.spread(rail.nodes, kind.mass_per_metre * length)


def _beam(b: Building, sides: tuple[Chain, Chain]) -> Chain:
    at, frame, m = b.at, b.frame, b.machine
    half = at.beam_length / 2
    stops = subdivided([-half, half], 8)
    nodes = [frame.node(f"gantry beam {n + 1}", (x, at.beam_y, at.beam_z)) for n, x in enumerate(stops)]
    chain = frame.chain("gantry_beam", nodes, member_values(m.gantry_beam), Z)
    height, width = member_size(m.gantry_beam)
    for node, side in ((nodes[0], sides[0]), (nodes[-1], sides[1])):
        host = min(side.nodes, key=lambda n: abs(frame.places[n][2] - at.beam_z))
        b.join("beam_joint", node, host, m.beam_joint, Face(height, width))
    frame.spread(chain.nodes, 2 * block(m.x_guides.block).rail_mass * at.beam_length)
    kind = drive(m.x_drive.kind)
    frame.spread(chain.nodes, kind.mass_per_metre * at.beam_length)
    frame.mass(nodes[0], kind.motor_mass)
    return chain
