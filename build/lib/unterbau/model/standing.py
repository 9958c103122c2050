"""Where what moves stands, without the frame that it is put into: enough to see how contacts move."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray
from unterbau.model.built import Ground
from unterbau.model.modelled import Model
from unterbau.structure.vectors import Vector


@dataclass(frozen=True, slots=True)
class Standing:
    """A machine with its head at a place."""

    nodes: FloatArray
    """Places, m, (n, 3)."""
    slides: tuple[tuple[int, Vector, Vector], ...]
    """Node of each block, and the ends of the axis that it runs along."""
    distances: tuple[float, ...]
    """From bearing to nut of each drive, m."""
    tip: int
    work: Vector
    """Where the work stands."""
    carries: int
    """First node of what carries it."""
    ground: Ground | None


def standing_of(model: Model) -> Standing:
    """Return where what moves stands in a frame, finished or not."""
    frame, work = model.frame, model.work
    if work is None:
        raise ValueError("the work stands nowhere")
    slides = tuple(
        (int((frame.seats if slide.inside else frame.springs)[slide.row][0]), axis[0], axis[-1])
        for slide, axis in ((one, frame.axis(one.chain)) for one in frame.slides)
    )
    ground = model.ground
    carries = work.nodes[0] if ground is None else (ground.chain.nodes if ground.chain else ground.nodes)[0]
    tip = model.node(model.structure.tip)
    return Standing(
        np.array(frame.places), slides, tuple(one.distance for one in model.drives), tip, work.place, int(carries),
        ground,
    )  # fmt: skip
