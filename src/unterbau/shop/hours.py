"""How long it takes: minutes for each kind of work, as a setting; half of a build is not metalwork."""

from collections import defaultdict
from dataclasses import dataclass, fields

from unterbau.errors import InputError
from unterbau.materials.material import material
from unterbau.shop.making import How
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.printed import Printing, print_of
from unterbau.strict import STRICT
from unterbau.structure.join import BasePlateJoin, EndJoin, GussetJoin, Join, RibJoin
from unterbau.structure.motion import Blocks, DriveTrain, Rail, SpindleUnit
from unterbau.structure.piece import Bar
from unterbau.structure.structure import Structure

OTHER = 1.0
"""Hours that are not metalwork, for each that is: wiring, waiting, driving, cleaning up; common practice, no source."""
MOST_MINUTES = 600.0


@dataclass(frozen=True, slots=True)
class Pace:
    """Minutes that things take in a shop.

    Start values are common practice, no source: with them a hobbyist's router comes to the lower end of the 50 to 300
    hours that builders tell.
    """

    __pydantic_config__ = STRICT

    cut: float = 5.0
    """A saw cut."""
    setup: float = 6.0
    """A new stop at the saw."""
    hole: float = 4.0
    """Marked out, centred, drilled, deburred."""
    tapped: float = 6.0
    """Tapped besides."""
    weld: float = 40.0
    """A metre of weld, with grinding."""
    sawn: float = 8.0
    """A metre of plate's edge, sawn by hand."""
    milled: float = 6.0
    """A square decimetre of plate, where a seat has to be flat."""
    joint: float = 25.0
    """One joint: dry, measured, taken apart, bolted."""
    rail: float = 60.0
    """A rail set and measured."""
    drive: float = 150.0
    """A drive with its motor, aligned."""
    fetched: float = 20.0
    """Ordering and fetching a piece that is made outside."""


@dataclass(frozen=True, slots=True)
class Task:
    """One kind of work on a machine."""

    words: str
    count: float
    unit: str
    minutes: float
    """Each."""
    alone: bool = False
    """Whether it goes by itself, as a print does: counted apart."""

    @property
    def hours(self) -> float:
        """All of it."""
        return self.count * self.minutes / 60


@dataclass(frozen=True, slots=True)
class Hours:
    """What a machine takes."""

    tasks: tuple[Task, ...]

    @property
    def metalwork(self) -> float:
        """Hours at the bench."""
        return sum(one.hours for one in self.tasks if not one.alone)

    @property
    def other(self) -> float:
        """Hours of all the rest."""
        return OTHER * self.metalwork

    @property
    def by_itself(self) -> float:
        """Hours that a printer runs by itself."""
        return sum(one.hours for one in self.tasks if one.alone)


def hours_of(
    structure: Structure, pieces: tuple[ShopPiece, ...], hows: dict[str, How], setups: int, flat: frozenset[str],
    pace: Pace, printing: Printing,
) -> Hours:  # fmt: skip
    """Return the work that a machine takes.

    Args:
        structure: The machine.
        pieces: All its pieces.
        hows: Who makes each, by its letter.
        setups: Of the cut plan.
        flat: Letters of plates that have a seat which has to be flat.
        pace: Minutes each.
        printing: How prints are set.
    """
    amount: defaultdict[str, float] = defaultdict(float)
    prints = 0.0
    for one in pieces:
        how = hows[one.label]
        if how == "have made":
            amount["fetched"] += 1
        if how == "print":
            prints += print_of(one, printing).hours * one.count
        if how != "make":
            continue
        for hole in one.holes:
            amount["hole"] += one.count * (hole.sort != "slot nut")
            amount["tapped"] += one.count * (hole.sort not in ("clearance", "slot nut", "wood screw"))
        if one.sort == "bar":
            amount["cut"] += one.count
        elif one.sort == "plate":
            amount["sawn"] += one.count * 2 * (one.length + one.width)
            if one.label in flat and material(one.material).kind not in ("timber", "plastic"):
                amount["milled"] += one.count * one.length * one.width * 100
    amount["setup"] = setups
    amount.update(_assembly(structure))
    words = {
        "setup": ("set-ups at the saw", ""), "cut": ("saw cuts", ""), "sawn": ("edges of plates sawn", "m"),
        "milled": ("seats milled flat", "dm²"), "hole": ("holes drilled", ""), "tapped": ("threads tapped", ""),
        "weld": ("welds", "m"), "fetched": ("sorts of pieces ordered and fetched", ""), "joint": ("joints bolted", ""),
        "rail": ("rails set", ""), "drive": ("drives fitted", ""),
    }  # fmt: skip
    tasks = [
        Task(text, amount[name], unit, getattr(pace, name)) for name, (text, unit) in words.items() if amount[name]
    ]
    if prints:
        tasks.append(Task("prints, the printer alone", prints, "h", 60.0, alone=True))
    return Hours(tuple(tasks))


def _assembly(structure: Structure) -> dict[str, float]:
    amount: defaultdict[str, float] = defaultdict(float)
    for step in structure.flat:
        if isinstance(step, EndJoin | Join) and step.joint.kind == "weld":
            amount["weld"] += _around(structure, step)
        elif isinstance(step, EndJoin | BasePlateJoin):
            amount["joint"] += 1
            amount["weld"] += _around(structure, step) if isinstance(step, BasePlateJoin) else 0.0
        elif isinstance(step, RibJoin) and not step.rib.cast:
            amount["weld"] += 2 * step.long
        elif isinstance(step, GussetJoin):
            amount["weld"] += 4 * step.joint.gusset_leg
        elif isinstance(step, Rail):
            amount["rail"] += 1
        elif isinstance(step, DriveTrain):
            amount["drive"] += 1
        elif isinstance(step, Blocks | SpindleUnit):
            amount["joint"] += 1
    return amount


def _around(structure: Structure, step: EndJoin | BasePlateJoin | Join) -> float:
    """Return the length of a weld around what is joined, m."""
    bar = None if isinstance(step, Join) else structure.pieces.get(step.bar)
    if isinstance(bar, Bar):
        return 2 * (bar.height + bar.width)
    return 2 * (step.face.height + step.face.width) if isinstance(step, Join) else 0.0


def check_pace(pace: Pace) -> None:
    """Check minutes.

    Raises:
        InputError: With the field at fault.
    """
    for one in fields(pace):
        value = getattr(pace, one.name)
        if not 0.0 <= value <= MOST_MINUTES:
            raise InputError(one.name, f"expected 0 to {MOST_MINUTES:g} minutes, got {value:g}")
