"""How true a machine must stand: a lean by hand, a foot by what it bears under a pull at the tool (Betti)."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.brief.brief import Brief
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.machine import Machine
from unterbau.mechanics.statics import spring_loads
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP
from unterbau.studies.setting_up import LEAST, MOST, SHARE, SPAN, asks


def test_a_lean_by_hand() -> None:
    brief = Brief(accuracy=1e-4, work_z=0.1)
    assert asks(MovingGantry(), brief).lean == pytest.approx(SHARE * 1e-4 * SPAN / 0.1)
    assert asks(MovingGantry(), replace(brief, accuracy=1e-6)).lean == LEAST
    assert asks(WallAxis(), brief).feet == MOST


@pytest.mark.parametrize("machine", [RaisedSides(), ColumnMill()], ids=lambda one: one.kind)
def test_a_foot_moves_the_tool_by_what_it_bears_under_a_pull_there(machine: Machine) -> None:
    """Put off by δ, a foot moves the tool by N·δ, where it bears N under a pull of 1 N at the tool (Betti)."""
    solved = solve(machine, Place(), "likely")
    frame = solved.statics.system.elements.frame
    rows = np.flatnonzero((frame.springs.group == frame.groups.index("feet")) & (frame.springs.j >= 0))
    bears = float(np.abs(spring_loads(solved.statics)[TIP][:, rows, 0]).max())
    brief = Brief(accuracy=2e-6, work_z=0.1)
    wanted = SHARE * brief.accuracy / bears
    assert LEAST < wanted < MOST
    assert asks(machine, brief).feet == pytest.approx(wanted, rel=0.05)
