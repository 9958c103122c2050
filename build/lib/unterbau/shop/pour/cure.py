"""What the heat of a pour means: peaks, gradients, the next lift, when it is stripped, loaded, sealed."""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import lru_cache
from math import ceil

import numpy as np

from unterbau.progress import Progress
from unterbau.shop.pour.concrete import HYDRATION, aging, days_for, stiffness_share
from unterbau.shop.pour.heat import History, Sides, Stuff, pour_heat, through
from unterbau.shop.pour.mix import Mix
from unterbau.shop.pour.plan import PourPlan
from unterbau.shop.pour.resin import GELLED, speed_of

FREE, WALLED = 10.0, 8.0
"""Heat from a free face and from a form's outside, W/m²K; from memory."""
BOARD_K, STEEL_K = 0.13, 50.0
STONY_K, CONCRETE_K = 2.0, 1.75
"""W/mK; from memory."""
CONCRETE_C = 880.0
BEARS, STEEP = 60.0, 20.0
"""Peak that the usual resin bears, °C, and difference inside that is without cracks, K; from memory."""
WARMER = 5.0
"""Above the shop, K: cooled so far, the next lift may come."""
LONGEST = 72 * 3600.0
"""That the last lift is followed, s."""
DAY = 24 * 3600.0
STRIPPED, LOADED, SEALED = 1.0, 7.0, 8.0
"""Days at 20 °C of epoxy granite: out of the form, loaded, sealed; common practice, no source."""
POST_CURE = "post-cure ramped to 40 to 60 °C after stripping, where a warm box can be had"
CONCRETE_DAYS = (28.0, 30.0)
"""Of concrete: loaded at its strength, sealed below 20 % moisture after about a month; common practice, no source."""
CONCRETE_STRIPPED = 0.78
"""Of its strength: what cement 42.5N has after the customary wet week; common practice, no source."""
LOOKS = (12.0, 36.0, 120.0)
"""Hours after a lift within which the time of the next is looked for, one after the other."""


@dataclass(frozen=True, slots=True)
class Room:
    """The hollow that is filled, as heat sees it."""

    thin: float
    """Its thinner way across, m; more than its height where it is open."""
    height: float
    """That is poured up, m."""
    wall: float
    """Of the form or tube around it, m."""
    steel: bool
    """Whether that conducts well."""

    @property
    def sideways(self) -> bool:
        """Whether heat leaves sideways."""
        return self.thin < self.height


@dataclass(frozen=True, slots=True)
class Lift:
    """One lift."""

    number: int
    at: float
    """s from the first."""
    thickness: float
    peak: float
    """°C."""
    peak_at: float
    """s from its own pour."""
    gradient: float
    """Largest difference inside it, K."""
    gels: float
    """s from its own pour until its warmest place is gelled, or set; inf where it is not by the end."""


@dataclass(frozen=True, slots=True)
class Event:
    """Something that is to be done."""

    when: datetime
    words: str


@dataclass(frozen=True, slots=True)
class Cure:
    """A pour over time."""

    history: History
    lifts: tuple[Lift, ...]
    events: tuple[Event, ...]
    warnings: tuple[str, ...]
    rise: float
    """Of temperature were nothing lost, K."""


def stuff_of(plan: PourPlan, mix: Mix) -> Stuff:
    """Return what is poured, as heat sees it; loose fills set nothing free."""
    if plan.sort == "epoxy granite":
        w = plan.resin_share
        c = 1600.0 * w + 800.0 * (1.0 - w)
        speed = speed_of(plan.resin.pot_life, plan.resin.heat)
        return Stuff(mix.density, c, STONY_K, w * mix.density * plan.resin.heat, speed)
    if plan.sort in ("concrete", "mortar"):
        cement = plan.water / plan.water_cement
        return Stuff(mix.density, CONCRETE_C, CONCRETE_K, cement * HYDRATION)
    return Stuff(mix.density, 800.0, 0.4, 0.0)


def sides_of(room: Room) -> Sides:
    """Return how heat leaves a hollow."""
    wall = through(WALLED, room.wall, STEEL_K if room.steel else BOARD_K)
    return Sides(wall, wall) if room.sideways else Sides(wall, FREE)


@lru_cache(maxsize=64)
def cure_of(plan: PourPlan, mix: Mix, room: Room, progress: Progress | None = None) -> Cure:
    """Return a pour over time: lifts as the plan waits, or each when the one before has cooled.

    Raises:
        Cancelled: The progress asked to stop.
    """
    stuff, sides = stuff_of(plan, mix), sides_of(room)
    count = max(1, ceil(room.height / plan.lift - 1e-6))
    thick = room.height / count
    times = _times(plan, stuff, sides, room, count, thick, progress)
    deep = [(0.0, room.thin)] if room.sideways else [(at, thick) for at in times]
    history = pour_heat(stuff, deep, sides, plan.shop, deep[-1][0] + LONGEST, plan.shop, progress)
    lifts = tuple(
        _lift(history, n, 0.0 if room.sideways else at, at, thick, bool(stuff.speed), room.sideways)
        for n, at in enumerate(times)
    )
    rise = stuff.heat / (stuff.rho * stuff.c)
    found = Cure(history, lifts, _events(plan, lifts), (), rise)
    return replace(found, warnings=_warnings(plan, mix, room, found))


