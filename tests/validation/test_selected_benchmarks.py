"""Standard benchmarks of free vibration (NAFEMS, Selected Benchmarks for Natural Frequency Analysis, 1987).

The target values are from memory, as is the geometry; each is confirmed here by its closed form where there is one.
"""

import math
from typing import Any

import numpy as np
import pytest

from tests.frames import data, read
from unterbau.files.frame_json import solve_document

MATERIAL = {"id": "steel", "E": 200e9, "G": 200e9 / 2.6, "rho": 8000.0, "zeta": 0.0}
FREE, FIXED = [False] * 6, [True] * 6


def frequencies(frame: dict[str, Any], count: int) -> list[float]:
    frame |= {"materials": [MATERIAL], "modes": count}
    return [mode["frequency"] for mode in solve_document(read(frame))["modes"]]


def test_cantilever_with_masses_beside_its_axis() -> None:
    """FV4: bar ⌀0.5 × 10 m, 10 t and 1 t at its end, 2 m to either side."""
    nodes = [[k, 0.0, 0.0] for k in range(11)]
    d = 0.5
    area, second = math.pi * d**2 / 4, math.pi * d**4 / 64
    section = {"id": "s", "A": area, "Iy": second, "Iz": second, "J": 2 * second}
    frame = data(nodes, [{"i": f"n{k}", "j": f"n{k + 1}"} for k in range(10)])
    frame["sections"] = [section]
    frame["masses"] = [
        {"id": "a", "node": "n10", "m": 10_000.0, "offset": [0, 2, 0]},
        {"id": "b", "node": "n10", "m": 1_000.0, "offset": [0, -2, 0]},
    ]
    expected = [1.723, 1.727, 7.413, 9.972, 18.155, 26.957]
    assert frequencies(frame, 6) == pytest.approx(expected, rel=0.005)


def test_deep_beam_on_two_supports() -> None:
    """FV5: 2 × 2 × 10 m, Timoshenko's beam; turned and stretched with Ip for J, as the benchmark has it."""
    frame = data([[10 * k / 16, 0.0, 0.0] for k in range(17)], [{"i": f"n{k}", "j": f"n{k + 1}"} for k in range(16)])
    area, second = 4.0, 4 / 3
    shear = 5 / 6 * area
    frame["sections"] = [
        {"id": "s", "A": area, "Iy": second, "Iz": second, "J": 2 * second, "Asy": shear, "Asz": shear}
    ]
    frame["supports"] = [
        {"node": "n0", "fixed": [True, True, True, True, False, False]},
        {"node": "n16", "fixed": [False, True, True, False, False, False]},
    ]
    expected = [42.649, 42.649, 77.542, 125.00, 148.31, 148.31, 233.10, 284.55, 284.55]
    found = frequencies(frame, 9)
    assert found == pytest.approx(expected, rel=0.012)
    assert found[2] == pytest.approx(math.sqrt(MATERIAL["G"] / 8000) / 40, rel=2e-3)  # type: ignore[operator]
    assert found[3] == pytest.approx(math.sqrt(200e9 / 8000) / 40, rel=2e-3)


def square(n: int, side: float, thickness: float, fixed: Any) -> dict[str, Any]:
    """Return a plate held at every crossing of n × n elements, nodes fixed as `fixed(x, y)` says."""
    stops = [side * k / n for k in range(n + 1)]
    places = [(x, y) for x in stops for y in stops]
    frame = data([[x, y, 0.0] for x, y in places], [])
    patches = [{"node": f"n{k}", "x": x, "y": y} for k, (x, y) in enumerate(places)]
    frame["version"] = 2
    frame["plates"] = [
        {"id": "p", "material": "steel", "thickness": thickness, "nu": 0.3, "origin": [0, 0, 0], "x": [1, 0, 0],
         "up": [0, 0, 1], "xs": stops, "ys": stops, "patches": patches}
    ]  # fmt: skip
    frame["supports"] = [{"node": f"n{k}", "fixed": fixed(x, y)} for k, (x, y) in enumerate(places)]
    return frame


