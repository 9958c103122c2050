"""What the tension of crossed belts does to the frame they run round."""

import numpy as np

from unterbau.band import Band, Level
from unterbau.catalogue.drives import drive
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import solve_statics
from unterbau.structure.parts import Drive, Place

LEVELS: tuple[tuple[Level, str], ...] = (("high", "low"), ("likely", "likely"), ("low", "high"))
"""Stiff joints with little tension, and the other way round."""


def corner_pull(machine: Machine, chosen: Drive) -> Band | None:
    """Return how far belt tension moves the corner that it moves most, m; None where no crossed belt runs.

    A run along each side of the frame pulls the two corners at its ends together: every corner
    carries the tension along X and along Y.

    Raises:
        InputError: The machine cannot be built.
    """
    tension = drive(chosen.kind).tension
    if tension is None:
        return None
    found = []
    for level, share in LEVELS:
        built = to_frame(machine, Place(), level)
        if not built.corners:
            return None
        pull = getattr(tension, share)
        places = built.frame.nodes[list(built.corners)]
        inward = -np.sign(places - places.mean(axis=0)) * np.array([1.0, 1.0, 0.0])
        forces = np.zeros((1, len(built.frame.nodes), 6))
        forces[0, list(built.corners), :3] = pull * inward
        moved = solve_statics(built.frame, Loads(forces, np.zeros((1, 3)))).u[0, list(built.corners), :3]
        found.append(float(np.linalg.norm(moved, axis=1).max()))
    return Band(*found)
