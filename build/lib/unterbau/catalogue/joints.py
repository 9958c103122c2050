"""Joints between two parts: six springs at the joint's face, low, likely, high."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

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
    bonded: tuple[float, float, float] | None = None
    """What of it can be bonded where it is not the whole rectangle, as a tube's end: area, ∫z² along its height and
    ∫y² along its width, m² and m⁴."""

    @property
    def bond(self) -> tuple[float, float, float]:
        """Area, ∫z² and ∫y² that a bond line covers, m² and m⁴."""
        area = self.height * self.width
        return self.bonded or (area, area * self.height**2 / 12, area * self.width**2 / 12)


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


BOLTS = "bolts"
"""Kind of a joint that is computed from its bolts."""
Size = Literal["M4", "M5", "M6", "M8", "M10", "M12"]
Surface = Literal["ground", "milled", "extruded", "painted"]
Bracket = Literal["aluminium", "steel", "printed"]
Into = Literal[
    "tapped", "slot-20", "slot-30", "slot-40", "slot-45", "core-20", "core-30", "core-40", "core-45"
]  # fmt: skip


LEAST_OVERHANG = 3.0
"""Of a base plate, in bolt diameters: room for washer, key and edge."""


@dataclass(frozen=True, slots=True)
class BoltGroup:
    """Bolts of a joint, set out evenly over its face."""

    __pydantic_config__ = STRICT

    size: Size = "M8"
    across: int = 2
    """Bolts side by side."""
    along: int = 2
    """Bolts one over another."""
    thickness: float = 0.01
    """Of plate or bracket under the heads, m."""
    surface: Surface = "milled"
    into: Into = "tapped"
    torque: float = 0.0
    """Of each, N·m; 0 takes the customary one."""
    leg: float = 0.0
    """From bolt to heel of an unribbed bracket, m; 0 where there is none."""
    bonded: bool = False
    """The face is epoxied besides."""
    overhang: float = 0.0
    """How far a base plate welded to the part's end reaches out on all sides, m; 0 where there is none."""
    bracket: Bracket = "aluminium"
    """What the plate or bracket under the heads is made of; a base plate is of the part's own material."""
    edge: float = 0.0
    """From the outer bolts to the edge of the face, m; 0 takes one and a half diameters."""


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
    edge: float = 0.0
    """How far in from the edge of the face such a piece usually sits, m."""
    mass: float = 0.0
    """Of each piece with its screws, kg; from memory."""

    def springs(self, level: Level, count: int, face: Face, across: int = 0, edge: float = 0.0) -> Six:
        """Return the six stiffnesses of `count` such joints on one face, N/m and N·m/rad.

        Pieces are a group: each resists tilting and twisting by itself, and by its pull and shear at its distance
        from the group's middle. A bond line counts its face once, whatever the number of bolts beside it.

        Args:
            level: Low, likely or high.
            count: Pieces.
            face: They sit on.
            across: Side by side; 0 as usual.
            edge: From the outer pieces to the edge of the face, m; 0 as usual.

        Source:
            Σk·r², as for any group of bolts.
        """
        if self.rigid:
            return (RIGID,) * 6
        if self.bond:
            kn, kt = (band.at(level) for band in self.bond)
            area, tall, wide = face.bond
            return (kn * area, kt * area, kt * area, kt * (tall + wide), kn * tall, kn * wide)
        normal, shear, twist, bend, weak = (band.at(level) for band in self.values)
        places = pattern(count, face, across or usual_across(count), edge or self.edge)
        tall, wide = sum(z * z for _, z in places), sum(y * y for y, _ in places)
        return (
            normal * count, shear * count, shear * count, twist * count + shear * (tall + wide),
            bend * count + normal * tall, weak * count + normal * wide,
        )  # fmt: skip


def usual_across(count: int) -> int:
    """Return how many pieces one usually sets side by side."""
    return 1 if count < 4 else 2 if count < 9 else 3


def pattern(count: int, face: Face, across: int, edge: float) -> tuple[tuple[float, float], ...]:
    """Return where pieces sit on a face, across and along its height from its middle, m: evenly in rows.

    Args:
        count: Pieces.
        face: They sit on.
        across: In a row; the last row is centred if it is not full.
        edge: From the outer pieces to the edge of the face, m; no more than half the shorter side.

    Rows that would lie on each other for want of height go side by side.
    """
    edge = min(edge, face.height / 2, face.width / 2)
    if across < count and face.height <= 2 * edge < face.width:
        across = count
    rows = -(-count // across)

    def line(number: int, of: int, size: float) -> list[float]:
        pitch = 2 * max(size / 2 - edge, 0.0) / max(of - 1, 1)
        return [(n - (number - 1) / 2) * pitch for n in range(number)]

    return tuple(
        (y, z)
        for row, z in enumerate(line(rows, rows, face.height))
        for y in line(min(across, count - row * across), across, face.width)
    )


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
        row.get("edge_mm", 0.0) / 1e3,
        row["kg"],
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


def check_bolts(bolts: BoltGroup) -> None:
    """Check a bolt group.

    Raises:
        InputError: With the field at fault.
    """
    for name in ("across", "along"):
        if not 1 <= getattr(bolts, name) <= 12:
            raise InputError(f"bolts.{name}", f"expected 1 to 12, got {getattr(bolts, name)}")
    if not 0.001 <= bolts.thickness <= 0.1:
        raise InputError("bolts.thickness", f"expected 1 to 100 mm, got {bolts.thickness * 1e3:g} mm")
    if not 0.0 <= bolts.torque <= 200.0:
        raise InputError("bolts.torque", f"expected 0 to 200 N·m, got {bolts.torque:g}")
    if not (bolts.leg == 0.0 or 0.005 <= bolts.leg <= 0.3):
        raise InputError("bolts.leg", f"expected 0, or 5 to 300 mm, got {bolts.leg * 1e3:g} mm")
    least = LEAST_OVERHANG * float(bolts.size[1:])
    if not (bolts.overhang == 0.0 or least * 1e-3 <= bolts.overhang + 1e-9 <= 0.3):
        given = bolts.overhang * 1e3
        raise InputError("bolts.overhang", f"expected 0, or {least:g} to 300 mm for {bolts.size}, got {given:g} mm")
    if not 0.0 <= bolts.edge <= 0.3:
        raise InputError("bolts.edge", f"expected 0 to 300 mm, got {bolts.edge * 1e3:g} mm")
    if bolts.overhang and bolts.bonded:
        raise InputError("bolts.bonded", "expected a dry face: a base plate is computed on its bolts alone")
    if bolts.overhang and max(bolts.across, bolts.along) == 1:
        raise InputError("bolts.across", "expected 2 or more bolts one way: a base plate's bolts stand around the part")


def joint(name: str) -> JointKind:
    """Return a kind of joint of the catalogue.

    Raises:
        InputError: There is no such kind.
    """
    found = joints().get(name)
    if found is None:
        raise InputError("joint", f'there is no joint "{name}"; known are {", ".join(joints())}')
    return found
