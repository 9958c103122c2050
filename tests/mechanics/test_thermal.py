"""Heat in a frame: Timoshenko's bimetal strip, bodies of one material without stress, growth that is held."""

import numpy as np
import pytest

from tests.frames import data, read
from unterbau.files.frame_json import to_arrays
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.statics import Statics, solve_statics
from unterbau.mechanics.thermal import Heat, warmed

ALU = {"id": "alu", "E": 7.0e10, "G": 2.6e10, "rho": 2700.0, "zeta": 0.002}
WIDE, LONG, PIECES = 0.02, 0.5, 10
ZERO = np.zeros(3)


def strip(upper: float, lower: float) -> Statics:
    """Return a strip of steel over one of aluminium, held at its start, m thick each."""
    nodes = [[LONG * k / PIECES, 0.0, 0.0] for k in range(PIECES + 1)]
    beams, sections = [], []
    for name, thick, off, made in (("up", upper, upper / 2, "steel"), ("low", lower, -lower / 2, "alu")):
        A, wide, tall = WIDE * thick, WIDE**3 * thick / 12, WIDE * thick**3 / 12
        sections.append({"id": name, "A": A, "Iy": tall, "Iz": wide, "J": tall, "Asy": 0.0, "Asz": 0.0})
        beams += [
            {"i": f"n{k}", "j": f"n{k + 1}", "section": name, "material": made, "group": name,
             "offset_i": [0.0, 0.0, off], "offset_j": [0.0, 0.0, off]}
            for k in range(PIECES)
        ]  # fmt: skip
    frame = data(nodes, beams)
    frame["sections"] += sections
    frame["materials"].append(dict(ALU))
    built, loads = to_arrays(read(frame))
    return solve_statics(built, loads)


def alphas(statics: Statics, steel: float, alu: float) -> FloatArray:
    frame = statics.system.elements.frame
    return np.array([{"up": steel, "low": alu}[frame.groups[g]] for g in frame.beams.group])


@pytest.mark.parametrize(("upper", "lower"), [(0.01, 0.01), (0.004, 0.02), (0.015, 0.005)])
def test_a_bimetal_strip_bows_as_timoshenko_says(upper: float, lower: float) -> None:
    """κ = 6(α2 − α1)·ΔT·(1 + m)²/(h·(3(1 + m)² + (1 + mn)(m² + 1/mn))), Timoshenko 1925, from memory."""
    statics = strip(upper, lower)
    m, n, h = upper / lower, 210.0 / 70.0, upper + lower
    kappa = 6 * 11e-6 * 10 * (1 + m) ** 2 / (h * (3 * (1 + m) ** 2 + (1 + m * n) * (m**2 + 1 / (m * n))))
    for rest in (12e-6, 17e-6):
        u = warmed(statics, alphas(statics, 12e-6, 23e-6), np.zeros(0), rest, (Heat(10.0, ZERO, ZERO),))[0]
        assert abs(u[PIECES, 2]) == pytest.approx(kappa * LONG**2 / 2, rel=2e-3 if rest == 12e-6 else 6e-3)
        assert u[PIECES, 2] > 0.0, "aluminium below grows more and lifts the end"


def test_one_material_grows_without_stress_whatever_stands_for_the_rest() -> None:
    statics = strip(0.01, 0.01)
    same = alphas(statics, 15e-6, 15e-6)
    slope = np.array([3.0, 0.0, 20.0])
    for heat in (Heat(10.0, ZERO, ZERO), Heat(0.0, slope, ZERO)):
        expected = 15e-6 * heat.grown(statics.system.elements.frame.nodes)
        u = warmed(statics, same, np.zeros(0), 15e-6, (heat,))[0]
        assert u == pytest.approx(expected, abs=1e-15)
        held = warmed(statics, same, np.zeros(0), 0.0, (heat,))[0]  # only the beams grow, from the end that is held
        assert held == pytest.approx(expected, abs=2e-9)


def test_a_slope_across_bends_a_bar_by_hand() -> None:
    """κ = α·dT/dz: 12e-6 × 20 K/m over 0.5 m lifts the end by κL²/2 = 30 µm; towards the cold side."""
    heat = Heat(0.0, np.array([0.0, 0.0, 20.0]), ZERO)
    grown = 12e-6 * heat.grown(np.array([[0.0, 0.0, 0.0], [LONG, 0.0, 0.0]]))
    assert grown[1, 2] == pytest.approx(-12e-6 * 20 * LONG**2 / 2)
    assert grown[1, 4] == pytest.approx(12e-6 * 20 * LONG)
    assert grown[0] == pytest.approx(np.zeros(6))
