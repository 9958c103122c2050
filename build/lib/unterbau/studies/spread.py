"""Bands by sampling: joints, guides, drives and materials each drawn on their own, many times."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.band import LEVELS, Band, Level
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, links, to_frame
from unterbau.mechanics import assembly
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.frame import JOINT, Frame, Loads
from unterbau.mechanics.mechanism import require_stable
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.statics import solve_with
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Place
from unterbau.studies.loads import GRAVITY, pull
from unterbau.studies.uncertain import between, logarithms, material_band

SAMPLES = 200
SEED = 21
QUANTITIES = ("x", "y", "z", "droop", "mode")


@dataclass(frozen=True, slots=True)
class Spread:
    """What came out of the samples, each quantity sorted as drawn."""

    values: FloatArray
    """Stiffness along x, y, z, N/m; droop here, m; lowest mode, Hz; shape (n_samples, 5)."""
    keys: tuple[str, ...]
    """What was drawn: links of the machine."""
    matters: FloatArray
    """Rank correlation of each quantity with each draw, shape (5, n_keys)."""

    def band(self, quantity: str) -> Band:
        """Return 5 %, median and 95 % of a quantity."""
        low, middle, high = np.percentile(self.values[:, QUANTITIES.index(quantity)], (5, 50, 95)).tolist()
        return Band(low, middle, high)

    def most(self, quantity: str, count: int = 3) -> tuple[tuple[str, float], ...]:
        """Return what a quantity's spread hangs on most, with the squared rank correlation."""
        row = self.matters[QUANTITIES.index(quantity)]
        order = np.argsort(-np.abs(row))[:count]
        return tuple((self.keys[n], float(row[n] ** 2)) for n in order)


def spread(machine: Machine, place: Place, samples: int = SAMPLES, progress: Progress | None = None) -> Spread:
    """Return how stiffness, droop and the lowest mode scatter when everything uncertain is drawn on its own.

    Each joint, guide and drive is lognormal, with its low and high as the ends of nine tenths; pieces of one link
    are drawn together, for they are alike.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    builds = {level: to_frame(machine, place, level) for level in LEVELS}
    built = builds["likely"]
    draw = _Draw(machine, {level: one.frame for level, one in builds.items()})
    forces = np.concatenate([pull(built, built.tip), np.zeros((1, len(built.frame.nodes), 6))])
    loads = Loads(forces, np.vstack([np.zeros((3, 3)), GRAVITY]))
    chance = np.random.default_rng(SEED).standard_normal((samples, len(draw.groups)))
    rows = []
    for done, z in enumerate(chance):
        report.step(done, samples, "samples")
        rows.append(_sample(draw.frame(z), loads))
    values = np.array(rows)
    known = {one.key for one in links(machine)}
    keys = tuple(name if name in known else "feet" for name in draw.names)
    return Spread(values, keys, _rank_correlation(values, chance))


def _sample(frame: Frame, loads: Loads) -> list[float]:
    system = assembly.assemble(frame)
    try:
        require_stable(system)
    except (MechanismError, ConditionError) as error:
        raise InputError("machine", str(error)) from None
    statics = solve_with(system, loads)
    n = loads.forces.shape[1]
    C = np.einsum("and,and->a", loads.forces[:3], statics.u[:3, :n])
    droop = float(np.sum(loads.forces[2] * statics.u[3, :n]))
    modes = solve_modes(system, 1)
    return [*(1.0 / C).tolist(), droop, float(modes.frequency[0])]


class _Draw:
    """The frames of one machine between its low and high."""

    def __init__(self, machine: Machine, frames: dict[Level, Frame]) -> None:
        self._likely = frames["likely"]
        of_material = [material_band(machine, name) for name in self._likely.groups]
        self._material = tuple(np.log([getattr(one, end) for one in of_material]) for end in ("low", "high"))
        of_plates = np.array([plate.group for plate in self._likely.plates], dtype=np.intp)
        used = np.concatenate(
            [self._likely.springs.group, self._likely.seats.group, self._likely.beams.group, of_plates]
        )
        self.groups: IntArray = np.unique(used)
        self.names = tuple(self._likely.groups[g] for g in self.groups)
        self._springs, self._seats = (
            logarithms(*(getattr(frames[level], rows).k for level in ("likely", "low", "high")))
            for rows in ("springs", "seats")
        )
        self._twist = logarithms(*(frames[level].beams.J for level in ("likely", "low", "high")))

    def frame(self, z: FloatArray) -> Frame:
        """Return the frame for one standard normal number per group."""
        likely = self._likely
        by_group = np.zeros(len(likely.groups))
        by_group[self.groups] = z
        made = between(self._material[0], self._material[1], by_group)
        plates = tuple(replace(plate, stiff=float(made[plate.group])) for plate in likely.plates)
        stiff = made[likely.beams.group]
        low_j, high_j = self._twist
        twisted = likely.beams.J * between(low_j, high_j, by_group[likely.beams.group])
        walls = likely.springs.cause != JOINT
        of_springs, of_seats = (by_group[rows.group][:, None] for rows in (likely.springs, likely.seats))
        k = likely.springs.k * between(self._springs[0], self._springs[1], of_springs)
        k[walls] = likely.springs.k[walls] * made[likely.springs.group[walls]][:, None]
        return replace(
            likely,
            plates=plates,
            beams=replace(likely.beams, E=likely.beams.E * stiff, G=likely.beams.G * stiff, J=twisted),
            springs=replace(likely.springs, k=k),
            seats=replace(likely.seats, k=likely.seats.k * between(self._seats[0], self._seats[1], of_seats)),
        )


def _rank_correlation(values: FloatArray, chance: FloatArray) -> FloatArray:
    """Return Spearman's rank correlation of each value with each draw."""

    def ranks(columns: FloatArray) -> FloatArray:
        order = columns.argsort(axis=0).argsort(axis=0).astype(float)
        order -= order.mean(axis=0)
        return np.asarray(order / np.linalg.norm(order, axis=0))

    return np.asarray(ranks(values).T @ ranks(chance))
