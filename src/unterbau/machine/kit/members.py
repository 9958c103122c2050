"""Beams, joints between them, feet."""

from dataclasses import replace
from math import dist

from unterbau.band import AtLevels, at_levels
from unterbau.catalogue.joints import BOLTS, Face
from unterbau.errors import InputError
from unterbau.machine.bill import Line
from unterbau.machine.bolted import ZETA as BOLTED_ZETA
from unterbau.machine.bolted import bolted_springs
from unterbau.machine.bolted import places as bolt_places
from unterbau.machine.frame_builder import merged, subdivided
from unterbau.machine.joining import group_of, joint_kind, joint_springs, overhang_of
from unterbau.machine.kind import REST
from unterbau.machine.kit.built_up import tie_profiles
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.plates import LaidPlate, lay_sheet
from unterbau.machine.kit.walled import end_plates, on_wall, screw_stops
from unterbau.machine.member import (
    BeamValues,
    first_profile,
    member_lines,
    member_rings,
    member_size,
    member_values,
    tied_by_screws,
    warped,
)
from unterbau.machine.stand import ZETA
from unterbau.machine.walls import takes_screws
from unterbau.materials.material import material
from unterbau.sections.built_up import OF
from unterbau.sections.section import section
from unterbau.structure.bodies import Prism, Ring, box_ring
from unterbau.structure.parts import Joint, Member
from unterbau.structure.vectors import Vector, X, Y, Z, cross, minus, plus, scaled

COLLAR = 0.012
OFF = 1e-4
CAP = 0.02
"""How deep a cap grips a round post, m; common practice, no source."""
INSET = 0.02  # of a foot from the edge
FOOT = 0.04
"""Side of the patch a foot presses on; common practice, no source."""


def beam(
    kit: Kit,
    key: str,
    name: str,
    start: Vector,
    end: Vector,
    up: Vector = Z,
    at: tuple[float, ...] = (),
    pieces: int = 6,
    carries: bool = False,
) -> Laid:
    """Lay a member from start to end, with nodes at some distances and, where it carries rails, at their screws."""
    part: Member = getattr(kit.machine, key)
    height, width = member_size(part)
    screwed = tied_by_screws(part)
    length = dist(start, end)
    if carries and takes_screws(part):
        at = (*at, *screw_stops(length))
    values = first_profile(part) if screwed else warped(part, member_values(part), length, carries)
    laid = _lay(kit, key, name, start, end, up, at, pieces, values, height, width)
    if screwed:
        tie_profiles(kit, part, laid)
    rings = member_rings(part)[:1] if part.fill else member_rings(part)
    kit.bodies.append(Prism(key, name, start, end, up, rings))
    for line in member_lines(key, part, 1, laid.length):
        kit.buy(line)
    end_plates(kit, laid)
    return laid


def _lay(
    kit: Kit, key: str, name: str, start: Vector, end: Vector, up: Vector, at: tuple[float, ...], pieces: int,
    values: BeamValues | AtLevels[BeamValues], height: float, width: float,
) -> Laid:  # fmt: skip
    length = sum((b - a) ** 2 for a, b in zip(start, end, strict=True)) ** 0.5
    inside = [stop for stop in at if 1e-3 < stop < length - 1e-3]
    stops = subdivided(merged([0.0, *inside, length]), pieces)
    stops[-1] = length
    line = tuple((b - a) / length for a, b in zip(start, end, strict=True))
    nodes = [kit.frame.node(f"{name} {n + 1}", plus(start, line, stop)) for n, stop in enumerate(stops)]
    chain = kit.frame.chain(key, nodes, values, up)
    kit.chains[name] = chain.nodes
    return Laid(key, name, chain, start, end, up, height, width)


def join(kit: Kit, key: str, i: int, j: int, face: Face, normal: Vector = X, up: Vector = Z) -> None:
    """Join two nodes at node i's place by a joint of the machine."""
    chosen: Joint = getattr(kit.machine, key)
    springs, zeta = joint_springs(chosen, face)
    kit.frame.spring(key, i, j, springs, normal, up, zeta)
    if chosen.play:
        kit.frame.loose.append((len(kit.frame.springs) - 1, chosen.play / CAP))
    kit.buy(_joint_line(key, chosen))


