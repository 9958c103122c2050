"""What is laid so far as a frame, for tests of single assemblies."""

from typing import Any

from unterbau.machine.assemblies.pieces import Lay
from unterbau.model.modelled import Model
from unterbau.model.to_frame import put_in
from unterbau.structure.parts import Place


def laying(machine: Any) -> Lay:
    """Return an empty layout of a machine."""
    return Lay(machine)


def modelled(lay: Lay, place: Place | None = None) -> Model:
    """Return what is laid so far as a frame on its way, its plates not yet meshed."""
    model = Model(lay.so_far(), place or Place())
    put_in(model, model.structure.steps)
    return model
