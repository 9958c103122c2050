"""What sections are sold in: an extruded profile is aluminium, a rolled channel steel."""

from unterbau.sections.built_up import OF

METALS = ("steel", "aluminium")
SOLD: dict[str, tuple[str, ...]] = {
    "tslot": ("aluminium",), "cprofile": ("aluminium",), "upn": ("steel",), "ipe": ("steel",),
    "shs": METALS, "rhs": METALS, "chs": (*METALS, "brass"), "angle": METALS,
}  # fmt: skip
"""Kinds of material by family; common practice, no source. Others are made of anything."""


def sold_in(name: str) -> tuple[str, ...]:
    """Return the kinds of material that a section, or what it is built of, is sold in; none where any will do."""
    profile = name.split(OF)[-1]
    return SOLD.get(profile.split("-")[0], ())
