"""A cast piece as its mould makes it: outside, ribs, pockets, a sump, cores, inserts; what it takes and weighs."""

from dataclasses import dataclass
from math import pi, radians, tan

from unterbau.errors import InputError
from unterbau.strict import STRICT

MOST = 60


@dataclass(frozen=True, slots=True)
class Pocket:
    """A box that stays open: from the underside as a pocket between ribs, from the top as a sump."""

    __pydantic_config__ = STRICT

    x: float
    """Of its lower left corner, from that of the piece, m."""
    y: float
    length: float
    width: float
    depth: float
    above: bool = False
    """From the top."""


@dataclass(frozen=True, slots=True)
class Core:
    """A round bar or pipe that stays open right through, level or upright."""

    __pydantic_config__ = STRICT

    diameter: float
    length: float


@dataclass(frozen=True, slots=True)
class Insert:
    """A threaded bush that is cast in from above."""

    __pydantic_config__ = STRICT

    thread: str
    x: float
    y: float
    depth: float = 0.05
    diameter: float = 0.018


@dataclass(frozen=True, slots=True)
class Mould:
    """A cast piece: a block with what stays open in it."""

    __pydantic_config__ = STRICT

    length: float = 0.6
    width: float = 0.4
    height: float = 0.15
    draft: float = 0.0
    """Of its sides, degrees; 0 leaves them square and strips harder."""
    board: float = 0.018
    """Thickness of the form's boards, m."""
    board_E: float = 6e9
    """Of the boards across their supports, Pa."""
    brace: float = 0.3
    """Between braces, m."""
    pockets: tuple[Pocket, ...] = ()
    cores: tuple[Core, ...] = ()
    inserts: tuple[Insert, ...] = ()

    @property
    def volume(self) -> float:
        """That is poured, m³.

        The sides lean inwards upwards by the draft: a frustum (prismatoid) less what stays open.
        """
        lean = 2 * self.height * tan(radians(self.draft))
        low, high = self.length * self.width, (self.length - lean) * (self.width - lean)
        middle = (self.length - lean / 2) * (self.width - lean / 2)
        block = self.height * (low + 4 * middle + high) / 6
        return block - self.open

    @property
    def open(self) -> float:
        """What stays open or is cast in, m³."""
        return (
            sum(one.length * one.width * one.depth for one in self.pockets)
            + sum(pi * one.diameter**2 / 4 * one.length for one in self.cores)
            + sum(pi * one.diameter**2 / 4 * one.depth for one in self.inserts)
        )  # fmt: skip


def check_mould(mould: Mould) -> None:
    """Check that a piece can be cast so.

    Raises:
        InputError: With the place of the first fault.
    """
    for name, low, high in (
        ("length", 0.02, 5.0), ("width", 0.02, 5.0), ("height", 0.01, 3.0), ("board", 0.003, 0.1),
        ("board_E", 0.5e9, 250e9), ("brace", 0.05, 3.0),
    ):  # fmt: skip
        value = getattr(mould, name)
        if not low <= value <= high:
            raise InputError(f"mould.{name}", f"expected {low:g} to {high:g}, got {value:g}")
    if not 0.0 <= mould.draft <= 10.0:
        raise InputError("mould.draft", f"expected 0 to 10 degrees, got {mould.draft:g}")
    lean = 2 * mould.height * tan(radians(mould.draft))
    if min(mould.length, mould.width) <= lean:
        raise InputError("mould.draft", "the sides meet before the top: less draft, or a wider piece")
    if max(len(mould.pockets), len(mould.cores), len(mould.inserts)) > MOST:
        raise InputError("mould", f"expected at most {MOST} pockets, cores and inserts each")
    _check_open(mould)
    if mould.volume <= 0.0:
        raise InputError("mould", "pockets and cores leave nothing to pour")


def _check_open(mould: Mould) -> None:
    for index, one in enumerate(mould.pockets):
        inside = one.x >= 0 and one.y >= 0 and one.x + one.length <= mould.length and one.y + one.width <= mould.width
        if not inside or not 0.0 < one.depth < mould.height or min(one.length, one.width) <= 0.0:
            raise InputError(f"mould.pockets[{index}]", "expected a pocket inside the piece, less deep than it is tall")
    for index, core in enumerate(mould.cores):
        if not (0.0 < core.diameter < mould.height and 0.0 < core.length <= max(mould.length, mould.width)):
            raise InputError(f"mould.cores[{index}]", "expected a core thinner than the piece, no longer than it")
    for index, insert in enumerate(mould.inserts):
        if not (0 <= insert.x <= mould.length and 0 <= insert.y <= mould.width and 0 < insert.depth <= mould.height):
            raise InputError(f"mould.inserts[{index}]", "expected an insert inside the piece")
        if not 0.0 < insert.diameter <= 0.1:
            raise InputError(f"mould.inserts[{index}].diameter", "expected up to 100 mm")
