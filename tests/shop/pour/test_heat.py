"""Heat in a pour against the series, the balance, a cup, a stiff integrator on a finer mesh; what follows from it."""

from dataclasses import replace
from math import exp, pi

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from unterbau.shop.pour.concrete import HYDRATION, aging
from unterbau.shop.pour.cure import Room, cure_of, stuff_of, thinner
from unterbau.shop.pour.heat import Sides, Stuff, pour_heat, through
from unterbau.shop.pour.mix import mix_of
from unterbau.shop.pour.plan import PourPlan
from unterbau.shop.pour.resin import CUP_HEAT, CUP_LOSS, Resin, rate, speed_of

PLAN = PourPlan("a", "mould")
BLOCK = Room(0.4, 0.15, 0.018, False)


def series(share: float, terms: int = 60) -> float:
    """Return the centre's share of the first difference of a slab whose faces are held (Carslaw & Jaeger, recalled)."""
    odd = [2 * n + 1 for n in range(terms)]
    return float(sum(4 / (pi * k) * (-1) ** n * exp(-(k**2) * pi**2 / 4 * share) for n, k in enumerate(odd)))


def test_no_reaction_both_faces_held() -> None:
    """.7072, .3953, .2202, .0381 after 600, 1200, 1800, 3600 s (half thickness 50 mm, k 2, ρ 2250, c 900)."""
    found = pour_heat(Stuff(2250, 900, 2.0, 0.0), [(0.0, 0.1)], Sides(1e9, 1e9), 0.0, 3600.0, 100.0)
    for at, share in ((600, 0.7072), (1200, 0.3953), (1800, 0.2202), (3600, 0.0381)):
        row = found.celsius[list(found.times).index(at)]
        middle = (row[9] + row[10]) / 200
        assert middle == pytest.approx(share, abs=1e-3)  # 20 cells, the middle between two of them
        assert series(2.0 / 2250 / 900 * at / 0.05**2) == pytest.approx(share, abs=2e-4)


def test_without_losses_the_rise_is_that_of_the_resin_alone() -> None:
    """w·H/c: 10 %, 450 kJ/kg, 880 J/kgK: 51 K ([calc])."""
    mix = mix_of(PLAN, 0.03)
    stuff = stuff_of(PLAN, mix)
    found = pour_heat(stuff, [(0.0, 0.1)], Sides(1e-12, 1e-12), 20.0, 6 * 24 * 3600.0, 20.0)
    assert found.celsius[-1].max() - 20.0 == pytest.approx(51.0, abs=0.5)
    assert cure_of(PLAN, mix, BLOCK).rise == pytest.approx(51.1, abs=0.1)


def test_the_balance_closes_for_resin_and_concrete() -> None:
    for sort in ("epoxy granite", "concrete"):
        plan = replace(PLAN, sort=sort)
        found = cure_of(plan, mix_of(plan, 0.03), BLOCK)
        assert found.history.closes < 1e-6
        assert found.history.released > 0.0
    cement = PLAN.water / PLAN.water_cement
    assert (
        stuff_of(replace(PLAN, sort="concrete"), mix_of(replace(PLAN, sort="concrete"), 0.03)).heat
        == cement * HYDRATION
    )


@pytest.mark.parametrize("pot_life", [20.0, 45.0, 120.0])
def test_a_cup_is_half_cured_at_its_pot_life(pot_life: float) -> None:
    """By scipy's stiff integrator; at 35 °C, held, it gels in half the time of 25 °C, held."""
    speed = speed_of(pot_life, 450e3)

    def change(_: float, state: np.ndarray) -> list[float]:
        faster = rate(float(state[0]), float(state[1]), speed)
        return [faster, 450e3 / CUP_HEAT * faster - CUP_LOSS * (float(state[1]) - 25.0)]

    found = solve_ivp(change, (0.0, pot_life * 60), [0.0, 25.0], "Radau", rtol=1e-9, atol=1e-9)
    assert found.y[0, -1] == pytest.approx(0.5, abs=1e-3)
    assert rate(0.2, 35.0, speed) / rate(0.2, 25.0, speed) == pytest.approx(2.0, abs=0.02)
    assert Resin(pot_life=pot_life).life_at(35.0) == pytest.approx(pot_life * 30, rel=0.01)


