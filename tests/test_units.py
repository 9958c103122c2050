"""Quantities as people type them."""

from contextlib import suppress
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pint import UnitRegistry

from unterbau.errors import InputError
from unterbau.units import (
    force_text,
    in_units,
    length_text,
    mass_text,
    movement_text,
    number_text,
    parse,
    stiffness_text,
)


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("12", 12), ("12 mm", 12), ("1/2 in", 12.7), ('3 3/8"', 85.725), ("2 ft 6", 762), ("2' 6\"", 762),
        ("1250-2*40", 1170), ("(20+5)*2", 50), ("1,5", 1.5), (".5", 0.5), ("-4", -4), ("1 m + 20", 1020),
        ("10 cm / 4", 25), ("3/8 in", 9.525), ("10 thou", 0.254), ("2 × 3", 6), ("1 ft", 304.8),
    ],
)  # fmt: skip
def test_lengths(text: str, mm: float) -> None:
    assert parse(text, "length") == pytest.approx(mm / 1e3)


def test_bare_numbers_follow_the_shown_units() -> None:
    assert parse("3 3/8", "length", "inch") == pytest.approx(0.085725)
    assert parse("3 mm", "length", "inch") == pytest.approx(0.003)
    assert parse("100", "force") == 100
    assert parse("20 lbf", "force") == pytest.approx(88.96, abs=0.01)
    assert parse("2 kg + 500 g", "mass") == pytest.approx(2.5)


@pytest.mark.parametrize(
    "text", ["", "abc", "12 kg", "3**4", "(", "2 mm 3", "1/0", "12 mm mm", "4 mm * 4 mm", "--", "1 2 3"]
)
def test_what_cannot_be_read_says_what_was_expected(text: str) -> None:
    with pytest.raises(InputError) as error:
        parse(text, "length")
    assert "expected" in error.value.problem or "zero" in error.value.problem


@given(st.text(max_size=12))
def test_any_text_is_read_or_refused(text: str) -> None:
    with suppress(InputError):
        assert isinstance(parse(text, "length"), float)


@given(st.floats(1e-4, 5.0), st.sampled_from(["mm", "inch"]))
def test_what_is_shown_reads_back(value: float, units: str) -> None:
    shown = length_text(value, units)  # type: ignore[arg-type]
    assert parse(shown, "length") == pytest.approx(value, abs=6e-5)


def test_small_movements_and_numbers() -> None:
    assert movement_text(12.6e-6, "mm") == "13 µm"
    assert movement_text(25.4e-6, "inch") == "1.00 thou"
    assert [number_text(v) for v in (0.0, 0.0123, 0.53, 9.87, 123.4)] == ["0", "0.012", "0.53", "9.9", "123"]


def test_what_those_who_think_in_inches_read_is_what_pint_says() -> None:
    pint: Any = UnitRegistry()
    names = {
        "N/µm": ("N/um", "lbf/thou"), "N": ("N", "lbf"), "kg": ("kg", "lb"), "N·m": ("N*m", "lbf*ft"),
        "kN·m": ("kN*m", "lbf*ft"), "kN·m/rad": ("kN*m/rad", "lbf*ft/mrad"), "kN·m²": ("kN*m^2", "klbf*ft^2"),
        "MN": ("MN", "klbf"), "MN/m": ("MN/m", "klbf/in"), "N/mm²": ("N/mm^2", "psi"), "GPa": ("GPa", "Mpsi"),
        "kg/m": ("kg/m", "lb/ft"), "kg/m³": ("kg/m^3", "lb/ft^3"), "cm⁴": ("cm^4", "in^4"), "cm²": ("cm^2", "in^2"),
        "m/s²": ("m/s^2", "ft/s^2"), "m/min": ("m/min", "ft/min"),
    }  # fmt: skip
    for unit, (metric, other) in names.items():
        wanted = pint.Quantity(3.0, metric).to(other)
        assert in_units(3.0, unit, "inch")[0] == pytest.approx(wanted.magnitude, rel=1e-9), unit
        assert in_units(3.0, unit, "mm") == (3.0, unit)


def test_forces_and_masses_follow_the_shown_units() -> None:
    assert parse("100", "force", "inch") == pytest.approx(444.822, rel=1e-5)
    assert parse("100 N", "force", "inch") == 100.0
    assert parse("10", "mass", "inch") == pytest.approx(4.5359237)
    assert [force_text(100.0, units) for units in ("mm", "inch")] == ["100 N", "22.5 lbf"]
    assert [force_text(0.5, units) for units in ("mm", "inch")] == ["0.5 N", "0.112 lbf"]
    assert [stiffness_text(8e6, units) for units in ("mm", "inch")] == ["8.0 N/µm", "46 lbf/thou"]
    assert [mass_text(45.36, units) for units in ("mm", "inch")] == ["45.4 kg", "100.0 lb"]
