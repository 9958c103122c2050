"""The zero-order solution against the delay equation itself, in time.

A cutter on two modes, one along the feed and one across it, with teeth that come and go: x″ + … = F(φ, x − x(t − T)).
Semi-discretisation (Insperger and Stépán 2002, from memory) turns one tooth's passing into a matrix; the cut is stable
while no eigenvalue is outside the unit circle. Within 15 %: the mean of the directions leaves out their harmonics.
"""

import numpy as np
import pytest
from scipy.linalg import expm

from unterbau.mechanics.chatter import Limits, directions, limits

MASS, FREQUENCY, ZETA = np.array([1.0, 1.2]), np.array([120.0, 160.0]), np.array([0.03, 0.025])
K = MASS * (2 * np.pi * FREQUENCY) ** 2
C = 2 * ZETA * np.sqrt(K * MASS)
TEETH, CUTTING, RADIAL, STEPS = 3, 800e6, 0.4, 40
GRID = np.arange(20.0, 1500.0, 0.05)


def zero_order(start: float, end: float) -> Limits:
    w = 2 * np.pi * GRID
    H = np.zeros((len(GRID), 2, 2), dtype=complex)
    for n in range(2):
        H[:, n, n] = 1 / (K[n] - MASS[n] * w**2 + 1j * C[n] * w)
    return limits(H, GRID, directions(start, end, RADIAL), CUTTING, TEETH)


def _force(phi: float, start: float, end: float) -> np.ndarray:
    """Return the force per depth and movement of all teeth with the first at an angle, (2, 2)."""
    found = np.zeros((2, 2))
    for tooth in range(TEETH):
        at = (phi + 2 * np.pi * tooth / TEETH) % (2 * np.pi)
        if start <= at <= end:
            s, c = np.sin(at), np.cos(at)
            force = np.array([-c - RADIAL * s, s - RADIAL * c])
            found += CUTTING * np.outer(force, [s, c])
    return found


def grows(depth: float, turns: float, start: float, end: float) -> bool:
    """Return whether a wave grows from tooth to tooth."""
    dt = 1 / (turns * TEETH) / STEPS
    size = 4 + 2 * STEPS
    whole = np.eye(size)
    for step in range(STEPS):
        B = depth * np.mean(
            [_force(2 * np.pi / TEETH * (step + s) / STEPS, start, end) for s in (0.125, 0.375, 0.625, 0.875)], axis=0
        )
        A = np.zeros((4, 4))
        A[:2, 2:] = np.eye(2)
        A[2:, :2] = (B - np.diag(K)) / MASS[:, None]
        A[2:, 2:] = -np.diag(C / MASS)
        P = expm(A * dt)
        W = np.zeros((4, 2))
        W[2:] = -B / MASS[:, None]
        R = (P - np.eye(4)) @ np.linalg.solve(A, W)
        step_matrix = np.zeros((size, size))
        step_matrix[:4, :4] = P
        step_matrix[:4, -4:-2] = R / 2
        step_matrix[:4, -2:] = R / 2
        step_matrix[4:6, :2] = np.eye(2)
        step_matrix[6:, 4:-2] = np.eye(size - 6)
        whole = step_matrix @ whole
    return bool(np.abs(np.linalg.eigvals(whole)).max() > 1.0)


def found_in_time(turns: float, start: float, end: float, guess: float) -> float:
    low, high = 0.4 * guess, 2.5 * guess
    for _ in range(8):
        middle = (low + high) / 2
        low, high = (low, middle) if grows(middle, turns, start, end) else (middle, high)
    return (low + high) / 2


WAYS = {"slot": (0.0, np.pi), "half, against the feed": (0.0, np.pi / 2), "three quarters": (0.0, 2 * np.pi / 3)}


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("turns", [18.0, 25.0, 35.0, 50.0, 64.0])
def test_the_limit_at_a_speed_is_that_of_the_delay_equation(way: str, turns: float) -> None:
    start, end = WAYS[way]
    depth, _ = zero_order(start, end).at(turns * TEETH)
    assert depth == pytest.approx(found_in_time(turns, start, end, depth), rel=0.15)


def test_no_speed_chatters_below_the_floor() -> None:
    """And some speed does just above it: the floor is the lowest point of all lobes."""
    found = zero_order(0.0, np.pi)
    floor, at = found.floor()
    lobes = [found.at(turns * TEETH)[0] for turns in np.geomspace(4.0, 80.0, 200)]
    assert min(lobes) >= floor * (1 - 1e-6)
    assert min(lobes) == pytest.approx(floor, rel=0.02)
    assert FREQUENCY[0] < at < 1.1 * FREQUENCY[0]
