"""`python -m tests.studies.taught [COUNT]`: many machines drawn, one hidden fault each, and coverage; a command."""

import sys

import numpy as np

from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.shop.build.tests import AXES, Test
from unterbau.structure.parts import Place
from unterbau.studies.compliance import tip_compliance
from unterbau.studies.learning.learn import learn
from unterbau.studies.learning.springs import ScaledSprings

PLACES = (Place(), Place(0.0, 0.0, 0.0), Place(1.0, 1.0, 0.0))
NOISE = 0.03


def built_machine() -> MovingGantry:
    """Return the machine that is taught."""
    return MovingGantry()


def drawn_truth(model: ScaledSprings, draw: np.random.Generator) -> np.ndarray:
    """Return logarithms of stiffnesses drawn from the prior."""
    return np.asarray(draw.normal(0.0, model.sigma))


def read_on(model: ScaledSprings, truth: np.ndarray, draw: np.random.Generator) -> tuple[Test, ...]:
    """Return pushes at three places and the first two taps of a machine, with noise."""
    found = []
    for place in PLACES:
        solved = model.solved(place, truth)
        for axis in range(3):
            log, _ = model.give(solved, axis)
            value = float(np.exp(-log + draw.normal(0.0, NOISE)))
            found.append(Test("a", "push", value, NOISE, AXES[axis], place.x, place.y, place.z))  # type: ignore[arg-type]
    logs, _ = model.modes(model.solved(PLACES[0], truth))
    found += [Test("a", "tap", float(np.exp(one + draw.normal(0.0, 0.01))), 0.01) for one in logs[:2]]
    return tuple(found)


def main() -> int:
    """Print how many hidden faults were found, and how often bands hold the truth."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 100
    machine, draw = built_machine(), np.random.default_rng(5)
    model = ScaledSprings(machine)
    start = model.solved(Place(), np.zeros(len(model.keys)))
    shares = np.max([-model.give(start, axis)[1] for axis in range(3)], axis=0)
    large = np.flatnonzero(shares > 0.1)
    named, held = 0, 0
    for n in range(count):
        truth = np.zeros(len(model.keys))
        truth[large[n % len(large)]] = np.log(0.2)
        named += any(
            model.keys[large[n % len(large)]] in group for group in learn(machine, read_on(model, truth, draw)).loose
        )
        drawn = drawn_truth(model, draw)
        found = learn(machine, read_on(model, drawn, draw))
        C = tip_compliance(model.solved(Place(), drawn))
        held += sum(band.low <= 1 / C[a, a] <= band.high for a, band in enumerate(found.stiffness))
    sys.stdout.write(f"{named} of {count} hidden faults named; bands hold the truth {held} of {3 * count} times\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