def test_thin_square_cantilever_plate() -> None:
    """FV16: 10 × 10 × 0.05 m, one edge clamped; movement in its own plane held."""

    def fixed(x: float, _: float) -> list[bool]:
        return FIXED if x == 0.0 else [True, True, False, False, False, True]

    expected = [0.421, 1.029, 2.582, 3.306, 3.753, 6.555]
    found = frequencies(square(16, 10.0, 0.05, fixed), 6)
    assert found == pytest.approx(expected, rel=0.02)
    assert found[0] == pytest.approx(expected[0], rel=0.007)


def test_thick_plate_on_its_edges() -> None:
    """FV22: 10 × 10 × 1 m, simply supported; Mindlin's closed form gives the same first frequencies."""

    def fixed(x: float, y: float) -> list[bool]:
        across, along = x in (0.0, 10.0), y in (0.0, 10.0)
        return [True, True, across or along, across, along, True]

    found = frequencies(square(16, 10.0, 1.0, fixed), 6)
    closed = [mindlin(m, n) for m, n in ((1, 1), (1, 2), (2, 1), (2, 2), (1, 3), (3, 1))]
    assert closed == pytest.approx([45.897, 109.44, 109.44, 167.89, 204.51, 204.51], rel=0.002)
    assert found[:4] == pytest.approx(closed[:4], rel=0.02)
    assert found[4:] == pytest.approx(closed[4:], rel=0.035)
    coarse = frequencies(square(8, 10.0, 1.0, fixed), 1)[0]
    assert coarse / closed[0] - 1 == pytest.approx(4 * (found[0] / closed[0] - 1), rel=0.15)  # h²


def mindlin(m: int, n: int, side: float = 10.0, t: float = 1.0) -> float:
    """Return a frequency of a thick plate on its edges, Hz (Mindlin 1951): κGt, D, with rotary inertia."""
    E, nu, rho = 200e9, 0.3, 8000.0
    D, S = E * t**3 / 12 / (1 - nu**2), 5 / 6 * E / 2.6 * t
    k2 = (m * math.pi / side) ** 2 + (n * math.pi / side) ** 2
    # ρt·ρt³/12·ω⁴ − (ρt·(D k² + S) + ρt³/12·S k²)·ω² + S·D·k⁴ = 0
    a, b, c = rho * t * rho * t**3 / 12, -(rho * t * (D * k2 + S) + rho * t**3 / 12 * S * k2), S * D * k2**2
    return math.sqrt(min(np.roots([a, b, c]).real)) / (2 * math.pi)


def test_two_slotted_profiles_under_a_heavy_gantry() -> None:
    """Common practice, no source: 120 kg between end supports on a 1.25 m bed sag about 0.1 mm on slotted profile.

    45×135 light; solid aluminium bars of the same outer size about a third of that. Four blocks, 0.25 m apart.
    """
    profile, solid = (sag_of_rails(name) for name in ("tslot-45L-1x3", "flat-45x135"))
    assert 0.08e-3 < profile < 0.13e-3
    assert 1 / 4 < solid / profile < 0.37


def sag_of_rails(name: str) -> float:
    from unterbau.sections.section import section

    length, stance = 1.25, 0.25
    xs = [0.0, (length - stance) / 2, (length + stance) / 2, length]
    nodes = [[x, y, 0.0] for y in (0.0, 0.8) for x in xs]
    frame = data(nodes, [{"i": f"n{k}", "j": f"n{k + 1}"} for k in (0, 1, 2, 4, 5, 6)])
    shape = section(name)
    p, turned = shape.properties, shape.width > shape.height
    second = p.Iz if turned else p.Iy
    frame["sections"] = [{"id": "s", "A": p.A, "Iy": second, "Iz": second, "J": p.J, "Asy": p.Asy, "Asz": p.Asz}]
    frame["materials"] = [{"id": "steel", "E": 70e9, "G": 26.3e9, "rho": 0.001, "zeta": 0.0}]
    frame["supports"] = [{"node": f"n{k}", "fixed": [True, True, True, True, False, False]} for k in (0, 3, 4, 7)]
    frame["masses"] = [{"id": f"g{k}", "node": f"n{k}", "m": 30.0} for k in (1, 2, 5, 6)]
    frame["cases"] = [{"id": "weight", "gravity": [0.0, 0.0, -9.81]}]
    return -float(solve_document(read(frame))["cases"][0]["displacements"]["n1"][2])
