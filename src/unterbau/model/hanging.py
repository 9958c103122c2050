"""What hangs on a machine: the payload of its head, a counterweight on its rope."""

from unterbau.catalogue.joints import RIGID
from unterbau.model.modelled import Model
from unterbau.structure.join import Counterweight, Payload
from unterbau.structure.stand import REST
from unterbau.structure.vectors import X, Z

ROPE_ZETA = 0.01
"""Damping ratio of a stranded rope; from memory."""


def payload(one: Payload, model: Model) -> None:
    """Hang what the head carries below a place."""
    inertia = one.mass * one.side**2 / 6
    model.frame.mass(model.node(one.at), one.mass, (0.0, 0.0, -one.side / 2), (inertia, inertia, inertia))


def counterweight(one: Counterweight, model: Model) -> None:
    """Hang a counterweight on its rope: a mass that bounces below the pulley, and the rope's pull on what it holds.

    The rope's force is the counterweight's weight whatever the moved part does slowly; the pulley bears it twice, once
    by the counterweight's own weight. The weight is guided along the column, so that it moves aside with it.
    """
    frame, pulley = model.frame, model.node(one.pulley)
    hangs = frame.node("counterweight", frame.places[pulley])
    stiff = (one.rope.stiffness, *(RIGID,) * 5)
    frame.spring(REST, hangs, pulley, stiff, Z, X, ROPE_ZETA)
    frame.mass(hangs, one.mass)
    frame.mass(pulley, 0.0, hung=one.mass)
    frame.mass(model.node(one.hook), 0.0, hung=-one.mass)
