"""Block loads from the frame against statics by hand, life by its formula; feet against moments."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.guides import block
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import moving_masses
from unterbau.mechanics.statics import spring_loads
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP, WEIGHT
from unterbau.studies.purchase.guides import PRELOAD, equivalent, guide_checks, loads
from unterbau.studies.purchase.tipping import tipping_checks


def test_blocks_carry_what_moves_on_them() -> None:
    """Off their rails the blocks of the bed carry the gantry's weight; pulled sideways they carry the pull, no more."""
    machine = MovingGantry()
    solved = solve(machine, Place(), "likely")
    frame = solved.statics.system.elements.frame
    rows = frame.springs.group == frame.groups.index("y_guides")
    forces = spring_loads(solved.statics)[:, rows]
    up = np.cross(frame.springs.x[rows], np.cross(frame.springs.up[rows], frame.springs.x[rows]))
    weight = np.einsum("n,nd->d", forces[WEIGHT, :, 2], up)
    carried = moving_masses(machine)["Y"] * 9.80665
    assert abs(weight[2]) == pytest.approx(carried, rel=0.05)  # screws and motors stand partly on the bed
    side = np.cross(up, frame.springs.x[rows])
    pulled = np.einsum("n,nd->d", forces[TIP][0][:, 1], side) + np.einsum("n,nd->d", forces[TIP][0][:, 2], up)
    assert np.linalg.norm(pulled[[0]]) == pytest.approx(1.0, rel=0.05)


def test_an_equivalent_load_adds_both_ways_and_tilting() -> None:
    size = block(ColumnMill().x_guides.block)
    forces = np.array([[9.0, 3.0, -4.0, 0.0, 0.0, 0.0], [0.0, 0.0, 0.0, 0.0, 2.0, 0.0]])
    plain, tilted = equivalent(forces, size).tolist()
    assert plain == pytest.approx(7.0)
    assert tilted == pytest.approx(6 * 2.0 / (0.6 * size.length))


def test_life_is_the_cube_of_rating_over_load() -> None:
    machine, brief = ColumnMill(), Brief()
    row = next(one for one in guide_checks(machine, brief, "mm") if one.key == "x_guides")
    size = block(machine.x_guides.block)
    assert size.rating is not None
    force = float(row.asked.split(", ")[-1].split(" N")[0])
    bears = loads(machine, force)["x_guides"].load + PRELOAD[machine.x_guides.preload] * size.rating[0]
    life = float(row.working.split("km = ")[1].split(" km")[0])
    assert life == pytest.approx(50.0 * (size.rating[0] / bears) ** 3, rel=0.05)


def test_wheels_carry_no_rating_and_never_pass() -> None:
    machine = MovingGantry()
    wheels = replace(machine, x_guides=replace(machine.x_guides, block="v-wheels", preload="light"))
    row = next(one for one in guide_checks(wheels, Brief(), "mm") if one.key == "x_guides")
    assert row.verdict == "unknown"


def test_feet_set_further_apart_hold_more() -> None:
    one = MovingGantry()
    bigger = replace(one, dimensions=replace(one.dimensions, travel_x=1.0, travel_y=1.0))
    narrow, wide = (
        next(check for check in tipping_checks(machine, Brief(), "mm") if "pull" in check.name)
        for machine in (one, bigger)
    )
    assert wide.share < narrow.share
    asked = float(narrow.asked.split(": ")[1].split(" N·m")[0])
    holds = float(narrow.working.split(": ")[1].split(" N·m")[0])
    assert narrow.share == pytest.approx(asked / holds, rel=0.02)
