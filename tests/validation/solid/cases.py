"""Members with rails as solid bodies: what was meshed, and its flexibility at the blocks. Millimetres."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tests.validation.solid.bricks import Box, Pad, Screws, Solid, Span
from unterbau.model.walled import screw_stops

STEEL, FILL = 210e3, 31e3
RAIL, TALL, LONG = 20.0, 18.0, 75.0
"""Width and height of a rail, length of a block."""
STANCE = 200.0
SHORT = 10.0
"""A rail ends before the clamp: on a machine nothing holds its ends but its screws."""
BRICK = (15.0, 12.0, 12.0)
X_MIRROR, Z_MIRROR = np.array([-1, 1, 1, 1, -1, -1]), np.array([1, 1, -1, -1, -1, 1])


@dataclass(frozen=True)
class Case:
    """A member along X, clamped at its ends, with rails screwed to it."""

    name: str
    height: float
    depth: float
    wall: float
    rails: tuple[tuple[str, float], ...] = ()
    """Face and place of each rail on it: on `front` its z, on `top` its y."""
    length: float = 945.0
    filled: bool = False
    channel: bool = False
    """Open at the back."""
    flange: float = 0.0
    """Thickness of a channel's flanges where it is another than that of its web."""
    diaphragms: float = 0.0
    """Between plates inside, as thick as the wall."""

    @property
    def mirrored(self) -> bool:
        """Whether its rails are each other's image about the middle."""
        return len(self.rails) == 2 and {face for face, _ in self.rails} == {"front"}

    @property
    def loaded(self) -> tuple[int, ...]:
        """Pads that are loaded; what the others do follows by reflection."""
        return (0,) if self.mirrored else tuple(range(0, 2 * len(self.rails), 2))


TUBE = (("front", -38.0), ("front", 38.0))
CASES = (
    Case("two on the front", 120, 80, 5, TUBE),
    Case("thin and square", 100, 100, 3, (("front", -28.0), ("front", 28.0))),
    Case("thick and square", 100, 100, 8, (("front", -28.0), ("front", 28.0))),
    Case("flat", 80, 120, 4, (("front", -24.0), ("front", 24.0))),
    Case("top and front", 100, 100, 5, (("front", -28.0), ("top", 0.0))),
    Case("filled", 120, 80, 4, TUBE, filled=True),
    Case("over the side walls", 120, 80, 5, (("front", -50.0), ("front", 50.0))),
    Case("diaphragms", 120, 80, 3, TUBE, diaphragms=190),
    Case("one on top", 120, 80, 5, (("top", 0.0),)),
    Case("channel", 120, 55, 7, TUBE, channel=True, flange=9),
    Case("long and tall", 160, 80, 4, (("front", -58.0), ("front", 58.0)), length=1300.0),
)


def case(name: str) -> Case:
    """Return a case by name."""
    return next(one for one in CASES if one.name == name)


def solid(one: Case) -> Solid:
    """Return a case as bricks."""
    L, h, b, t = one.length, one.height / 2, one.depth / 2, one.wall
    f = one.flange or t
    every: Span = (0.0, L)
    boxes = [
        Box(every, (-b, -b + t), (-h, h), STEEL),
        Box(every, (-b + t, b if one.channel else b - t), (-h, -h + f), STEEL),
        Box(every, (-b + t, b if one.channel else b - t), (h - f, h), STEEL),
    ]
    if not one.channel:
        boxes.append(Box(every, (b - t, b), (-h, h), STEEL))
    inside: tuple[Span, Span] = (-b + t, b - t), (-h + t, h - t)
    if one.filled:
        boxes.append(Box(every, *inside, FILL, 0.26))
    if one.diaphragms:
        count = round(L / one.diaphragms)
        for n in range(1, count):
            stay = L * n / count
            boxes.append(Box((stay - t / 2, stay + t / 2), *inside, STEEL))
    screws, pads = [], []
    for n, (face, at) in enumerate(one.rails):
        body, across = f"rail {n}", (at - RAIL / 2, at + RAIL / 2)
        patches: list[tuple[Span, Span, Span]] = []
        for stop in screw_stops(L / 1e3):
            screw = (stop * 1e3 - RAIL / 2, stop * 1e3 + RAIL / 2)
            patches.append((screw, (-b, -b), across) if face == "front" else (screw, across, (h, h)))
        screws.append(Screws(body, tuple(patches)))
        if face == "front":
            boxes.append(Box((SHORT, L - SHORT), (-b - TALL, -b), across, STEEL, screwed=body))
        else:
            boxes.append(Box((SHORT, L - SHORT), across, (h, h + TALL), STEEL, screwed=body))
        for side in (-1, 1):
            block = (L / 2 + side * STANCE / 2 - LONG / 2, L / 2 + side * STANCE / 2 + LONG / 2)
            top = (-b - TALL, -b - TALL) if face == "front" else (h + TALL, h + TALL)
            pads.append(Pad(block, top, across) if face == "front" else Pad(block, across, top))
    wide: Span = (-1e3, 1e3)
    return Solid(boxes, screws, [((0.0, 0.0), wide, wide), ((L, L), wide, wide)], BRICK, pads)


def filled_in(one: Case, F: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the flexibility of all pads by all, (6n, 6n), from that by the loaded ones, by reflection."""
    n = 2 * len(one.rails)
    whole = np.zeros((n, 6, n, 6))
    for column, p in enumerate(one.loaded):
        whole[:, :, p] = F[:, :, column]
        swap = [q ^ 1 for q in range(n)]
        whole[:, :, p ^ 1] = F[swap, :, column] * X_MIRROR[None, :, None] * X_MIRROR
    if one.mirrored:
        for p in (0, 1):
            swap = [q ^ 2 for q in range(n)]
            whole[:, :, p ^ 2] = whole[swap][:, :, p] * Z_MIRROR[None, :, None] * Z_MIRROR
    return whole.reshape(6 * n, 6 * n)
