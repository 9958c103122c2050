"""Laying the pieces of a machine: bars, plates, their joints, ribs and gussets, feet."""

from dataclasses import replace
from math import dist

from unterbau.catalogue.joints import Face
from unterbau.errors import InputError
from unterbau.materials.material import material
from unterbau.model.bolted import places as bolt_places
from unterbau.model.frame_builder import subdivided
from unterbau.structure.join import BasePlateJoin, Collar, EndJoin, Foot, GussetJoin, Join, RibJoin
from unterbau.structure.keys import Key
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Joint, Member, Plate
from unterbau.structure.piece import Bar, PlatePiece, Point, Rod
from unterbau.structure.spot import Spot
from unterbau.structure.vectors import Vector, X, Z, cross, dot, minus, plus
from unterbau.structure.weights import member_size

Lay = Layout[object]
Host = Bar | PlatePiece
DRAWN = (4, 2)
"""Fields along and across in which a plate is drawn bending."""
OFF = 1e-4
SHORTEST = 1e-3
"""No member is shorter, m."""
INSET = 0.02  # of a foot from the edge
BESIDE: tuple[Vector, ...] = ((1.0, 0.0, 0.0), (-1.0, 0.0, 0.0))
"""The faces of a column to the right and left."""
INSIDE = 0.7
"""Gussets of one side stand within this share of the part's width."""


def beam(
    lay: Lay, key: Key, part: Member, name: str, start: Vector, end: Vector, up: Vector = Z,
    at: tuple[float, ...] = (), pieces: int = 6, carries: bool = False,
) -> Bar:  # fmt: skip
    """Lay a member from start to end; something is fastened at some distances, rails are screwed to it or not.

    Raises:
        InputError: There is no room for it.
    """
    if (length := dist(start, end)) < SHORTEST:
        raise InputError(key, f"expected room for it between its neighbours, {length * 1e3:.1f} mm are left")
    height, width = member_size(part)
    return lay.put(Bar(key, name, part, start, end, up, height, width, at, pieces, carries))


def lay_plate(
    lay: Lay, key: Key, part: Plate, name: str, start: Vector, end: Vector, width: float, face: Vector,
    crossings: tuple[list[float], list[float]] | None = None,
) -> PlatePiece:  # fmt: skip
    """Put a plate from start to end.

    Args:
        lay: The machine.
        key: The link.
        part: The plate.
        name: In words.
        start: Middle of one end.
        end: Middle of the other.
        width: Across, m.
        face: Normal.
        crossings: Stops along and across it, from its corner; even ones where none are given.
    """
    text = f"plate {part.thickness * 1e3:g} mm, {material(part.material).label}"
    piece = crossed(key, name, (start, end), (part.thickness, width), face, part.material, text, crossings)
    if part.strips:
        return lay.put(replace(piece, strips=part.strips, text=f"{part.strips} {_slotted(part)}"))
    return lay.put(replace(piece, lower=(part.under, part.under_thickness)) if part.under else piece)


def _slotted(part: Plate) -> str:
    return f"plates with T-slots, {part.thickness * 1e3:g} mm, {material(part.material).label}"


def crossed(
    key: Key, name: str, ends: tuple[Vector, Vector], across: tuple[float, float], face: Vector, made_of: str,
    text: str, crossings: tuple[list[float], list[float]] | None = None, made: tuple[float, float] | None = None,
) -> PlatePiece:  # fmt: skip
    """Return a plate that is drawn bending; `across` its thickness and width."""
    bare = PlatePiece(key, name, *ends, face, *across, made_of, text)
    xs, ys = crossings or (subdivided([0.0, bare.length], DRAWN[0]), subdivided([0.0, bare.width], DRAWN[1]))
    return PlatePiece(key, name, *ends, face, *across, made_of, text, tuple(xs), tuple(ys), made=made)


