"""Parts of a frame turned about an upright axis after they were put in straight."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from unterbau.model.modelled import Model
from unterbau.structure.structure import Turned
from unterbau.structure.vectors import Vector

Turn = Callable[[Vector], Vector]


@contextmanager
def turned(model: Model, turn: Turned) -> Iterator[None]:
    """Turn all that is put in meanwhile.

    Rigid bodies keep their moments of inertia: they are taken as round about an upright axis.
    """
    frame = model.frame
    rows = (frame.places, frame.beams, frame.springs, frame.seats, frame.masses, model.plates)
    nodes, beams, springs, seats, masses, plates = (len(one) for one in rows)
    yield
    way, place = turn.way, turn.place
    for plate in model.plates[plates:]:
        plate.move(place(plate.start), place(plate.end), way(plate.up))
    frame.places[nodes:] = [place(p) for p in frame.places[nodes:]]
    frame.beams[beams:] = [_row(row, (2, 3, 4), way) for row in frame.beams[beams:]]
    frame.springs[springs:] = [_row(row, (2, 3), way) for row in frame.springs[springs:]]
    frame.seats[seats:] = [_row(row, (3, 4), way) for row in frame.seats[seats:]]
    frame.masses[masses:] = [_row(row, (3,), way) for row in frame.masses[masses:]]


def _row(row: tuple[Any, ...], vectors: tuple[int, ...], way: Turn) -> tuple[Any, ...]:
    return tuple(way(value) if n in vectors else value for n, value in enumerate(row))
