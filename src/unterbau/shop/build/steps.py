"""Steps of a build from the machine itself: parts, dry fit, measure, take apart, fasten; rails, drives, proof."""

from dataclasses import dataclass, field
from itertools import pairwise

from unterbau.brief.brief import Process
from unterbau.catalogue import cautions
from unterbau.shop.build.groups import groups_of
from unterbau.shop.lifting import Balance, Load, loads_of, moving, who_lifts
from unterbau.shop.making import How
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.pour.cure import LOADED
from unterbau.shop.pour.plan import MOULD, PourPlan
from unterbau.structure.join import Counterweight, EndJoin, Join
from unterbau.structure.motion import Blocks, DriveTrain, Rail, SpindleUnit
from unterbau.structure.piece import Bar
from unterbau.structure.structure import Structure

LASTING = ("weld", "epoxied")
"""Joints that are not taken apart again."""
GLUED = 24.0
"""Hours that a bonded joint waits; common practice, no source."""
SQUARE = 0.1e-3
"""A frame's diagonals or a square over its length, where the machine asks no less, m; common practice, no source."""
SQUARED = (("column", "column", "upright over its travel"), ("arm", "arm", "level along its reach"))
"""Members that are set square by shims: link, bench, what is asked."""
DRIVE_FIT = 2.5
"""Hours."""


@dataclass(frozen=True, slots=True)
class Hold:
    """Where the build stops until a measurement is good."""

    words: str
    bench: str
    """The measuring bench for it."""
    within: float
    """m; what this machine needs here."""
    why: str


@dataclass(frozen=True, slots=True)
class Step:
    """One step."""

    id: str
    words: str
    needs: tuple[str, ...]
    hours: float
    """At the bench."""
    waits: float = 0.0
    """Hours that pass by themselves afterwards: cure, paint, delivery."""
    reversible: bool = True
    """Whether there is a way back."""
    people: str = ""
    """Who lifts, where something is lifted."""
    lifted: float = 0.0
    """kg."""
    hold: Hold | None = None
    pieces: tuple[str, ...] = ()
    """What is fitted."""
    balance: Balance | None = None
    """How what is fitted stands by itself."""
    caution: str = ""


@dataclass(frozen=True, slots=True)
class Asks:
    """How true a machine must be set up, m; to start with common practice, no source."""

    lean: float = 0.02e-3
    """Of column, arm or spindle over 200 mm."""
    feet: float = 0.1e-3
    """One foot out of the plane of the others."""


@dataclass(slots=True)
class _Plan:
    steps: list[Step] = field(default_factory=list)

    def add(self, step: Step) -> str:
        self.steps.append(step)
        return step.id


def steps_of(
    structure: Structure, pieces: tuple[ShopPiece, ...], hows: dict[str, How], bears: dict[str, float], lift: float,
    pours: tuple[PourPlan, ...], late: dict[str, float], asks: Asks | None = None, process: Process = "cutting",
) -> tuple[Step, ...]:  # fmt: skip
    """Return the steps of a build in an order that holds.

    Args:
        structure: The machine.
        pieces: Its pieces.
        hows: Who makes each, by letter.
        bears: How far the rails of each guide may be off, m, by link.
        lift: One person lifts, kg.
        pours: What is filled or cast.
        late: Days until what is ordered is here, by link.
        asks: How true it must be set up; the usual where it is not told.
        process: What the machine is for: its hazards come with it.
    """
    plan = _Plan()
    made = _making(plan, pieces, hows, late)
    poured = _pouring(plan, pours, made)
    groups = groups_of(structure)
    loads = {one.words: one for one in loads_of(structure)}
    fitted: dict[str, str] = {}
    before: tuple[str, ...] = (*made, *poured)
    for group in groups:
        fitted[group.axes] = _sub_assembly(plan, structure, group.axes, group.pieces, before, loads, lift)
        before = (fitted[group.axes],)
    rails = _rails(plan, structure, bears, fitted, late)
    moved = _carriages(plan, structure, rails, fitted, loads, lift, late)
    hung = _hung(plan, structure, lift)
    _proof(plan, structure, (*moved, *hung), asks or Asks(), process)
    return tuple(plan.steps)


def _making(
    plan: _Plan, pieces: tuple[ShopPiece, ...], hows: dict[str, How], late: dict[str, float]
) -> tuple[str, ...]:
    sorts: dict[How, list[ShopPiece]] = {}
    for one in pieces:
        sorts.setdefault(hows[one.label], []).append(one)
    found = []
    words: dict[How, str] = {
        "make": "saw, drill, tap, deburr", "have made": "order and fetch what is made outside", "print": "print",
        "buy": "buy rounds and bars as they are",
    }  # fmt: skip
    for how, rows in sorts.items():
        named = tuple(name for one in rows for name in one.names)
        wait = max((late.get(one.part, 0.0) for one in rows), default=0.0)
        caution = cautions.PARTS.text if how == "make" else ""
        if how == "have made":
            plan.add(Step("try-one", "have one piece made first, and try it, before ordering the rest", (), 1.0,
                          max(wait, 5.0) * 24))  # fmt: skip
        needs = ("try-one",) if how == "have made" else ()
        hours = sum(one.count * (0.1 + 0.07 * len(one.holes)) for one in rows) if how == "make" else 1.0
        found.append(plan.add(Step(f"parts-{how.replace(' ', '-')}", words[how], needs, hours, wait * 24, pieces=named,
                                   caution=caution)))  # fmt: skip
    return tuple(found)


