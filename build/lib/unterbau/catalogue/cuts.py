"""Typical cuts and the force they pull with."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from unterbau.band import Band
from unterbau.catalogue.tables import table
from unterbau.errors import InputError
from unterbau.strict import STRICT

SCATTER = 0.4
"""Of the calculated forces; blunt tools pull up to twice as hard."""


@dataclass(frozen=True, slots=True)
class Engagement:
    """How the tool meets the material. SI units."""

    kc11: float
    """Specific cutting force at a chip of 1 × 1 mm, Pa."""
    mc: float
    """How it grows towards thin chips."""
    depth: float
    """Along the tool's axis; in turning the depth of cut, m."""
    chip: float
    """Feed of each tooth, or of each turn of the work, m."""
    width: float = 0.0
    """Across the tool's path, m; milling only."""
    diameter: float = 0.0
    """0 where the work turns."""
    teeth: int = 1
    turns: float = 0.0
    """Of the tool, 1/s."""
    straight: bool = False
    """Whether the flutes are straight: no helix spreads a tooth's pull."""

    @property
    def milling(self) -> bool:
        """Whether the tool turns."""
        return self.diameter > 0.0


@dataclass(frozen=True, slots=True)
class Cut:
    """A customary cut."""

    id: str
    label: str
    tool: str
    mean: float
    """Force along the cut, averaged, N."""
    peak: float
    """Largest resultant within a turn, N."""
    feed: float
    """Tooth feed × teeth × turns, m/s."""
    source: str
    engagement: "Engagement"

    @property
    def force(self) -> Band:
        """The peak with its scatter, N."""
        return Band(self.peak * (1 - SCATTER), self.peak, self.peak * (1 + SCATTER))


OWN_CUT = "own"
"""Id of the cut that the person sets out."""
STUFFS = ("softwood", "hardwood", "mdf", "acrylic", "aluminium", "brass", "steel", "stainless")
"""Customary cuts whose material a cut of one's own can be in."""


@dataclass(frozen=True, slots=True)
class OwnCut:
    """A cut of the person's own: what is cut, with what, how much. SI units."""

    __pydantic_config__ = STRICT

    material: str = "hardwood"
    """One of `STUFFS`."""
    turning: bool = False
    """The work turns, not the tool: depth of cut and feed a turn alone count."""
    diameter: float = 6e-3
    teeth: int = 2
    width: float = 3e-3
    """Across the path; at most the diameter."""
    depth: float = 3e-3
    chip: float = 1e-4
    """Feed of each tooth, or of each turn of the work."""
    turns: float = 300.0
    """Of the tool, 1/s."""
    straight: bool = False
    """Flutes without a helix."""


def stuff_label(name: str) -> str:
    """Return what a cut is in, in words."""
    return cut(name).label.split(",")[0]


def check_own_cut(own: OwnCut) -> None:
    """Check a cut of one's own.

    Raises:
        InputError: With the field at fault.
    """
    if own.material not in STUFFS:
        raise InputError("material", f'expected one of {", ".join(STUFFS)}, got "{own.material}"')
    for name, low, high in (
        ("diameter", 0.0005, 0.1), ("width", 1e-5, 0.1), ("depth", 1e-5, 0.1), ("chip", 1e-6, 0.002),
    ):  # fmt: skip
        value = getattr(own, name)
        if not low <= value <= high:
            raise InputError(name, f"expected {low * 1e3:g} to {high * 1e3:g} mm, got {value * 1e3:g} mm")
    if own.width > own.diameter * (1 + 1e-9):
        raise InputError("width", f"expected at most the tool's {own.diameter * 1e3:g} mm, got {own.width * 1e3:g} mm")
    if not 1 <= own.teeth <= 20:
        raise InputError("teeth", f"expected 1 to 20, got {own.teeth}")
    if not 1.0 <= own.turns <= 2000.0:
        raise InputError("turns", f"expected 60 to 120000 a minute, got {own.turns * 60:g}")


@lru_cache(maxsize=1)
def cuts() -> dict[str, Cut]:
    """Return all cuts by id."""
    data = table("cuts")
    return {
        row["id"]: Cut(
            row["id"],
            row["label"],
            row["tool"],
            float(row["mean"]),
            float(row["peak"]),
            row["feed_mm_min"] / 6e4,
            data["source"],
            _engagement(row),
        )
        for row in data["cuts"]
    }


def _engagement(row: dict[str, Any]) -> Engagement:
    mm, MPa = 1e-3, 1e6
    if "turning" in row:
        t = row["turning"]
        return Engagement(t["kc11"] * MPa, t["mc"], t["ap_mm"] * mm, t["f_mm"] * mm)
    m = row["milling"]
    return Engagement(
        m["kc11"] * MPa, m["mc"], m["ap_mm"] * mm, m["fz_mm"] * mm, m["ae_mm"] * mm, m["diameter_mm"] * mm, m["teeth"],
        m["rpm"] / 60,
    )  # fmt: skip


def cut(name: str) -> Cut:
    """Return a cut.

    Raises:
        InputError: There is no such cut.
    """
    found = cuts().get(name)
    if found is None:
        raise InputError("cut", f'there is no cut "{name}"; known are {", ".join(cuts())}')
    return found
