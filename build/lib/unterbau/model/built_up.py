"""A member of several profiles that screws tie at a pitch: parallel beams joined by slip springs.

The first profile carries what is fastened to the member. The springs of a seam stand at the member's nodes, each for
the screws of its stretch. Checked by the γ-method (EN 1995-1-1 annex B) and Newmark's series.
"""

from dataclasses import replace
from math import dist

from unterbau.band import LEVELS, AtLevels, Level
from unterbau.catalogue.joints import RIGID, joint
from unterbau.materials.material import material
from unterbau.model.member import beam_values, turned_piece
from unterbau.model.modelled import Laid, Model
from unterbau.sections.built_up import Seam
from unterbau.sections.section import section
from unterbau.structure.parts import Member
from unterbau.structure.vectors import Vector, cross, plus

SCREW = "bolt"
"""Kind of joint whose springs a screw of a seam has."""


def slip(level: Level) -> tuple[float, float]:
    """Return the stiffness of one screw of a seam, slipping and pulled off, N/m."""
    normal, shear = joint(SCREW).values[:2]
    return shear.at(level), normal.at(level)


def tie_profiles(model: Model, member: Member, laid: Laid) -> None:
    """Lay the other profiles of a member beside its first, and tie them.

    The member's own beams are the first profile's; they stand on the member's axis with offsets.
    """
    shape = section(member.section)
    pieces = [turned_piece(one, member.turned) for one in shape.pieces]
    seams = [_turned_seam(one, member.turned) for one in shape.seams]
    side = cross(laid.up, laid.along)
    frame, main = model.frame, laid.chain.nodes

    def away(y: float, z: float) -> Vector:
        return plus(plus((0.0, 0.0, 0.0), side, y), laid.up, z)

    first = away(pieces[0].y, pieces[0].z)
    for number in laid.chain.beams:
        row = frame.beams[number]
        frame.beams[number] = (row[0], row[1], first, first, *row[4:])
    nodes = [list(main)]
    for number, piece in enumerate(pieces[1:], 2):
        values = beam_values(piece.properties, material(member.material))
        own = [
            frame.node(f"{laid.name}, profile {number} {n + 1}", plus(frame.places[node], away(piece.y, piece.z)))
            for n, node in enumerate(main)
        ]
        model.profiles.setdefault(laid.name, []).append(frame.chain(laid.key, own, values, laid.up))
        nodes.append(own)
    for seam in seams:
        _tie(model, member, laid, seam, nodes, away(seam.y, seam.z))


def _tie(model: Model, member: Member, laid: Laid, seam: Seam, nodes: list[list[int]], face: Vector) -> None:
    """Put the springs of a seam: along it slip, off it the screws' pull; held ends do not slip."""
    frame, main = model.frame, nodes[0]
    places = [frame.places[node] for node in main]
    last = len(main) - 1
    for n, place in enumerate(places):
        stretch = (dist(place, places[max(n - 1, 0)]) + dist(place, places[min(n + 1, last)])) / 2
        screws = stretch / member.pitch
        node = frame.node(f"{laid.name}, seam {seam.first + 1}-{seam.second + 1} {n + 1} at {seam.y:.4f},{seam.z:.4f}",
                          plus(place, face))  # fmt: skip
        frame.spring(laid.key, node, nodes[seam.first][n], (RIGID,) * 6, laid.along, laid.up, 0.0)
        k = AtLevels(*(_seam(seam, level, screws, n in (0, last)) for level in LEVELS))
        frame.spring(laid.key, node, nodes[seam.second][n], k, laid.along, laid.up, joint(SCREW).zeta)


def _seam(seam: Seam, level: Level, screws: float, last: bool) -> tuple[float, ...]:
    """Return the springs that stand for so many screws, the last of a seam or not."""
    shear, pull = slip(level)
    along = RIGID if last and level != "low" else shear * screws
    across, off = shear * screws, pull * screws
    roll = off * max(seam.width, 0.01) ** 2 / 12
    return (along, off, across, roll, 0.0, 0.0) if seam.upright else (along, across, off, roll, 0.0, 0.0)


def _turned_seam(seam: Seam, turned: bool) -> Seam:
    return replace(seam, y=-seam.z, z=seam.y, upright=not seam.upright) if turned else seam
