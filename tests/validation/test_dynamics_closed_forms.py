"""Receptance, chatter, cutting force against closed forms and worked tables."""

from math import pi

import numpy as np
import pytest

from tests.frames import cantilever, read
from unterbau.catalogue.cuts import cuts
from unterbau.files.frame_json import to_arrays
from unterbau.mechanics import assembly
from unterbau.mechanics.chatter import limits
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.milling import (
    HELIX,
    RADIAL,
    THINNEST,
    engagement_angle,
    milling_force,
    specific_force,
    tooth_forces,
)
from unterbau.mechanics.modes import Modes, solve_modes
from unterbau.mechanics.receptance import receptance
from unterbau.mechanics.statics import solve_with


def single(frequency: float, zeta: float, mass: float) -> Modes:
    """Return one mass on a spring along x."""
    shape = np.zeros((1, 1, 6))
    shape[0, 0, 0] = mass**-0.5
    return Modes(np.array([frequency]), np.array([zeta]), shape)


def test_one_mass_on_a_spring() -> None:
    """H = 1/(k − mω² + 2iζω·√(km)); min Re H = −1/(4kζ(1 + ζ)) at ω√(1 + 2ζ): Altintas, Manufacturing Automation."""
    k, m, zeta = 5e6, 8.0, 0.02
    f = np.sqrt(k / m) / (2 * pi)
    hz = np.linspace(0.0, 2 * f, 20001)
    pull = np.zeros((1, 1, 6))
    pull[0, 0, 0] = 1.0
    H = receptance(single(f, zeta, m), pull, np.array([[1 / k]]), hz)[:, 0, 0]
    w = 2 * pi * hz
    assert np.allclose(H, 1 / (k - m * w**2 + 2j * zeta * w * np.sqrt(k * m)), rtol=1e-9)
    assert H.real.min() == pytest.approx(-1 / (4 * k * zeta * (1 + zeta)), rel=1e-5)
    assert hz[H.real.argmin()] == pytest.approx(f * np.sqrt(1 + 2 * zeta), rel=1e-3)


def test_chatter_floor_of_one_mode() -> None:
    """b ≈ 2kζ(1 + ζ)/Ks: k 5 N/µm, ζ .02, Ks 800 N/mm² give .26 mm (calculated by hand)."""
    k, zeta = 5e6, 0.02
    hz = np.linspace(0.0, 400.0, 40001)
    pull = np.zeros((1, 1, 6))
    pull[0, 0, 0] = 1.0
    H = receptance(single(100.0, zeta, k / (2 * pi * 100.0) ** 2), pull, np.array([[1 / k]]), hz)[:, 0, 0]
    whole = np.zeros((len(hz), 2, 2), dtype=complex)
    whole[:, 0, 0] = H
    # A force straight against the chip's thickness, as in turning: b = 1/(2·K·|min Re H|).
    straight = np.array([[-4 * pi, 0.0], [0.0, 0.0]])
    depth, at = limits(whole, hz, straight, 800e6, 1).floor()
    assert depth == pytest.approx(2 * k * zeta * (1 + zeta) / 800e6, rel=1e-4)
    assert depth * 1e3 == pytest.approx(0.26, abs=0.005)
    assert at == pytest.approx(100 * np.sqrt(1 + 2 * zeta), rel=1e-3)
    assert limits(whole, hz, straight, 800e6, 2).floor()[0] == pytest.approx(depth / 2)
    assert limits(np.full_like(whole, 1e-9), hz, straight, 800e6, 1).floor()[0] == np.inf


