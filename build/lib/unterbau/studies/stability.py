"""How deep a milling cut may go before it chatters, at its own turning speed and at any."""

from dataclasses import dataclass

import numpy as np

from unterbau.band import Band
from unterbau.catalogue.cuts import Cut
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.chatter import Limits, directions, limits
from unterbau.mechanics.milling import RADIAL, engagement_angle, specific_force
from unterbau.mechanics.modes import Modes
from unterbau.studies.bands import ENDS
from unterbau.studies.shake import Shakes, Shaking

TURNS = 12
"""Feed directions that a cut is tried in, over half a turn: the way back is the same."""
LEAST, STEP, MOST = 2.0, 2.0, 3000.0
"""Frequencies that are looked at, Hz; about each mode they are closer together."""
ABOUT, CLOSE = 12.0, 80
"""Widths of a mode's peak to either side, and frequencies in them."""
SPEEDS, REACH = 160, (0.4, 1.8)
"""Of the lobes that are drawn, and their range against the cut's own speed."""
QUARTER = 0.25
"""Immersion below which lobes of another sort come besides."""

Way = tuple[float, bool]
"""Direction of the feed, degrees from X, and whether the tool climbs."""


@dataclass(frozen=True, slots=True)
class Chatter:
    """How deep one cut may go; the worst feed direction counts."""

    depth: float
    """At its own turning speed, m; inf where nothing limits it."""
    floor: float
    """At any turning speed, m."""
    floor_way: Way
    """Where that is."""
    frequency: float
    """Hz, at which it would chatter at its own speed."""
    feed: float
    """Direction of the feed that is worst, degrees from X."""
    climbing: bool
    """Whether the worst is cutting with the feed, not against it."""
    cutting: float
    """Change of the tangential force with the chip's thickness, per depth, N/m²."""
    turns: float
    """Of the tool, 1/s."""
    speeds: FloatArray
    """Turning speeds of the lobes, 1/s."""
    lobes: FloatArray
    """Depth at each, in the worst feed direction, m; none where only some ways were asked for."""
    covered: bool
    """Whether the tool is in the work far enough for this estimate."""


def chatter(found: Shaking, cut: Cut, ways: tuple[Way, ...] = ()) -> Chatter | None:
    """Return how deep a milling cut may go; None where the tool does not turn.

    Args:
        found: The machine.
        cut: The cut.
        ways: Only these; all where there are none.

    Source:
        Zero-order solution, see `mechanics/chatter`; the force grows with the chip's thickness by (1 − mc)·kc.
    """
    e = cut.engagement
    if not e.milling or e.turns <= 0.0:
        return None
    angle = engagement_angle(e.diameter, e.width)
    mean = 2 * e.width * e.chip / (e.diameter * angle)
    cutting = (1 - e.mc) * specific_force(e.kc11, e.mc, mean)
    frequency = _grid(found.modes)
    H = found.tool_at(frequency)[:, :2, :2]
    passing = e.turns * e.teeth
    slot = angle > np.pi - 1e-6
    best: tuple[float, float, Limits, float, bool] | None = None
    floor, floor_way = np.inf, (0.0, False)
    both = (False,) if slot else (False, True)
    for feed, climbing in ways or [(180.0 * n / TURNS, one) for n in range(TURNS) for one in both]:
        c, s = np.cos(np.radians(feed)), np.sin(np.radians(feed))
        turn = np.array([[c, s], [-s, c]])
        start, end = (np.pi - angle, np.pi) if climbing else (0.0, angle)
        one = limits(turn @ H @ turn.T, frequency, directions(start, end, RADIAL), cutting, e.teeth)
        lowest = one.floor()[0]
        if lowest < floor:
            floor, floor_way = lowest, (feed, climbing)
        depth, at = one.at(passing)
        if best is None or depth < best[0]:
            best = (depth, at, one, feed, climbing)
    assert best is not None
    speeds = e.turns * np.linspace(*REACH, SPEEDS)
    lobes = np.array([best[2].at(speed * e.teeth)[0] for speed in speeds[: 0 if ways else None]])
    return Chatter(
        best[0], float(floor), floor_way, best[1], best[3], best[4], cutting, e.turns, speeds, lobes,
        e.width >= QUARTER * e.diameter * (1 - 1e-9),
    )  # fmt: skip


def _grid(modes: Modes) -> FloatArray:
    peaks = [
        np.linspace(max(LEAST, f * (1 - ABOUT * zeta)), f * (1 + ABOUT * zeta), CLOSE)
        for f, zeta in zip(modes.frequency, modes.zeta, strict=True) if f > LEAST
    ]  # fmt: skip
    return np.unique(np.concatenate([np.arange(LEAST, MOST, STEP), *peaks]))


@dataclass(frozen=True, slots=True)
class Limit:
    """How deep a cut may go, with its bands."""

    likely: Chatter
    depth: Band
    """At its own speed, m."""
    floor: Band
    """At any speed, m."""


def limit(shakes: Shakes, cut: Cut) -> Limit | None:
    """Return how deep a cut may go; None where the tool does not turn.

    The bands are the 5 % and 95 % points of machines drawn, in the feed directions that are worst likely.
    """
    likely = chatter(shakes.likely, cut)
    if likely is None:
        return None
    ways = tuple(dict.fromkeys(((likely.feed, likely.climbing), likely.floor_way)))
    drawn = [chatter(shakes.likely.at_frequencies(hertz), cut, ways) for hertz in shakes.drawn]
    known = [one for one in drawn if one is not None]
    depth, floor = (_ends(mine, [getattr(one, name) for one in known])
                    for name, mine in (("depth", likely.depth), ("floor", likely.floor)))  # fmt: skip
    return Limit(likely, depth, floor)


def _ends(likely: float, drawn: list[float]) -> Band:
    low, high = np.percentile(drawn, ENDS, method="inverted_cdf").tolist()
    return Band(min(low, likely), likely, max(high, likely))
