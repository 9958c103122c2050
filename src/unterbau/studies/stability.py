"""How deep a milling cut may go before it chatters, at its own turning speed and at any."""

from dataclasses import dataclass

import numpy as np

from unterbau.band import Band
from unterbau.catalogue.cuts import Cut
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.chatter import Limits, directions, limits
from unterbau.mechanics.milling import RADIAL, engagement_angle, specific_force
from unterbau.mechanics.modes import Modes
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


@dataclass(frozen=True, slots=True)
class Chatter:
    """How deep one cut may go; the worst feed direction counts."""

    depth: float
    """At its own turning speed, m; inf where nothing limits it."""
    floor: float
    """At any turning speed, m."""
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
    """Depth at each, in the worst feed direction, m."""
    covered: bool
    """Whether the tool is in the work far enough for this estimate."""


def chatter(found: Shaking, cut: Cut) -> Chatter | None:
    """Return how deep a milling cut may go; None where the tool does not turn.

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
    floor = np.inf
    for feed in np.arange(TURNS) * np.pi / TURNS:
        c, s = np.cos(feed), np.sin(feed)
        turn = np.array([[c, s], [-s, c]])
        for climbing in (False,) if slot else (False, True):
            start, end = (np.pi - angle, np.pi) if climbing else (0.0, angle)
            one = limits(turn @ H @ turn.T, frequency, directions(start, end, RADIAL), cutting, e.teeth)
            floor = min(floor, one.floor()[0])
            depth, at = one.at(passing)
            if best is None or depth < best[0]:
                best = (depth, at, one, float(np.degrees(feed)), climbing)
    assert best is not None
    speeds = e.turns * np.linspace(*REACH, SPEEDS)
    lobes = np.array([best[2].at(speed * e.teeth)[0] for speed in speeds])
    return Chatter(
        best[0], float(floor), best[1], best[3], best[4], cutting, e.turns, speeds, lobes,
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
    """Return how deep a cut may go; None where the tool does not turn."""
    found = [chatter(one, cut) for one in (shakes.low, shakes.likely, shakes.high)]
    low, likely, high = found
    if low is None or likely is None or high is None:
        return None
    return Limit(
        likely, Band(low.depth, likely.depth, high.depth), Band(low.floor, likely.floor, high.floor)
    )  # fmt: skip
