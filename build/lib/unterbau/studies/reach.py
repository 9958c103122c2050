"""Reach: stiffness and droop over the whole travel, and the weakest place."""

import itertools
from dataclasses import dataclass
from math import ceil

import numpy as np

from unterbau.band import Level
from unterbau.machine.machine import Machine, travel
from unterbau.mechanics.arrays import BoolArray, FloatArray
from unterbau.mechanics.moving_contacts import Swept
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Place
from unterbau.studies.travel import MIDDLE, Travel

MAP = (15, 15, 3)
"""Places of the map along x, y, z."""
AXES = 3
COARSE = 3
"""About every so many places of the map are asked first, its ends among them."""
ALIKE = 1e-9
NEARLY, ALMOST = 6, 0.95
"""So many of the softest places are looked around, if they are at least so nearly the softest."""


@dataclass(frozen=True, slots=True)
class Reach:
    """Answers over a grid of the travel."""

    counts: tuple[int, int, int]
    places: FloatArray
    """Each 0 to 1 along x, y, z, x slowest, shape (n, 3)."""
    compliance: FloatArray
    """Tool against work, m/N, shape (n, 3, 3)."""
    droop: FloatArray
    """Movement of the tool by weight against the bed below it, m, down negative, shape (n,)."""
    over: FloatArray
    """The tool from the first node of what carries the work, m, shape (n, 3)."""
    on_plate: bool
    """Whether the work stands on a plate, not in a chuck."""

    @property
    def stiffness(self) -> FloatArray:
        """Tool against work along x, y, z, N/m, shape (n, 3)."""
        return np.asarray(1.0 / np.diagonal(self.compliance, axis1=1, axis2=2))

    def weakest(self, axis: int) -> tuple[Place, float]:
        """Return the place that is softest along an axis, and its stiffness, N/m."""
        row = _softest(self.compliance[:, axis, axis])
        return self.place(row), float(self.stiffness[row, axis])

    def place(self, row: int) -> Place:
        """Return a place by its row."""
        x, y, z = self.places[row].tolist()
        return Place(x, y, z)

    def droops(self, surfaced: bool = False) -> FloatArray:
        """Return the droop; on a bed that this machine has surfaced, less what that pass saw.

        The surfacing pass runs with Z as low as it goes, so it cuts the droop it has there into the bed.
        """
        if not surfaced:
            return self.droop
        lowest = self.droop.reshape(self.counts)[:, :, :1]
        return (self.droop.reshape(self.counts) - lowest).ravel()

    def sag(self, surfaced: bool = False) -> float:
        """Return the range of the droop over the whole travel, m."""
        return float(np.ptp(self.droops(surfaced)))

    def layer(self, values: FloatArray, height: int) -> FloatArray:
        """Return values of one height as rows along y, columns along x."""
        return np.asarray(values.reshape(self.counts)[:, :, height].T)


def weakest(machine: Machine, corners: FloatArray, at: Place = MIDDLE) -> tuple[Swept, FloatArray, FloatArray]:
    """Return the answers at corners, and the softest places of the map: their give along x, y, z, m/N, and where.

    The map is not asked everywhere: about every third place of it, then what lies around those that are nearly softest.

    Args:
        machine: The machine.
        corners: Places that are asked besides, shape (n, 3).
        at: Where it is put up, best where it is put up already.
    """
    counts = counts_of(machine)
    everywhere = grid(counts)
    ask = Travel(machine, at).cut_for(np.vstack([corners, everywhere]))
    steps = np.stack(np.unravel_index(np.arange(len(everywhere)), counts), axis=1)
    coarse = np.stack([_coarse(n)[steps[:, axis]] for axis, n in enumerate(counts)]).all(axis=0)
    give = np.full((len(everywhere), AXES), -np.inf)
    asked = np.flatnonzero(coarse)
    first = ask(np.concatenate([np.arange(len(corners)), len(corners) + asked]))
    give[asked] = np.diagonal(first.compliance[len(corners) :], axis1=1, axis2=2)
    near = np.zeros(len(everywhere), dtype=bool)
    for axis in range(AXES):
        best = asked[np.argsort(-give[asked, axis])[:NEARLY]]
        for place in steps[best[give[best, axis] > ALMOST * give[:, axis].max()]]:
            near |= (np.abs(steps - place) <= 1).all(axis=1)
    rest = np.flatnonzero(near & ~coarse)
    if len(rest):
        give[rest] = np.diagonal(ask(len(corners) + rest).compliance, axis1=1, axis2=2)
    rows = np.array([_softest(column) for column in give.T])
    return first.of(np.arange(len(corners))), give[rows, np.arange(AXES)], everywhere[rows]


def _coarse(count: int) -> BoolArray:
    """Return which places along an axis are asked first: the same from either end, most machines being alike there."""
    asked = np.zeros(count, dtype=bool)
    asked[np.round(np.linspace(0, count - 1, ceil((count - 1) / COARSE) + 1)).astype(int)] = True
    return asked


def _softest(give: FloatArray) -> int:
    """Return the first row of those that give most, to rounding: of two that are alike always the same one."""
    return int(np.argmax(give >= give.max() * (1 - ALIKE)))


def counts_of(machine: Machine, wanted: tuple[int, int, int] = MAP) -> tuple[int, int, int]:
    """Return how many places to ask along each axis: one where it does not travel."""
    x, y, z = (n if length > 0.0 else 1 for n, length in zip(wanted, travel(machine), strict=True))
    return x, y, z


def grid(counts: tuple[int, int, int]) -> FloatArray:
    """Return evenly spaced places of the travel, x slowest, shape (n, 3); z counts from the lowest."""
    lines = [np.linspace(0.0, 1.0, n) if n > 1 else np.array([0.0 if axis == 2 else 0.5]) for axis, n in
             enumerate(counts)]  # fmt: skip
    return np.array(list(itertools.product(*lines)))


def reach(
    machine: Machine, level: Level = "likely", counts: tuple[int, int, int] = MAP, progress: Progress | None = None
) -> Reach:
    """Return stiffness and droop over the whole travel.

    Raises:
        InputError: The machine cannot be built or solved, with the reason.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    report.step(0, 2, "reach")
    found = counts_of(machine, counts)
    return reach_of(Travel(machine), found, level)


def reach_of(machine: Travel, counts: tuple[int, int, int], level: Level) -> Reach:
    """Return stiffness and droop of a machine that is already put up."""
    places = grid(counts)
    swept = machine.answers(places, level)
    over = machine.over_work(places)
    return Reach(counts, places, swept.compliance, swept.sinking[:, 2], over, machine.on_plate)