def _joint_line(key: str, chosen: Joint) -> Line:
    """Return a joint's line on the list of parts."""
    if chosen.kind == BOLTS:
        group = group_of(chosen)
        count = group.across * group.along
        return Line(key, f"bolt {group.size}", count, 0.0, 0.0, (f"joint:{group.size}", "joint:bolt"))
    return Line(key, joint_kind(chosen).label, chosen.count, 0.0, 0.0, (f"joint:{chosen.kind}",))


def fasten(kit: Kit, key: str, part: Laid, last: bool, host: Laid | LaidPlate) -> Laid | LaidPlate:
    """Join an end of a part to the nearest place of another, and draw a collar there.

    Returns:
        What the part's end stands on: the other, or a base plate of its own.
    """
    node = part.chain.nodes[-1 if last else 0]
    place = kit.frame.places[node]
    chosen: Joint = getattr(kit.machine, key)
    if overhang_of(chosen):
        return base_plate(kit, key, part, last, host)
    if isinstance(host, LaidPlate):
        held = host.hold(place, host.half_of(part.up, part.height, part.width))
    else:
        outward = scaled(part.along, -1.0 if last else 1.0)
        across = cross(part.up, part.along)
        hollow = section(getattr(kit.machine, part.key).section).cavity is not None
        held = on_wall(kit, host, place, outward, ((part.up, part.height), (across, part.width)), hollow)
    kit.held_ends.add((part.name, last))
    if kit.profiles.get(part.name):
        _join_profiles(kit, key, part, last, held)
    else:
        join(kit, key, node, held, face_of(kit, part), part.along, part.up)
    collar(kit, key, part, last)
    return host


def face_of(kit: Kit, part: Laid) -> Face:
    """Return the face of a member's end; a bond line covers its metal only, unless a plate closes it or a fill does."""
    member: Member = getattr(kit.machine, part.key)
    p = section(member.section).properties
    p = p.turned() if member.turned else p
    closed = member.capped or (member.fill is not None and not member.loose)
    return Face(part.height, part.width, None if closed else (p.A, p.Iy, p.Iz))


def _join_profiles(kit: Kit, key: str, part: Laid, last: bool, held: int) -> None:
    """Join every profile of a built-up member to what its end is fastened to, with its share of the pieces."""
    chosen: Joint = getattr(kit.machine, key)
    ends = [part.chain, *kit.profiles[part.name]]
    member: Member = getattr(kit.machine, part.key)
    piece = section(section(member.section).name.split(OF)[-1])
    p = piece.properties.turned() if member.turned else piece.properties
    tall, wide = (piece.width, piece.height) if member.turned else (piece.height, piece.width)
    share = replace(chosen, count=max(1, round(chosen.count / len(ends))))
    springs, zeta = joint_springs(share, Face(tall, wide, (p.A, p.Iy, p.Iz)))
    part_of = chosen.count / (share.count * len(ends)) if joint_kind(chosen).values else 1.0
    if chosen.kind == BOLTS:
        springs, zeta = joint_springs(chosen, Face(part.height, part.width))
        part_of = 1 / len(ends)
    k = at_levels(lambda level: tuple(part_of * one for one in springs.at(level)))
    for chain in ends:
        kit.frame.spring(key, chain.nodes[-1 if last else 0], held, k, part.along, part.up, zeta)
    kit.buy(_joint_line(key, chosen))