def _pouring(plan: _Plan, pours: tuple[PourPlan, ...], made: tuple[str, ...]) -> tuple[str, ...]:
    found = []
    for one in pours:
        what = "cast the base" if one.part == MOULD else f"fill the {one.part.replace('_', ' ')}"
        form = plan.add(Step(f"form-{one.part}", f"form and seal, before: {what}", made, 4.0))
        found.append(plan.add(Step(
            f"pour-{one.part}", f"{what}: {one.sort}", (form,), 4.0, LOADED * 24, False,
            caution=cautions.POURING.text,
        )))  # fmt: skip
    return tuple(found)


def _sub_assembly(
    plan: _Plan, structure: Structure, axes: str, names: tuple[str, ...], before: tuple[str, ...],
    loads: dict[str, Load], lift: float,
) -> str:  # fmt: skip
    """Dry fit, measure, take apart, fasten what moves as one."""
    what = moving(axes)
    name = axes.lower() or "base"
    load = loads.get(what)
    mass = load.mass if load is not None else 0.0
    people = who_lifts(mass, lift) if mass > lift else ""
    joins = [
        one for one in structure.flat
        if isinstance(one, EndJoin | Join) and (one.bar if isinstance(one, EndJoin) else one.a.piece) in names
    ]  # fmt: skip
    hours = 0.25 * len(joins) + 0.25
    dry = plan.add(Step(f"dry-{name}", f"{what}: fit dry, screws hand-tight", before, hours, pieces=names,
                        people=people, lifted=mass if people else 0.0,
                        balance=load.balance if load is not None else None))  # fmt: skip
    if len(names) < 2:
        return dry
    hold = Hold(f"{what}: diagonals alike, corners square", "diagonals", SQUARE,
                "what is out of square here comes back in every axis above it")  # fmt: skip
    measured = plan.add(Step(f"measure-{name}", f"{what}: measure dry", (dry,), 1.0, hold=hold))
    lasting = [one for one in joins if one.joint.kind in LASTING]
    if not lasting:
        return plan.add(Step(f"tight-{name}", f"{what}: tighten in turns, measure again", (measured,), hours / 2,
                             hold=hold))  # fmt: skip
    apart = plan.add(Step(f"apart-{name}", f"{what}: take apart, correct, clean", (measured,), hours / 2))
    bonded = any(one.joint.kind == "epoxied" for one in lasting)
    caution = cautions.BONDING.text if bonded else cautions.WELDING.text
    words = "bond and bolt" if bonded else "tack, weld in turns against distortion, let it cool"
    waits = GLUED if bonded else 2.0
    told = f"{what}: {words}, measure once more"
    return plan.add(Step(f"join-{name}", told, (apart,), hours, waits, False, hold=hold, caution=caution))


def _rails(
    plan: _Plan, structure: Structure, bears: dict[str, float], fitted: dict[str, str], late: dict[str, float]
) -> dict[str, str]:
    """Set the master rail of each guide, then the others from it."""
    by_key: dict[str, list[Rail]] = {}
    for step in structure.flat:
        if isinstance(step, Rail):
            by_key.setdefault(step.key, []).append(step)
    found: dict[str, str] = {}
    for key, rails in by_key.items():
        axis = key.removesuffix("_guides").upper()
        host = fitted[rails[0].carrier.axes] if rails[0].carrier.axes in fitted else next(iter(fitted.values()))
        within = bears.get(key, SQUARE)
        wait = late.get(key, 0.0) * 24
        here = plan.add(Step(f"here-{key}", f"{axis} rails and blocks are here", (), 0.1, wait)) if wait else host
        master = plan.add(Step(
            f"master-{key}", f"{axis}: master rail, straight first, tightened from the middle", (host, here), 1.0,
            hold=Hold(f"{axis} master rail straight", "straightness", within, "the second rail copies it"),
        ))  # fmt: skip
        last = master
        for number in range(2, len(rails) + 1):
            last = plan.add(Step(
                f"rail-{key}-{number}", f"{axis}: rail {number} from the master with the carriage on", (last,), 1.0,
                hold=Hold(f"{axis} rails parallel and in one plane", "parallel", within,
                          "more loads the blocks beyond a tenth of their rating, by this frame"),
            ))  # fmt: skip
        found[key] = last
    return found


