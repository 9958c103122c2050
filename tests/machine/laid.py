"""What is laid so far as a frame, for tests of single assemblies."""

from typing import TypeVar

from unterbau.model.modelled import Model
from unterbau.model.to_frame import put_in
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Place

M = TypeVar("M")


def laying(machine: M) -> Layout[M]:
    """Return an empty layout of a machine."""
    return Layout(machine)


def modelled(lay: Layout[object], place: Place | None = None) -> Model:
    """Return what is laid so far as a frame on its way, its plates not yet meshed."""
    model = Model(lay.so_far(), place or Place())
    put_in(model, model.structure.steps)
    return model
