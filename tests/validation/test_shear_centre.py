"""A channel loaded at its centroid twists about its shear centre outside the web."""

from dataclasses import replace

import numpy as np
import pytest

from tests.frames import cantilever, read
from unterbau.files.frame_json import solve_document, to_arrays
from unterbau.mechanics.beam import build, held_flexibility, held_sinking
from unterbau.sections.section import section


def tip(load: list[float], moment: list[float] | None = None, gravity: bool = False) -> list[float]:
    frame = cantilever(3)
    frame["version"] = 2
    frame["sections"] = [{**frame["sections"][0], "ys": -0.03, "zs": 0.01}]
    forces = [{"node": "n3", "force": load, "moment": moment or [0.0, 0.0, 0.0]}]
    frame["cases"] = [{"id": "c", "forces": forces, "gravity": [0.0, 0.0, -9.80665 if gravity else 0.0]}]
    result: list[float] = solve_document(read(frame))["cases"][0]["displacements"]["n3"]
    return result


def test_twist_is_force_times_the_shear_centres_distance() -> None:
    """φ = (T + zs·Vy − ys·Vz)·L/GJ, Timoshenko, Strength of Materials; local y is z × x, here global y."""
    twist, L = 8.1e10 * 5e-7, 1.0
    assert tip([0.0, 0.0, 100.0])[3] == pytest.approx(0.03 * 100.0 * L / twist)
    assert tip([0.0, 100.0, 0.0])[3] == pytest.approx(0.01 * 100.0 * L / twist)
    straight = tip([0.0, 0.0, 100.0], [-3.0, 0.0, 0.0])
    assert straight[3] == pytest.approx(0.0, abs=1e-12)
    assert tip([0.0, 0.0, 100.0])[2] - straight[2] == pytest.approx(0.03**2 * 100.0 * L / twist)


def test_own_weight_twists_too() -> None:
    """t = ys·ρAg per length; φ = t·L²/2GJ."""
    weight = 7850 * 1e-3 * 9.80665
    assert tip([0.0, 0.0, 0.0], gravity=True)[3] == pytest.approx(-0.03 * weight / (2 * 8.1e10 * 5e-7))


def test_inside_a_held_beam_it_is_the_same_as_split() -> None:
    frame = cantilever(2, supports=[{"node": n, "fixed": [True] * 6} for n in ("n0", "n2")])
    frame["version"] = 2
    frame["sections"] = [{**frame["sections"][0], "ys": -0.03, "zs": 0.01}]
    frame["cases"] = [{"id": "g", "gravity": [0.0, 0.0, -9.80665]}]
    document = read(frame)
    arrays, _ = to_arrays(document)
    middle = solve_document(document)["cases"][0]["displacements"]["n1"]
    one = replace(arrays.beams.take(np.array([0])), j=np.array([2]))
    whole = build(arrays.nodes, one)
    found = held_sinking(one, whole, np.array([0.5]), np.array([0.0, 0.0, -9.80665]))[0]
    assert found == pytest.approx(middle, abs=1e-15)
    C = held_flexibility(one, whole.length, np.array([0.3]), np.array([0.7]))[0]
    back = held_flexibility(one, whole.length, np.array([0.7]), np.array([0.3]))[0]
    assert pytest.approx(back.T) == C


def test_shear_centres_of_rolled_shapes() -> None:
    """UPN 100: 2.93 cm (DIN 1026-1, from memory); thin walls without taper give 8 % more. Angle: at its heel."""
    p = section("upn-100").properties
    assert p.ys == pytest.approx(-0.0293, rel=0.09)
    a = section("angle-50x50x5").properties
    assert a.ys == pytest.approx(0.0025 - 0.014, abs=2e-4)
    assert a.ys == pytest.approx(a.zs)
    t = p.turned()
    assert (t.ys, t.zs) == (-p.zs, p.ys)
