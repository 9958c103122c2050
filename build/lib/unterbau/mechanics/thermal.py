"""What heat does to a frame: parts that expand differently bend one another."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import assembly, beam
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.statics import Statics


@dataclass(frozen=True, slots=True)
class Heat:
    """A temperature that is even, or grows evenly along a direction."""

    even: float
    """Everywhere, K."""
    slope: FloatArray
    """K/m, shape (3,)."""
    middle: FloatArray
    """Where the slope is nothing, m, shape (3,)."""

    def grown(self, places: FloatArray) -> FloatArray:
        """Return how a free body of α 1/K moves and turns at places, shape (n, 6).

        A linear temperature strains a body of one material without stress: with T = g·x, u = T·x − g·|x|²/2 and the
        turn is g × x.
        """
        x = places - self.middle
        T = x @ self.slope
        u = self.even * x + T[:, None] * x - 0.5 * np.sum(x * x, axis=1)[:, None] * self.slope
        return np.hstack([u, np.cross(self.slope, x)])


def warmed(
    statics: Statics, of_beams: FloatArray, of_plates: FloatArray, rest: float, heats: tuple[Heat, ...]
) -> FloatArray:
    """Return the movements of all nodes of the split frame by heat, its feet sliding freely, (cases, n_nodes, 6).

    Args:
        statics: A solved frame; only its stiffness is used.
        of_beams: Expansion of each beam of the split frame, 1/K.
        of_plates: The same of each plate.
        rest: Expansion of all that is neither: rigid arms, joints, the floor; a mean of the machine's own, 1/K.
        heats: A case each.

    Source:
        Initial strain: everything grows with `rest` without stress; what differs loads its nodes with K·(α − rest)·û,
        û the free growth of its ends.
    """
    system = statics.system
    elements = system.elements
    frame = elements.frame
    beams, n = frame.beams, len(frame.nodes)
    K = beam.stiffness(elements.beams)
    loads, free = np.zeros((len(heats), n, 6)), np.zeros((len(heats), n, 6))
    for case, heat in enumerate(heats):
        free[case] = rest * heat.grown(frame.nodes)
        ends = [
            _at_node(heat.grown(frame.nodes[node] + offset), offset)
            for node, offset in ((beams.i, beams.offset_i), (beams.j, beams.offset_j))
        ]
        f = np.einsum("eab,eb->ea", K, np.hstack(ends)) * (of_beams - rest)[:, None]
        np.add.at(loads[case], beams.i, f[:, :6])
        np.add.at(loads[case], beams.j, f[:, 6:])
        flat = loads[case].reshape(-1)
        for plate, own in zip(elements.plates, of_plates, strict=True):
            grown = heat.grown(frame.nodes[plate.plate.patches]).ravel()
            np.add.at(flat, plate.retained, (own - rest) * (plate.K @ grown))
    moved = assembly.solve(system, loads.reshape(len(heats), n * 6).T).T.reshape(loads.shape)
    return np.asarray(free + moved)


def _at_node(end: FloatArray, offset: FloatArray) -> FloatArray:
    """Return the movement of nodes whose rigid arms bring the beams' ends to where they grow."""
    return np.hstack([end[:, :3] - np.cross(end[:, 3:], offset), end[:, 3:]])
