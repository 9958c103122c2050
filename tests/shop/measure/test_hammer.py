"""A blow on a machine of known modes: frequency, damping and give come back; what is no blow is refused."""

import json
from pathlib import Path

import numpy as np
import pytest
from scipy.signal import StateSpace, lsim

from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.files.wav import read_struck, write_wav
from unterbau.mechanics.arrays import FloatArray
from unterbau.shop.measure.hammer import hammer_test

RATE = 8000
MODES = ((62.0, 0.027, 0.6e-6), (143.0, 0.012, 0.2e-6), (230.0, 0.02, 0.15e-6))
"""Hz, damping ratio, m/N."""


def struck(noise: float = 1e-3) -> tuple[FloatArray, FloatArray]:
    """Return force and acceleration of three oscillators side by side, solved by `scipy`; 3 ms of 400 N."""
    t = np.arange(0, 2.5, 1 / RATE)
    force = np.where((t > 0.1) & (t < 0.103), 400 * np.sin(np.pi * (t - 0.1) / 0.003), 0.0)
    moved = np.zeros_like(t)
    for f, zeta, give in MODES:
        w = 2 * np.pi * f
        last = [-(w**2), -2 * zeta * w]
        one = StateSpace([[0, 1], last], [[0], [give * w**2]], [last], [[give * w**2]])
        moved += lsim(one, force, t)[1]
    return force, moved + np.random.default_rng(1).normal(0, noise * np.abs(moved).max(), len(t))


def test_modes_come_back_with_what_they_give() -> None:
    found = hammer_test(*struck(), RATE)
    assert found.blow == pytest.approx(400.0, rel=0.01)
    for one, (f, zeta, give) in zip(found.circles, MODES, strict=True):
        assert one.frequency == pytest.approx(f, rel=2e-3)
        assert one.zeta == pytest.approx(zeta, rel=0.05)
        assert one.give == pytest.approx(give, rel=0.05)
    still = np.abs(found.frequencies - 30.0).argmin()
    exact = sum(give / (1 - (30 / f) ** 2 + 2j * zeta * 30 / f) for f, zeta, give in MODES)
    assert abs(found.receptance[still] / exact - 1) < 0.1


def test_what_is_no_blow_is_refused() -> None:
    force, moved = struck()
    with pytest.raises(InputError, match="no blow"):
        hammer_test(np.zeros_like(force), moved, RATE)
    with pytest.raises(InputError, match="side by side"):
        hammer_test(force[:100], moved[:100], RATE)
    with pytest.raises(InputError, match="too late"):
        hammer_test(np.r_[np.zeros(RATE), force[800:1000]], np.r_[np.zeros(RATE), moved[800:1000]], RATE)


def test_the_command(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    force, moved = struck()
    path, most = tmp_path / "blow.wav", float(np.abs(moved).max()) * 1.1
    write_wav(path, np.column_stack([force / 500.0, moved / most]), RATE)
    assert read_struck(path, 500.0, most)[0].max() == pytest.approx(400.0, rel=0.01)
    assert run(["tap", str(path), "--newton", "500", "--acceleration", f"{most}", "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)["circles"]
    assert rows[0]["frequency"] == pytest.approx(62.0, rel=2e-3)
    assert run(["tap", str(path), "--newton", "500"]) == 2
    assert "at full scale" in capsys.readouterr().err
