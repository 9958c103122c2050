"""What stays open in a mould, as it is typed: read back as it was, and refused with what cannot be read."""

from dataclasses import asdict

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.shop.pour.mould import Core, Insert, Mould, Pocket
from unterbau.shop.pour.open_words import open_text, read_open
from unterbau.units import Units

mm = st.integers(1, 400).map(lambda one: one / 1e3)
pockets = st.builds(Pocket, mm, mm, mm, mm, mm, st.booleans())
cores = st.builds(Core, mm, mm)
inserts = st.builds(
    lambda thread, x, y, deep: Insert(thread, x, y, deep, {"M6": 0.0108, "M8": 0.0144, "M10": 0.018}[thread]),
    st.sampled_from(["M6", "M8", "M10"]), mm, mm, mm,
)  # fmt: skip


@given(st.lists(pockets, max_size=4), st.lists(cores, max_size=3), st.lists(inserts, max_size=4))
def test_what_is_told_is_read_back(some: list[Pocket], bars: list[Core], bushes: list[Insert]) -> None:
    mould = Mould(pockets=tuple(some), cores=tuple(bars), inserts=tuple(bushes))
    again = read_open(open_text(mould, "mm"), Mould(), "mm")
    for told, read in zip(some, again.pockets, strict=True):
        assert asdict(read) == pytest.approx(asdict(told))
    for core, seen in zip(bars, again.cores, strict=True):
        assert asdict(seen) == pytest.approx(asdict(core))
    for bush, found in zip(bushes, again.inserts, strict=True):
        assert found.thread == bush.thread
        assert (found.x, found.y, found.depth) == pytest.approx((bush.x, bush.y, bush.depth))


def test_an_example_by_hand_in_both_units() -> None:
    text = "pocket 50, 60: 220 × 350 x 50; sump 400,120: 150 × 200 × 40; core 30 × 200; insert M8 60, 60"
    mould = read_open(text, Mould(), "mm")
    first, sump = mould.pockets
    assert (first.x, first.y, first.length, first.width, first.depth) == pytest.approx((0.05, 0.06, 0.22, 0.35, 0.05))
    assert (first.above, sump.above) == (False, True)
    assert sump.depth == pytest.approx(0.04)
    assert mould.cores == (Core(0.03, 0.2),)
    assert mould.inserts[0].depth == pytest.approx(0.04), "five diameters where nothing is told"
    inches = read_open("core 1 × 8; insert M8 2, 3 deep 1.5", Mould(), "inch")
    assert inches.cores[0].length == pytest.approx(0.2032)
    assert inches.inserts[0].depth == pytest.approx(0.0381)


@pytest.mark.parametrize("units", ["mm", "inch"])
@pytest.mark.parametrize("text", ["hole 3", "pocket 1, 2: 3 × 4", "core thick × 2", "insert M7 1, 2", "insert M8 1"])
def test_what_cannot_be_read_is_named(text: str, units: Units) -> None:
    with pytest.raises(InputError) as caught:
        read_open(f"core 10 × 20; {text}", Mould(), units)
    assert caught.value.where == "open"
    assert text in caught.value.problem
    assert "pocket 50, 50: 220 × 350 × 50" in caught.value.problem
