"""Measuring benches against the worked examples of the trade (data §8, shop §7, all [calc]), zones by brute force."""

from itertools import combinations
from pathlib import Path
from random import Random

import numpy as np
import pytest

from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.files.wav import read_wav, write_wav
from unterbau.shop.measure.benches import (
    arm_shim,
    diagonals,
    flatness,
    parallel,
    square_reversal,
    straightness,
    tram,
    twist,
)
from unterbau.shop.measure.positioning import positioning
from unterbau.shop.measure.push import push_test, read_loop
from unterbau.shop.measure.reading_words import read_bench
from unterbau.shop.measure.result import Instrument, Measured, read
from unterbau.shop.measure.tap import tap_test

DIAL = Instrument()
MICRON = 1e-6


def test_squares() -> None:
    """800×1000, 1281.4/1280.2: .961 mrad; +.042/−.018 per 200: .030, .012."""
    assert diagonals(1.2814, 1.2802, 0.8, 1.0, DIAL).value == pytest.approx(0.961e-3, abs=1e-6)
    machine, square = square_reversal(0.042e-3, -0.018e-3, 0.2, DIAL)
    assert machine.value * 0.2 == pytest.approx(0.030e-3)
    assert square.value * 0.2 == pytest.approx(0.012e-3)
    with pytest.raises(InputError, match="expected diagonals of about 141 mm"):
        diagonals(3.0, 0.5, 0.1, 0.1, DIAL)


def test_straight_and_parallel() -> None:
    """x 0…1000/200, y 0,12,31,38,30,24 µm: slope 25.86 µm/m; range 24.3, zone 23.6; 10 µm/m over .8 m: 8 µm."""
    found = straightness((0, 0.2, 0.4, 0.6, 0.8, 1.0), tuple(y * MICRON for y in (0, 12, 31, 38, 30, 24)), DIAL)
    assert found.slope == pytest.approx(25.86e-6, abs=1e-8)
    assert found.least_squares.value == pytest.approx(24.3e-6, abs=1e-7)
    assert found.zone.value == pytest.approx(23.6e-6, abs=1e-9)
    assert parallel((0, 0.5, 1.0), (0, 0, 0), (0, 5e-6, 10e-6), 0.8, DIAL).value == pytest.approx(8e-6)


def test_twist_flat_tram_shims() -> None:
    """FL, FR, BR, BL 0, .12, .05, .15: −.22, gap .11, .367 mrad on 600; grid: 24.0 and 25.2; tram −.4, +.2 mrad."""
    angle, gap = twist(0.0, 0.12e-3, 0.15e-3, 0.05e-3, 0.6, DIAL)
    assert gap.value == pytest.approx(-0.11e-3)
    assert angle.value == pytest.approx(-0.367e-3, abs=1e-6)
    rows = ((0, 8, 5), (12, 25, 14), (4, 15, 2))
    flat = flatness((0.3, 0.3), tuple(tuple(z * MICRON for z in row) for row in rows), DIAL)
    assert flat.zone.value == pytest.approx(24.0e-6, abs=1e-9)
    assert flat.least_squares.value == pytest.approx(25.2e-6, abs=5e-8)
    swept = tram((0.0, 0.03e-3, 0.08e-3, -0.01e-3), 0.1, DIAL)
    assert (swept.about_x.value, swept.about_y.value) == pytest.approx((-0.4e-3, 0.2e-3))
    assert swept.warped == pytest.approx(0.015e-3)
    assert swept.shims(0.08)[0] == pytest.approx(-0.032e-3)
    slope, shim = arm_shim((0.05, 0.1, 0.15, 0.2), (0.02e-3, 0.043e-3, 0.058e-3, 0.081e-3), 0.06, DIAL)
    assert slope.value == pytest.approx(0.396e-3)
    assert shim.value == pytest.approx(0.024e-3, abs=1e-6)
    with pytest.raises(InputError, match="grid"):
        flatness((0.1, 0.1), ((0.0, 0.0),), DIAL)


