"""Outlines, shapes by name, families."""

import itertools
import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.sections import cache, rolled, solids
from unterbau.sections.families import families
from unterbau.sections.find import find, nearest
from unterbau.sections.names import NAMES
from unterbau.sections.outline import Arc, Line, circle, integrate, polygon, rounded, sampled
from unterbau.sections.section import neighbours, section


@given(st.floats(0.01, 1), st.floats(0.01, 1))
def test_a_rectangle_integrates_to_its_formulas(b: float, h: float) -> None:
    flat = integrate((polygon([(0, 0), (b, 0), (b, h), (0, h)]),))
    assert pytest.approx(b * h) == flat.A
    assert [flat.y, flat.z] == pytest.approx([b / 2, h / 2])
    assert flat.Iy == pytest.approx(b * h**3 / 12)
    assert flat.Iz == pytest.approx(h * b**3 / 12)
    assert flat.Iyz == pytest.approx(0, abs=1e-9 * flat.A**2)


@given(st.floats(0.005, 0.5), st.floats(0.1, 0.9))
def test_arcs_integrate_exactly(radius: float, share: float) -> None:
    ring = integrate((circle(radius), circle(share * radius, hole=True)))
    assert pytest.approx(math.pi * radius**2 * (1 - share**2), rel=1e-12) == ring.A
    assert ring.Iy == pytest.approx(math.pi / 4 * radius**4 * (1 - share**4), rel=1e-12)


def test_rounded_corners_are_tangent_and_take_their_area() -> None:
    loop = rounded([(0, 0), (1, 0), (1, 1), (0, 1)], [0.2] * 4)
    assert sum(isinstance(edge, Arc) for edge in loop) == 4
    assert pytest.approx(1 - 0.2**2 * (4 - math.pi)) == integrate((loop,)).A
    for before, after in itertools.pairwise(loop):
        end = before.end if isinstance(before, Line) else before.at(before.last)
        start = after.start if isinstance(after, Line) else after.at(after.first)
        assert end == pytest.approx(start)
    assert len(sampled(loop, 4)) == 4 * 5


def test_a_reentrant_corner_adds_area() -> None:
    corners = [(0, 0), (2, 0), (2, 1), (1, 1), (1, 2), (0, 2)]
    sharp = integrate((polygon([(float(y), float(z)) for y, z in corners]),))
    filled = integrate((rounded([(float(y), float(z)) for y, z in corners], [0, 0, 0, 0.3, 0, 0]),))
    assert pytest.approx(0.3**2 * (1 - math.pi / 4)) == filled.A - sharp.A


@pytest.mark.parametrize("name", NAMES)
def test_every_documented_name_is_a_section(name: str) -> None:
    found = section(name)
    assert found.properties.A > 0
    assert found.label
    assert found.properties.Iy * found.properties.Iz > found.properties.Iyz**2
    assert 0 < found.properties.Asz < found.properties.A


@pytest.mark.parametrize(
    "name",
    ["", "shs", "shs-60x60", "shs-60x50x4", "shs-60x60x40", "rhs-80x40x0", "chs-50x30", "flat-0x10", "angle-30x30x20",
     "upn-99", "ipe-1", "tslot-50-1x1", "tslot-40L-9x9", "box-10x10x10", "rod-9999", "SHS-60x60x4", "rod--5"],
)  # fmt: skip
def test_what_is_no_section_is_refused_in_a_sentence(name: str) -> None:
    with pytest.raises(InputError) as error:
        section(name)
    assert error.value.problem


def test_outlines_are_drawn_about_the_centroid_with_their_size() -> None:
    angle = section("angle-50x50x5")
    ys, zs = zip(*angle.loops[0], strict=True)
    assert min(ys) == pytest.approx(-0.0140, abs=2e-4)
    assert max(zs) - min(zs) == pytest.approx(0.05)
    assert [angle.height, angle.width] == pytest.approx([0.05, 0.05])
    assert section("tslot-40L-1x2").height == pytest.approx(0.08)
    assert len(section("rhs-80x40x4").loops) == 2


def test_only_closed_hollows_can_be_filled() -> None:
    for name in ("shs-60x60x4", "rhs-80x40x4", "chs-50x3", "box-160x120x10"):
        shape = section(name)
        assert shape.cavity is not None
        if name.startswith("chs"):
            assert pytest.approx(math.pi * 0.025**2) == shape.cavity.A + shape.properties.A
    for name in ("flat-80x10", "angle-50x50x5", "upn-100"):
        assert section(name).cavity is None
    for name in ("tslot-40L-1x2", "tslot-45H-2x2"):
        shape = section(name)
        assert shape.cavity is not None
        assert shape.height * shape.width > shape.cavity.A + shape.properties.A  # the slots stay open


def test_families_climb_and_lead_into_each_other() -> None:
    for family in families():
        assert len(set(family)) == len(family)
        for here, larger in itertools.pairwise(family):
            assert neighbours(here)[1] == larger
            assert neighbours(larger)[0] == here
        assert neighbours(family[0])[0] is None
        assert neighbours(family[-1])[1] is None
    assert neighbours("rhs-90x50x4") != (None, None)
    assert neighbours("shs-9x9x1") == (None, "shs-30x30x2")


def test_hot_finished_corners_are_sharper() -> None:
    cold, hot = section("shs-100x100x5"), section("shs-100x100x5-hot")
    assert hot.properties.A > cold.properties.A
    assert "hot" in hot.label


def test_the_cache_holds_every_profile_with_its_outline() -> None:
    assert set(cache.known()) == {name for name, _, _ in cache.names()}
    for name in ("tslot-20-1x1", "tslot-45H-2x2", "cprofile-40x80"):
        flat, stored = integrate(cache.stored_outline(name)), cache.stored_properties(name)
        assert pytest.approx(stored.A, rel=1e-3) == flat.A
        assert flat.Iy == pytest.approx(stored.Iy, rel=1e-3)
        assert [flat.y, flat.z] == pytest.approx([0, 0], abs=1e-6)


def test_turned_by_half_is_as_before_but_for_the_shear_centre() -> None:
    p = rolled.angle(0.06, 0.04, 0.005)
    half = p.turned().turned()
    assert half == replace(p, ys=-p.ys, zs=-p.zs)
    assert half.turned().turned() == p
    assert p.ys != 0
    assert p.turned().Iy == p.Iz
    assert solids.box_shear_area(0.1, 0.1, 0.005) == pytest.approx(0.5 * 4 * 0.1 * 0.005 * 0.833, rel=0.03)


@pytest.mark.parametrize(("typed", "first"), [
    ("extrusion 80x40", "tslot-40L-1x2"), ("40×80 profile", "tslot-40L-1x2"), ("angle iron", "angle-30x30x3"),
    ("box section", "shs-30x30x2"), ("hollow section 60x40", "rhs-60x40x3"), ("boxes", "shs-30x30x2"),
    ("channel", "upn-80"), ("flat bar 80", "flat-80x8"), ("tube 40x80x4", "rhs-80x40x4"), ("pipe 50", "chs-50x3"),
])  # fmt: skip
def test_sections_are_found_as_people_call_them(typed: str, first: str) -> None:
    assert find(typed)[0] == first
    assert typed.startswith(("pipe", "hollow")) or not [name for name in find(typed) if name.startswith("chs")]


def test_what_is_not_there_is_answered_with_the_nearest() -> None:
    assert not find("square tube 61x61x4")
    assert "shs-60x60x4" in nearest("square tube 61x61x4")
    assert len(nearest("nonsense")) == 3
