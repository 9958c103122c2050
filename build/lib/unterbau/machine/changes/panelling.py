"""Laying a panel: the smallest rectangle over its spots, fastened there and between."""

from dataclasses import replace
from math import dist

from unterbau.catalogue.joints import Face
from unterbau.errors import InputError
from unterbau.machine.assemblies.pieces import crossed
from unterbau.machine.changes.change import Panel, joint_key, part_key
from unterbau.machine.changes.standing import Held, middle_of
from unterbau.materials.material import material
from unterbau.structure.join import Join
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import Spot
from unterbau.structure.structure import Single
from unterbau.structure.vectors import Vector, cross, dot, minus, plus, scaled

FLAT = 0.005
"""How far a fourth spot may lie off the plane of the others, m."""
LEAST = 0.03
"""Sides of a panel, m."""
SQUARE_ON = 0.5
"""A plate lies on a face whose normal has at least so much of its own."""


def panel_steps(one: Panel, name: str, corners: tuple[Held, ...]) -> tuple[Single, ...]:
    """Return what puts a panel up.

    Raises:
        InputError: Its spots lie in a line, or not in a plane.
    """
    plate = _plate(one, name, corners)
    steps: list[Single] = [plate]
    for host, place, edge, pitch in _fastened(one, corners):
        wall = scaled(plate.up, -_side(plate, host, place)) if isinstance(host, Bar) else None
        a, b = plate.hold(plate.under(place)), Spot(host.name, place)
        face = Face(pitch, 2 * one.margin)
        steps.append(Join(joint_key(one), one.joint, a, b, face, plate.up, edge, wall=wall, carrier=plate.carrier))
    return tuple(steps)


def _plate(one: Panel, name: str, corners: tuple[Held, ...]) -> PlatePiece:
    places = [spot.at.place for spot in corners]
    first = minus(places[1], places[0])
    normal = cross(first, minus(places[2], places[0]))
    size = dist(normal, (0.0, 0.0, 0.0))
    if size < LEAST * LEAST:
        raise InputError("spots", "its spots lie in one line")
    n = scaled(normal, 1 / size)
    off = max(abs(dot(minus(p, places[0]), n)) for p in places)
    if off > FLAT:
        raise InputError("spots", f"a spot lies {off * 1e3:.0f} mm off the plane of the others")
    along = scaled(first, 1 / dist(first, (0.0, 0.0, 0.0)))
    across = cross(n, along)
    xs, ys = ([dot(minus(p, places[0]), way) for p in places] for way in (along, across))
    low, high = (min(xs) - one.margin, min(ys) - one.margin), (max(xs) + one.margin, max(ys) + one.margin)
    if min(high[0] - low[0], high[1] - low[1]) < LEAST:
        raise InputError("spots", f"a side would be less than {LEAST * 1e3:.0f} mm")
    outward = sum(dot(spot.at.normal, n) for spot in corners)
    lift = 0.0 if abs(outward) < SQUARE_ON else (one.plate.thickness / 2 if outward > 0 else -one.plate.thickness / 2)
    origin = plus(plus(places[0], n, lift), across, (low[1] + high[1]) / 2)
    ends = plus(origin, along, low[0]), plus(origin, along, high[0])
    text = f"panel {one.plate.thickness * 1e3:g} mm, {material(one.plate.material).label}"
    key, wide = part_key(one), high[1] - low[1]
    laid = crossed(key, name, ends, (one.plate.thickness, wide), n, one.plate.material, text)
    return replace(laid, carrier=corners[0].host.carrier)


def _fastened(one: Panel, corners: tuple[Held, ...]) -> list[tuple[Bar | PlatePiece, Vector, Vector, float]]:
    """Return where a panel is fastened, to what, along which edge, and how much of it each holds."""
    found = []
    edges = [(spot, corners[(number + 1) % len(corners)]) for number, spot in enumerate(corners)]
    on_one = [dist(spot.at.place, after.at.place) for spot, after in edges if spot.host.name == after.host.name]
    longest = max(on_one, default=0.0)
    for spot, after in edges:
        long = dist(spot.at.place, after.at.place)
        shared = spot.host.name == after.host.name and one.between > 0
        between = max(0, round((one.between + 1) * long / longest) - 1) if shared else 0
        pitch = long / (between + 1) if shared else 2 * one.margin
        edge = scaled(minus(after.at.place, spot.at.place), 1 / long)
        found.append((spot.host, spot.at.place, edge, pitch))
        for step in range(between):
            share = (step + 1) / (between + 1)
            found.append((spot.host, plus(spot.at.place, edge, share * long), edge, pitch))
    return found


def _side(plate: PlatePiece, host: Bar, place: Vector) -> float:
    """Return on which side of a panel what it is fastened to lies: −1 below its face, 1 above."""
    away = dot(minus(middle_of((host.start, host.end)), place), plate.up)
    return 1.0 if away > 0.0 else -1.0