def test_a_lift_against_a_stiff_integrator_on_a_finer_mesh() -> None:
    """Method of lines with 60 cells and BDF: peak within half a kelvin, temperatures within one."""
    mix = mix_of(PLAN, 0.03)
    stuff, sides, thick, cells = stuff_of(PLAN, mix), Sides(through(8.0, 0.018, 0.13), 10.0), 0.1, 60
    dx = thick / cells

    def change(_: float, state: np.ndarray) -> np.ndarray:
        alpha, T = state[:cells], state[cells:]
        faster = stuff.speed * np.exp(-53e3 / 8.314 / (T + 273.15)) * (0.05 + alpha) * (1 - alpha)
        flow = np.zeros(cells)
        flow[:-1] += stuff.k / dx * (T[1:] - T[:-1])
        flow[1:] -= stuff.k / dx * (T[1:] - T[:-1])
        flow[0] -= (T[0] - 20.0) / (1 / sides.low + dx / 2 / stuff.k)
        flow[-1] -= (T[-1] - 20.0) / (1 / sides.high + dx / 2 / stuff.k)
        return np.concatenate([faster, (flow / dx + stuff.heat * faster) / stuff.rho / stuff.c])

    times = np.arange(0.0, 24 * 3600.0 + 1, 600.0)
    fine = solve_ivp(change, (0.0, times[-1]), np.r_[np.zeros(cells), np.full(cells, 20.0)], "BDF", times, rtol=1e-7,
                     atol=1e-8)  # fmt: skip
    mine = pour_heat(stuff, [(0.0, thick)], sides, 20.0, times[-1], 20.0)
    assert mine.celsius.max() == pytest.approx(fine.y[cells:].max(), abs=0.5)
    middle = fine.y[cells + 29 : cells + 31].mean(axis=0)
    assert (mine.celsius[:, 9] + mine.celsius[:, 10]) / 2 == pytest.approx(middle, abs=1.0)


def test_thinner_lifts_are_never_hotter_and_a_thick_pour_is_warned_of() -> None:
    mix = mix_of(PLAN, 0.05)
    peaks = [
        max(one.peak for one in cure_of(replace(PLAN, lift=lift), mix, Room(0.5, 0.2, 0.018, False)).lifts)
        for lift in (0.2, 0.1)
    ]
    assert peaks[0] > peaks[1]
    thick = cure_of(replace(PLAN, lift=0.2, resin_share=0.15), mix_of(replace(PLAN, resin_share=0.15), 0.05),
                    Room(0.5, 0.2, 0.018, False))  # fmt: skip
    assert any("the resin bears 60: lifts of" in words for words in thick.warnings)
    plan = replace(PLAN, resin_share=0.12, lift=0.2)
    rich = mix_of(plan, 0.05)
    thin = thinner(plan, rich, Room(0.5, 0.2, 0.018, False), 60.0)
    one = cure_of(replace(plan, lift=thin), rich, Room(0.5, thin, 0.018, False))
    assert one.lifts[0].peak == pytest.approx(60.0, abs=1.5)


def test_lifts_wait_for_one_another_and_cold_shops_take_longer() -> None:
    mix = mix_of(PLAN, 0.03)
    found = cure_of(PLAN, mix, BLOCK)
    assert len(found.lifts) == 2
    assert found.lifts[1].at > found.lifts[0].gels
    assert [one.words for one in found.events][:2] == ["lift 1", "lift 2"]
    cold = cure_of(replace(PLAN, shop=10.0), mix, BLOCK)
    assert cold.events[-1].when > found.events[-1].when
    assert any("stays stiff" in words for words in cold.warnings)
    waited = cure_of(replace(PLAN, wait=5.0), mix, BLOCK)
    assert waited.lifts[1].at == 5 * 3600.0
    tube = cure_of(PLAN, mix, Room(0.07, 0.9, 0.005, True))
    assert len(tube.lifts) == 9
    assert tube.lifts[0].peak == tube.lifts[8].peak


def test_age_of_concrete_by_temperature() -> None:
    """EN 1992-1-1, annex B: .62 at 10 °C, 1.57 at 30 °C."""
    assert aging(10.0) == pytest.approx(0.62, abs=0.005)
    assert aging(30.0) == pytest.approx(1.57, abs=0.005)
    assert aging(20.0) == pytest.approx(1.0, abs=0.01)
