"""The standard loads: pulls at the tool against the work, and weight."""

import numpy as np

from unterbau.band import Level
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics.arrays import FloatArray, cross_matrices
from unterbau.mechanics.frame import Frame, Loads
from unterbau.model.built import Built
from unterbau.structure.parts import Place

GRAVITY = (0.0, 0.0, -9.80665)
CASES = ("tip x", "tip y", "tip z", "nose x", "nose y", "nose z", "gravity")
TIP, NOSE, WEIGHT = slice(0, 3), slice(3, 6), 6


def pull(built: Built, node: int) -> FloatArray:
    """Return unit pulls in x, y, z on a node of the tool, pushed back by the work.

    The push acts at the node's place on a rigid arm down to the bed, so both forces meet
    in one point and leave no moment over. Shape (3, n_nodes, 6).
    """
    frame, work = built.frame, built.work
    forces = np.zeros((3, len(frame.nodes), 6))
    arm = frame.nodes[node] - np.array(work.place)
    forces[:, node, :3] += np.eye(3)
    back = np.vstack([np.eye(3), cross_matrices(arm[None])[0]])
    for row, pushed in zip(forces, np.einsum("nab,ax->xnb", work.share, back), strict=True):
        np.add.at(row, work.nodes, -pushed)
    return forces


def loads_of(built: Built) -> Loads:
    """Return the standard cases of a built machine."""
    n = len(built.frame.nodes)
    forces = np.concatenate([pull(built, built.tip), pull(built, built.nose), np.zeros((1, n, 6))])
    gravity = np.zeros((len(CASES), 3))
    gravity[WEIGHT] = GRAVITY
    return Loads(forces, gravity)


def standard_loads(machine: Machine, place: Place | None = None, level: Level = "likely") -> tuple[Frame, Loads]:
    """Return the frame of a machine with its standard loads."""
    built = to_frame(machine, place or Place(), level)
    return built.frame, loads_of(built)
