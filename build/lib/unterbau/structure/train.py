"""What a drive is bought of, each with its room: screw or belt, motor, coupling, bearings, nut."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from unterbau.catalogue.drives import DriveKind, drive, motors
from unterbau.catalogue.train import Envelope, Train, train
from unterbau.structure.bodies import Ring, box_ring, round_ring
from unterbau.structure.carrier import STILL, Carrier
from unterbau.structure.keys import Key
from unterbau.structure.motion import DriveTrain
from unterbau.structure.piece import PlatePiece
from unterbau.structure.spot import Spot
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import ZERO, Vector, X, Y, Z, cross, dot, minus, plus, scaled

Where = Literal["bearing", "far", "nut", "corner"]
CLEAR = 0.003
"""Between a coupling and the motor's flange, of a pulley and a motor, m."""
HEADS = 0.006
"""Between a belt's pulley and its motor, m: heads of screws in the beam's end pass under it."""
BRACKET, ALUMINIUM = 0.006, 2700.0
"""Thickness of the plate under a motor that stands beside its screw, m, and what it weighs, kg/m³."""
WALL = 0.006
"""Of the box that carries a motor in line with its screw, m."""
APART = 0.05
"""Of two pinions on one rack from between them, m."""
BEYOND = 0.035
"""The end of a beam, m: there the motors of crossed belts stand."""
RIGHT_CORNER = 2
"""Of a frame's corners, where the second motor of crossed belts stands."""


@dataclass(frozen=True, slots=True)
class TrainPart:
    """One bought part of a drive, as laid out."""

    name: str
    key: Key
    sort: str
    """screw, motor, mount, bracket, coupling, bearing, nut, pulley, pinion, gearbox."""
    text: str
    mass: float
    """kg."""
    start: Vector
    end: Vector
    up: Vector
    ring: Ring
    at: Where
    """What it weighs on."""
    drawn_with: str
    """Piece that it moves with."""
    carrier: Carrier


def on_piece(structure: Structure, spot: Spot) -> Vector:
    """Return where on its piece a spot is: in the middle plane of a plate."""
    piece = structure.pieces[spot.piece]
    return piece.under(spot.place) if isinstance(piece, PlatePiece) else spot.place


def screw_ends(one: DriveTrain, nut: Vector, away: float) -> tuple[Vector, Vector]:
    """Return where a screw or belt starts, beyond its fixed bearing, and where it ends."""
    towards = 1.0 if away >= 0.0 else -1.0
    beyond = drive(one.drive.kind).ends[0]
    start = plus(plus(nut, one.beside), one.along, -away - towards * beyond)
    return start, plus(start, one.along, towards * one.length)


def corner_of(one: DriveTrain, structure: Structure) -> Spot:
    """Return where a motor of crossed belts stands."""
    return structure.corners[0 if one.key == "x_drive" else RIGHT_CORNER]


