"""Mixes against the worked example, the packing curve, handbook formulas; batches; what cannot be mixed is said."""

from dataclasses import replace
from random import Random

import pytest
import trimesh

from unterbau.errors import InputError
from unterbau.shop.pour.concrete import days_for, stiffness_at, strength_share
from unterbau.shop.pour.formwork import bow, lift_of, panels, pressure, span_for
from unterbau.shop.pour.holding import core_words, metal_words, pull_outs, shrink_bow, shrink_words
from unterbau.shop.pour.mix import density_of, mix_of, resin_for, strength_of
from unterbau.shop.pour.mould import Core, Insert, Mould, Pocket, check_mould
from unterbau.shop.pour.packing import Grain, pack, passing
from unterbau.shop.pour.plan import GRAINS, PourPlan, check_pour
from unterbau.shop.pour.resin import Resin

PLAN = PourPlan("a", "mould", waste=0.0)


def test_the_worked_mix_of_25_litres() -> None:
    """25 l, 10 %, 3 % voids: 56.5 kg; resin with hardener 5.65 as 100:35; stone 17/29/54 % (data, [calc])."""
    mix = mix_of(PLAN, 0.025)
    masses = {one.name: one.mass for one in mix.parts}
    assert mix.mass == pytest.approx(56.5, abs=0.05)
    assert masses["resin"] == pytest.approx(4.19, abs=0.005)
    assert masses["hardener"] == pytest.approx(1.47, abs=0.005)
    stone = [masses[grain.name] for grain in GRAINS]
    assert stone == pytest.approx([8.8, 14.7, 27.4], abs=0.06)
    assert mix.density == density_of(0.10, 0.03)
    assert 3 * mix.batch == pytest.approx(mix.mass)
    assert mix.ends_by == "what the bucket holds"


def test_the_packing_curve_is_met_where_fractions_meet_its_sieves() -> None:
    packing = pack(GRAINS, 0.45)
    assert packing.shares == pytest.approx([0.17, 0.29, 0.54], abs=0.005)
    assert packing.misfit < 1e-9
    assert passing(4e-3, 0.0, 16e-3, 0.5) == pytest.approx(0.5)  # Fuller: the square root
    assert passing(0.0, 0.1e-3, 8e-3, 0.45) == 0.0
    coarse = pack(GRAINS[2:], 0.45)
    assert coarse.shares == (1.0,)
    assert coarse.voids > packing.voids


@pytest.mark.parametrize(("voids", "share"), [(0.25, 0.123), (0.20, 0.096), (0.15, 0.069)])
def test_resin_that_fills_voids(voids: float, share: float) -> None:
    """12.3/9.6/6.9 % at 75/80/85 % packed (data, [calc])."""
    assert resin_for(voids) == pytest.approx(share, abs=0.0006)


def test_what_cannot_be_mixed_is_said() -> None:
    def words(plan: PourPlan) -> str:
        return " ".join(mix_of(plan, 0.02).problems)

    assert mix_of(PLAN, 0.02).problems == ()
    assert "does not fill the voids" in words(replace(PLAN, resin_share=0.05))
    assert "no fines" in words(replace(PLAN, grains=GRAINS[1:]))
    assert "foam" in words(replace(PLAN, resin=Resin(age=60.0)))
    assert "oven-dry it" in words(replace(PLAN, grains=(replace(GRAINS[0], moisture=0.03), *GRAINS[1:])))
    assert "too small to be mixed" in words(replace(PLAN, bucket=0.0005))
    assert mix_of(replace(PLAN, shop=40.0), 0.02).ends_by == "the pot life"
    wet = replace(PLAN, sort="concrete", water_cement=0.8)
    assert "weak and porous" in " ".join(mix_of(wet, 0.02).problems)
    with pytest.raises(InputError, match="no room for stone"):
        mix_of(replace(PLAN, sort="concrete", water=350.0, water_cement=0.15), 0.02)


@pytest.mark.parametrize(
    ("field", "value", "where"),
    [("start", "tomorrow", "start"), ("resin_share", 0.9, "resin_share"),
     ("resin", Resin(pot_life=0.0), "resin.pot_life"), ("grains", (), "grains"),
     ("grains", (Grain("a", 2e-3, 1e-3),), "grains[0]"), ("lift", 0.0, "lift")],
)  # fmt: skip
def test_an_impossible_plan_is_refused_by_its_field(field: str, value: object, where: str) -> None:
    with pytest.raises(InputError) as error:
        check_pour(replace(PLAN, **{field: value}))  # type: ignore[arg-type]
    assert error.value.where == where


def test_concrete_by_its_standard() -> None:
    """EN 1992-1-1: s .25: β .598, .779, .902 at 3, 7, 14 days; C30/37 at 7 days fcm 29.6, E 30.4 (data, [calc])."""
    assert [strength_share(days, "42.5N") for days in (3, 7, 14)] == pytest.approx([0.598, 0.779, 0.902], abs=5e-4)
    assert 38 * strength_share(7, "42.5N") == pytest.approx(29.6, abs=0.05)
    assert stiffness_at(28, "42.5N", 38e6) / 1e9 == pytest.approx(32.8, abs=0.05)
    assert stiffness_at(7, "42.5N", 38e6) / 1e9 == pytest.approx(30.4, abs=0.07)
    assert days_for(strength_share(9.0, "32.5N"), "32.5N") == pytest.approx(9.0)
    assert days_for(0.779, "52.5") < 7.0 < days_for(0.779, "32.5N")
    assert strength_of(0.5, 50e6) == pytest.approx(41.25e6)  # Bolomey by hand: .55·50·(2 − .5)
    mix = mix_of(replace(PLAN, sort="concrete"), 1.0)
    masses = {one.name: one.mass for one in mix.parts}
    assert (masses["cement"], masses["water"]) == (360.0, 180.0)
    volume = 0.02 + 0.18 + 360 / 3100 + sum(masses[one.name] for one in GRAINS) / 2650
    assert volume == pytest.approx(1.0)