def _carriages(
    plan: _Plan, structure: Structure, rails: dict[str, str], fitted: dict[str, str], loads: dict[str, Load],
    lift: float, late: dict[str, float],
) -> tuple[str, ...]:  # fmt: skip
    done = []
    for step in structure.flat:
        if isinstance(step, Blocks) and f"carriage-{step.key}" not in {one.id for one in plan.steps}:
            axes = _lifted_onto(structure, step)
            load = loads.get(moving(axes)) if axes else None
            mass = load.mass if load is not None else 0.0
            people = who_lifts(mass, lift)
            needs = tuple(dict.fromkeys((rails[step.key], *((fitted[axes],) if axes in fitted else ()))))
            axis = step.key.removesuffix("_guides").upper()
            done.append(plan.add(Step(
                f"carriage-{step.key}", f"set the carriage on the {axis} blocks", needs, 1.0, people=people,
                lifted=mass, pieces=(step.plate,), balance=load.balance if load is not None else None,
                caution=cautions.HANGING_CARRIAGE.text if (axes and "Z" in axes) or mass > lift else "",
            )))  # fmt: skip
        elif isinstance(step, DriveTrain) and f"drive-{step.key}" not in {one.id for one in plan.steps}:
            guide = step.key.replace("_drive", "_guides")
            needs = (
                (f"carriage-{guide}",) if any(one.id == f"carriage-{guide}" for one in plan.steps) else tuple(done[-1:])
            )
            wait = late.get(step.key, 0.0) * 24
            if wait:
                here = plan.add(Step(f"here-{step.key}", f"{_drive(step.key)} is here", (), 0.1, wait))
                needs = (*needs, here)
            hold = Hold("it runs by hand over the whole travel, as light at the ends as in the middle", "both ways",
                        0.02e-3, "a nut that is forced wears and moves the tool as it turns")  # fmt: skip
            done.append(plan.add(Step(f"drive-{step.key}", f"fit the {_drive(step.key)}", needs, DRIVE_FIT,
                                      hold=hold)))  # fmt: skip
    return tuple(done)


def _lifted_onto(structure: Structure, blocks: Blocks) -> str:
    """Return the axes of what is lifted onto a guide: of its blocks, or of its rails where those move further."""
    rails = (one for one in structure.flat if isinstance(one, Rail) and one.key == blocks.key)
    return max((blocks.carrier.axes, *(one.carrier.axes for one in rails)), key=len)


def _hung(plan: _Plan, structure: Structure, lift: float) -> tuple[str, ...]:
    """Hang counterweights once the drive that they relieve is fitted."""
    return tuple(
        plan.add(Step(
            f"counterweight-{one.key}", "hang the counterweight on its rope, with the head blocked",
            (f"drive-{one.key}",), 1.5, people=who_lifts(one.mass, lift), lifted=one.mass,
            caution=cautions.COUNTERWEIGHT.text,
        ))
        for one in structure.flat if isinstance(one, Counterweight)
    )  # fmt: skip


def _proof(plan: _Plan, structure: Structure, before: tuple[str, ...], asks: Asks, process: Process) -> None:
    if structure.feet:
        before = (plan.add(Step("level", "level the feet, all of them bearing", before, 0.5, hold=Hold(
            "no foot out of the plane of the others", "level", asks.feet,
            "what a foot is off strains the frame and moves the tool, by this frame",
        ))),)  # fmt: skip
    for key, bench, words in SQUARED:
        if any(isinstance(one, Bar) and one.key == key for one in structure.flat):
            before = (plan.add(Step(f"square-{key}", f"{key}: square to the table, shimmed, tightened in turns", before,
                                    1.0, hold=Hold(f"{key} {words}, 200 mm", bench, asks.lean,
                                                   "what it leans, the work leans over its height"))),)  # fmt: skip
    if any(isinstance(one, SpindleUnit) for one in structure.flat):
        before = (plan.add(Step("spindle", "clamp the spindle, sweep the bed, shim", before, 1.5, hold=Hold(
            "spindle square to the bed, over a sweep of 200 mm", "tram", asks.lean,
            "what it leans, walls lean, and steps stay between cuts",
        ))),)  # fmt: skip
    rows = (
        (
            "wiring",
            "wire motors, limits, stop; earth all metal",
            8.0,
            cautions.PLASMA_WIRING.text if process == "plasma" else cautions.MAINS.text,
        ),
        ("homing", "home each axis for the first time, slowly", 1.0, cautions.HOMING.text),
        ("weigh", "weigh what can be weighed, against the predicted mass", 0.5, ""),
        (
            "push",
            "pull and push the tool with a scale, read an indicator",
            1.0,
            cautions.PUSH.text,
        ),
        ("tap", "tap it and listen", 0.5, ""),
        (
            "cuts",
            "first cuts: light, measured, settings noted",
            2.0,
            cautions.FIRST_CUTS[process].text,
        ),
    )
    ids = [one[0] for one in rows]
    for (name, words, hours, caution), needs in zip(rows, (before, *((one,) for one, _ in pairwise(ids))), strict=True):
        plan.add(Step(name, words, needs, hours, reversible=name not in ("wiring",), caution=caution))


def _drive(key: str) -> str:
    axis, _, rest = key.partition("_")
    return f"{axis.upper()} {rest}" if len(axis) == 1 else key.replace("_", " ")
