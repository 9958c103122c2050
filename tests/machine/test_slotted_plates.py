"""T-slot plates side by side: by hand, as separate plates, in the list and in the shop, out and in as a frame."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.errors import InputError
from unterbau.files.frame_json import document_text, read_frame, to_arrays, to_document
from unterbau.machine.alternatives import alternatives
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bill_of, lay_out, listed_mass, to_frame
from unterbau.materials.material import material
from unterbau.materials.slotted_plate import slotted_plate
from unterbau.mechanics.plate import condensed
from unterbau.mechanics.plate_element import PlateMaterial
from unterbau.mechanics.plate_spec import Patch, PlateSpec
from unterbau.mechanics.statics import solve_statics, total_mass
from unterbau.shop.making import usual_how
from unterbau.shop.pieces import pieces_of
from unterbau.structure.parts import Place, Plate
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.loads import CASES, standard_loads

PLAIN = replace(MovingGantry(), bed=Plate(0.02, "aluminium-6060"))
FOUR = replace(PLAIN, bed=replace(PLAIN.bed, strips=4))


def test_a_slotted_plate_by_hand() -> None:
    """20 mm thick, slots every 25 mm: opening 8 by 4.5, room 16 by 7.5, 8 mm left under it; strips of a millimetre."""
    found, base = slotted_plate("aluminium-6060"), material("aluminium-6060")
    z = np.linspace(0.05, 19.95, 200)
    wide = np.where(z < 8.0, 25.0, np.where(z < 15.5, 9.0, 17.0))
    middle = float((wide * z).sum() / wide.sum())
    inertia = float((wide * (z - middle) ** 2).sum() * 0.1)
    assert pytest.approx(inertia / (25.0 * 20.0**3 / 12), rel=2e-3) == found.material.E / base.E
    assert found.material.rho / base.rho == pytest.approx(float(wide.sum() * 0.1) / 500.0, rel=2e-3)
    across = 25.0 / (9.0 / 20.0**3 + 16.0 / 8.0**3) / 20.0**3
    assert found.across == pytest.approx(across / (found.material.E / base.E), rel=1e-9)


def test_a_plate_softer_one_way_bends_so_much_more_that_way() -> None:
    """Strips pulled down at their end, fixed at the other: give goes with 1/D of their own direction."""
    give = []
    for along_x in (True, False):
        xs = tuple(np.linspace(0, 0.4, 33)) if along_x else (0.0, 0.01, 0.02)
        ys = (0.0, 0.01, 0.02) if along_x else tuple(np.linspace(0, 0.4, 33))
        ends = (Patch(0.0, 0.01, 0.0, 0.011), Patch(0.4, 0.01, 0.0, 0.011))
        if not along_x:
            ends = (Patch(0.01, 0.0, 0.011, 0.0), Patch(0.01, 0.4, 0.011, 0.0))
        K = condensed(PlateSpec(xs, ys, 0.005, PlateMaterial(70e9, 27e9, 0.0, 0.0, 0.25), ends, ())).K
        give.append(float(np.linalg.inv(K[6:, 6:])[2, 2]))
    assert give[0] / give[1] == pytest.approx(4.0, rel=1e-3)
    assert give[1] == pytest.approx(0.4**3 / (3 * 70e9 * 0.02 * 0.005**3 / 12), rel=5e-3)


def test_a_plate_cut_through_is_two_plates() -> None:
    xs, ys = (*np.linspace(0, 0.2, 11), *np.linspace(0.201, 0.401, 11)), tuple(np.linspace(0, 0.3, 16))
    made = PlateMaterial(70e9, 27e9, 0.3, 2700.0)
    corners = tuple(Patch(x, y, 0.011, 0.011) for x in (0.04, 0.16) for y in (0.0, 0.3))
    other = tuple(replace(one, x=one.x + 0.201) for one in corners)
    both = condensed(PlateSpec(tuple(float(x) for x in xs), ys, 0.01, made, (*corners, *other), (), slits=(0.2,))).K
    one = condensed(PlateSpec(tuple(float(x) for x in xs[:11]), ys, 0.01, made, corners, ())).K
    size = np.abs(one).max()
    assert np.abs(both[:24, :24] - one).max() < 2e-4 * size
    assert np.abs(both[:24, 24:]).max() < 2e-4 * size


def test_plates_side_by_side_weigh_less_and_give_more() -> None:
    plain, four = (1 / np.diag(tip_compliance(solve(one, Place(), "likely"))) for one in (PLAIN, FOUR))
    assert four[2] < plain[2]
    assert (four[:2] > 0.95 * plain[:2]).all()
    assert listed_mass(FOUR) < listed_mass(PLAIN)
    frame = to_frame(FOUR, Place(), "likely").frame
    assert total_mass(frame)[0] == pytest.approx(total_mass(to_frame(PLAIN, Place(), "likely").frame)[0], rel=0.1)


def test_the_list_and_the_shop_know_them() -> None:
    line = next(one for one in bill_of(FOUR) if one.part == "bed" and "T-slots" in one.text)
    assert line.count == 4
    pieces = [one for one in pieces_of(lay_out(FOUR)) if one.sort == "extruded"]
    assert sorted(name for one in pieces for name in one.names) == ["bed 1", "bed 2", "bed 3", "bed 4"]
    assert sum(one.mass * one.count for one in pieces) == pytest.approx(line.mass, rel=1e-9)
    holes = sum(len(one.holes) * one.count for one in pieces)
    assert holes == 8 * FOUR.dimensions.cross_members
    assert all(0.0 < hole.y < one.width and 0.0 < hole.x < one.length for one in pieces for hole in one.holes)
    assert {usual_how(one, ()) for one in pieces} == {"buy"}


def test_a_frame_with_them_goes_out_and_comes_back() -> None:
    frame, loads = standard_loads(FOUR)
    again = read_frame(document_text(to_document(frame, loads, CASES, 1)))
    (bed,) = (one for one in again.plates if one.slits)
    assert len(bed.slits) == 3
    assert bed.along == pytest.approx(slotted_plate("aluminium-6060").across)
    u = solve_statics(*to_arrays(again)).u
    wanted = solve_statics(frame, loads).u
    for case, one in enumerate(wanted):
        assert np.abs(u[case] - one).max() < 1e-9 * np.abs(one).max()
    with pytest.raises(InputError, match="slits"):
        read_frame(document_text(replace(again, plates=tuple(replace(one, slits=(0.1234,)) for one in again.plates))))


def test_where_they_make_no_sense_they_are_refused() -> None:
    for wrong in (
        replace(FOUR.bed, material="mdf"),
        replace(FOUR.bed, strips=40),
        replace(FOUR.bed, under="mdf", under_thickness=0.005),
    ):
        with pytest.raises(InputError, match=r"bed\.strips"):
            lay_out(replace(FOUR, bed=wrong))
    with pytest.raises(InputError, match=r"x_plate\.strips"):
        lay_out(replace(PLAIN, x_plate=replace(PLAIN.x_plate, strips=2)))
    assert any("T-slots side by side" in one.text for one in alternatives(PLAIN, "bed"))
    assert any(one.text == "one plain plate" for one in alternatives(FOUR, "bed"))
