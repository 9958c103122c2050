"""Lines of instruments: there and back, in any unit, refused with what was expected; over a pseudo-terminal."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.shop.instruments.standing import Standing
from unterbau.errors import InputError, UnterbauError
from unterbau.files.serial_port import ports, read_reading
from unterbau.shop.instruments.reading import SENT, UNITS, Reading, Sort, line_of, parse_line


@pytest.mark.parametrize(
    ("line", "value", "sort", "name"),
    [
        ("+0.012 mm", 12e-6, "length", ""), ("-3,5 um", -3.5e-6, "length", ""), ("0.5thou", 12.7e-6, "length", ""),
        ("dial 1: 0.01 in", 254e-6, "length", "dial 1"), ("98.1 N", 98.1, "force", ""),
        ("10 kgf", 98.0665, "force", ""), ("scale: 12.35 kg", 12.35, "mass", "scale"),
        ("21.4 C", 21.4, "temperature", ""), (" −1e-2 mm\r\n", -1e-5, "length", ""),
    ],
)  # fmt: skip
def test_lines_are_read_in_their_units(line: str, value: float, sort: Sort, name: str) -> None:
    found = parse_line(line)
    assert found.value == pytest.approx(value)
    assert (found.sort, found.name) == (sort, name)


@pytest.mark.parametrize("line", ["", "12", "mm", "1 2 mm", "12 parsecs", "1e999 mm", "x" * 300, "1..2 mm", "nan mm"])
def test_what_is_no_reading_is_refused_with_what_was_expected(line: str) -> None:
    with pytest.raises(InputError, match="expected a number and a unit"):
        parse_line(line)


@given(st.floats(-1.0, 1.0), st.sampled_from(sorted(SENT)))
def test_a_reading_comes_back_to_its_last_digit(value: float, sort: Sort) -> None:
    unit, digits = SENT[sort]
    found = parse_line(line_of(Reading(value, sort, "dial")))
    assert (found.sort, found.name) == (sort, "dial")
    assert abs(found.value - value) <= 0.51 * 10.0**-digits * UNITS[unit][1] + 1e-15


def test_an_instrument_is_asked_over_a_serial_port() -> None:
    stands = Standing(b"dial: +0.0123 mm\r\n", b"scale: 12.50 kg\n", b"hello\r\n")
    try:
        assert read_reading(stands.port) == Reading(pytest.approx(12.3e-6), "length", "dial")  # type: ignore[arg-type]
        assert read_reading(stands.port).sort == "mass"
        with pytest.raises(InputError, match="hello"):
            read_reading(stands.port)
        with pytest.raises(UnterbauError, match="nothing came"):
            read_reading(stands.port, 0.3)
    finally:
        stands.close()


def test_a_port_that_is_not_there_is_said() -> None:
    with pytest.raises(UnterbauError, match="/dev/none cannot be used"):
        read_reading("/dev/none")
    assert isinstance(ports(), tuple)
