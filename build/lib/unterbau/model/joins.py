"""Joints between places, ends of bars, base plates, ribs, gussets, feet."""

from dataclasses import replace
from math import ceil

from unterbau.band import at_levels
from unterbau.catalogue.joints import BOLTS, RIGID, BoltGroup, Face
from unterbau.model.bolted import ZETA as BOLTED_ZETA
from unterbau.model.bolted import bolted_springs
from unterbau.model.joining import joint_kind, joint_springs
from unterbau.model.laid_plate import LaidPlate
from unterbau.model.modelled import Laid, Model
from unterbau.model.sheets import lay_sheet
from unterbau.model.stand import ZETA
from unterbau.model.walled import on_wall
from unterbau.sections.built_up import OF
from unterbau.sections.section import section
from unterbau.structure.gussets import OF_LEG, PLACES
from unterbau.structure.join import BasePlateJoin, EndJoin, Foot, GussetJoin, Join, RibJoin, Springs, Weight
from unterbau.structure.parts import Joint
from unterbau.structure.spot import Spot
from unterbau.structure.stand import BOLT, KEY, REST
from unterbau.structure.vectors import Vector, X, Y, Z, cross, dot, minus, plus, scaled
from unterbau.structure.weights import joint_mass, screw_mass

CAP = 0.02
"""How deep a cap grips a round post, m; common practice, no source."""
FOOT = 0.04
"""Side of the patch a foot presses on; common practice, no source."""
FEET_BOLT = BoltGroup(BOLT, 1, 1, 0.01, "extruded")
"""What bolts a foot to a base: one bolt on a cast face; common practice, no source."""
FOOTING = (1e9, 1e9, 1e9, 1e6, 1e6, 1e6)
RIB_PITCH = 0.05
"""Between the places where a rib's foot and its plate are held together, m."""
OF_PITCH = 0.12
"""Half of each such place, of the pitch: points slip, long ones stiffen; with this a ribbed strip bends as a tee."""


def join(one: Join, model: Model) -> None:
    """Join two places by a joint."""
    a = model.node(one.a)
    b = -1 if one.b is None else _at_wall(one, one.b, model)
    put_joint(model, one.key, one.joint, a, b, one.face, one.normal, one.up)
    if one.screw:
        model.chains[one.screw] = (a,)


def _at_wall(one: Join, spot: Spot, model: Model) -> int:
    """Return the node that the second side of a joint is: of a bar's wall, where it bears on one."""
    node, host = model.node(spot), model.bars.get(spot.piece)
    if one.wall is None or host is None or host.part is None:
        return node
    place = model.moved(spot.place, model.structure.pieces[spot.piece].carrier)
    sides = ((one.up, one.face.height), (cross(one.wall, one.up), one.face.width))
    return on_wall(model, host, place, one.wall, sides, False)


def put_joint(
    model: Model, key: str, chosen: Joint, i: int, j: int, face: Face, normal: Vector = X, up: Vector = Z
) -> None:
    """Put the springs of a joint between two nodes, at the first's place."""
    springs, zeta = joint_springs(chosen, face)
    model.frame.spring(key, i, j, springs, normal, up, zeta)
    model.frame.mass(i, joint_mass(chosen))
    if chosen.play:
        model.frame.loose.append((len(model.frame.springs) - 1, chosen.play / CAP))


def end_join(one: EndJoin, model: Model) -> None:
    """Join the end of a bar to the nearest place of another piece."""
    part, host, chosen = model.bars[one.bar], model.host(one.host), one.joint
    node = part.chain.nodes[-1 if one.last else 0]
    place = model.frame.places[node]
    if isinstance(host, LaidPlate):
        held = host.hold(place, host.half_of(part.up, part.height, part.width))
    else:
        outward = scaled(part.along, -1.0 if one.last else 1.0)
        across = cross(part.up, part.along)
        hollow = section(part.member.section).cavity is not None
        held = on_wall(model, host, place, outward, ((part.up, part.height), (across, part.width)), hollow)
    model.held_ends.add((part.name, one.last))
    if model.profiles.get(part.name):
        _join_profiles(model, one.key, chosen, part, one.last, held)
    else:
        put_joint(model, one.key, chosen, node, held, face_of(part), part.along, part.up)


def face_of(part: Laid) -> Face:
    """Return the face of a member's end; a bond line covers its metal only, unless a plate closes it or a fill does."""
    member = part.member
    p = section(member.section).properties
    p = p.turned() if member.turned else p
    closed = member.capped or (member.fill is not None and not member.loose)
    return Face(part.height, part.width, None if closed else (p.A, p.Iy, p.Iz))


def _join_profiles(model: Model, key: str, chosen: Joint, part: Laid, last: bool, held: int) -> None:
    """Join every profile of a built-up member to what its end is fastened to, with its share of the pieces."""
    ends, member = [part.chain, *model.profiles[part.name]], part.member
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
        model.frame.spring(key, chain.nodes[-1 if last else 0], held, k, part.along, part.up, zeta)
    model.frame.mass(part.chain.nodes[-1 if last else 0], joint_mass(chosen))


