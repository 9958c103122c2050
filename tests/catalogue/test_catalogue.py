"""Data files: complete, ordered, sourced; worked examples of joints and drives."""

from dataclasses import replace
from typing import Any

import pytest

from unterbau.band import Band
from unterbau.catalogue.cuts import cut, cuts
from unterbau.catalogue.drives import drive, drives
from unterbau.catalogue.guides import block, blocks
from unterbau.catalogue.joints import OWN, Face, OwnValues, joint, joints
from unterbau.catalogue.prices import Price, PriceBook, check_prices, shipped_prices
from unterbau.errors import InputError
from unterbau.machine.price_items import item_label, known_items
from unterbau.materials.material import material, materials
from unterbau.model.joining import joint_kind, likely_values
from unterbau.parts_list.bill import Cost, cost, priced
from unterbau.structure.line import Line
from unterbau.structure.parts import Joint

FACE = Face(0.1, 0.1)
PAIRS = (
    "v-wheels", "v-wheels-steel", "bearings-angle", "shaft-16", "shaft-20", "free-shaft-16", "free-shaft-20",
    "free-shaft-25",
)  # fmt: skip
"""Wheels and bushings: pressed on alike, whatever the preload."""


def test_every_value_has_a_source_and_its_band_is_ordered() -> None:
    for kind in joints().values():
        assert kind.source
        assert all(band.low < band.likely < band.high for band in kind.values)
    for size in blocks().values():
        assert "practice" in size.source
        assert size.light.low < size.light.likely < size.light.high
        assert size.medium.likely > size.light.likely or size.id in PAIRS
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
    assert four[:3] == pytest.approx([4 * k for k in one[:3]])
    lever = 4 * 0.05**2  # two and two along the edges of a face of 100 × 100
    assert four[3:] == pytest.approx([4 * one[3] + one[1] * 2 * lever, *(4 * k + one[0] * lever for k in one[4:])])
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
    check_prices(book)
    named = {price.item for price in book.prices}
    assert {f"joint:{one}" for one in (*joints(), OWN)} <= named
    assert {f"{sort}:{one}" for one in blocks() for sort in ("block", "rail")} <= named
    assert {f"drive:{one}" for one in drives()} <= named
    assert {f"{sort}:{card.kind}" for card in materials().values() for sort in ("bar", "plate")} - {"plate:carbide"} - {
        f"{sort}:{kind}" for sort in ("bar", "plate") for kind in ("loose", "resin")
    } <= named
    assert {f"fill:{kind}" for kind in ("stone", "loose", "resin")} <= named
    assert all(price.invented for price in book.prices)
    labels = [item_label(item) for item in known_items()]
    assert len(set(labels)) == len(labels)
    assert item_label("joint:bracket") == "joint: corner bracket, ribbed, 1+1 M8"


def test_money_is_counted_per_metre_kilogram_piece_and_once() -> None:
    """Two bars of 1.5 m weighing 7 kg in all, two set-up fees of the shop: by hand."""
    rows = (
        ("section:rod-20", "metre", 3.0), ("section:rod-20", "piece", 0.5), ("bar:steel", "kilogram", 2.0),
        ("bar:steel", "fixed", 9.0),
    )  # fmt: skip
    prices = tuple(Price(item, per, amount) for item, per, amount in rows)  # type: ignore[arg-type]
    book = PriceBook("EUR", "", (*prices, Price("machine:transport", "fixed", 40.0, invented=True)))
    two = Line("part", "rod", 2, 1.5, 7.0, ("section:rod-20", "bar:steel"))
    other = replace(two, names=("section:rod-25", "bar:steel"))
    unknown = replace(two, text="gold", names=("bar:gold",))
    items = priced((two, other, unknown), book)
    assert [item.money for item in items] == [2 * 1.5 * 3 + 2 * 0.5, 7 * 2.0 + 9, 0.0, 40.0]
    assert cost(items) == Cost(10 + 23 + 40, True, ("gold",))


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"currency": ""}, "currency"),
        ({"date": "x" * 99}, "date"),
        ({"prices": (Price("boat", "piece", 1.0),)}, "prices[0].item"),
        ({"prices": (Price("spindle", "piece", -1.0),)}, "prices[0].amount"),
        ({"prices": (Price("spindle", "piece", 1.0), Price("spindle", "piece", 2.0))}, "prices[1].item"),
        ({"prices": (Price("machine:box", "metre", 1.0),)}, "prices[0].per"),
    ],
)
def test_impossible_prices_are_refused(change: dict[str, Any], where: str) -> None:
    with pytest.raises(InputError) as error:
        check_prices(replace(shipped_prices(), **change))
    assert error.value.where == where


def test_a_joint_of_ones_own() -> None:
    own = Joint(OWN, 2, OwnValues(80e6, 50e6, 9e3, 4e3, 4.0))
    kind = joint_kind(own)
    lever = 2 * 0.05**2  # one over the other, at the edges of the face
    assert kind.springs("likely", 2, FACE) == pytest.approx(
        (160e6, 100e6, 100e6, 8e3 + 50e6 * lever, 18e3 + 80e6 * lever, 18e3)
    )
    assert kind.springs("high", 1, FACE)[0] == pytest.approx(16 * kind.springs("low", 1, FACE)[0])
    assert likely_values(own) is own.own
    started = likely_values(Joint("bracket"))
    assert (
        joint_kind(Joint(OWN, 1, started)).springs("likely", 1, FACE)[:3]
        == joint("bracket").springs("likely", 1, FACE)[:3]
    )
    for bad in (Joint(OWN), Joint(OWN, 1, OwnValues(normal=0.0)), Joint(OWN, 1, OwnValues(spread=0.5))):
        with pytest.raises(InputError, match="own"):
            joint_kind(bad)


def test_cuts_are_those_of_the_worked_table() -> None:
    """Peak forces from Kienzle's law with coefficients from memory; scatter ±40 %."""
    assert cut("hardwood").force == Band(35 * 0.6, 35, 35 * 1.4)
    assert [cut(name).peak for name in ("softwood", "aluminium", "steel", "brass")] == [30, 133, 207, 28]
    assert all(one.source and one.tool and 0 < one.mean <= one.peak for one in cuts().values())
    assert all(one.mean < one.peak for one in cuts().values() if not one.id.startswith("turn"))


@pytest.mark.parametrize("find", [joint, block, drive, material, cut])
def test_unknown_names_list_the_known(find: object) -> None:
    with pytest.raises(InputError, match="known are"):
        find("unobtainium")  # type: ignore[operator]


def test_wheels_and_bearings_are_pairs_of_what_one_gives() -> None:
    """Each plastic wheel 0.5, 1.2, 3 N/µm, from memory; a pair grips the rail."""
    pair = block("v-wheels")
    assert (pair.light.low, pair.light.likely, pair.light.high) == pytest.approx((1e6, 2.4e6, 6e6))
    assert pair.light == pair.medium
    assert block("v-wheels").light.likely < block("bearings-angle").light.likely < block("15").light.likely
    assert "flat spots" in pair.source
