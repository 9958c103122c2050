"""How true a machine must be set up: what feet out of one plane do to the tool, what a lean does to the work."""

import numpy as np

from unterbau.brief.brief import Brief
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, travel
from unterbau.mechanics.misfit import put_in
from unterbau.shop.build.steps import Asks
from unterbau.structure.parts import Place
from unterbau.structure.stand import REST
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP, loads_of

SHARE = 0.25
"""Of the brief's error that setting up may take; give, drives and tools have the rest; common practice, no source."""
OFF = 10e-6
"""That one foot is put off, m."""
SPAN = 0.2
"""Over which a lean is read, m."""
LEAST, MOST = 0.01e-3, 0.5e-3
"""No bench here reads finer; a coarser one needs no hold, m."""


def asks(machine: Machine, brief: Brief) -> Asks:
    """Return how true a machine must be set up to keep its share of the brief's error.

    A lean θ moves the cut by θ·h over the height h of the work; a foot that is off strains the frame (initial strain,
    `mechanics/misfit`), which moves the tool against the work. A machine that cannot be solved asks for the finest.
    """
    budget = SHARE * brief.accuracy
    tall = max(brief.work_z or travel(machine)[2], 1e-3)
    return Asks(_kept(budget * SPAN / tall), _kept(_feet(machine, budget)))


def _kept(value: float) -> float:
    return float(f"{min(max(value, LEAST), MOST):.2g}")


def _feet(machine: Machine, budget: float) -> float:
    """Return how far one foot may be off, m; the one that counts most."""
    try:
        solved = solve(machine, Place(), "likely")
    except InputError:
        return LEAST
    frame = solved.statics.system.elements.frame
    if REST not in frame.groups:
        return MOST
    springs = frame.springs
    rows = np.flatnonzero((springs.group == frame.groups.index(REST)) & (springs.j >= 0))
    if len(rows) < 3:
        return MOST
    upright = np.abs(solved.statics.system.elements.springs.G[rows][:, :3, 2])
    off = np.zeros((len(rows), len(rows), 6))
    for case in range(len(rows)):
        off[case, case, int(np.argmax(upright[case]))] = OFF
    u, _ = put_in(solved.statics, rows, off)
    pulls = loads_of(solved.built).forces[TIP]
    moved = np.abs(np.einsum("and,cnd->ca", pulls, u[:, : pulls.shape[1]]))
    return budget * OFF / max(float(moved.max()), 1e-15)