def join(
    lay: Lay, key: Key, chosen: Joint, a: Spot, b: Spot | None, face: Face, normal: Vector = X, up: Vector = Z,
    reach: float = 0.0,
) -> None:  # fmt: skip
    """Join two places, or a place and the ground, at the first by a joint of the machine; `reach` bridges a gap."""
    lay.add(Join(key, chosen, a, b, face, normal, up, carrier=lay.carrier, reach=reach))


def fasten(lay: Lay, key: Key, chosen: Joint, bar: Bar, last: bool, host: Host) -> Host:
    """Join an end of a bar to the nearest place of another piece.

    Returns:
        What the bar's end stands on: the other, or a base plate of its own.
    """
    if chosen.overhang:
        return _base_plate(lay, key, chosen, bar, last, host)
    lay.add(EndJoin(key, chosen, bar.name, last, host.name, lay.carrier))
    return host


def _base_plate(lay: Lay, key: Key, chosen: Joint, bar: Bar, last: bool, host: Host) -> PlatePiece:
    group = chosen.group
    tall, wide = bar.height + 2 * group.overhang, bar.width + 2 * group.overhang
    middle = bar.end if last else bar.start
    ends = (plus(middle, bar.up, -tall / 2), plus(middle, bar.up, tall / 2))
    name = f"base plate of {bar.name} {'end' if last else 'start'}"
    text = f"base plate {group.thickness * 1e3:g} mm, {material(bar.part.material).label}"
    bare = crossed(key, name, ends, (group.thickness, wide), bar.along, bar.part.material, text)
    plate = replace(bare, carrier=lay.carrier)
    radius, bolts = float(group.size[1:]) * 1e-3, []
    for across, along in bolt_places(group, Face(tall, wide)):
        if abs(across) < bar.width / 2 + radius and abs(along) < bar.height / 2 + radius:
            continue  # under the part itself
        place = plus(plus(middle, plate.across, across), bar.up, along)
        _check_under(key, host, place)
        bolts.append(place)
    lay.add(BasePlateJoin(key, chosen, bar.name, last, host.name, plate, tuple(bolts), lay.carrier))
    return plate


def _check_under(key: str, host: Host, bolt: Vector) -> None:
    """Check that a bolt of a base plate finds something below it."""
    away = minus(bolt, host.corner if isinstance(host, PlatePiece) else host.start)
    along, across = dot(away, host.along), dot(away, cross(host.up, host.along))
    low, high = (0.0, host.width) if isinstance(host, PlatePiece) else (-host.width / 2, host.width / 2)
    if not (-OFF < along < host.length + OFF and low - OFF < across < high + OFF):
        over = max(-along, along - host.length, low - across, across - high)
        raise InputError(
            f"{key}.bolts.overhang", f"a bolt is {over * 1e3:.0f} mm beside the {host.name}; expected a smaller plate"
        )


def rib(lay: Lay, part: Plate, plate: PlatePiece, face: Vector, across: bool = False) -> None:
    """Put a plate's ribs on one of its faces, evenly from edge to edge.

    The rib's middle plane reaches to the middle plane of the plate, as usual for shells; what overlaps stiffens
    twice, about as much as a weld's fillets would, and weighs once.

    Args:
        lay: The machine.
        part: The plate with its ribs.
        plate: In its place.
        face: Normal of the face that they stand on.
        across: They run across the plate instead of along it.
    """
    length, room = (plate.width, plate.length) if across else (plate.length, plate.width)
    edge = part.rib_thickness / 2
    text = f"rib {part.rib_thickness * 1e3:g}×{part.rib_height * 1e3:g}, {material(part.material).label}"
    for number in range(part.ribs):
        aside = room / 2 if part.ribs == 1 else edge + (room - 2 * edge) * number / (part.ribs - 1)
        ends = [plate.at(aside, s) if across else plate.at(s, aside) for s in (0.0, length)]
        deep = part.rib_height + plate.height / 2
        middle = (plus(ends[0], face, deep / 2), plus(ends[1], face, deep / 2))
        piece = crossed(
            plate.key, f"{plate.name} rib {number + 1}", middle, (part.rib_thickness, deep),
            plate.along if across else plate.across, part.material, text, made=(length, part.rib_height),
        )  # fmt: skip
        carried = replace(piece, carrier=lay.carrier)
        lay.add(RibJoin(plate.name, carried, ends[0], length, across, carrier=lay.carrier))