def base_plate(one: BasePlateJoin, model: Model) -> None:
    """Weld a plate to an end of a bar and bolt it to another all around; contact is counted under the bolts only."""
    joint_kind(one.joint)
    part, host, group = model.bars[one.bar], model.host(one.host), one.joint.group
    model.held_ends.add((part.name, one.last))
    node, face = part.chain.nodes[-1 if one.last else 0], Face(part.height, part.width)
    laid = lay_sheet(model, one.plate)
    laid.share(node, (part.height / 2, part.width / 2))
    single = replace(group, across=1, along=1)
    springs = at_levels(lambda level: bolted_springs(single, level, face))
    radius = float(group.size[1:]) * 1e-3
    for bolt in one.bolts:
        place = model.moved(bolt, one.plate.carrier)
        if isinstance(host, Laid):
            model.near(host, place)
            outward = scaled(part.along, -1.0 if one.last else 1.0)
            washer = ((part.up, 4 * radius), (laid.across, 4 * radius))
            held = on_wall(model, host, place, outward, washer, False)
        else:
            held = host.hold(place, (radius, radius))
        root = laid.hold(place, (radius, radius))
        model.frame.spring(one.key, root, held, springs, part.along, part.up, BOLTED_ZETA)
        model.frame.mass(root, screw_mass(group.size))


def foot(one: Foot, model: Model) -> None:
    """Stand a place of a piece on a levelling foot."""
    node = model.node(one.on)
    x, y, z = model.frame.places[node]
    side = f" {'right' if one.aside > 0 else 'left'}" if one.aside else ""
    place = (x + one.aside, y, z - one.depth)
    low = model.frame.node(f"foot of {model.frame.names[node]}{side}", place)
    part = model.host(one.on.piece)
    if isinstance(part, Laid):
        node = on_wall(model, part, place, (0.0, 0.0, -1.0), ((X, FOOT), (Y, FOOT)), False)
    model.frame.spring(REST, low, node, FOOTING, Z, X, ZETA)
    model.chains[one.name] = (low,)
    if not one.base:
        model.feet.append(low)
        return
    held = model.sheets[one.base].hold(place, (FOOT / 2, FOOT / 2))
    k = at_levels(lambda level: bolted_springs(FEET_BOLT, level, Face(FOOT, FOOT)))
    model.frame.spring(KEY, low, held, k, Z, X, BOLTED_ZETA)
    model.frame.mass(low, screw_mass(BOLT))


def springs(one: Springs, model: Model) -> None:
    """Put springs between two places."""
    a = model.node(one.a)
    model.frame.spring(one.key, a, -1 if one.b is None else model.node(one.b), one.k, one.x, one.up, one.zeta)


def weight(one: Weight, model: Model) -> None:
    """Hang a mass on a place."""
    model.frame.mass(model.node(one.at), one.mass, one.offset)


def gusset(one: GussetJoin, model: Model) -> None:
    """Put a triangle into a corner, held along both its legs."""
    frame, piece, leg = model.frame, one.plate, one.joint.gusset_leg
    corner = model.moved(one.corner, one.carrier)
    start, end = model.moved(piece.start, one.carrier), model.moved(piece.end, one.carrier)
    part, host = model.bars[one.bar], model.host(one.host)
    laid = lay_sheet(model, replace(piece, start=start, end=end, carrier=type(piece.carrier)()), crossed=False)
    model.plates.pop()
    for along, other in ((one.away, part), (one.side, host)):
        half = (OF_LEG * leg, 0.0) if other is part else (0.0, OF_LEG * leg)
        for place in PLACES:
            at = plus(corner, along, place * leg)
            node = frame.node(f"{piece.name} at {other.name} {place:.2f}", at)
            laid.share(node, half)
            if isinstance(other, LaidPlate):
                to = other.hold(at, other.half_of(one.side, 2 * OF_LEG * leg, piece.height))
            else:
                to = model.near(other, at)
            frame.spring(one.key, node, to, (RIGID,) * 6, one.away, one.side, 0.0)
    model.plates.append(laid)
    model.chains[piece.name] = (laid.held[0].node,)


def rib(one: RibJoin, model: Model) -> None:
    """Put a rib on a plate; it is welded when all else is fastened."""
    plate, laid = model.sheets[one.plate], lay_sheet(model, one.rib)
    away = minus(model.moved(one.foot, one.carrier), laid.start)
    foot = (dot(away, laid.along), dot(away, laid.across), dot(away, laid.up))  # its own, for it may be turned yet
    pitch = max(RIB_PITCH, one.long / one.places) if one.places else RIB_PITCH
    plate.late.append(lambda: _weld(model, plate, laid, foot, (one.long, pitch), one.across))


def _weld(
    model: Model, plate: LaidPlate, laid: LaidPlate, foot: Vector, run: tuple[float, float], across: bool
) -> None:
    start = laid.start
    for axis, far in zip((laid.along, laid.across, laid.up), foot, strict=True):
        start = plus(start, axis, far)
    length, wanted = run
    count = max(2, ceil(length / wanted))
    pitch = length / count
    along = OF_PITCH * pitch
    for number in range(count):
        place, half = plus(start, laid.along, pitch * (number + 0.5)), laid.height / 2
        node, room = plate.under(place, (half, along) if across else (along, half))
        if node is None:
            free = room * along
            laid.share(plate.hold(place, (half, free) if across else (free, half)), (free, 0.0))
            continue
        foot_node = model.frame.node(f"{laid.name} foot {number + 1}", place)
        laid.share(foot_node, (along, 0.0))
        model.frame.spring(plate.key, foot_node, node, (RIGID,) * 6, laid.along, laid.up, 0.0)
