"""Beams against closed forms of strength of materials and vibration.

Sources: Timoshenko, Strength of Materials I (deflections) and Vibration Problems in
Engineering (frequencies, roots βL); Timoshenko & Goodier, Theory of Elasticity, §109
(torsion of rectangles); from memory, formulas checked by hand.
"""

from typing import Any

import numpy as np
import pytest

from tests.frames import by_node, cantilever, data, read
from unterbau.files.frame_json import solve_document
from unterbau.mechanics.arrays import FloatArray
from unterbau.sections.section import section
from unterbau.sections.solids import rectangle_torsion

EXACT = 1e-9  # elements are exact at their nodes; only rounding remains
E, NU = 2.1e11, 0.3
MATERIAL: dict[str, Any] = {"id": "steel", "E": E, "G": E / 2 / (1 + NU), "rho": 7850.0, "zeta": 0.002}


def of(name: str, shear: bool = False) -> dict[str, Any]:
    p = section(name).properties
    row = {"id": "s", "A": p.A, "Iy": p.Iy, "Iz": p.Iz, "J": p.J}
    return row | ({"Asy": p.Asy, "Asz": p.Asz} if shear else {})


def tip(frame: dict[str, Any], node: int = -1) -> FloatArray:
    document = read(frame)
    return np.asarray(by_node(solve_document(document), 0, document)[node])


def test_timoshenko_cantilever_bends_and_shears() -> None:
    """Solid 40×40, L 200 mm, 1 kN: F·L³/3EI + F·L/(5/6·G·A) = .05952 + .00186 = .06138 mm."""
    frame = cantilever(1, 0.2, cases=[{"id": "p", "forces": [{"node": "n1", "force": [0, 0, -1000.0]}]}])
    frame |= {"materials": [MATERIAL], "sections": [of("flat-40x40", shear=True)]}
    assert -tip(frame)[2] * 1e3 == pytest.approx(0.05952 + 0.00186, abs=1e-5)


@pytest.mark.parametrize(("fixed", "expected"), [(True, 0.0569), (False, 0.2278)])
def test_tube_between_supports(fixed: bool, expected: float) -> None:
    """SHS 60×60×4, 1 m, 1 kN in the middle: F·L³/192EI and F·L³/48EI; I 43.6 cm⁴."""
    turns = [fixed] * 3
    frame = cantilever(2, 1.0, cases=[{"id": "p", "forces": [{"node": "n1", "force": [0, 0, -1000.0]}]}])
    frame["supports"] = [{"node": n, "fixed": [True, True, True, True, *turns[1:]]} for n in ("n0", "n2")]
    frame |= {"materials": [MATERIAL], "sections": [of("shs-60x60x4")]}
    assert -tip(frame, 1)[2] * 1e3 == pytest.approx(expected, rel=2e-3)


@pytest.mark.parametrize(("fixed", "expected"), [(True, 0.162), (False, 0.647)])
def test_unsupported_shaft(fixed: bool, expected: float) -> None:
    """Shaft ⌀20 over 800 mm, 100 N in the middle."""
    frame = cantilever(2, 0.8, cases=[{"id": "p", "forces": [{"node": "n1", "force": [0, 0, -100.0]}]}])
    frame["supports"] = [{"node": n, "fixed": [True] * 4 + [fixed] * 2} for n in ("n0", "n2")]
    frame |= {"materials": [MATERIAL], "sections": [of("rod-20")]}
    assert -tip(frame, 1)[2] * 1e3 == pytest.approx(expected, abs=6e-4)


def test_weight_of_a_beam_fixed_at_both_ends() -> None:
    """w·L⁴/384EI in the middle, w·L²/12 at the walls, w·L/2 each."""
    frame = cantilever(2, 1.0, cases=[{"id": "g", "gravity": [0.0, 0.0, -10.0]}])
    frame["supports"] = [{"node": n, "fixed": [True] * 6} for n in ("n0", "n2")]
    frame |= {"materials": [MATERIAL], "sections": [of("shs-60x60x4")]}
    p = section("shs-60x60x4").properties
    w = 7850 * p.A * 10
    result = solve_document(read(frame))
    assert -result["cases"][0]["displacements"]["n1"][2] == pytest.approx(w / (384 * E * p.Iy), rel=EXACT)
    reaction = result["cases"][0]["reactions"]["n0"]
    assert reaction[2] == pytest.approx(w / 2, rel=EXACT)
    assert reaction[4] == pytest.approx(-w / 12, rel=EXACT)
    end = result["cases"][0]["beam_forces"]["b0"]["i"]
    assert end[2] == pytest.approx(w / 2, rel=EXACT)


