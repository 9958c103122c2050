"""Changes that one could try at a part: closing plates, panels and diagonals between a pair, braces across corners."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import islice
from math import dist

from unterbau.errors import InputError
from unterbau.machine.changes.bracing import upright
from unterbau.machine.changes.change import Brace, Change, Panel, Partless, part_key
from unterbau.machine.changes.linked import free_id
from unterbau.machine.changes.standing import Host, held, mirrored
from unterbau.materials.material import material
from unterbau.structure.footing import Face, Footing
from unterbau.structure.join import EndJoin
from unterbau.structure.motion import Rail
from unterbau.structure.parts import Joint, Member, Plate
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spots import FACES, looks, stands
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import dot

THICK = 0.006
"""Of plates that are offered, m."""
EVERY = 0.1
"""Between their screws, m."""
INSET = 0.04
"""Share of a piece that is left free at its ends."""
REACH = 0.3
"""Share of a piece from a corner to where a brace across it meets it."""
UPRIGHT = 0.9
MOST_CLOSED, MOST_CORNERS = 2, 4
"""That are offered of each sort, so that an answer does not wait."""
PLATES = {"steel": "steel-s235", "aluminium": "aluminium-5083"}
BRACES = {
    "steel": Member("flat-40x10", "steel-s235"), "aluminium": Member("flat-40x10", "aluminium-6060"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Proposal:
    """A change that could be tried."""

    text: str
    change: Change


def proposals(structure: Structure, changes: tuple[Change, ...], key: str) -> tuple[Proposal, ...]:
    """Return changes that could stiffen the pieces of a link; whether they gain, and fit, is for others to say."""
    there = {part_key(one) for one in changes if not isinstance(one, Partless)}
    if key in there:
        return ()
    pieces = [
        one for one in structure.pieces.values()
        if isinstance(one, Bar | PlatePiece) and one.key == key and not getattr(one, "halved", False)
    ]  # fmt: skip
    found: list[Proposal] = []
    for piece in pieces[:1]:
        found += islice(_closed(structure, changes, piece), MOST_CLOSED)
    if len(pieces) >= 2:
        found += _between(structure, changes, pieces[0], pieces[1])
    for piece in pieces[:1]:
        found += islice(_corners(structure, changes, piece), MOST_CORNERS)
    distinct: dict[str, Proposal] = {}
    for one in found:
        distinct.setdefault(one.text, one)
    return tuple(distinct.values())


def _metal(piece: Host) -> str:
    base = material(piece.part.material if isinstance(piece, Bar) else piece.material)
    return base.kind if base.kind in PLATES else "steel"


def _likeness(structure: Structure, spots: tuple[Footing, ...]) -> bool:
    """Return whether the other side has the same pieces, and they are others."""
    try:
        here = tuple(held(structure, one) for one in spots)
        there = mirrored(structure, here)
    except InputError:
        return False
    return any(a.host.name != b.host.name for a, b in zip(here, there, strict=True))


def _free_faces(structure: Structure, piece: Host) -> Iterator[Face]:
    """Yield the faces of a piece that no rail lies on, its large ones first."""
    railed = [one.up for one in structure.flat if isinstance(one, Rail) and one.host == piece.name]
    for face in looks(piece):
        if all(dot(FACES[face], up) < 0.5 for up in railed):
            yield face


def _closed(structure: Structure, changes: tuple[Change, ...], piece: Host) -> Iterator[Proposal]:
    if not isinstance(piece, Bar):
        return
    metal = PLATES[_metal(piece)]
    between = max(1, round(piece.length / EVERY) - 1)
    for face in _free_faces(structure, piece):
        corners = tuple(
            Footing(piece.name, face, along, across)
            for along, across in ((INSET, 0.1), (1 - INSET, 0.1), (1 - INSET, 0.9), (INSET, 0.9))
        )
        panel = Panel(
            free_id(changes, "panel"), corners, Plate(THICK, metal), Joint("bolt"), min(between, 20),
            0.005, _likeness(structure, corners),
        )  # fmt: skip
        yield Proposal(f"plate {THICK * 1e3:g} mm screwed to its {face}", panel)


def _between(structure: Structure, changes: tuple[Change, ...], one: Host, other: Host) -> Iterator[Proposal]:
    if abs(dot(one.along, other.along)) < 0.99 or one.carrier != other.carrier:
        return
    metal = _metal(one)
    for face in _free_faces(structure, one):
        across = dist(one.start, other.start)
        if abs(dot(FACES[face], _way(one, other))) > 0.5 or across < 0.05:
            continue
        ends = [Footing(name, face, along) for name in (one.name, other.name) for along in (INSET, 1 - INSET)]
        corners = (ends[0], ends[1], ends[3], ends[2])
        between = min(20, max(1, round(one.length / EVERY) - 1))
        panel = Panel(free_id(changes, "panel"), corners, Plate(THICK, PLATES[metal]), Joint("bolt"), between)
        yield Proposal(f"plate {THICK * 1e3:g} mm over both, {face}", panel)
        diagonal = Brace(free_id(changes, "brace"), ends[0], ends[3], _flat(structure, (ends[0], ends[3]), metal))
        yield Proposal(f"diagonal between both, {face}", diagonal)
        if abs(one.along[2]) > UPRIGHT:
            upper = tuple(replace(spot, along=0.5) if spot.along == INSET else spot for spot in corners)
            halved = replace(panel, corners=upper, between=max(1, between // 2))
            yield Proposal(f"plate {THICK * 1e3:g} mm over both, upper half, {face}", halved)


def _flat(structure: Structure, spots: tuple[Footing, Footing], metal: str) -> Member:
    """Return a flat that lies on the face where it begins."""
    first, second = (stands(structure, one) for one in spots)
    up = upright(first.place, second.place)
    return replace(BRACES[metal], turned=abs(dot(up, first.normal)) > 0.5)


def _way(one: Host, other: Host) -> tuple[float, float, float]:
    away = tuple(b - a for a, b in zip(one.start, other.start, strict=True))
    size = sum(v * v for v in away) ** 0.5 or 1.0
    return (away[0] / size, away[1] / size, away[2] / size)


def _corners(structure: Structure, changes: tuple[Change, ...], piece: Host) -> Iterator[Proposal]:
    """Yield braces across the corners where bars stand on the piece, or the piece on others."""
    for step in structure.flat:
        if not isinstance(step, EndJoin) or piece.name not in (step.bar, step.host):
            continue
        bar, host = structure.pieces[step.bar], structure.pieces[step.host]
        if not isinstance(bar, Bar) or not isinstance(host, Bar | PlatePiece) or bar.carrier != host.carrier:
            continue
        near = 1 - REACH if step.last else REACH
        end = bar.end if step.last else bar.start
        at = dot([e - s for e, s in zip(end, host.start, strict=True)], host.along) / host.length  # type: ignore[arg-type]
        for face in _free_faces(structure, bar):
            for beyond in (at - REACH, at + REACH):
                if not INSET <= beyond <= 1 - INSET or abs(dot(FACES[face], host.along)) > 0.5:
                    continue
                towards: Face = face if face in looks(host) else "axis" if isinstance(host, Bar) else looks(host)[0]
                spots = Footing(bar.name, face, near), Footing(host.name, towards, min(max(beyond, 0.0), 1.0))
                flat = _flat(structure, spots, _metal(bar))
                brace = Brace(free_id(changes, "brace"), *spots, flat, mirrored=_likeness(structure, spots))
                side = "below" if beyond < at else "above"
                yield Proposal(f"brace to the {host.name}, {face}, {side}", brace)
