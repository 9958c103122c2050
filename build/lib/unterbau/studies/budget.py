"""Does the machine fit the brief? Travel, height, room, lifting, money, tools; each conflict with its cure."""

from dataclasses import dataclass, replace
from functools import lru_cache, partial
from math import ceil, dist

import numpy as np

from unterbau.brief.brief import Brief
from unterbau.catalogue.guides import block
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.item_words import text_words
from unterbau.machine.machine import Machine, bodies_of, cost_of, kind_of, lay_out, lines, links, part_at, travel
from unterbau.materials.material import material
from unterbau.mechanics.arrays import FloatArray, axes_from
from unterbau.structure.bodies import Prism
from unterbau.structure.line import Line
from unterbau.structure.motion import DriveTrain, Rail
from unterbau.structure.parts import Member, Place, Plate
from unterbau.units import Units, length_text, mass_text

SLACK = 5e-4
ROUND = 0.005
"""To which a cure is rounded up, m."""
THICK = 0.015
"""Plate that a hobby shop does not cut itself, m; common practice, no source."""
CORNERS = tuple(Place(x, y, z) for x in (0.0, 1.0) for y in (0.0, 1.0) for z in (0.0, 1.0))


@dataclass(frozen=True, slots=True)
class Cure:
    """A size of the machine that mends a finding."""

    attribute: str
    value: float
    """m."""
    words: str
    """As `bed to beam 180 → 205 mm`."""


@dataclass(frozen=True, slots=True)
class Finding:
    """One line of the budget."""

    words: str
    fits: bool
    key: str = ""
    """Link, or size after `dimensions.`, that cures it."""
    cure: Cure | None = None
    """The change that does, where one size alone can."""


@dataclass(frozen=True, slots=True)
class Chain:
    """How a travel comes about, m: rail less stance, block and stops."""

    axis: str
    rail: float
    stance: float
    block: float
    stops: float
    travel: float

    @property
    def spare(self) -> float:
        """Rail that is left over; less than nothing where a block would leave it."""
        return self.rail - self.stance - self.block - self.stops - self.travel

    def words(self, units: Units) -> str:
        """Return the sum as a sentence."""
        text = partial(length_text, units=units)
        taken = f"stance {text(self.stance)} − block {text(self.block)} − stops {text(self.stops)}"
        spare = f" − {text(self.spare)} to spare" if self.spare > SLACK else ""
        if self.spare < -SLACK:
            left = f"rail {text(self.rail)} − {taken} leaves {text(self.travel + self.spare)}"
            wanted = f"travel {text(self.travel)} is wanted, {text(-self.spare)} more than there is"
            return f"{self.axis.upper()}: {left}; {wanted}"
        return f"{self.axis.upper()}: rail {text(self.rail)} − {taken}{spare} = travel {text(self.travel)}"


@dataclass(frozen=True, slots=True)
class Budget:
    """What there is and what is wanted, along X, Y, Z, m."""

    travel: tuple[float, float, float]
    wanted: tuple[float, float, float]
    outside: tuple[float, float, float]
    """Length, width, height of all places that the machine reaches."""
    highest_tip: float
    """Tool tip over the work's plate with Z all the way up."""
    lowest_tip: float
    under_beam: float
    """Between work's plate and what passes over it; 0 where nothing does."""
    heights: str
    """Plate to nose, tool, work, stroke left, overhang, in words."""
    chains: tuple[Chain, ...]
    """How each travel comes about: rail less stance, block and stops."""
    findings: tuple[Finding, ...]

    @property
    def conflicts(self) -> tuple[Finding, ...]:
        """The findings that do not fit."""
        return tuple(one for one in self.findings if not one.fits)


def budget(machine: Machine, brief: Brief, book: PriceBook, units: Units = "mm") -> Budget:
    """Return how a machine answers a brief.

    Raises:
        InputError: The machine cannot be built.
    """
    along = travel(machine)
    d = machine.dimensions
    lowest = float(getattr(d, "lowest_tip", 0.0))
    highest = lowest + along[2]
    under = float(getattr(d, "clearance", 0.0))
    wanted = (brief.work_x, brief.work_y, brief.work_z)
    size = outside(machine)
    findings = [
        *_rails(machine, units), *_travels(machine, along, wanted, units),
        *_heights(machine, brief, (lowest, highest, under), units),
        *_room(machine, brief, size, units), *_lifting(machine, brief, units), *_money(machine, brief, book),
        *_tools(machine, brief, units),
    ]  # fmt: skip
    return Budget(
        along,
        wanted,
        size,
        highest,
        lowest,
        under,
        height_words(machine, brief, units),
        travel_chains(machine),
        tuple(findings),
    )


