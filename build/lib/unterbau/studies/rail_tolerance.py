"""How true the rails of each guide must run to one another, by the machine itself."""

from unterbau.errors import InputError
from unterbau.machine.machine import Machine
from unterbau.structure.parts import Place
from unterbau.studies.purchase.rails import MOST, misfits


def rails_bear(machine: Machine) -> dict[str, float]:
    """Return how far the rails of each guide may be off before blocks bear too much, m, by link; at most 0.2 mm.

    A machine that cannot be solved says nothing here: its drawings carry no such tolerance.
    """
    try:
        found = misfits(machine, Place())
    except InputError:
        return {}
    bears: dict[str, float] = {}
    for one in found:
        bears[one.key] = min(bears.get(one.key, MOST), one.allowed)
    return bears
