"""Data files: complete, ordered, sourced; worked examples of joints and drives."""

import pytest

from unterbau.catalogue.drives import drive, drives
from unterbau.catalogue.guides import block, blocks
from unterbau.catalogue.joints import Face, joint, joints
from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError
from unterbau.materials.material import material, materials

FACE = Face(0.1, 0.1)


def test_every_value_has_a_source_and_its_band_is_ordered() -> None:
    for kind in joints().values():
        assert kind.source
        assert all(band.low < band.likely < band.high for band in kind.values)
    for size in blocks().values():
        assert "practice" in size.source
        assert size.light.low < size.light.likely < size.light.high
        assert size.medium.likely > size.light.likely
    for one in drives().values():
        assert one.source
    for card in materials().values():
        assert card.source
        assert 0 < card.zeta < 0.1
        assert card.kind


def test_isotropic_materials_have_a_believable_poisson_ratio() -> None:
    for card in materials().values():
        if card.kind not in ("timber",):
            assert 0.1 < card.E / (2 * card.G) - 1 < 0.45, card.id


def test_bonded_face_by_hand() -> None:
    """E·A/t and G·A/t for 100×100, t .5 mm: 70 000 and 26 000 N/µm; a share of it is left."""
    kn, kt, *_, bend, _ = joint("epoxied").springs("high", 1, FACE)
    assert kn == pytest.approx(0.8 * 70_000e6)
    assert kt == pytest.approx(0.8 * 26_000e6)
    assert bend == pytest.approx(kn * 0.1**2 / 12)
    assert joint("epoxied").springs("high", 6, FACE) == joint("epoxied").springs("high", 1, FACE)


def test_pieces_add_up_and_welds_are_rigid() -> None:
    one, four = (joint("bracket").springs("likely", n, FACE) for n in (1, 4))
    assert four == pytest.approx([4 * k for k in one])
    assert one[0] == pytest.approx(35e6)
    assert one[4] == pytest.approx(12e3)
    assert set(joint("weld").springs("low", 1, FACE)) == {float("inf")}
    gusset = joint("gusset").springs("likely", 1, FACE)
    assert gusset[4] > 10 * gusset[5]


def test_ball_screw_example() -> None:
    """Screw 16, x 500: 59.2 N/µm; with nut 150 and bearing 50 it would be 23.0 (calculated)."""
    kind = drive("ballscrew-16")
    shaft = kind.EA.likely / 0.5 / 1e6
    assert shaft == pytest.approx(59.2, abs=0.2)
    assert 1 / (1 / shaft + 1 / 150 + 1 / 50) == pytest.approx(23.0, abs=0.1)
    assert kind.stiffness("likely", 0.5, 1.0) / 1e6 == pytest.approx(1 / (1 / shaft + 1 / 150 + 1 / 60), rel=1e-6)
    assert kind.stiffness("low", 0.5, 1.0) < kind.stiffness("likely", 0.5, 1.0) < kind.stiffness("likely", 0.1, 1.0)


def test_belt_loop() -> None:
    """k = EA (1/L1 + 1/L2): both sides of the loop pull."""
    kind = drive("belt-15-glass")
    assert kind.stiffness("likely", 0.5, 1.0) == pytest.approx(90e3 * (1 / 0.5 + 1 / 1.5))


def test_blocks_are_free_along_the_rail_only() -> None:
    k = block("15").springs("likely", "light")
    assert k[0] == 0
    assert k[1] == k[2] == pytest.approx(160e6 * 0.45)
    assert all(value > 0 for value in k[3:])


def test_every_kind_has_a_price() -> None:
    book = shipped_prices()
    assert set(book.joint) == set(joints())
    assert set(book.block) == set(book.rail_per_m) == set(blocks())
    assert set(book.drive) == set(drives())
    assert {card.kind for card in materials().values()} <= set(book.per_kg)
    assert "nvented" in book.note


@pytest.mark.parametrize("find", [joint, block, drive, material])
def test_unknown_names_list_the_known(find: object) -> None:
    with pytest.raises(InputError, match="known are"):
        find("unobtainium")  # type: ignore[operator]