def gusset(lay: Lay, key: Key, chosen: Joint, bar: Bar, last: bool, host: Host, sides: tuple[Vector, ...]) -> None:
    """Put gussets in the corners at an end of a bar.

    Args:
        lay: The machine.
        key: The link of the joint at this end.
        chosen: The joint.
        bar: In its place, with stops at `gusset_stops`.
        last: Its far end.
        host: What it stands on.
        sides: Off the bar, which faces they stand against; so many on each.
    """
    if not chosen.gussets:
        return
    away = plus((0.0, 0.0, 0.0), bar.along, -1.0 if last else 1.0)
    end = bar.end if last else bar.start
    for side in sides:
        normal = cross(away, side)
        tall = bar.height if abs(dot(side, bar.up)) > 0.5 else bar.width
        wide = bar.width if tall == bar.height else bar.height
        for number in range(chosen.gussets):
            spread = 0.0 if chosen.gussets == 1 else INSIDE * wide * (number / (chosen.gussets - 1) - 0.5)
            corner = plus(plus(end, side, tall / 2), normal, spread)
            _check_room(key, chosen.gusset_leg, corner, side, bar, host)
            name = f"{bar.name} gusset {lay.number(f'gusset {bar.name}')}"
            leg, made_of = chosen.gusset_leg, bar.part.material
            text = f"gusset {chosen.gusset_thickness * 1e3:g} mm, legs {leg * 1e3:g}, {material(made_of).label}"
            middle = plus(corner, side, leg / 2)
            plate = PlatePiece(
                key, name, middle, plus(middle, away, leg), normal, chosen.gusset_thickness, leg, made_of, text,
                halved=True, carrier=lay.carrier,
            )  # fmt: skip
            lay.add(GussetJoin(key, chosen, plate, corner, bar.name, host.name, away, side, lay.carrier))


def _check_room(key: str, leg: float, corner: Vector, side: Vector, bar: Bar, host: Host) -> None:
    most = bar.length / 2
    if isinstance(host, PlatePiece):
        from_corner = minus(corner, host.corner)
        for axis, size in ((host.along, host.length), (host.across, host.width)):
            at, towards = (dot(v, axis) for v in (from_corner, side))
            if abs(towards) > 0.5:
                most = min(most, size - at if towards > 0 else at)
    if leg > most + 1e-6:
        raise InputError(f"{key}.gusset_leg", f"expected at most {most * 1e3:.0f} mm: there is no more room")


def collar(lay: Lay, key: Key, piece: Host, last: bool) -> None:
    """Show a joint around an end of a piece."""
    lay.add(Collar(key, piece.name, last, lay.carrier))


def foot(lay: Lay, piece: Host, on: Spot, aside: float = 0.0) -> None:
    """Stand a place of a piece on a levelling foot below it, or aside of it along X."""
    lay.add(Foot(f"foot {lay.number('feet')}", on, piece.height / 2, aside))


def four_feet(lay: Lay, bar: Bar) -> None:
    """Stand a wide bar along Y on feet at its four corners."""
    for end in (bar.first, bar.last):
        for side in (-1, 1):
            foot(lay, bar, end, side * (bar.width / 2 - INSET))


def point(lay: Lay, name: str, place: Vector) -> Spot:
    """Mark a place by itself."""
    lay.put(Point(name, place))
    return Spot(name, place)


def round_bar(
    lay: Lay,
    key: Key,
    part: Cutter,
    name: str,
    start: Vector,
    end: Vector,
    at: tuple[float, ...],
    root: Spot | None = None,
) -> Rod:
    """Lay a round bar that sticks out from start to end; something is fastened at some distances from the start."""
    names = ("cutter",) if key == "cutter" else (f"bar:{part.material}", f"bar:{material(part.material).kind}")
    return lay.put(Rod(key, name, part.diameter, part.material, start, end, names, at, root))
