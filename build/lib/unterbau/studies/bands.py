"""Bands from one solution: how an answer moves with each link follows from its share of the strain energy.

Source:
    C = Σ cⱼ·(kⱼ₀/kⱼ) where the forces do not shift (unit-load theorem). The sum itself is drawn, some thousands of
    times, not its moments: a lognormal fitted by moments misses the stiff end by up to half.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.band import Band
from unterbau.kept import kept_up_to
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics import assembly, placed_plate
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import JOINT, Frame
from unterbau.structure.parts import Place
from unterbau.studies.compliance import Solved
from unterbau.studies.uncertain import between, draws, logarithms, material_band

ENDS = (5.0, 95.0)
KEPT = 16.0  # MB
SPRINGS, MADE, TWIST, SORTS = slice(0, 6), 6, 7, 8
"""Sorts of pieces in a group: six directions of its springs, what is made of its material, its beams' twist."""


@dataclass(frozen=True, slots=True)
class Pieces:
    """The uncertain pieces of a machine, wherever its head stands: what is of one group and sort scatters alike."""

    flexibility: FloatArray
    """Drawn over likely, shape (n_groups, SORTS, n_draws)."""

    def drawn(self, parts: FloatArray) -> FloatArray:
        """Return sums drawn of parts by group and sort, (m, n_groups, SORTS), shape (m, n_draws)."""
        flat = self.flexibility.reshape(-1, self.flexibility.shape[2])
        used = np.flatnonzero(np.abs(parts).reshape(len(parts), -1).max(axis=0))
        return np.asarray(parts.reshape(len(parts), -1)[:, used] @ flat[used])


def pieces(machine: Machine, place: Place) -> Pieces:
    """Return what is uncertain in a machine.

    Raises:
        InputError: The machine cannot be built.
    """
    frames = [to_frame(machine, place, level).frame for level in ("likely", "low", "high")]
    likely = frames[0]
    logs = np.zeros((2, len(likely.groups), SORTS))
    for rows in ("springs", "seats"):
        ends = logarithms(*(getattr(frame, rows).k for frame in frames))
        _widest(logs[:, :, SPRINGS], getattr(likely, rows).group, np.array(ends))
    twist = np.array(logarithms(*(frame.beams.J for frame in frames)))
    _widest(logs[:, :, TWIST : TWIST + 1], likely.beams.group, twist[:, :, None])
    made = [material_band(machine, name) for name in likely.groups]
    of_material = np.log(np.array([[one.low, one.high] for one in made])).T
    logs[:, :, MADE] = of_material
    logs[:, :, TWIST] += of_material
    drawn = [(tuple(low), tuple(high)) for low, high in zip(*logs.tolist(), strict=True)]
    return Pieces(np.array([_drawn(name, *both) for name, both in zip(likely.groups, drawn, strict=True)]))


@kept_up_to(KEPT)
def _drawn(name: str, low: tuple[float, ...], high: tuple[float, ...]) -> FloatArray:
    """Return a group's flexibility drawn over likely, shape (SORTS, n_draws); kept, for most a change leaves alone."""
    return np.asarray(1.0 / between(np.array(low)[:, None], np.array(high)[:, None], draws(name)))


def _widest(logs: FloatArray, group: IntArray, ends: FloatArray) -> None:
    """Keep for each group the widest of its rows' logarithms, low and high."""
    np.minimum.at(logs[0], group, ends[0])
    np.maximum.at(logs[1], group, ends[1])


def components(solved: Solved, first: FloatArray, second: FloatArray) -> FloatArray:
    """Return twice the mutual strain energy of pairs of movements by group and sort, J, shape (m, n_groups, SORTS).

    Summed it is the movement by the second's loads along the first's.

    Args:
        solved: A machine.
        first: Movements, shape (m, n_nodes of the split frame, 6).
        second: Others, same shape.
    """
    elements = solved.statics.system.elements
    frame = elements.frame
    found = np.zeros((len(frame.groups), SORTS, len(first)))
    stretch = [elements.springs.G @ _pairs(u, frame, "springs") for u in (first, second)]
    of_springs = elements.springs.k[:, :, None] * stretch[0] * stretch[1]
    joints = frame.springs.cause == JOINT
    np.add.at(found[:, SPRINGS], frame.springs.group[joints], of_springs[joints])
    np.add.at(found[:, MADE], frame.springs.group[~joints], of_springs[~joints].sum(axis=1))
    q = [elements.beams.S @ (elements.beams.G @ _pairs(u, frame, "beams")) for u in (first, second)]
    whole = np.sum(q[0] * (elements.beams.F @ q[1]), axis=1)
    b = frame.beams
    torque = [one[:, 3] + b.zs[:, None] * one[:, 1] - b.ys[:, None] * one[:, 2] for one in q]
    twist = torque[0] * torque[1] * elements.beams.F[:, 3, 3][:, None]
    np.add.at(found[:, MADE], b.group, whole - twist)
    np.add.at(found[:, TWIST], b.group, twist)
    flat = [u.reshape(len(first), -1).T for u in (first, second)]
    for one in elements.plates:
        found[one.plate.group, MADE] += sum(placed_plate.mutual(one, *flat))
    return found.transpose(2, 0, 1)


def _pairs(u: FloatArray, frame: Frame, rows: str) -> FloatArray:
    set_ = getattr(frame, rows)
    return np.asarray(assembly.pair_movements(u, set_.i, set_.j).transpose(1, 2, 0))


def ends_of(drawn: FloatArray) -> FloatArray:
    """Return the 5 % and 95 % points of rows of draws, shape (m, n_draws) to (m, 2)."""
    return np.asarray(np.percentile(drawn, ENDS, axis=1).T)


def stiffness_band(compliance: float, ends: FloatArray) -> Band:
    """Return the band of a stiffness from the ends of its compliance: low is soft."""
    low, high = ends.tolist()
    return Band(1.0 / high, 1.0 / compliance, 1.0 / max(low, 1e-30))


def frequency_band(frequency: float, ends: FloatArray) -> Band:
    """Return the band of a natural frequency from the ends of its strain energy's flexibility, 1 at likely values."""
    low, high = ends.tolist()
    return Band(frequency / high**0.5, frequency, frequency / max(low, 1e-30) ** 0.5)
