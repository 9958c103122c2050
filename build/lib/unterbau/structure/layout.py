"""Laying a machine out: pieces and what joins them, one after the other."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from typing import Generic, TypeVar

from unterbau.structure.carrier import STILL, Carrier, carrier
from unterbau.structure.dimension_line import DimensionLine, Flat, View
from unterbau.structure.parts import Place, Stand
from unterbau.structure.piece import Bar, PlatePiece, Point, Rod
from unterbau.structure.spot import BOLT, Spot
from unterbau.structure.structure import SizeLine, Step, Structure, Turned, Work
from unterbau.structure.vectors import ZERO, Vector

M = TypeVar("M", covariant=True)
P = TypeVar("P", bound=Bar | Rod | PlatePiece | Point)
Any_ = Bar | Rod | PlatePiece | Point


class Layout(Generic[M]):
    """A machine being laid out, its head in the middle of its travel and lowest."""

    def __init__(self, machine: M) -> None:
        self._machine = machine
        self.carrier: Carrier = STILL
        self.corners: tuple[Spot, ...] = ()
        self.tip: Spot | None = None
        self.nose: Spot | None = None
        self.work: Work | None = None
        self._sizes: list[SizeLine] = []
        self._steps: list[Step] = []
        self._counts: dict[str, int] = {}

    @property
    def machine(self) -> M:
        """What is laid out."""
        return self._machine

    def add(self, step: Step) -> None:
        """Add a step."""
        self._steps.append(step)

    def put(self, piece: P) -> P:
        """Add a piece, carried as all that is laid now, and return it."""
        laid = replace(piece, carrier=self.carrier)
        self._steps.append(laid)
        return laid

    def begin_with(self, piece: PlatePiece, change: Callable[[Step], Step]) -> None:
        """Put a piece that stands still before all that is laid, and change that."""
        self._steps = [piece, *(change(step) for step in self._steps)]

    def change(self, step: Step, into: Step) -> None:
        """Lay something in a step's place."""
        self._steps = [into if one is step else one for one in self._steps]

    def number(self, of: str) -> int:
        """Return how many there are of something by now, this one counted."""
        self._counts[of] = self._counts.get(of, 0) + 1
        return self._counts[of]

    @contextmanager
    def moved_by(self, axes: str) -> Iterator[None]:
        """Carry what is laid meanwhile by axes; in small letters against them."""
        before, self.carrier = self.carrier, carrier(axes)
        try:
            yield
        finally:
            self.carrier = before

    @contextmanager
    def turned(self, degrees: float, about: tuple[float, float]) -> Iterator[None]:
        """Turn what is laid meanwhile about an upright axis."""
        before, self._steps = self._steps, []
        try:
            yield
        finally:
            inside, self._steps = self._steps, before
            self._steps += [Turned(degrees, about, tuple(inside))] if degrees else inside

    def near(self, piece: Any_, place: Vector, half: tuple[float, float] = BOLT) -> Spot:
        """Return the place of a piece that is nearest to a place."""
        return Spot(piece.name, place, half)

    def size(
        self, attribute: str, label: str, view: View, start: Flat, end: Flat, lane: int = 0, pull: float = 1.0,
        moves: str = "",
    ) -> None:  # fmt: skip
        """Draw a size of the machine as a dimension line whose end is dragged; `moves` are the axes it goes with."""
        line = DimensionLine(attribute, label, view, start, end, pull, lane)
        self._sizes.append(SizeLine(line, carrier(moves)))

    def size_across(
        self, attribute: str, label: str, view: View, middle: Flat, length: float, lane: int = 0, moves: str = ""
    ) -> None:
        """Draw a size that lies level and grows both ways from its middle."""
        half = length / 2
        start, end = (middle[0] - half, middle[1]), (middle[0] + half, middle[1])
        self.size(attribute, label, view, start, end, lane, 2.0, moves)

    def so_far(self) -> Structure:
        """Return what is laid by now, for what follows from it."""
        nowhere = Spot("", ZERO)
        return Structure(
            tuple(self._steps), nowhere, nowhere, Work("", ZERO), (), None, (), lambda _: ZERO
        )  # fmt: skip

    def structure(self, stand: Stand | None, way: Callable[[Place], Vector]) -> Structure:
        """Return the whole."""
        if self.tip is None or self.nose is None or self.work is None:
            raise ValueError("a machine has a tool and a place for the work")
        return Structure(
            tuple(self._steps), self.tip, self.nose, self.work, self.corners, stand, tuple(self._sizes), way
        )
