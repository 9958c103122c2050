"""Solved machines: the 3×3 compliance between tool and work and where it comes from."""

from dataclasses import dataclass

import numpy as np

from unterbau.band import Level
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import Statics, solve_statics
from unterbau.model.built import Built
from unterbau.structure.parts import Place
from unterbau.studies.loads import NOSE, TIP, WEIGHT, loads_of, pull


@dataclass(frozen=True, slots=True)
class Solved:
    """A machine at one place and level of its joints, solved for the standard loads."""

    built: Built
    statics: Statics

    @property
    def nbytes(self) -> int:
        """About what it takes of the memory: its matrices."""
        system = self.statics.system
        plates = [array for one in system.elements.plates for array in (one.K, one.follow, one.inner)]
        turned = [one for one in system.turned if one is not None]
        return 2 * system.band.nbytes + self.statics.u.nbytes + sum(one.nbytes for one in (*plates, *turned))


def solve(machine: Machine, place: Place, level: Level) -> Solved:
    """Build and solve a machine.

    Raises:
        InputError: The machine cannot be built or solved, with the reason.
    """
    built = to_frame(machine, place, level)
    try:
        return Solved(built, solve_statics(built.frame, loads_of(built)))
    except (MechanismError, ConditionError) as error:
        raise InputError("machine", str(error)) from None


def solve_tip(built: Built) -> FloatArray:
    """Return only the movement of the tip against the work, m/N, shape (3, 3); the quickest answer.

    Raises:
        InputError: The machine cannot be solved, with the reason.
    """
    forces = pull(built, built.tip)
    try:
        statics = solve_statics(built.frame, Loads(forces, np.zeros((3, 3))))
    except (MechanismError, ConditionError) as error:
        raise InputError("machine", str(error)) from None
    C = np.einsum("and,bnd->ab", forces, statics.u[:, : forces.shape[1]])
    return np.asarray((C + C.T) / 2)


def tip_compliance(solved: Solved) -> FloatArray:
    """Return the movement of the tool's tip against the work per pull, m/N, shape (3, 3)."""
    return _compliance(solved, TIP)


def nose_compliance(solved: Solved) -> FloatArray:
    """Return the same for pulls at the spindle nose."""
    return _compliance(solved, NOSE)


def _compliance(solved: Solved, cases: slice) -> FloatArray:
    forces = solved.statics.loads.forces[cases]
    u = solved.statics.u[cases, : forces.shape[1]]
    C = np.einsum("and,bnd->ab", forces, u)
    return np.asarray((C + C.T) / 2)


def droop(solved: Solved) -> float:
    """Return the movement of the tool by weight against the bed below it, m, down negative."""
    force = solved.statics.loads.forces[2]
    return float(np.sum(force * solved.statics.u[WEIGHT, : len(force)]))


def sag(solved: Solved) -> float:
    """Return how far the tool itself sinks by weight, with all that carries it, against the feet, m, down negative."""
    frame, u = solved.built.frame, solved.statics.u[WEIGHT]
    standing = np.unique(frame.springs.i[frame.springs.j < 0])
    return float(u[solved.built.tip, 2] - u[standing, 2].mean())


def softest(compliance: FloatArray) -> tuple[FloatArray, float]:
    """Return the softest direction (unit vector, largest entry positive) and its stiffness, N/m."""
    values, vectors = np.linalg.eigh(compliance)
    direction = vectors[:, -1]
    direction = direction * np.sign(direction[np.argmax(np.abs(direction))])
    return direction, float(1.0 / values[-1])
