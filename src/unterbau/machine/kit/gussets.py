"""Gussets: triangles in the corner between a part's end and what it stands on, welded or bonded on two sides."""

from unterbau.catalogue.joints import RIGID
from unterbau.errors import InputError
from unterbau.machine.bill import Line
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.plates import LaidPlate
from unterbau.materials.material import Material, material
from unterbau.structure.bodies import Prism
from unterbau.structure.parts import Joint, Member
from unterbau.structure.vectors import Vector, cross, minus, plus

PLACES = (1 / 6, 1 / 2, 5 / 6)
"""Where each leg is held, of its length."""
OF_LEG = 0.12
"""Half of each such place, of the leg."""
BESIDE: tuple[Vector, ...] = ((1.0, 0.0, 0.0), (-1.0, 0.0, 0.0))
"""The faces of a column to the right and left."""
INSIDE = 0.7
"""Gussets of one side stand within this share of the part's width."""


def gusset_stops(chosen: Joint) -> tuple[float, ...]:
    """Return where a part needs nodes for its gussets, m from its end."""
    return tuple(chosen.gusset_leg * place for place in PLACES) if chosen.gussets else ()


def gusset(kit: Kit, key: str, part: Laid, last: bool, host: Laid | LaidPlate, sides: tuple[Vector, ...]) -> None:
    """Put gussets in the corners at an end of a part.

    Args:
        kit: The machine.
        key: The joint at this end.
        part: In its place, with nodes at `gusset_stops`.
        last: Its far end.
        host: What it stands on.
        sides: Off the part, which faces they stand against; so many on each.
    """
    chosen: Joint = getattr(kit.machine, key)
    if not chosen.gussets:
        return
    member: Member = getattr(kit.machine, part.key)
    base = material(member.material)
    away = plus((0.0, 0.0, 0.0), part.along, -1.0 if last else 1.0)
    end = part.end if last else part.start
    for side in sides:
        normal = cross(away, side)
        tall = part.height if abs(sum(a * b for a, b in zip(side, part.up, strict=True))) > 0.5 else part.width
        wide = part.width if tall == part.height else part.height
        for number in range(chosen.gussets):
            spread = 0.0 if chosen.gussets == 1 else INSIDE * wide * (number / (chosen.gussets - 1) - 0.5)
            corner = plus(plus(end, side, tall / 2), normal, spread)
            _check_room(key, chosen.gusset_leg, corner, side, part, host)
            name = f"{part.name} gusset {len(kit.plates)}"
            _triangle(kit, key, name, corner, (away, side, normal), (part, host), chosen, base)


def _check_room(key: str, leg: float, corner: Vector, side: Vector, part: Laid, host: Laid | LaidPlate) -> None:
    most = part.length / 2
    if isinstance(host, LaidPlate):
        from_corner = minus(corner, host.corner)
        for axis, size in ((host.along, host.length), (host.across, host.width)):
            at, towards = (sum(a * b for a, b in zip(v, axis, strict=True)) for v in (from_corner, side))
            if abs(towards) > 0.5:
                most = min(most, size - at if towards > 0 else at)
    if leg > most + 1e-6:
        raise InputError(f"{key}.gusset_leg", f"expected at most {most * 1e3:.0f} mm: there is no more room")


def _triangle(
    kit: Kit, key: str, name: str, corner: Vector, axes: tuple[Vector, Vector, Vector],
    between: tuple[Laid, Laid | LaidPlate], chosen: Joint, base: Material,
) -> None:  # fmt: skip
    (away, side, normal), (part, host) = axes, between
    leg, thickness, frame = chosen.gusset_leg, chosen.gusset_thickness, kit.frame
    middle = plus(corner, side, leg / 2)
    laid = LaidPlate(kit, key, name, middle, plus(middle, away, leg), normal, thickness, leg, (), (), base, True)
    for along, other in ((away, part), (side, host)):
        half = (OF_LEG * leg, 0.0) if other is part else (0.0, OF_LEG * leg)
        for place in PLACES:
            at = plus(corner, along, place * leg)
            node = frame.node(f"{name} at {other.name} {place:.2f}", at)
            laid.share(node, half)
            if isinstance(other, LaidPlate):
                to = other.hold(at, other.half_of(side, 2 * OF_LEG * leg, thickness))
            else:
                to = kit.near(other, at)
            frame.spring(key, node, to, (RIGID,) * 6, away, side, 0.0)
    kit.plates.append(laid)
    ring = ((0.0, 0.0), (leg, 0.0), (0.0, leg))
    kit.chains[name] = (laid.held[0].node,)
    low, high = (plus(corner, normal, s * thickness / 2) for s in (-1, 1))
    kit.bodies.append(Prism(key, name, low, high, side, (ring,)))
    mass = base.rho * thickness * leg**2 / 2
    text = f"gusset {thickness * 1e3:g} mm, legs {leg * 1e3:g}, {base.label}"
    kit.buy(Line(key, text, 1, leg, mass, (f"plate:{base.id}", f"plate:{base.kind}")))
