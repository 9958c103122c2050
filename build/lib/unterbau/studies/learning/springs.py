"""A machine at any place with its joints, guides, drives and feet scaled: what tests ask of it, and how it follows."""

from dataclasses import replace

import numpy as np

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.frame import JOINT, Frame
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.statics import solve_statics
from unterbau.model.built import Built
from unterbau.shop.build.tests import AXES, Test
from unterbau.structure.parts import Place
from unterbau.studies.bands import SPRINGS, components
from unterbau.studies.compliance import Solved, tip_compliance
from unterbau.studies.loads import TIP, loads_of
from unterbau.studies.shake import shares_at_tool
from unterbau.studies.uncertain import NINETY, logarithms

MODES = 12
FELT = 0.1
WORST = 3.0
"""Widest prior of an unknown, ln: twenty times softer."""


class ScaledSprings:
    """A machine at any place with its springs scaled by groups."""

    def __init__(self, machine: Machine) -> None:
        self.machine = machine
        self._built: dict[Place, Built] = {}
        frames = [to_frame(machine, Place(), level).frame for level in ("likely", "low", "high")]
        likely = frames[0]
        lows, highs = np.zeros(len(likely.groups)), np.zeros(len(likely.groups))
        has = np.zeros(len(likely.groups), dtype=bool)
        for rows in ("springs", "seats"):
            ends = logarithms(*(getattr(frame, rows).k for frame in frames))
            group = getattr(likely, rows).group
            if rows == "springs":
                joints = likely.springs.cause == JOINT
                group, ends = group[joints], (ends[0][joints], ends[1][joints])
            np.minimum.at(lows, group, ends[0].min(axis=1))
            np.maximum.at(highs, group, ends[1].max(axis=1))
            has[group] = True
        self.groups = [n for n in range(len(likely.groups)) if has[n] and highs[n] - lows[n] > 1e-3]
        self.keys = [likely.groups[n] for n in self.groups]
        self.sigma = np.array([min((highs[n] - lows[n]) / (2 * NINETY), WORST) for n in self.groups])

    def solved(self, place: Place, theta: FloatArray) -> Solved:
        """Return the machine at a place, the springs of each group e^θ times as stiff."""
        if place not in self._built:
            self._built[place] = to_frame(self.machine, place, "likely")
        built = self._built[place]
        frame = self._scaled(built.frame, theta)
        built = replace(built, frame=frame)
        try:
            return Solved(built, solve_statics(frame, loads_of(built)))
        except (MechanismError, ConditionError) as error:
            raise InputError("machine", str(error)) from None

    def _scaled(self, frame: Frame, theta: FloatArray) -> Frame:
        by_group = np.zeros(len(frame.groups))
        for key, value in zip(self.keys, theta, strict=True):
            by_group[frame.groups.index(key)] = value
        joints = (frame.springs.cause == JOINT)[:, None]
        springs = np.where(joints, frame.springs.k * np.exp(by_group[frame.springs.group])[:, None], frame.springs.k)
        seats = frame.seats.k * np.exp(by_group[frame.seats.group])[:, None]
        return replace(frame, springs=replace(frame.springs, k=springs), seats=replace(frame.seats, k=seats))

    def give(self, solved: Solved, axis: int) -> tuple[float, FloatArray]:
        """Return ln C of a pull at the tool and how it goes with each unknown: minus its share."""
        C = float(tip_compliance(solved)[axis, axis])
        u = solved.statics.u[TIP][axis : axis + 1]
        parts = self._of_springs(solved, u)
        return float(np.log(C)), -parts / C

    def modes(self, solved: Solved) -> tuple[FloatArray, FloatArray]:
        """Return ln f of the modes that are felt, and how they go with each unknown: half its share."""
        found = solve_modes(solved.statics.system, MODES)
        felt = shares_at_tool(solved, found) >= FELT
        if not felt.any():
            felt[:] = True
        whole = components(solved, found.shape, found.shape).sum(axis=(1, 2))
        rows = [0.5 * self._of_springs(solved, found.shape[n : n + 1]) / whole[n] for n in np.flatnonzero(felt)]
        return np.log(found.frequency[felt]), np.array(rows)

    def _of_springs(self, solved: Solved, u: FloatArray) -> FloatArray:
        parts = components(solved, u, u)[0]
        groups = list(solved.statics.system.elements.frame.groups)
        return np.array([parts[groups.index(key), SPRINGS].sum() for key in self.keys])

    def predicted(self, tests: tuple[Test, ...], theta: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Return ln C of pushes and ln f of taps, and how they go with the unknowns; a tap is the nearest mode."""
        y, J = np.zeros(len(tests)), np.zeros((len(tests), len(theta)))
        places: dict[Place, Solved] = {}
        modes: dict[Place, tuple[FloatArray, FloatArray]] = {}
        for n, one in enumerate(tests):
            place = Place(one.x, one.y, one.z)
            if place not in places:
                places[place] = self.solved(place, theta)
            if one.sort == "push":
                y[n], J[n] = self.give(places[place], AXES.index(one.axis))
            else:
                if place not in modes:
                    modes[place] = self.modes(places[place])
                logs, rows = modes[place]
                nearest = int(np.argmin(np.abs(logs - np.log(one.value))))
                y[n], J[n] = logs[nearest], rows[nearest]
        return y, J