@lru_cache(maxsize=64)
def outside(machine: Machine, carried: bool = False) -> tuple[float, float, float]:
    """Return length, width and height that a machine takes up with its axes at all ends, m; carried, its motors off."""
    steps = lay_out(machine).flat if carried else ()
    off = {key for one in steps if isinstance(one, DriveTrain) for key in (one.key, one.motor_key)}
    low, high = np.full(3, np.inf), np.full(3, -np.inf)
    for place in CORNERS:
        for body in bodies_of(machine, place):
            if body.key in off:
                continue
            points = _corners(body) if isinstance(body, Prism) else np.array(body.corners())
            low, high = np.minimum(low, points.min(axis=0)), np.maximum(high, points.max(axis=0))
    size = high - low
    return float(size[0]), float(size[1]), float(size[2])


def _corners(body: Prism) -> FloatArray:
    start, end = np.array(body.start), np.array(body.end)
    axes = axes_from((end - start)[None], np.array(body.up)[None])[0]
    ring = np.array(body.rings[0])
    across = ring[:, :1] * axes[1] + ring[:, 1:] * axes[2]
    return np.concatenate([start + across, end + across])


def travel_chains(machine: Machine) -> tuple[Chain, ...]:
    """Return for each axis with rails how its travel comes about."""
    found, d = [], machine.dimensions
    for axis, along in zip("xyz", travel(machine), strict=True):
        guide = getattr(machine, f"{axis}_guides", None)
        stance = getattr(d, f"{axis}_stance", None)
        rails = [dist(one.start, one.end) for one in lay_out(machine).flat
                 if isinstance(one, Rail) and one.key == f"{axis}_guides"]  # fmt: skip
        if guide is not None and stance is not None and rails and along:
            found.append(Chain(axis, rails[0], stance, block(guide.block).length, 2 * d.stop, along))
    return tuple(found)


def height_words(machine: Machine, brief: Brief, units: Units = "mm") -> str:
    """Return the height budget as a sum: plate to nose, tool, work with vice, stroke really usable, overhang."""
    d, text, along = machine.dimensions, partial(length_text, units=units), travel(machine)[2]
    if not along:
        return ""
    tool = brief.tool_length or machine.cutter.stick_out
    lowest = float(getattr(d, "lowest_tip", 0.0)) + machine.cutter.stick_out
    words = f"Z: plate to nose {text(lowest)} to {text(lowest + along)}, less tool {text(tool)}"
    if brief.work_z:
        left = max(0.0, lowest + along - tool - max(brief.work_z, lowest - tool))
        words += f", less work with vice {text(brief.work_z)}: {text(min(along, left))} of {text(along)} stroke usable"
    over = getattr(d, "spindle_overhang", None) or getattr(d, "throat", None)
    return words + (f"; overhang {text(over)}" if over else "")


def _cure(machine: Machine, attribute: str, wanted: float, units: Units) -> Cure | None:
    """Return the change of a size to what is wanted, up to a whole 5 mm, if the kind has it and it can be so large."""
    size = next((one for one in kind_of(machine).sizes if one.attribute == attribute), None)
    value = ceil(round(wanted / ROUND, 6)) * ROUND
    if size is None or not size.low <= value <= size.high:
        return None
    now = length_text(getattr(machine.dimensions, attribute), units, with_unit=False)
    return Cure(attribute, value, f"{size.words} {now} → {length_text(value, units)}")


def _rails(machine: Machine, units: Units) -> list[Finding]:
    """Return the rails that are too short for their travel."""
    sizes = {one.attribute for one in kind_of(machine).sizes}
    cure = "dimensions.table_length" if "table_length" in sizes else ""
    found = []
    for one in travel_chains(machine):
        if one.spare < -SLACK:
            key = (cure if one.axis == "x" else "") or f"dimensions.travel_{one.axis}"
            longer = None
            if key == "dimensions.table_length":
                longer = _cure(machine, "table_length", machine.dimensions.table_length - one.spare, units)  # type: ignore[union-attr]
            found.append(Finding(one.words(units), fits=False, key=key, cure=longer))
    return found


def _travels(machine: Machine, along: tuple[float, ...], wanted: tuple[float, ...], units: Units) -> list[Finding]:
    found, text = [], partial(length_text, units=units)
    known = {one.attribute for one in kind_of(machine).sizes}
    for axis, name in enumerate("xyz"):
        if not wanted[axis] or f"travel_{name}" not in known or axis == 2:
            continue
        fits = along[axis] >= wanted[axis]
        words = f"{name.upper()}: travel {text(along[axis])} for work of {text(wanted[axis])}"
        short = "" if fits else f", {text(wanted[axis] - along[axis])} short"
        cure = None if fits else _cure(machine, f"travel_{name}", wanted[axis], units)
        found.append(Finding(words + short, fits, f"dimensions.travel_{name}", cure))
    return found


