"""Whose flex moves the tool: compliance split by link and cause."""

from dataclasses import dataclass

import numpy as np

from unterbau.machine.machine import Machine, links
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.statics import CAUSES, energies
from unterbau.studies.compliance import Solved
from unterbau.studies.loads import TIP

REST = "rest"


@dataclass(frozen=True, slots=True)
class Shares:
    """Compliance by link and cause for unit pulls in x, y, z."""

    keys: tuple[str, ...]
    """Links from tool to work, then `rest`."""
    compliance: FloatArray
    """m/N, shape (3, n_links, 5), causes axial, shear, torsion, bending, joint; sums to the diagonal."""


def shares(machine: Machine, solved: Solved) -> Shares:
    """Return the shares of a solved machine: twice the strain energy under each unit pull."""
    groups = {name: index for index, name in enumerate(solved.built.frame.groups)}
    energy = energies(solved.statics)[TIP] * 2
    keys = tuple(link.key for link in links(machine))
    on_path = np.array([groups[key] for key in keys])
    rest = np.setdiff1d(np.arange(len(groups)), on_path)
    table = np.concatenate([energy[:, on_path], energy[:, rest].sum(axis=1, keepdims=True)], axis=1)
    return Shares((*keys, REST), table)


__all__ = ["CAUSES", "REST", "Shares", "shares"]
