"""Sections in what they are sold in."""

from dataclasses import replace

from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import kind_of
from unterbau.sections.families import families
from unterbau.sections.sold import sold_in
from unterbau.structure.parts import Member
from unterbau.structure.stock import USUAL, as_sold
from unterbau.ui.stations.machine.part_fields import fields_of, with_value

TUBE = Member("rhs-120x80x5", "steel-s235")


def test_an_extrusion_in_place_of_a_steel_tube_is_aluminium() -> None:
    changed = with_value(TUBE, "section", "tslot-40L-1x2")
    assert changed == Member("tslot-40L-1x2", "aluminium-6060")
    assert with_value(changed, "section", "upn-120") == Member("upn-120", "steel-s235")
    assert with_value(TUBE, "section", "box-120x80x5") == replace(TUBE, section="box-120x80x5")
    cast = Member("box-120x240x15", "iron-gjl-250")
    assert as_sold(cast) == cast
    assert as_sold(Member("i3-of-cprofile-40x80", "steel-s235")).material == "aluminium-6060"


def test_only_what_it_is_sold_in_is_offered() -> None:
    kind = kind_of(MovingGantry())

    def offered(member: Member) -> set[object]:
        fields = fields_of(kind, "gantry_beam", member)
        return {value for value, _ in next(one for one in fields if one.attribute == "material").choices()}

    assert offered(Member("tslot-40L-1x2", "aluminium-6060")) == {
        "aluminium-6060", "aluminium-6082", "aluminium-5083"
    }  # fmt: skip
    assert "granite" not in offered(TUBE)
    assert "iron-gjl-250" in offered(Member("box-120x80x5", "steel-s235"))
    # What a file has stays to be seen.
    assert "steel-s235" in offered(Member("tslot-40L-1x2", "steel-s235"))


def test_every_family_is_sold_in_something_usual() -> None:
    for family in families():
        for kind in sold_in(family[0])[:1]:
            assert kind in USUAL
