"""Plates in a frame: what loads do is what the frame holds (Clapeyron), and loads inside a plate."""

import numpy as np
import pytest

from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics.placed_plate import FEW
from unterbau.mechanics.statics import Statics, energies, solve_statics
from unterbau.structure.parts import Place
from unterbau.studies.loads import loads_of


@pytest.fixture(scope="module", params=[MovingGantry, ColumnMill])
def solved(request: pytest.FixtureRequest) -> Statics:
    """Return a machine with plates, some turned, under unit loads and weight."""
    machine: Machine = request.param()
    built = to_frame(machine, Place(0.3, 0.6, 0.4), "likely")
    assert built.frame.plates
    return solve_statics(built.frame, loads_of(built))


def test_energies_are_half_of_what_the_loads_do(solved: Statics) -> None:
    """Clapeyron: all groups and causes together, each case, weight inside plates with it."""
    work = np.sum(solved.f * solved.u, axis=(1, 2)) / 2
    assert energies(solved).sum(axis=(1, 2)) == pytest.approx(work, rel=1e-7)


def test_loads_inside_a_plate_move_its_points(solved: Statics) -> None:
    """Cases that load all points, a few, none, together and each alone, against the whole matrix."""
    draw = np.random.default_rng(3)
    for one in solved.system.elements.plates:
        p = len(one.interior)
        inside = np.zeros((p, 5))
        inside[:, 1] = draw.standard_normal(p)
        inside[: int(FEW * p), 2] = 1.0
        inside[p // 2, 4] = -3.0
        scale = np.abs(one.inner).max()
        assert one.give(inside) == pytest.approx(one.inner @ inside, rel=1e-9, abs=1e-9 * scale)
        assert (one.give(inside)[:, [0, 3]] == 0.0).all()