def test_forms() -> None:
    """11.3 kPa under half a metre; ply .41 and 1.29 mm; the melamine hump of .90 mm; 22 N a litre (data, [calc])."""
    load = pressure(2300, 0.5)
    assert load == pytest.approx(11.3e3, rel=0.002)
    assert bow(load, 0.3, 0.018, 6e9) == pytest.approx(0.41e-3, abs=5e-6)
    assert bow(load, 0.4, 0.018, 6e9) == pytest.approx(1.29e-3, abs=5e-6)
    hump = bow(pressure(2350, 0.1), 0.4, 0.016, 2.5e9)
    assert hump == pytest.approx(0.90e-3, abs=2e-6)
    assert span_for(pressure(2350, 0.1), hump, 0.016, 2.5e9) == pytest.approx(0.4)
    assert bow(load, 0.3, 0.018, 6e9, "clamped") == pytest.approx(bow(load, 0.3, 0.018, 6e9) / 5)
    assert lift_of(1e-3, 2250) == pytest.approx(22.0, abs=0.1)
    flat = panels(2350, 0.1, 0.016, 2.5e9, 0.4, 0.1e-3)
    assert flat[0].bows == pytest.approx(hump)
    assert bow(flat[1].pressure, flat[1].for_flatness, 0.016, 2.5e9) == pytest.approx(0.1e-3)


def test_moulds_hold_what_closed_meshes_do() -> None:
    """Ten moulds drawn: block with draft less pockets, cores, inserts, against the volume of meshes."""
    draw = Random(5)
    for _ in range(10):
        length, width, height = draw.uniform(0.3, 0.9), draw.uniform(0.3, 0.6), draw.uniform(0.1, 0.3)
        draft = draw.choice((0.0, 1.0, 2.0))
        pockets = tuple(
            Pocket(0.02 + 0.25 * length * n, 0.03, 0.15 * length, 0.4 * width, 0.5 * height, n == 1) for n in range(3)
        )
        mould = Mould(
            length, width, height, draft, pockets=pockets, cores=(Core(0.03, 0.2),), inserts=(Insert("M8", 0.1, 0.1),)
        )
        check_mould(mould)
        lean = height * trimesh.util.np.tan(trimesh.util.np.radians(draft))
        corners = [(x, y, z) for z, off in ((0.0, 0.0), (height, lean)) for x in (off, length - off)
                   for y in (off, width - off)]  # fmt: skip
        block = trimesh.convex.convex_hull(corners).volume
        boxes = sum(trimesh.creation.box((one.length, one.width, one.depth)).volume for one in pockets)
        round_ones = sum(trimesh.creation.cylinder(radius=one / 2, height=tall, sections=720).volume
                         for one, tall in ((0.03, 0.2), (0.018, 0.05)))  # fmt: skip
        assert mould.volume == pytest.approx(block - boxes - round_ones, rel=1e-5)
    for wrong, where in (
        (Mould(pockets=(Pocket(0.5, 0.1, 0.4, 0.1, 0.05),)), "mould.pockets[0]"),
        (Mould(inserts=(Insert("M8", 2.0, 0.1),)), "mould.inserts[0]"),
        (Mould(height=1.0, width=0.05, draft=5.0), "mould.draft"),
    ):
        with pytest.raises(InputError) as error:
            check_mould(wrong)
        assert error.value.where == where


def test_what_holds_and_what_shrinks() -> None:
    plan = replace(PLAN, mould=Mould(inserts=(Insert("M8", 0.1, 0.1, 0.05, 0.018), Insert("M10", 0.02, 0.1, 0.03))))
    found = {one.thread: one for one in pull_outs(plan)}
    assert found["M8"].bond[0] == pytest.approx(4e6 * 3.14159 * 0.018 * 0.05, rel=1e-4)
    assert found["M8"].problem == ""
    assert "from an edge" in found["M10"].problem
    low, high = shrink_bow(plan, 0.6, 0.005, 0.05, "steel-s235")
    assert 0.0 < low < high < 1e-3
    assert shrink_bow(replace(PLAN, sort="sand"), 0.6, 0.005, 0.05, "steel-s235") == (0.0, 0.0)
    assert f"{low * 1e3:.2g} to {high * 1e3:.2g} mm" in shrink_words(plan, 0.6, 0.005, 0.05, "steel-s235")
    assert shrink_words(replace(PLAN, sort="sand"), 0.6, 0.005, 0.05, "steel-s235") == ""
    assert "float with" in core_words(Mould(cores=(Core(0.05, 0.4),)), 2250)
    assert "hydrogen" in metal_words(replace(PLAN, sort="concrete"), "aluminium-6060")
    assert metal_words(PLAN, "aluminium-6060") == ""