class _Laid:
    """A drive's axis and its parts on it."""

    def __init__(self, one: DriveTrain, structure: Structure) -> None:
        self.one, self.structure = one, structure
        self.kind: DriveKind = drive(one.drive.kind)
        self.train: Train = train(one.drive.kind)
        nut, bearing = on_piece(structure, one.nut), on_piece(structure, one.bearing)
        away = dot(minus(nut, bearing), one.along)
        self.start, self.end = screw_ends(one, nut, away)
        self.inward = scaled(one.along, 1.0 if away >= 0.0 else -1.0)
        self.nut = plus(nut, one.beside)
        self.up = cross(one.along, Z if abs(one.along[2]) < 0.5 else X)
        self.moved = structure.pieces[one.nut.piece].carrier

    def part(self, sort: str, text: str, size: Envelope, middle: Vector, axis: Vector, at: Where,
             square: bool = False, number: int = 0) -> TrainPart:  # fmt: skip
        one, half = self.one, size.length / 2
        ring = box_ring(size.across, size.across) if square else round_ring(size.across, 8)
        up = self.up if abs(dot(axis, self.up)) < 0.5 else one.along
        belongs = one.motor_key if sort in ("motor", "gearbox", "coupling", "mount") else one.key
        name = f"{one.key} {text if sort == 'bearing' else sort} {one.number + number}"
        carrier, piece = (self.moved, one.nut.piece) if at == "nut" else (one.carrier, one.host)
        if at == "corner":
            carrier, piece = STILL, corner_of(one, self.structure).piece
        ends = plus(middle, axis, -half), plus(middle, axis, half)
        return TrainPart(name, belongs, sort, text, size.mass, *ends, up, ring, at, piece, carrier)

    def motor(self, face: Vector, axis: Vector, at: Where, number: int = 0) -> TrainPart:
        """Return a motor whose flange is at a place, its body going on along an axis."""
        chosen = self.one.motor
        kind = motors()[chosen.kind]
        torque = chosen.torque or self.kind.torque
        size = self.train.motor(self.kind.id, kind.id, torque).body
        text = f"{kind.label} {size.across * 1e3:.0f} × {size.length * 1e3:.0f} mm, {torque / self.train.motors:g} N·m"
        return self.part("motor", text, size, plus(face, axis, size.length / 2), axis, at, True, number)

    def across(self) -> Vector:
        """Return the way the axis of a belt's or rack's motor points."""
        if self.one.aside != ZERO:
            return scaled(self.one.aside, 1 / dot(self.one.aside, self.one.aside) ** 0.5)
        return Z if abs(self.one.along[2]) < 0.5 else Y


def train_parts(one: DriveTrain, structure: Structure) -> tuple[TrainPart, ...]:
    """Return a drive's bought parts, its screw, belt or rack first."""
    laid = _Laid(one, structure)
    kind = laid.kind
    size = Envelope(kind.diameter, one.length, kind.mass_per_metre * one.length)
    middle = plus(laid.start, laid.inward, one.length / 2)
    long = laid.part("screw", kind.label, size, middle, laid.inward, "far")
    if kind.nut is None:
        return long, *(_crossed(laid) if one.crossed else _belt(laid))
    return long, *(_rack(laid) if "pinion" in laid.train.parts else _screw(laid))


def _screw(laid: _Laid) -> Iterator[TrainPart]:
    parts, inward, label, (fixed, floating) = laid.train.parts, laid.inward, laid.kind.label, laid.kind.ends
    yield laid.part("nut", f"nut of {label}", parts["nut"], laid.nut, inward, "nut")
    seat = plus(laid.start, inward, fixed - parts["fixed"].length / 2)  # flanged to the outside of what holds it
    yield laid.part("bearing", f"fixed bearing of {label}", parts["fixed"], seat, inward, "bearing", True)
    far = plus(laid.end, inward, -floating / 2)
    if laid.one.drive.ends == "fixed":
        yield laid.part("bearing", f"second fixed bearing of {label}", parts["fixed"], far, inward, "far", True)
    elif laid.one.drive.ends != "free":
        yield laid.part("bearing", f"floating bearing of {label}", parts["floating"], far, inward, "far", True)
    coupling = parts["coupling"]
    if laid.one.aside == ZERO:
        yield laid.part("coupling", f"coupling of {label}", coupling, laid.start, inward, "bearing")
        yield from _mount(laid, plus(seat, inward, -parts["fixed"].length / 2), coupling)
    else:
        short = Envelope(coupling.across, coupling.length / 2, coupling.mass)
        for number, place in enumerate((laid.start, plus(laid.start, laid.one.aside))):
            text = "pulley, belt to the motor beside"
            yield laid.part("pulley", text, short, place, inward, "bearing", number=number)
        yield _bracket(laid, coupling)
    face = plus(plus(laid.start, laid.one.aside), inward, -coupling.length / 2 - CLEAR)
    yield laid.motor(face, scaled(inward, -1.0), "bearing")