def _times(
    plan: PourPlan, stuff: Stuff, sides: Sides, room: Room, count: int, thick: float, progress: Progress | None
) -> list[float]:
    """Return when each lift is poured, s from the first."""
    if plan.wait or count == 1 or not stuff.heat:
        return [n * plan.wait * 3600.0 for n in range(count)]
    times = [0.0]
    for n in range(1, count):
        deep = [(0.0, room.thin)] if room.sideways else [(at, thick) for at in times]
        ready = _ready(plan, stuff, sides, deep, progress)
        if room.sideways or n > 2:
            times += [times[-1] + ready * (k + 1) for k in range(count - n)]
            break
        times.append(times[-1] + ready)
    return times


def _ready(
    plan: PourPlan, stuff: Stuff, sides: Sides, deep: list[tuple[float, float]], progress: Progress | None
) -> float:
    """Return how long after the last lift it is set and has cooled, s."""
    last, wanted = deep[-1][0], GELLED if stuff.speed else plan_set(plan)
    for waits in LOOKS:
        history = pour_heat(stuff, deep, sides, plan.shop, last + waits * 3600.0, plan.shop, progress)
        mine, after = np.array(history.lift) == len(deep) - 1, history.times > last + 60.0
        T, cured = history.celsius[after][:, mine], history.cured[after][:, mine]
        cool = (T.max(axis=1) <= plan.shop + WARMER) & (cured.max(axis=1) >= wanted)
        if cool.any():
            return float(history.times[after][np.argmax(cool)] - last)
    return LOOKS[-1] * 3600.0


def plan_set(plan: PourPlan) -> float:
    """Return the age at which concrete bears the next lift, hours at 20 °C; common practice, no source."""
    return 12.0 if plan.sort == "concrete" else 10.0


def _lift(
    history: History, number: int, poured: float, at: float, thick: float, resin: bool, sideways: bool
) -> Lift:  # fmt: skip
    mine = np.array(history.lift) == (0 if sideways else number)
    after = history.times >= poured
    T, cured, times = history.celsius[after][:, mine], history.cured[after][:, mine], history.times[after] - poured
    highest = T.max(axis=1)
    peak = int(np.argmax(highest))
    done = cured.max(axis=1) >= (GELLED if resin else 12.0)
    gels = float(times[np.argmax(done)]) if done.any() else float("inf")
    return Lift(number, at, thick, float(highest[peak]), float(times[peak]), float(np.ptp(T, axis=1).max()), gels)


def _events(plan: PourPlan, lifts: tuple[Lift, ...]) -> tuple[Event, ...]:
    start = datetime.fromisoformat(plan.start)
    found = [Event(start + timedelta(seconds=one.at), f"lift {one.number + 1}") for one in lifts]
    last = start + timedelta(seconds=lifts[-1].at)
    slower = 2.0 ** ((20.0 - plan.shop) / 10.0)
    if plan.sort == "epoxy granite":
        for days, words in ((STRIPPED, "strip the form"), (STRIPPED, POST_CURE), (LOADED, "load it"),
                            (SEALED, "seal the faces; machine or shim only after the cure")):  # fmt: skip
            found.append(Event(last + timedelta(days=days * slower), words))
    elif plan.sort in ("concrete", "mortar"):
        slower = 1.0 / aging(plan.shop)
        load, seal = CONCRETE_DAYS
        strip = days_for(CONCRETE_STRIPPED, plan.cement_class)
        stiff = stiffness_share(strip, plan.cement_class)
        words = f"strip the form at {CONCRETE_STRIPPED:.0%} of its strength, {stiff:.0%} of its E; wet until then"
        found.append(Event(last + timedelta(days=strip * slower), words))
        found.append(Event(last + timedelta(days=load * slower), "load it"))
        found.append(Event(last + timedelta(days=seal), "seal it, once a moisture meter reads below 20 %; align late"))
    return tuple(sorted(found, key=lambda one: one.when))


def _warnings(plan: PourPlan, mix: Mix, room: Room, found: Cure) -> tuple[str, ...]:
    words = list(mix.problems)
    hottest = max(found.lifts, key=lambda one: one.peak)
    resin = plan.sort == "epoxy granite"
    if resin and hottest.peak > BEARS:
        thin = thinner(plan, mix, room, BEARS)
        cure = f"lifts of {thin * 1e3:.0f} mm stay below" if thin else "a slower hardener, less resin, or a cooler shop"
        words.append(f"lift {hottest.number + 1} reaches {hottest.peak:.0f} °C, the resin bears {BEARS:.0f}: {cure}")
    steepest = max(found.lifts, key=lambda one: one.gradient)
    if steepest.gradient > STEEP:
        words.append(
            f"{steepest.gradient:.0f} K between the middle and the face of lift {steepest.number + 1}: it may crack; "
            "thinner lifts, or the form insulated"
        )
    if resin and plan.shop < COLD:
        words.append(f"at {plan.shop:.0f} °C resin stays stiff and cures slowly: warm shop, stone and resin to 20 °C")
    if not resin and plan.sort != "sand" and plan.shop < 5.0:
        words.append("below 5 °C cement does not set")
    return tuple(words)


COLD = 15.0


def thinner(plan: PourPlan, mix: Mix, room: Room, limit: float) -> float:
    """Return the thickest lift whose peak stays below a temperature, m; 0 where none of 10 mm and more does."""
    stuff, sides = stuff_of(plan, mix), sides_of(room)
    if room.sideways:
        return 0.0

    def peak(thick: float) -> float:
        one = pour_heat(stuff, [(0.0, thick)], sides, plan.shop, 18 * 3600.0, plan.shop)
        return float(np.nanmax(one.celsius))

    low, high = 0.01, plan.lift
    if peak(low) > limit:
        return 0.0
    for _ in range(7):
        middle = (low + high) / 2
        low, high = (middle, high) if peak(middle) <= limit else (low, middle)
    return low
