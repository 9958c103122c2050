"""Leaving a part out, where the rest still stands."""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import singledispatch

from unterbau.errors import InputError
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.join import (
    BasePlateJoin,
    Collar,
    Counterweight,
    EndJoin,
    Foot,
    GussetJoin,
    Join,
    RibJoin,
    Springs,
    Weight,
)
from unterbau.structure.motion import Blocks, DriveTrain, Rail, SpindleUnit, Ware
from unterbau.structure.piece import Bar, PlatePiece, Point, Rod
from unterbau.structure.structure import Single, Step, Structure, Turned

GROUND = ""
Moving = Rail | Blocks | DriveTrain | SpindleUnit


def without(structure: Structure, what: str) -> Structure:
    """Return a structure without a piece, or without all pieces of a link.

    Raises:
        InputError: There is no such part; it carries what moves or the work; or something would hang on nothing.
    """
    gone = {
        piece.name for piece in structure.pieces.values()
        if piece.name == what or (not isinstance(piece, Point) and piece.key == what)
    }  # fmt: skip
    if not gone:
        raise InputError("what", f'there is no "{what}" in this machine')
    _check_free(structure, gone)
    left = replace(structure, steps=tuple(_kept(structure.steps, gone)))
    before, after = (_standing(one) for one in (structure, left))
    loose = sorted(before - after - gone)
    if loose:
        raise InputError("what", f"the {loose[0]} would hang on nothing")
    return left


def _check_free(structure: Structure, gone: set[str]) -> None:
    needed = {structure.work.on: "the work stands on it", structure.tip.piece: "it holds the tool"}
    needed |= dict.fromkeys((corner.piece for corner in structure.corners), "belts run round it")
    for step in structure.flat:
        if isinstance(step, Moving):
            needed |= dict.fromkeys(_ends(step), "it carries what moves")
    for name in sorted(gone):
        if name in needed:
            raise InputError("what", f"the {name} cannot be left out: {needed[name]}")


def _kept(steps: Iterable[Step], gone: set[str]) -> Iterator[Step]:
    for step in steps:
        if isinstance(step, Turned):
            yield replace(step, steps=tuple(_kept(step.steps, gone)))
        elif not gone & set(_ends(step)):
            yield step


def _standing(structure: Structure) -> set[str]:
    """Return the pieces that hang together with the ground."""
    found, edges = {GROUND}, [tuple(_ends(step)) for step in structure.flat]
    grown = True
    while grown:
        grown = False
        for edge in edges:
            if found.intersection(edge) and not found.issuperset(edge):
                found |= set(edge)
                grown = True
    return found & set(structure.pieces)


@singledispatch
def _ends(_step: Single) -> tuple[str, ...]:
    """Return the pieces that a step is, or holds together; the ground among them."""
    return ()


@_ends.register
def _piece(one: Bar | PlatePiece | Point) -> tuple[str, ...]:
    return (one.name,)


@_ends.register
def _rod(one: Rod) -> tuple[str, ...]:
    return (one.name,) if one.root is None else (one.name, one.root.piece)


@_ends.register
def _joined(one: Join | Springs) -> tuple[str, ...]:
    return (one.a.piece, GROUND if one.b is None else one.b.piece)


@_ends.register
def _end(one: EndJoin) -> tuple[str, ...]:
    return (one.bar, one.host)


@_ends.register
def _base_plate(one: BasePlateJoin) -> tuple[str, ...]:
    return (one.bar, one.plate.name, one.host)


@_ends.register
def _rib(one: RibJoin) -> tuple[str, ...]:
    return (one.plate, one.rib.name)


@_ends.register
def _gusset(one: GussetJoin) -> tuple[str, ...]:
    return (one.bar, one.plate.name, one.host)


@_ends.register
def _foot(one: Foot) -> tuple[str, ...]:
    return (one.on.piece, one.base or GROUND)


@_ends.register
def _weight(one: Weight) -> tuple[str, ...]:
    return (one.at.piece,)


@_ends.register
def _counterweight(one: Counterweight) -> tuple[str, ...]:
    return (one.pulley.piece, one.hook.piece)


@_ends.register
def _collar(one: Collar) -> tuple[str, ...]:
    return (one.piece,)


@_ends.register
def _rail(one: Rail) -> tuple[str, ...]:
    return (one.host,)


@_ends.register
def _blocks(one: Blocks) -> tuple[str, ...]:
    return (one.plate, *(host for host, _ in one.seats))


@_ends.register
def _drive(one: DriveTrain) -> tuple[str, ...]:
    return (one.nut.piece, one.bearing.piece, one.host)


@_ends.register
def _spindle(one: SpindleUnit) -> tuple[str, ...]:
    return (one.plate,)


@_ends.register
def _chain(_one: ChainRun) -> tuple[str, ...]:
    return ()


@_ends.register
def _ware(_one: Ware) -> tuple[str, ...]:
    return ()