def base_plate(kit: Kit, key: str, part: Laid, last: bool, host: Laid | LaidPlate) -> LaidPlate:
    """Weld a plate to an end of a part and bolt it to another all around; contact is counted under the bolts only."""
    chosen: Joint = getattr(kit.machine, key)
    joint_kind(chosen)
    kit.held_ends.add((part.name, last))
    group, member = group_of(chosen), getattr(kit.machine, part.key)
    node, face = part.chain.nodes[-1 if last else 0], Face(part.height, part.width)
    tall, wide = part.height + 2 * group.overhang, part.width + 2 * group.overhang
    middle, base = kit.frame.places[node], material(member.material)
    ends = (plus(middle, part.up, -tall / 2), plus(middle, part.up, tall / 2))
    name = f"base plate of {part.name} {'end' if last else 'start'}"
    laid = lay_sheet(kit, key, name, *ends, (group.thickness, wide), part.along, base)
    laid.share(node, (part.height / 2, part.width / 2))
    single = replace(group, across=1, along=1)
    springs = at_levels(lambda level: bolted_springs(single, level, face))
    count, radius = 0, float(group.size[1:]) * 1e-3
    for across, along in bolt_places(group, Face(tall, wide)):
        if abs(across) < part.width / 2 + radius and abs(along) < part.height / 2 + radius:
            continue  # under the part itself
        place = plus(plus(middle, laid.across, across), part.up, along)
        _check_under(key, host, place)
        held = kit.near(host, place, (radius, radius))
        if isinstance(host, Laid):
            outward = scaled(part.along, -1.0 if last else 1.0)
            washer = ((part.up, 4 * radius), (laid.across, 4 * radius))
            held = on_wall(kit, host, place, outward, washer, False)
        kit.frame.spring(key, laid.hold(place, (radius, radius)), held, springs, part.along, part.up, BOLTED_ZETA)
        count += 1
    mass = base.rho * group.thickness * tall * wide
    text = f"base plate {group.thickness * 1e3:g} mm, {base.label}"
    kit.buy(Line(key, text, 1, tall, mass, (f"plate:{base.id}", f"plate:{base.kind}")))
    kit.buy(Line(key, f"bolt {group.size}", count, 0.0, 0.0, (f"joint:{group.size}", "joint:bolt")))
    return laid


def _check_under(key: str, host: Laid | LaidPlate, bolt: Vector) -> None:
    """Check that a bolt of a base plate finds something below it."""
    away = minus(bolt, host.corner if isinstance(host, LaidPlate) else host.start)
    axes = (host.along, cross(host.up, host.along))
    along, across = (sum(a * b for a, b in zip(away, axis, strict=True)) for axis in axes)
    low, high = (0.0, host.width) if isinstance(host, LaidPlate) else (-host.width / 2, host.width / 2)
    if not (-OFF < along < host.length + OFF and low - OFF < across < high + OFF):
        over = max(-along, along - host.length, low - across, across - high)
        raise InputError(
            f"{key}.bolts.overhang", f"a bolt is {over * 1e3:.0f} mm beside the {host.name}; expected a smaller plate"
        )


def collar(kit: Kit, key: str, part: Laid | LaidPlate, last: bool) -> None:
    """Draw a collar around an end of a part."""
    ring: Ring = box_ring(part.width + 0.016, part.height + 0.016)
    place = plus(part.end, part.along, -COLLAR) if last else part.start
    kit.bodies.append(Prism(key, part.name, place, plus(place, part.along, COLLAR), part.up, (ring,)))


def foot(kit: Kit, part: Laid | LaidPlate, node: int, aside: float = 0.0) -> None:
    """Stand a node of a part on a levelling foot below it, or aside of it along X."""
    x, y, z = kit.frame.places[node]
    side = f" {'right' if aside > 0 else 'left'}" if aside else ""
    place = (x + aside, y, z - part.height / 2)
    low = kit.frame.node(f"foot of {kit.frame.names[node]}{side}", place)
    if isinstance(part, Laid):
        node = on_wall(kit, part, place, (0.0, 0.0, -1.0), ((X, FOOT), (Y, FOOT)), False)
    kit.frame.spring(REST, low, node, (1e9, 1e9, 1e9, 1e6, 1e6, 1e6), Z, X, ZETA)
    kit.feet.append(low)


def four_feet(kit: Kit, part: Laid) -> None:
    """Stand a wide part along Y on feet at its four corners."""
    for node in (part.chain.nodes[0], part.chain.nodes[-1]):
        for side in (-1, 1):
            foot(kit, part, node, side * (part.width / 2 - INSET))
