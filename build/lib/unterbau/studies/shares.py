"""Whose flex moves the tool: compliance split by link and cause."""

from dataclasses import dataclass

import numpy as np

from unterbau.machine.machine import Machine, links
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.frame import CAUSES
from unterbau.mechanics.statics import energies
from unterbau.studies.compliance import Solved
from unterbau.studies.loads import TIP

REST = "rest"


@dataclass(frozen=True, slots=True)
class Shares:
    """Compliance by link and cause for unit pulls in x, y, z."""

    keys: tuple[str, ...]
    """Links from tool to work, then `rest`."""
    compliance: FloatArray
    """m/N, shape (3, n_links, 7), causes in the order of `CAUSES`; sums to the diagonal."""


def shares(machine: Machine, solved: Solved) -> Shares:
    """Return the shares of a solved machine: twice the strain energy under each unit pull.

    A link that this machine leaves out, such as a tailstock, has none.
    """
    groups = {name: index for index, name in enumerate(solved.built.frame.groups)}
    energy = energies(solved.statics)[TIP] * 2
    keys = tuple(link.key for link in links(machine))
    table = np.zeros((len(energy), len(keys) + 1, energy.shape[2]))
    for place, key in enumerate(keys):
        if key in groups:
            table[:, place] = energy[:, groups[key]]
    off_path = [index for name, index in groups.items() if name not in keys]
    table[:, -1] = energy[:, off_path].sum(axis=1)
    return Shares((*keys, REST), table)


__all__ = ["CAUSES", "REST", "Shares", "shares"]