def test_the_series_with_its_rest_is_the_dynamic_stiffness_inverted() -> None:
    """(K − ω²M)⁻¹ solved directly, NumPy, between the lowest modes; within a per mille."""
    frame = to_arrays(read(cantilever(6)))[0]
    system = assembly.assemble(frame)
    n, last = len(frame.nodes), len(frame.nodes) - 1
    pulls = np.zeros((2, n, 6))
    pulls[0, last, 1], pulls[1, last // 2, 1] = 1.0, 1.0
    static = np.einsum("and,bnd->ab", pulls, solve_with(system, Loads(pulls, np.zeros((2, 3)))).u)
    modes = solve_modes(system, 12)
    undamped = Modes(modes.frequency, np.zeros(len(modes.frequency)), modes.shape)
    hz = np.array([0.0, 0.3, 0.7, 1.4]) * modes.frequency[0]
    H = receptance(undamped, pulls, static, hz)
    M, K = assembly.mass_matrix(system).times(np.eye(len(system.numbering.order))), _full(system.band)
    order = system.numbering.order
    right = pulls.reshape(2, -1).T[order]
    for f, found in zip(hz, H, strict=True):
        direct = right.T @ np.linalg.solve(K - (2 * pi * f) ** 2 * M, right)
        assert np.abs(found - direct).max() < 1e-3 * np.abs(direct).max()


def _full(band: np.ndarray) -> np.ndarray:
    n = band.shape[1]
    full = np.zeros((n, n))
    for d in range(band.shape[0]):
        full += np.diag(band[d, : n - d], -d) + (np.diag(band[d, : n - d], d) if d else 0)
    return full


@pytest.mark.parametrize("name", [c.id for c in cuts().values() if c.engagement.milling])
def test_milling_forces_are_those_of_the_worked_table(name: str) -> None:
    """Kienzle with kc1.1 and mc from memory: mean and peak summed over slices on their own, to two figures."""
    cut = cuts()[name]
    e = cut.engagement
    found = milling_force(e.kc11, e.mc, e.depth, e.width, e.chip, e.diameter, e.teeth, e.turns)
    assert found.tangential == pytest.approx(cut.mean, rel=0.04)
    assert found.peak == pytest.approx(cut.peak, rel=0.03)
    assert found.torque == pytest.approx(found.tangential * e.diameter / 2)
    assert found.power == pytest.approx(found.tangential * pi * e.diameter * e.turns)


def test_teeth_are_integrated_as_many_thin_slices_sum() -> None:
    """Straight summation of 30,000 slices along the helix, a tool whose edge lags more than a turn."""
    kc11, mc, depth, angle, chip, diameter, teeth = 700e6, 0.25, 0.04, 0.7, 5e-5, 6e-3, 2
    x, y = tooth_forces(kc11, mc, depth, angle, chip, diameter, teeth)
    level = (np.arange(30000) + 0.5) / 30000 * depth
    for i in (0, 31, 77, 140):
        tip = 2 * pi * i / len(x) + np.arange(teeth)[:, None] * 2 * pi / teeth
        phi = np.mod(tip - 2 * level * np.tan(HELIX) / diameter, 2 * pi)
        h = np.where(phi <= angle, chip * np.sin(phi), 0.0)
        along = kc11 * (np.maximum(h, THINNEST) * 1e3) ** -mc * h * depth / 30000
        assert x[i] == pytest.approx(-(along * (np.cos(phi) + RADIAL * np.sin(phi))).sum(), rel=0.001)
        assert y[i] == pytest.approx((along * (np.sin(phi) - RADIAL * np.cos(phi))).sum(), rel=0.001)


@pytest.mark.parametrize("name", [c.id for c in cuts().values() if not c.engagement.milling])
def test_turning_forces_are_those_of_the_worked_table(name: str) -> None:
    """Fc = kc·ap·f, Kienzle."""
    cut = cuts()[name]
    e = cut.engagement
    assert specific_force(e.kc11, e.mc, e.chip) * e.depth * e.chip == pytest.approx(cut.mean, rel=0.015)


def test_engagement_angle() -> None:
    """Half the tool in the cut is a quarter turn, all of it half a turn."""
    assert engagement_angle(8e-3, 4e-3) == pytest.approx(pi / 2)
    assert engagement_angle(8e-3, 8e-3) == pytest.approx(pi)


def test_specific_force_of_the_table() -> None:
    """kc at .1 mm: softwood 25, 6061 800, mild steel 2954 N/mm² (Kienzle, from memory)."""
    assert specific_force(10e6, 0.4, 1e-4) / 1e6 == pytest.approx(25, abs=0.5)
    assert specific_force(450e6, 0.25, 1e-4) / 1e6 == pytest.approx(800, abs=1)
    assert specific_force(1780e6, 0.22, 1e-4) / 1e6 == pytest.approx(2954, abs=1)
    assert specific_force(450e6, 0.25, 1e-7) == specific_force(450e6, 0.25, 5e-6)