def test_minimum_zones_against_brute_force() -> None:
    """A zone is spanned by an edge of the hull on one side and a point on the other: all are tried."""
    draw = Random(3)
    for _ in range(20):
        x = sorted(draw.uniform(0, 1) for _ in range(7))
        y = [draw.gauss(0, 20e-6) for _ in range(7)]
        best = 1.0
        for i, j in combinations(range(7), 2):
            slope = (y[j] - y[i]) / (x[j] - x[i])
            best = min(best, float(np.ptp([b - slope * a for a, b in zip(x, y, strict=True)])))
        assert straightness(tuple(x), tuple(y), DIAL).zone.value == pytest.approx(best, rel=1e-6)
        z = [[draw.gauss(0, 20e-6) for _ in range(3)] for _ in range(3)]
        points = [(0.3 * a, 0.3 * b, z[b][a]) for a in range(3) for b in range(3)]
        low = 1.0
        for a, b in combinations(points, 2):  # a face through three points, or two edges, one on each side
            for c, d in combinations(points, 2):
                n = np.cross(np.subtract(b, a), np.subtract(d, c))
                if abs(n[2]) > 1e-9:
                    low = min(low, float(np.ptp([np.dot(n, p) / n[2] for p in points])))
        found = flatness((0.3, 0.3), tuple(tuple(row) for row in z), DIAL)
        assert found.zone.value == pytest.approx(low, rel=1e-6)
        assert found.zone.value <= found.least_squares.value + 1e-12


def test_both_ways() -> None:
    """↑ 2 3 2 4 3, ↓ −5 −4 −6 −5 −4: B 7.6, s .837, accuracy 10.95."""
    found = positioning((((2, 3, 2, 4, 3), (-5, -4, -6, -5, -4)),))
    assert found.reversal == pytest.approx(7.6)
    assert found.positions[0].up_scatter == pytest.approx(0.837, abs=5e-4)
    assert found.accuracy == pytest.approx(10.95, abs=0.005)
    assert found.repeatability == pytest.approx(4 * 0.8367, abs=1e-3)
    with pytest.raises(InputError, match="at least two readings"):
        positioning((((1.0,), (2.0, 3.0)),))


def test_a_push_test() -> None:
    """±40, 60, 80 N: +8, 10.5, 13; −8.1, −10.4, −13.1 µm: 8.0 N/µm; play 6.0; naive 6.2."""
    readings = tuple(y * MICRON for y in (8, 10.5, 13, -8.1, -10.4, -13.1))
    found = push_test((40, 60, 80, -40, -60, -80), readings)
    assert found.stiffness == pytest.approx(8.0e6, rel=0.002)
    assert found.play == pytest.approx(6.0e-6, abs=5e-8)
    assert found.naive == pytest.approx(6.2e6, abs=6e4)
    forces = (0, 40, 80, 40, 0, -40, -80, -40, 0)
    loop = push_test(forces, tuple(1e-7 * f for f in (0, 40, 80, 50, 8, -30, -80, -50, 0)))
    assert loop.hysteresis > 0.0
    with pytest.raises(InputError, match="indicator's sign"):
        push_test((40, 60, 80, -40, -60, -80), tuple(-y for y in readings))


def test_verdicts_and_uncertainty() -> None:
    assert Measured(0.010e-3, 0.004e-3, "m").verdict(0.02e-3) == "within"
    assert Measured(0.018e-3, 0.004e-3, "m").verdict(0.02e-3) == "cannot tell"
    assert Measured(-0.030e-3, 0.004e-3, "m").verdict(0.02e-3) == "not within"
    alone = read((1e-5,), DIAL)
    many = read((1e-5, 1.2e-5, 0.8e-5), DIAL)
    assert alone.std_dev == pytest.approx(((5e-6) ** 2 + (1.5e-6) ** 2) ** 0.5 / 3**0.5)
    assert many.std_dev == pytest.approx((alone.std_dev**2 + (2e-6) ** 2 / 3) ** 0.5)


