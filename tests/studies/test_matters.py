"""Whose doubt a band is: shares sum, the owner's knowledge narrows the band as solving with it measured does."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.machine.changes.change import Measured
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
from unterbau.studies.bands import pieces
from unterbau.studies.compliance import solve
from unterbau.studies.matters import Owner, matters_words, owners


def told(machine: Machine, axis: int) -> tuple[Owner, ...]:
    return owners(machine, solve(machine, Place(), "likely"), pieces(machine, Place()), axis)


@pytest.mark.parametrize("axis", [0, 1, 2])
def test_shares_are_of_the_whole_and_sorted(axis: int) -> None:
    found = told(MovingGantry(), axis)
    shares = [one.share for one in found]
    assert found
    assert shares == sorted(shares, reverse=True)
    assert 0.5 < sum(shares) <= 1.0 + 1e-9
    assert all(one.narrower > -0.02 for one in found)


def test_a_measured_owner_narrows_the_band_by_what_was_said() -> None:
    """The same link as a measured one, known exactly: the band that the program then gives."""
    machine = MovingGantry()
    before = answers(machine, Place()).stiffness[1]
    first = next(one for one in told(machine, 1) if one.key not in ("cutter", "gantry_beam", "bed"))
    known = replace(machine, changes=(Measured("measured_1", first.key, 1.0, 1.0),))
    after = answers(known, Place()).stiffness[1]
    narrower = 1 - (after.high - after.low) / (before.high - before.low)
    assert narrower == pytest.approx(first.narrower, abs=0.03)


def test_it_is_said_in_a_sentence() -> None:
    found = told(BracedMill(), 1)
    words = matters_words(found)
    assert found[0].label in words
    assert "narrower" in words
    assert matters_words(()) == ""
    assert np.isfinite([one.narrower for one in found]).all()
