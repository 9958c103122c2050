"""Parts of a machine turned about an upright axis after they were put in place."""

import math
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from typing import Any

from unterbau.machine.kit.kit import Kit
from unterbau.structure.bodies import Prism
from unterbau.structure.vectors import Vector

Turn = Callable[[Vector], Vector]


@contextmanager
def turned(kit: Kit, degrees: float, about: tuple[float, float]) -> Iterator[None]:
    """Turn all that is put in place meanwhile, seen from above against the clock.

    Rigid bodies keep their moments of inertia: they are taken as round about an upright axis.
    """
    frame = kit.frame
    marks = [
        len(rows)
        for rows in (frame.places, frame.beams, frame.springs, frame.seats, frame.masses, kit.bodies, kit.plates)
    ]
    yield
    if not degrees:
        return
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    x0, y0 = about

    def way(v: Vector) -> Vector:
        return (c * v[0] - s * v[1], s * v[0] + c * v[1], v[2])

    def place(p: Vector) -> Vector:
        x, y, z = way((p[0] - x0, p[1] - y0, p[2]))
        return (x + x0, y + y0, z)

    nodes, beams, springs, seats, masses, bodies, plates = marks
    for plate in kit.plates[plates:]:
        plate.move(place(plate.start), place(plate.end), way(plate.up))
    frame.places[nodes:] = [place(p) for p in frame.places[nodes:]]
    frame.beams[beams:] = [_row(row, (2, 3, 4), way) for row in frame.beams[beams:]]
    frame.springs[springs:] = [_row(row, (2, 3), way) for row in frame.springs[springs:]]
    frame.seats[seats:] = [_row(row, (3, 4), way) for row in frame.seats[seats:]]
    frame.masses[masses:] = [_row(row, (3,), way) for row in frame.masses[masses:]]
    for n, body in enumerate(kit.bodies[bodies:], bodies):
        if isinstance(body, Prism):
            kit.bodies[n] = replace(body, start=place(body.start), end=place(body.end), up=way(body.up))
        else:
            kit.bodies[n] = replace(
                body, corner=place(body.corner), along=way(body.along), across=way(body.across),
                normal=way(body.normal),
            )  # fmt: skip


def _row(row: tuple[Any, ...], vectors: tuple[int, ...], way: Turn) -> tuple[Any, ...]:
    return tuple(way(value) if n in vectors else value for n, value in enumerate(row))
