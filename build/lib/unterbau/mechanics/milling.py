"""Cutting force by the specific cutting force and the chip.

Source:
    Kienzle: kc = kc1.1·h^−mc, h in mm; tangential force kc·h·b of each tooth, radial force as a share of it,
    summed over the teeth in the cut and integrated along the helix (Altintas, Manufacturing Automation, ch. 2, from
    memory).
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from unterbau.mechanics.arrays import FloatArray

RADIAL = 0.4
"""Radial force as a share of the tangential one; 0.3 to 0.5, from memory."""
HELIX = np.radians(30.0)
THINNEST = 5e-6
"""Below this chip, m, the specific force is not taken any higher: the edge rubs."""
STEPS, FINE = 180, 721
STRAIGHT = 0.01
"""A straight edge is counted as lagging by this over its depth, rad."""


@dataclass(frozen=True, slots=True)
class CutForce:
    """What a milling cut does."""

    tangential: float
    """Averaged over a turn: power over speed, N."""
    peak: float
    """Largest resultant within a turn, N."""
    power: float
    """W."""
    torque: float
    """Averaged, N·m."""
    teeth_in_cut: float
    """On average."""


def specific_force(kc11: float, mc: float, chip: float) -> float:
    """Return the specific cutting force, Pa, at a chip thickness, m."""
    return float(kc11 * (max(chip, THINNEST) * 1e3) ** -mc)


def engagement_angle(diameter: float, width: float) -> float:
    """Return the angle over which a tooth is in the cut, rad: arccos(1 − 2·ae/D)."""
    return float(np.arccos(np.clip(1 - 2 * width / diameter, -1.0, 1.0)))


def milling_force(
    kc11: float, mc: float, depth: float, width: float, chip: float, diameter: float, teeth: int, turns: float,
    helix: float = HELIX,
) -> CutForce:  # fmt: skip
    """Return the force of a milling cut.

    Args:
        kc11: Specific force at 1 × 1 mm, Pa.
        mc: Its exponent.
        depth: Along the tool, m.
        width: Across the path, m; at most the diameter.
        chip: Feed per tooth, m.
        diameter: Of the tool, m.
        teeth: Number.
        turns: Of the tool, 1/s.
        helix: Of its flutes, rad; 0 where they are straight.
    """
    angle = engagement_angle(diameter, width)
    mean_chip = 2 * width * chip / (diameter * angle)
    kc = specific_force(kc11, mc, mean_chip)
    power = kc * depth * width * chip * teeth * turns
    speed = np.pi * diameter * turns
    tangential = power / speed
    x, y = tooth_forces(kc11, mc, depth, angle, chip, diameter, teeth, helix)
    peak = float(np.hypot(x, y).max())
    return CutForce(tangential, peak, power, tangential * diameter / 2, teeth * angle / (2 * np.pi))


def tooth_forces(
    kc11: float, mc: float, depth: float, angle: float, chip: float, diameter: float, teeth: int,
    helix: float = HELIX,
) -> tuple[FloatArray, FloatArray]:  # fmt: skip
    """Return the force on the tool along and across the feed over one turn, N, shape (STEPS,) each.

    A tooth's edge lags along the helix: at height z it is in the cut at φ − k·z. What it feels is the force of a metre
    of straight edge integrated over that lag, so it is the difference of one running integral at the edge's two ends.
    """
    reach, of_x, of_y = _running(kc11, mc, angle, chip)
    lag = max(2 * np.tan(helix) / diameter, STRAIGHT / max(depth, 1e-9))
    turn = np.linspace(0.0, 2 * np.pi, STEPS, endpoint=False)[:, None]
    tip = turn + np.arange(teeth) * 2 * np.pi / teeth
    shank = tip - lag * depth
    x, y = (
        (_at(tip, reach, running) - _at(shank, reach, running)).sum(axis=1) / lag for running in (of_x, of_y)
    )  # fmt: skip
    return x, y


@lru_cache(maxsize=64)
def _running(kc11: float, mc: float, angle: float, chip: float) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return angles within the cut, rad, and up to each the integral of the force of a straight edge, N·rad/m."""
    phi = np.linspace(0.0, angle, FINE)
    h = chip * np.sin(phi)
    along = kc11 * (np.maximum(h, THINNEST) * 1e3) ** -mc * h
    across = RADIAL * along
    x, y = -(along * np.cos(phi) + across * np.sin(phi)), along * np.sin(phi) - across * np.cos(phi)
    step = phi[1] - phi[0]
    of_x, of_y = (np.append(0.0, np.cumsum((f[1:] + f[:-1]) * step / 2)) for f in (x, y))
    return phi, of_x, of_y


def _at(phi: FloatArray, reach: FloatArray, running: FloatArray) -> FloatArray:
    """Return the running integral at any angle: constant out of the cut, one more pass with every turn."""
    turns, within = np.divmod(phi, 2 * np.pi)
    found: FloatArray = turns * running[-1] + np.interp(within, reach, running)
    return found
