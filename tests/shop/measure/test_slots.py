"""Readings at their places make the line that the bench reads, whatever the bench."""

import pytest

from tests.ui.test_bench_view import READINGS
from unterbau.shop.measure.reading_words import HINTS, read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.shop.measure.slots import slots_of, values_of


@pytest.mark.parametrize("bench", HINTS)
def test_readings_put_at_their_places_are_read_as_the_line_they_came_from(bench: str) -> None:
    for line in READINGS[bench]:
        slots = slots_of(bench, line)
        values = values_of(slots, line)
        assert len(values) == len(slots.words) == len(set(slots.words))
        again = slots.line(values)
        assert read_bench(bench, again, 20e-6, Instrument()) == read_bench(bench, line, 20e-6, Instrument())


@pytest.mark.parametrize("bench", HINTS)
def test_a_bench_offers_places_before_anything_is_read(bench: str) -> None:
    slots = slots_of(bench)
    count = len(slots.words)
    assert values_of(slots, "") == ("",) * count
    assert slots.line(("1",) * (count - 1) + (" ",)) == "", "one is missing"
    assert slots.line(("1",) * (count - 1)) == ""
    values = ("5", "5", "3", "4") if bench == "diagonals" else tuple(str(10 + number) for number in range(count))
    assert read_bench(bench, slots.line(values), 20e-6, Instrument()).verdict


def test_places_follow_the_readings_of_a_line() -> None:
    assert slots_of("straightness", "0 1 2 3 4 5 6").counts == (7,)
    assert slots_of("flatness", "0 1 / 2 3 / 4 5 / 6 7").counts == (2, 2, 2, 2)
    assert slots_of("flatness", "0 1 / 2 3 / 4 5 / 6 7").words[3] == "row 2, place 2"
    assert slots_of("arm", "50 100 / 0 0.1").counts == (4, 4, 1), "a line that is no arm's says nothing"
    assert slots_of("straightness", " ".join("0" for _ in range(200))).counts == (5,)
    assert values_of(slots_of("tram"), "0 1 2") == ("0", "1", "2", "", "")