def test_a_tap_is_heard(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """Synthesised from known modes: frequency within .2 %, damping within a tenth, both ways, through a WAV file."""
    rate, known = 8000, ((42.0, 0.03, 1.0), (118.0, 0.02, 0.6), (260.0, 0.015, 0.5))
    t = np.arange(0, 3, 1 / rate)
    rings = sum(
        a * np.exp(-z * 2 * np.pi * f * t) * np.sin(2 * np.pi * f * (1 - z * z) ** 0.5 * t) for f, z, a in known
    )
    noise = np.random.default_rng(1).normal(0, 1e-4, len(t) + 3000)
    sound = np.r_[np.zeros(3000), 0.4 * np.asarray(rings)] + noise
    write_wav(tmp_path / "tap.wav", sound, rate)
    found = tap_test(*read_wav(tmp_path / "tap.wav"))
    for f, z, _ in known:
        peak = min(found.peaks, key=lambda one: abs(one.frequency - f))
        assert peak.frequency == pytest.approx(f, rel=0.002)
        assert peak.half_power == pytest.approx(z, rel=0.1)
        assert peak.decay == pytest.approx(z, rel=0.1)
        assert peak.lines > 5
    assert run(["tap", str(tmp_path / "tap.wav"), "--json"]) == 0
    assert '"frequency"' in capsys.readouterr().out
    (tmp_path / "no.wav").write_bytes(b"RIFF nonsense")
    assert run(["tap", str(tmp_path / "no.wav")]) == 2
    assert "expected a WAV recording" in capsys.readouterr().err
    for wrong in (np.zeros(4000), np.zeros(10)):
        with pytest.raises(InputError):
            tap_test(wrong, 8000.0)


@pytest.mark.parametrize(
    ("bench", "text", "value", "words"),
    [
        ("flatness", "0 8 5 / 12 25 14 / 4 15 2", 24.0e-6, "row 2, place 2"),
        ("crossed strings", "0 0.12 0.15 0.05 600", -0.11e-3, "-0.37 mrad"),
        ("square reversed", "0.042 -0.018 200", 0.030e-3, "the square by +0.012"),
        ("diagonals", "1281.4 1280.2 800 1000", 0.961e-3, "0.96 mrad"),
        ("tram", "0 0.03 0.08 -0.01 100", 0.08e-3, "-0.032 and +0.016 mm"),
        ("both ways", "2 3 2 4 3 / -5 -4 -6 -5 -4", 7.6e-6, "accuracy 10.9"),
        ("straightness", "0 12 31 38 30 24", 23.6e-6, "least squares 24.3"),
        ("parallel", "0 4 9 11", 11.4e-6, "move the far end by -11.4"),
        ("column", "0 0.03 0 -0.01 200 80", 0.02e-3, "leans by +0.100 mrad; shim +0.008 mm"),
        ("arm", "50 100 150 200 / 0.020 0.043 0.058 0.081 / 60", 0.0594e-3, "+0.396 mrad along its reach; shim +0.024"),
        ("level", "0.10 -0.05 600", 0.09e-3, "shim it by -0.090 mm"),
    ],
)
def test_readings_as_they_are_typed(bench: str, text: str, value: float, words: str) -> None:
    found = read_bench(bench, text, 1e-3, DIAL)
    assert found.value.value == pytest.approx(value, rel=0.005)
    assert words in found.words
    assert found.verdict == ("within" if abs(value) < 0.9e-3 else found.verdict)
    for wrong in ("", "a b", "1"):
        with pytest.raises(InputError):
            read_bench(bench, wrong, 1e-3, DIAL)


def test_a_loop_is_read_as_it_is_typed() -> None:
    """2 N/µm with 8 µm of play by hand: force over 2 beyond half the play on each side."""
    text = "50 29; 100 54; 0 3; -50 -29; -100 -54; 0 -3"
    found = push_test(*read_loop(text))
    assert found.stiffness == pytest.approx(2e6)
    assert found.play == pytest.approx(8e-6)
    assert found.naive < found.stiffness
    assert push_test(*read_loop("11.24 1.142; 22.48 2.126; -11.24 -1.142; -22.48 -2.126", 4.4482, 25.4e-6)).play > 5e-6
    for wrong, words in (
        ("50 a; 1 2", "50 a"),
        ("50; 3 4", "expected a force and a reading"),
        ("nan 1; 2 3", "finite"),
    ):
        with pytest.raises(InputError, match=words):
            read_loop(wrong)
