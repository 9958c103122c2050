"""A structure as a frame: every step in turn, then what comes last."""

from functools import lru_cache, singledispatch

from unterbau.band import Level
from unterbau.model.bars import lay_bar, lay_rod
from unterbau.model.built import Built
from unterbau.model.guides import blocks, drive, rail
from unterbau.model.hanging import counterweight, payload
from unterbau.model.joins import base_plate, end_join, foot, gusset, join, rib, springs, weight
from unterbau.model.modelled import Model
from unterbau.model.sheets import lay_sheet
from unterbau.model.spindle import spindle
from unterbau.model.stand import ground
from unterbau.model.standing import Standing, standing_of
from unterbau.model.turning import turned
from unterbau.model.work import stand_work
from unterbau.structure.lines import carried_by_feet
from unterbau.structure.parts import Place
from unterbau.structure.piece import PlatePiece, Point
from unterbau.structure.structure import Step, Structure, Turned

KEPT = 24


def to_frame(structure: Structure, place: Place, level: Level) -> Built:
    """Return the frame of a structure with its head at a place, what is uncertain at a level.

    Raises:
        InputError: What makes no machine.
    """
    return _built(structure, place, level)


@lru_cache(maxsize=KEPT)
def _built(structure: Structure, place: Place, level: Level) -> Built:
    return _modelled(structure, place).built(level)


@lru_cache(maxsize=KEPT)
def standing(structure: Structure, place: Place) -> Standing:
    """Return where what moves stands with the head at a place; nothing is meshed for it."""
    return standing_of(_put_up(structure, place))


def standing_built(structure: Structure, place: Place) -> Standing:
    """Return the same for a place that the frame is built at anyway."""
    return standing_of(_modelled(structure, place))


def _put_up(structure: Structure, place: Place) -> Model:
    model = Model(structure, place)
    put_in(model, structure.steps)
    stand_work(model)
    return model


@lru_cache(maxsize=KEPT)
def _modelled(structure: Structure, place: Place) -> Model:
    model = _put_up(structure, place)
    finish(model)
    return model


def put_in(model: Model, steps: tuple[Step, ...]) -> None:
    """Put steps into a frame, in order."""
    for step in steps:
        if isinstance(step, Turned):
            with turned(model, step):
                put_in(model, step.steps)
            continue
        _put(step, model)


def finish(model: Model) -> None:
    """Do what comes when all is fastened: walls, plates' meshes, the ground."""
    for work in model.late:
        work()
    for plate in model.plates:
        plate.finish()
    structure = model.structure
    if model.feet and structure.stand is not None:
        ground(model.frame, structure.stand, model.feet, carried_by_feet(structure))


@singledispatch
def _put(_step: object, _model: Model) -> None:
    """Put a step into a frame; what is only bought or seen adds nothing."""


@_put.register
def _point(one: Point, model: Model) -> None:
    node = model.frame.node(one.name, model.moved(one.place, one.carrier))
    model.points[one.name] = node
    model.chains[one.name] = (node,)


@_put.register
def _plate(one: PlatePiece, model: Model) -> None:
    lay_sheet(model, one)


_put.register(lay_bar)
_put.register(lay_rod)
for _one in (
    join,
    end_join,
    base_plate,
    rib,
    gusset,
    foot,
    springs,
    weight,
    payload,
    counterweight,
    rail,
    blocks,
    drive,
    spindle,
):
    _put.register(_one)
