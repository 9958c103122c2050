"""How contacts move with the axes: what is kept of a kind is believed only as far as a machine moves that way."""

from dataclasses import fields

import numpy as np
import pytest

from unterbau.machine.kind import Kind
from unterbau.machine.machine import KINDS
from unterbau.structure.parts import Place
from unterbau.studies import motions
from unterbau.studies.motions import Motions, motions_of

AT = Place(0.3, 0.6, 0.4)
GONE = np.array([[0.011, 0.023, 0.037], [0.2, 0.1, 0.05]])


def assert_same(first: Motions, second: Motions) -> None:
    for one in fields(Motions):
        a, b = getattr(first, one.name), getattr(second, one.name)
        assert a.at(GONE) == pytest.approx(b.at(GONE), abs=1e-12), one.name


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_what_is_kept_is_what_is_seen(kind: Kind) -> None:
    machine = kind.model()
    motions._seen.clear()
    seen = motions_of(machine, AT)
    assert len(motions._seen) == 1
    assert_same(motions_of(machine, AT), seen)
    (sort,) = motions._seen
    motions._seen[sort] = tuple(np.full_like(one, 0.25) for one in motions._seen[sort])
    assert_same(motions_of(machine, AT), seen)  # it does not move so, and is looked at anew
    assert any((one != 0.25).any() for one in motions._seen[sort])
