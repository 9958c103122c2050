"""Sections tried by updating one solution: the same as solving each frame afresh."""

from dataclasses import fields, replace

import numpy as np
import pytest

from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import part
from unterbau.mechanics.frame import Beams, Frame
from unterbau.model.member import member_values
from unterbau.structure.parts import Member, Place
from unterbau.studies.advise import try_instead
from unterbau.studies.compliance import solve, solve_tip
from unterbau.studies.sweep import STIFFNESS, best_of_catalogue, catalogue, sweep_sections

NAMES = ("rhs-60x40x3", "shs-100x100x4", "upn-120", "angle-50x50x5", "rod-40", "ipe-140")


@pytest.mark.parametrize("key", ["gantry_beam", "side_beam"])
def test_each_is_the_same_as_solved_afresh(key: str) -> None:
    """Beams alone are swept: a member of slotted profile has no walls that go with its section."""
    slotted = Member("tslot-40L-2x2", "aluminium-6060")
    machine = replace(MovingGantry(), gantry_beam=slotted, side_beam=slotted)
    values = [member_values(Member(name, "steel-s235")) for name in NAMES]
    found = sweep_sections(machine, key, Place(0.3, 0.6, 0.2), values)
    built = solve(machine, Place(0.3, 0.6, 0.2), "likely").built
    for one, C in zip(values, found.compliance, strict=True):
        frame: Frame = built.frame
        mine = frame.beams.group == frame.groups.index(key)
        changed = {n: np.where(mine, getattr(one, n), getattr(frame.beams, n)) for n in STIFFNESS}
        alone = solve_tip(replace(built, frame=replace(frame, beams=replace(frame.beams, **changed))))
        assert np.abs(C - alone).max() < 1e-6 * np.abs(alone).max()


def test_every_stiffness_of_a_beam_is_varied() -> None:
    left = {one.name for one in fields(Beams)} - set(STIFFNESS)
    assert left == {"i", "j", "offset_i", "offset_j", "up", "rho", "zeta", "group", "cause"}


def test_the_catalogue_is_tried_whole() -> None:
    rows = catalogue("steel-s235")
    assert len(rows) > 100
    found = sweep_sections(MovingGantry(), "gantry_beam", Place(), [values for _, values in rows])
    stiff = 1 / found.compliance[:, 1, 1]
    by_name = dict(zip([name for name, _ in rows], stiff.tolist(), strict=True))
    assert by_name["rhs-120x80x5"] > by_name["flat-40x5"]
    assert (found.mass > 0).all()


def test_the_best_of_the_catalogue_is_better_when_put_up() -> None:
    """Stiffer along some axis at its weight, or as stiff and lighter; the tool's place may move a little with it."""
    machine = MovingGantry()
    now = np.diag(solve_tip(solve(machine, Place(), "likely").built))
    weight = member_values(machine.gantry_beam).mass_per_metre
    found = best_of_catalogue(machine, "gantry_beam", Place())
    assert found
    assert len(set(found)) == len(found)
    for one in found:
        after = np.diag(solve_tip(solve(replace(machine, gantry_beam=one), Place(), "likely").built))
        lighter = member_values(one).mass_per_metre < weight
        assert lighter or (after < now).any()
        assert member_values(one).mass_per_metre <= 1.05 * weight
    trials = try_instead(machine, "gantry_beam", Place(), shipped_prices())
    assert set(found) <= {part(trial.machine, "gantry_beam") for trial in trials}


def test_only_members_of_one_profile() -> None:
    machine = replace(MovingGantry(), gantry_beam=Member("box3-of-upn-80", "steel-s235"))
    for key in ("gantry_beam", "side"):
        with pytest.raises(InputError, match="one profile"):
            sweep_sections(machine, key, Place(), [])
