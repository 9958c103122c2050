"""Members as they can be bought: a section in a material that it is sold in."""

from dataclasses import replace

from unterbau.materials.material import material
from unterbau.sections.sold import sold_in
from unterbau.structure.parts import Member

USUAL = {"aluminium": "aluminium-6060", "steel": "steel-s235"}


def as_sold(member: Member) -> Member:
    """Return a member in the usual material of its section, if it is not sold in the one it has."""
    kinds = sold_in(member.section_name)
    if not kinds or material(member.material).kind in kinds:
        return member
    return replace(member, material=USUAL[kinds[0]])
