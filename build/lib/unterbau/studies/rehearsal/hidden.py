"""What is wrong with a machine that is only rehearsed: drawn at random, to be found by measuring."""

from dataclasses import dataclass

import numpy as np

from unterbau.machine.machine import Machine, links
from unterbau.structure.parts import Place
from unterbau.studies.learning.springs import ScaledSprings

LOOSE = (0.12, 0.3)
"""Of its likely stiffness that a joint has which was left loose."""
COUNTS = 0.1
"""Of a give along X, Y or Z: a joint that owns so much can be found by pushing."""
OTHERS = 0.3
"""How far all others scatter, of their own doubt."""
PLAY, HYSTERESIS = (2e-6, 9e-6), (0.01, 0.05)
"""m, and of the largest movement."""
BENT, APART, TWISTED, LEANT, SQUARE = 25e-6, 30e-6, 60e-6, 0.3e-3, 0.4e-3
"""Standard deviations: a rail's bow and two rails' running apart, m; corners out of a plane, m; a spindle's lean and a
frame's angle, rad. Orders of magnitude, common practice, no source."""
BACKLASH, WEIGHS = (3e-6, 25e-6), 0.02


@dataclass(frozen=True, slots=True)
class Hidden:
    """Faults of one machine."""

    loose: str
    """Link that was left loose; nothing where none was."""
    factor: float
    """What it has of its likely stiffness."""
    theta: tuple[float, ...]
    """Logarithm of the stiffness of each group of springs against its likely one."""
    play: float
    hysteresis: float
    bent: float
    apart: float
    twisted: float
    leant: tuple[float, float]
    square: float
    backlash: float
    weighs: float
    """Its mass against the predicted one."""
    damping: float
    """Of its modes against the predicted one."""

    def words(self, machine: Machine) -> str:
        """Return what was hidden, in words."""
        labels = {one.key: one.label for one in links(machine)}
        loose = f"{labels.get(self.loose, self.loose)} has {self.factor:.0%} of its stiffness; " if self.loose else ""
        return (
            f"{loose}play {self.play * 1e6:.1f} µm, backlash {self.backlash * 1e6:.0f} µm; a rail is bent by "
            f"{abs(self.bent) * 1e6:.0f} µm and runs apart by {abs(self.apart) * 1e6:.0f} µm; the spindle leans by "
            f"{self.leant[0] * 1e3:+.2f} and {self.leant[1] * 1e3:+.2f} mrad; the frame is off by "
            f"{self.square * 1e3:+.2f} mrad; the mass is {self.weighs:.1%} of what was predicted"
        )


def hide(model: ScaledSprings, seed: int) -> Hidden:
    """Return faults drawn for a machine: one joint that counts is loose, all else scatters a little.

    Raises:
        InputError: The machine cannot be solved.
    """
    draw = np.random.default_rng(seed)
    theta = draw.normal(0.0, 1.0, len(model.keys)) * model.sigma * OTHERS
    start = model.solved(Place(), np.zeros(len(model.keys)))
    shares = np.max([-model.give(start, axis)[1] for axis in range(3)], axis=0)
    large = np.flatnonzero(shares > COUNTS)
    loose, factor = "", 1.0
    if len(large):
        row = int(large[draw.integers(len(large))])
        loose, factor = model.keys[row], float(draw.uniform(*LOOSE))
        theta[row] = np.log(factor)

    def one(size: float) -> float:
        return float(draw.normal(0.0, size))

    return Hidden(
        loose, factor, tuple(float(value) for value in theta), float(draw.uniform(*PLAY)),
        float(draw.uniform(*HYSTERESIS)), one(BENT), one(APART), one(TWISTED), (one(LEANT), one(LEANT)), one(SQUARE),
        float(draw.uniform(*BACKLASH)), 1.0 + one(WEIGHS), float(np.exp(one(0.2))),
    )  # fmt: skip
