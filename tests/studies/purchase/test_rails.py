"""Rails that do not fit: reciprocity with unit pulls, hand sums for a stiff carriage, and what makes it worse."""

from dataclasses import replace

import numpy as np
import pytest

from tests.frames import cantilever, read
from unterbau.catalogue.guides import block
from unterbau.files.frame_json import to_arrays
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, part
from unterbau.mechanics.misfit import put_in
from unterbau.mechanics.statics import solve_statics, spring_loads
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP, pull
from unterbau.studies.purchase.rails import BEARS, OFF, misfits, rail_checks, rails_of


@pytest.mark.parametrize("machine", [MovingGantry(), ColumnMill()], ids=lambda one: one.kind)
def test_the_tool_moves_by_what_a_pull_strains(machine: Machine) -> None:
    """Betti: a misfit moves the tool as far as a unit pull's force in that spring times the misfit."""
    solved = solve(machine, Place(), "likely")
    rows = rails_of(solved, "x_guides")[-1]
    off = np.zeros((1, len(rows), 6))
    off[0, :, 1], off[0, 0, 2] = 12e-6, -7e-6
    u, _ = put_in(solved.statics, rows, off)
    moved = np.einsum("and,nd->a", pull(solved.built, solved.built.tip), u[0, : len(solved.built.frame.nodes)])
    strained = spring_loads(solved.statics)[TIP][:, rows]
    assert moved == pytest.approx(np.einsum("asd,sd->a", strained, off[0]), rel=1e-6, abs=1e-14)


def test_forces_of_a_misfit_are_in_balance() -> None:
    machine = ColumnMill()
    solved = solve(machine, Place(), "likely")
    rails = rails_of(solved, "x_guides")
    assert len(rails) == 2
    off = np.zeros((1, len(rails[1]), 6))
    off[0, :, 1] = OFF
    _, forces = put_in(solved.statics, rails[1], off)
    sideways = [float(forces[0, rows, 1].sum()) for rows in rails]
    assert sum(sideways) == pytest.approx(0.0, abs=0.02 * abs(sideways[0]))


def test_a_carriage_stiffer_than_its_blocks_bears_half_the_blocks_stiffness_times_the_misfit() -> None:
    """Two rails on firm ground share a misfit: k·δ/2 on each block; a frame that gives takes some of it."""
    machine = ColumnMill()
    guide = part(machine, "x_guides")
    one = next(m for m in misfits(machine, Place()) if (m.key, m.way) == ("x_guides", "apart"))
    k = block(guide.block).medium.likely  # type: ignore[union-attr]
    assert 0.2 * k * OFF / 2 < one.load < k * OFF / 2
    assert one.allowed == pytest.approx(OFF * BEARS * one.rating / one.load)


def test_a_single_spring_put_in_strained_pushes_a_cantilever_aside() -> None:
    """A spring of k at the end of a cantilever, too long by δ: F = k·δ·K/(k + K) with K = 3EI/L³."""
    k, off = 2e6, 1e-4
    frame = cantilever(1)
    end = frame["nodes"][-1]["id"]
    pulled = {"id": "up", "forces": [{"node": end, "force": [0.0, 0.0, 1.0], "moment": [0.0, 0.0, 0.0]}]}
    K = 1 / solve_statics(*to_arrays(read(frame | {"cases": [pulled]}))).u[0, -1, 2]
    lift = {"id": "s", "i": end, "k": [k, 0.0, 0.0, 0.0, 0.0, 0.0], "x": [0.0, 0.0, 1.0], "up": [1.0, 0.0, 0.0]}
    statics = solve_statics(*to_arrays(read(frame | {"springs": [lift]})))
    misfit = np.zeros((1, 1, 6))
    misfit[0, 0, 0] = off
    u, forces = put_in(statics, np.array([0]), misfit)
    assert abs(forces[0, 0, 0]) == pytest.approx(k * off * K / (k + K), rel=1e-9)
    assert abs(u[0, -1, 2]) == pytest.approx(k * off / (k + K), rel=1e-9)


def test_stiffer_blocks_ask_for_truer_rails() -> None:
    machine = MovingGantry()
    light = replace(machine, x_guides=replace(machine.x_guides, preload="light"))
    medium = replace(machine, x_guides=replace(machine.x_guides, preload="medium"))
    allowed = [
        next(m.allowed for m in misfits(one, Place()) if (m.key, m.way) == ("x_guides", "apart"))
        for one in (light, medium)
    ]
    assert allowed[1] < allowed[0]
    assert {check.name for check in rail_checks(machine, "mm")} >= {"X guides, rails apart", "X guides, rails twisted"}
