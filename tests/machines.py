"""Machines as the kind that a test knows them to be."""

from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine
from unterbau.project.project import Project


def router(machine: Machine) -> MovingGantry:
    """Return a machine that is a router with a moving gantry."""
    assert isinstance(machine, MovingGantry)
    return machine


def router_of(project: Project, name: str) -> MovingGantry:
    """Return a candidate's machine, a router with a moving gantry."""
    return router(project.candidate(name).machine)