def _mount(laid: _Laid, bearing: Vector, coupling: Envelope) -> Iterator[TrainPart]:
    """Yield the two plates that carry a motor in line, past its coupling from the bearing's outer face.

    They are as wide as the bearing: where that has room they have.
    """
    flange = plus(laid.start, laid.inward, -coupling.length / 2 - CLEAR)
    long = abs(dot(minus(bearing, flange), laid.inward))
    ring = laid.motor(flange, laid.inward, "bearing").ring
    wide = max(y for y, _ in ring) - min(y for y, _ in ring)
    tall, middle = min(laid.train.parts["fixed"].across, coupling.across), plus(flange, laid.inward, long / 2)
    upright = abs(laid.inward[2]) > 0.5
    size = Envelope(tall, long, ALUMINIUM * long * tall * WALL)
    for number, side in enumerate((-1.0, 1.0)):
        place = plus(middle, X if upright else laid.up, side * (wide - WALL) / 2)
        text = "side plate of the motor's mount"
        part = laid.part("mount", text, size, place, laid.inward, "bearing", True, number)
        yield replace(part, ring=box_ring(WALL, tall) if upright else box_ring(tall, WALL))


def _bracket(laid: _Laid, coupling: Envelope) -> TrainPart:
    """Return the plate that carries a motor beside its screw, from the screw's bearing over to the motor."""
    aside = laid.one.aside
    reach = dot(aside, aside) ** 0.5
    away = scaled(aside, 1 / reach)
    side = laid.motor(laid.start, laid.inward, "bearing").ring
    wide = max(y for y, _ in side) - min(y for y, _ in side)
    long = reach + wide / 2 + coupling.across / 2
    middle = plus(plus(laid.start, laid.inward, -coupling.length / 2 - CLEAR + BRACKET / 2), away,
                  (reach + wide / 2 - coupling.across / 2) / 2)  # fmt: skip
    mass = ALUMINIUM * BRACKET * long * wide
    size = Envelope(wide, long, mass)
    part = laid.part("bracket", "plate under the motor beside", size, middle, away, "bearing")
    return replace(
        part, ring=box_ring(wide, BRACKET) if abs(dot(part.up, laid.inward)) > 0.5 else box_ring(BRACKET, wide)
    )


def _belt(laid: _Laid) -> Iterator[TrainPart]:
    parts, across, label = laid.train.parts, laid.across(), laid.kind.label
    yield laid.part("nut", f"clamp of {label}", parts["clamp"], laid.nut, laid.inward, "nut", True)
    pulley = parts["pulley"]
    yield laid.part("pulley", f"pulley of {label}", pulley, laid.start, across, "bearing")
    yield laid.part("bearing", f"idler of {label}", parts["idler"], laid.end, across, "far")
    yield laid.motor(plus(laid.start, across, pulley.length / 2 + HEADS), across, "bearing")


def _crossed(laid: _Laid) -> Iterator[TrainPart]:
    parts, label = laid.train.parts, laid.kind.label
    yield laid.part("nut", f"clamp of {label}", parts["clamp"], laid.nut, laid.inward, "nut", True)
    if laid.one.number > 1:
        return  # one motor moves both
    corner, corners = corner_of(laid.one, laid.structure).place, laid.structure.corners
    outward = 1.0 if corner[1] > sum(one.place[1] for one in corners) / len(corners) else -1.0
    place = plus(corner, Y, outward * BEYOND)
    yield laid.part("pulley", f"pulley of {label}", parts["pulley"], place, Z, "corner")
    yield laid.part("bearing", f"idlers of {label}", parts["idler"], place, Z, "corner")
    yield laid.motor(plus(place, Z, parts["pulley"].length / 2 + CLEAR), Z, "corner")


def _rack(laid: _Laid) -> Iterator[TrainPart]:
    parts, across, count = laid.train.parts, laid.across(), laid.train.motors
    pinion, gear = parts["pinion"], parts["gearbox"]
    for number in range(count):
        place = plus(laid.nut, laid.inward, APART * (2 * number - count + 1))
        yield laid.part("pinion", f"pinion of {laid.kind.label}", pinion, place, across, "nut", number=number)
        face = plus(place, across, pinion.length / 2 + CLEAR)
        yield laid.part("gearbox", "gearbox", gear, plus(face, across, gear.length / 2), across, "nut", True, number)
        yield laid.motor(plus(face, across, gear.length), across, "nut", number)