def test_bending_about_skew_axes_equals_bending_about_principal_ones() -> None:
    """An angle drawn along its legs (with Iyz) and turned to its principal axes are one beam."""
    p = section("angle-50x50x5").properties
    load = [{"id": "p", "forces": [{"node": "n1", "force": [0.0, 0.0, 100.0]}]}]
    legs = cantilever(1, 0.5, cases=load)
    legs["sections"] = [{"id": "s", "A": p.A, "Iy": p.Iy, "Iz": p.Iz, "Iyz": p.Iyz, "J": p.J}]
    strong, weak = p.Iy - p.Iyz, p.Iy + p.Iyz
    principal = cantilever(1, 0.5, cases=load)
    principal["sections"] = [{"id": "s", "A": p.A, "Iy": weak, "Iz": strong, "J": p.J}]
    principal["beams"][0]["up"] = [0.0, 1.0, 1.0]
    assert strong > weak > 0
    assert tip(legs)[:3] == pytest.approx(tip(principal)[:3], rel=1e-9, abs=1e-15)


@pytest.mark.parametrize(
    ("roots", "support", "expected"),
    [((1.8751, 4.6941, 7.8548), [True] * 6, 65.3), ((4.7300, 7.8532, 10.9956), None, 415.7)],
)
def test_frequencies_of_a_tube(roots: tuple[float, ...], support: list[bool] | None, expected: float) -> None:
    """Cantilever and free–free, f = (βL)²/2πL² √(EI/m); SHS 60×60×4, 1 m. Free: on springs of 1 N/m."""
    frame = cantilever(8, 1.0, modes=14)
    p = section("shs-60x60x4").properties
    frame |= {"materials": [MATERIAL], "sections": [of("shs-60x60x4")]}
    if support is None:
        frame["supports"] = []
        frame["springs"] = [{"id": "k", "i": "n4", "k": [1.0] * 6}]
    f = [m["frequency"] for m in solve_document(read(frame))["modes"] if m["frequency"] > 5]
    theory = [b**2 / (2 * np.pi) * np.sqrt(E * p.Iy / (7850 * p.A)) for b in roots]
    assert theory[0] == pytest.approx(expected, rel=2e-3)
    # Rotary inertia, which Bernoulli's theory leaves out, lowers the third by some percent.
    for order, tolerance in enumerate((0.025, 0.06, 0.10)):
        nearest = min(f, key=lambda value: abs(value - theory[order]))
        assert -tolerance < nearest / theory[order] - 1 < 1e-3


def test_torsional_and_axial_frequencies() -> None:
    """Fixed–free bar: f = √(G·J/(ρ·Ip))/4L and √(E/ρ)/4L."""
    frame = cantilever(16, 1.0, modes=14)
    frame |= {"materials": [MATERIAL], "sections": [of("rod-60")]}
    p = section("rod-60").properties
    f = np.array([m["frequency"] for m in solve_document(read(frame))["modes"]])
    for wanted in (np.sqrt(MATERIAL["G"] * p.J / (7850 * 2 * p.Iy)) / 4, np.sqrt(E / 7850) / 4):
        assert np.abs(f / wanted - 1).min() < 2e-3


def test_a_mass_on_springs() -> None:
    """f = √(k/m)/2π in each direction, and about an axis with the parallel-axis theorem."""
    frame = data([[0, 0, 0]], [], modes=6, supports=[])
    frame["springs"] = [{"id": "k", "i": "n0", "k": [1e4, 4e4, 9e4, 10.0, 20.0, 30.0], "zeta": 0.05}]
    frame["masses"] = [{"id": "m", "node": "n0", "m": 2.0, "inertia": [0.1, 0.2, 0.3]}]
    modes = solve_document(read(frame))["modes"]
    wanted = sorted(np.sqrt([1e4 / 2, 4e4 / 2, 9e4 / 2, 100, 100, 100]) / (2 * np.pi))
    assert [m["frequency"] for m in modes] == pytest.approx(wanted, rel=1e-9)
    assert [m["zeta"] for m in modes] == pytest.approx([0.05] * 6)


@pytest.mark.parametrize(("ratio", "k"), [(1, 0.1406), (1.5, 0.196), (2, 0.229), (3, 0.263), (5, 0.291), (10, 0.312)])
def test_torsion_of_rectangles(ratio: float, k: float) -> None:
    """Timoshenko & Goodier, §109, table of k in J = k·b·t³."""
    assert rectangle_torsion(ratio, 1.0) / ratio == pytest.approx(k, abs=6e-4)


def test_closed_against_slit_tube() -> None:
    """⌀50×3: closed exactly 2I = 245 624 mm⁴; slit Σb·t³/3 = 1329 mm⁴; thin formulas 3(R/t)² = 184."""
    closed = section("chs-50x3").properties.J * 1e12
    slit = np.pi * 47 * 3**3 / 3
    assert closed == pytest.approx(245_624, rel=1e-5)
    assert slit == pytest.approx(1329, abs=1)
    assert (2 * np.pi * 23.5**3 * 3) / slit == pytest.approx(184, abs=0.5)


def test_tube_against_solid_bar_of_the_same_mass() -> None:
    """SHS 80×80×4 and a solid square of 34.28 mm: second moments 9.65 to 1."""
    tube, bar = section("shs-80x80x4").properties, section("flat-34.28x34.28").properties
    assert pytest.approx(bar.A, rel=2e-3) == tube.A
    assert tube.Iy / bar.Iy == pytest.approx(9.65, rel=3e-3)
