"""Joints between two parts: six springs at the joint's face, low, likely, high."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from unterbau.band import Band, Level
from unterbau.catalogue.tables import table
from unterbau.errors import InputError
from unterbau.strict import STRICT

Six = tuple[float, float, float, float, float, float]
RIGID = float("inf")


@dataclass(frozen=True, slots=True)
class Face:
    """The face two parts meet in, m: height along the joint's up, width across it."""

    height: float
    width: float


OWN = "own"
"""Kind of a joint whose values the person gives."""


@dataclass(frozen=True, slots=True)
class OwnValues:
    """A joint's likely stiffness as measured or calculated by the person, each piece."""

    __pydantic_config__ = STRICT

    normal: float = 100e6
    """N/m."""
    shear: float = 60e6
    bend: float = 10e3
    """About both axes in the face, N·m/rad."""
    twist: float = 5e3
    spread: float = 2.0
    """Low is the likely value divided, high multiplied by it."""


@dataclass(frozen=True, slots=True)
class JointKind:
    """A way of joining. Springs: along the normal, across, along up; about the same axes."""

    id: str
    label: str
    zeta: float
    source: str
    values: tuple[Band, ...]
    """normal, shear, twist, bend, weak bend of one piece; empty for bonded and rigid joints."""
    bond: tuple[Band, Band] | None
    """Stiffness per area, normal and shear, N/m³, of a bond line."""
    rigid: bool

    def springs(self, level: Level, count: int, face: Face) -> Six:
        """Return the six stiffnesses of `count` such joints on one face, N/m and N·m/rad.

        A bond line counts its face once, whatever the number of bolts beside it.
        """
        if self.rigid:
            return (RIGID,) * 6
        if self.bond:
            kn, kt = (band.at(level) for band in self.bond)
            area = face.height * face.width
            across, along = area * face.height**2 / 12, area * face.width**2 / 12
            return (kn * area, kt * area, kt * area, kt * (across + along), kn * across, kn * along)
        normal, shear, twist, bend, weak = (band.at(level) * count for band in self.values)
        return (normal, shear, shear, twist, bend, weak)


def _kind(row: dict[str, Any]) -> JointKind:
    values: tuple[Band, ...] = ()
    bond = None
    if "normal" in row:
        units = {"normal": 1e6, "shear": 1e6, "twist": 1e3, "bend": 1e3, "weak_bend": 1e3}
        values = tuple(Band(*row[name]).scaled(unit) for name, unit in units.items())
    if "per_area" in row:
        line = row["per_area"]
        share = Band(*line["share"])
        per_line = 1e9 / (line["line_mm"] / 1e3)
        bond = (share.scaled(line["E_GPa"] * per_line), share.scaled(line["G_GPa"] * per_line))
    return JointKind(
        row["id"],
        row["label"],
        row["zeta"],
        row["source"],
        values,
        bond,
        bool(row.get("rigid", False)),
    )


@lru_cache(maxsize=1)
def joints() -> dict[str, JointKind]:
    """Return all kinds of joint by id."""
    return {row["id"]: _kind(row) for row in table("joints")}


def own_joint(values: OwnValues) -> JointKind:
    """Return a kind with values of the person's own."""
    each = (values.normal, values.shear, values.twist, values.bend, values.bend)
    bands = tuple(Band(k / values.spread, k, k * values.spread) for k in each)
    return JointKind(OWN, "own values", 0.02, "your own values; damping common practice, no source", bands, None, False)


def check_own(values: OwnValues) -> None:
    """Check values of one's own.

    Raises:
        InputError: With the field at fault.
    """
    for name in ("normal", "shear", "bend", "twist"):
        if not 1.0 <= getattr(values, name) <= 1e12:
            raise InputError(f"own.{name}", f"expected a stiffness from 1 to 1e12, got {getattr(values, name):g}")
    if not 1.0 <= values.spread <= 20.0:
        raise InputError("own.spread", f"expected a factor from 1 to 20, got {values.spread:g}")


def joint(name: str) -> JointKind:
    """Return a kind of joint of the catalogue.

    Raises:
        InputError: There is no such kind.
    """
    found = joints().get(name)
    if found is None:
        raise InputError("joint", f'there is no joint "{name}"; known are {", ".join(joints())}')
    return found