def _heights(machine: Machine, brief: Brief, heights: tuple[float, float, float], units: Units) -> list[Finding]:
    found, text = [], partial(length_text, units=units)
    lowest, highest, under = heights
    if brief.work_z:
        tall = brief.work_z
        if under:
            fits = under >= tall
            found.append(Finding(
                f"work {text(tall)} tall under the beam at {text(under)}", fits, "dimensions.clearance",
                None if fits else _cure(machine, "clearance", tall, units),
            ))  # fmt: skip
        longer = max(0.0, brief.tool_length - machine.cutter.stick_out)
        room = highest - longer - tall
        fits = room >= 0.0
        words = f"tool tip lifts to {text(highest - longer)} over the plate, the work is {text(tall)} tall"
        usable = max(0.0, min(highest - longer, highest) - max(lowest, tall))
        words += f": {text(usable)} of Z stroke left over it" if fits else ": the tool does not clear it"
        if highest > lowest:
            cure = None if fits else _cure(machine, "travel_z", highest - lowest - room, units)
            found.append(Finding(words, fits, "dimensions.travel_z", cure))
    return found


def _room(machine: Machine, brief: Brief, size: tuple[float, float, float], units: Units) -> list[Finding]:
    found, text = [], partial(length_text, units=units)
    for axis, (name, room) in enumerate(
        (("length along X", brief.space_x), ("depth along Y", brief.space_y), ("height", brief.space_z))
    ):
        if room:
            fits = size[axis] <= room + SLACK
            words = f"{name}: {text(round(size[axis], 3))} with the axes at their ends, room for {text(room)}"
            found.append(Finding(words, fits, "dimensions"))
    if brief.door:
        narrowest = sorted(outside(machine, carried=True))[1]
        words = f"through a door of {text(brief.door)}: {text(round(narrowest, 3))} across when turned, its drives off"
        words += "" if narrowest <= brief.door else "; it has to come apart"
        found.append(Finding(words, narrowest <= brief.door, "dimensions"))
    return found


def heaviest(machine: Machine) -> Line:
    """Return the heaviest single piece of a machine."""
    return max(lines(machine), key=lambda line: line.mass / max(1, line.count))


def _lifting(machine: Machine, brief: Brief, units: Units) -> list[Finding]:
    if not brief.lift:
        return []
    piece = heaviest(machine)
    each = piece.mass / max(1, piece.count)
    fits = each <= brief.lift
    lifts = mass_text(brief.lift, units, 0)
    words = f"heaviest piece: {text_words(piece.text, units)}, {mass_text(each, units, 0)}, one person lifts {lifts}"
    return [Finding(words + ("" if fits else "; two people or a hoist"), fits, piece.part)]


def _money(machine: Machine, brief: Brief, book: PriceBook) -> list[Finding]:
    if not brief.money:
        return []
    cost = cost_of(machine, book).money
    words = f"parts {cost:.0f} {book.currency} of {brief.money:.0f}"
    return [Finding(words, cost <= brief.money, "")]


def _tools(machine: Machine, brief: Brief, units: Units) -> list[Finding]:
    if not brief.tools:
        return []
    limits = shop_limits(machine, replace(brief, lift=0.0), units)  # lifting has a line of its own
    return [Finding(words, fits=False, key=key) for key, words in limits.items()]


def _metal(plate: Plate) -> bool:
    return material(plate.material).kind not in ("timber", "plastic", "stone")


def shop_limits(machine: Machine, brief: Brief, units: Units = "mm") -> dict[str, str]:
    """Return for each part that this shop cannot make or lift what stands against it."""
    found: dict[str, str] = {}
    text = partial(length_text, units=units)
    if brief.tools:
        labels = {link.key: link.label for link in links(machine)}
        for key, label in labels.items():
            part = part_at(machine, key)
            if getattr(part, "kind", "") == "weld" and "weld" not in brief.tools:
                found[key] = f"{label}: welded, and there is no welder"
            if getattr(part, "kind", "") == "flange" and not {"machining-firm", "old-machine"} & {*brief.tools}:
                found[key] = f"{label}: a machined flange, and nobody to machine it"
            if getattr(part, "kind", "") == "printed" and "printer" not in brief.tools:
                found[key] = f"{label}: printed, and there is no printer"
            if (
                isinstance(part, Plate)
                and part.thickness > THICK
                and _metal(part)
                and not {"sheet-firm", "machining-firm"} & {*brief.tools}
            ):
                found[key] = f"{label}: plate of {text(part.thickness)}, and no firm to cut it"
    if brief.lift:
        for line in lines(machine):
            each = line.mass / max(1, line.count)
            if each > brief.lift and isinstance(part_at(machine, line.part), Member | Plate):
                found.setdefault(
                    line.part,
                    f"{text_words(line.text, units)}: {mass_text(each, units, 0)}, more than one person lifts",
                )
    return found
