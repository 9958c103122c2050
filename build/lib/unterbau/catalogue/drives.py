"""Drives as axial springs: screw, nut and bearing in series, a belt, or rack, pinion and gearbox in series."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from unterbau.band import Band, Level
from unterbau.catalogue.tables import table
from unterbau.errors import InputError

ENDLESS = Band(1e15, 1e15, 1e15)
"""EA of a rack: it is as stiff wherever the pinion stands."""


@dataclass(frozen=True, slots=True)
class DriveKind:
    """A drive. SI units."""

    id: str
    label: str
    EA: Band
    """Of screw core or belt, N."""
    nut: Band | None
    bearing: Band | None
    mass_per_metre: float
    zeta: float
    source: str
    tension: Band | None = None
    """Of a crossed belt, which runs round both axes with standing motors, N."""
    per_turn: float = 0.0
    """Way of the axis for a turn of the motor by a radian, m."""
    torque: float = 0.0
    """Holding torque of the motor one usually puts there, N·m."""
    self_locking: bool = False
    """Whether friction holds a screw that is pushed, so that the motor is not asked."""
    diameter: float = 0.006
    """As drawn, of screw, belt or rack, m."""
    nut_length: float = 0.04
    """Of the nut, clamp or pinion, along the axis, m."""
    ends: tuple[float, float] = (0.0, 0.0)
    """Of a screw beyond its thread at the fixed and the floating bearing, of a belt round its pulleys, m."""

    @property
    def is_screw(self) -> bool:
        """Whether it is a screw: it has a nut, and stretches along its length."""
        return self.nut is not None and self.EA.likely < ENDLESS.likely and self.tension is None

    def stiffness(self, level: Level, distance: float, length: float, both: bool = False) -> float:
        """Return the axial stiffness with the nut at a distance from the fixed bearing, N/m.

        Args:
            level: Low, likely or high.
            distance: From the fixed bearing (screw, other end floating) or pulley (belt) to the nut, m.
            length: Of the whole screw or belt path, m.
            both: Whether both ends of a screw are held along it: then its far side pulls as well.
        """
        near = max(distance, 0.01)
        EA = self.EA.at(level)
        if self.tension is not None:
            # The belt goes on along the other axis and comes back: about four times the way.
            return EA * (1 / (near + length) + 1 / max(3 * length - near, 0.01))
        if self.nut is None or self.bearing is None:
            return EA * (1 / near + 1 / max(2 * length - near, 0.01))
        bearing = 1 / self.bearing.at(level)
        held = 1 / (near / EA + bearing)
        if both and self.is_screw:
            held += 1 / (max(length - sum(self.ends) - near, 0.01) / EA + bearing)
        return 1 / (1 / held + 1 / self.nut.at(level))


@dataclass(frozen=True, slots=True)
class MotorKind:
    """How a motor holds its place."""

    id: str
    label: str
    stiffer: Band
    """Against a stepper's magnetic spring."""
    source: str
    curve: tuple[tuple[float, float], ...] = ()
    """Turns a minute, and the share of its torque that is left there."""
    curve_source: str = ""


TEETH = 50
"""Of a stepper's rotor: its torque goes with the sine of so many times the angle."""


def motor_stiffness(kind: DriveKind, motor: MotorKind, torque: float, level: Level) -> float:
    """Return how stiffly a motor holds an axis, seen along it, N/m; inf behind a self-locking screw.

    Args:
        kind: The drive.
        motor: Its motor.
        torque: Holding torque, N·m; 0 as usual for this drive.
        level: Low, likely or high.

    Source:
        T = Th·sin(50·θ) of a hybrid stepper, so dT/dθ = 50·Th at rest; seen along the axis, over the square of its way
        per radian.
    """
    if kind.self_locking or not kind.per_turn:
        return float("inf")
    return TEETH * (torque or kind.torque) * motor.stiffer.at(level) / kind.per_turn**2


@lru_cache(maxsize=1)
def motors() -> dict[str, MotorKind]:
    """Return all kinds of motor by id."""
    return {row["id"]: MotorKind(row["id"], row["label"], Band(*row["stiffer"]), row["source"],
                                 tuple((n, share) for n, share in row["curve"]), row["curve_source"])
            for row in table("drives")["motors"]}  # fmt: skip


@lru_cache(maxsize=1)
def drives() -> dict[str, DriveKind]:
    """Return all drives by id."""
    data = table("drives")
    result = {}
    for row in data["screws"]:
        EA = row["E_GPa"] * 1e9 * math.pi * (row["root_mm"] / 1e3) ** 2 / 4
        nut, bearing = (Band(*row[name]).scaled(1e6) for name in ("nut", "bearing"))
        result[row["id"]] = DriveKind(
            row["id"], row["label"], Band(EA, EA, EA), nut, bearing, row["kg_m"],
            data["zeta"], row["source"], None, row["lead_mm"] / 2e3 / math.pi, row["torque_Nm"],
            bool(row.get("self_locking", False)), *_lengths(row),
        )  # fmt: skip
    for row in data["belts"]:
        result[row["id"]] = DriveKind(
            row["id"], row["label"], Band(*row["EA_kN"]).scaled(1e3), None, None, row["kg_m"],
            data["zeta"], row["source"],
            Band(*row["tension_N"]) if "tension_N" in row else None, row["pulley_mm"] / 1e3, row["torque_Nm"], False,
            *_lengths(row),
        )  # fmt: skip
    for row in data["racks"]:
        mesh, gear = (Band(*row[name]).scaled(1e6) for name in ("mesh", "gear"))
        result[row["id"]] = DriveKind(
            row["id"], row["label"], ENDLESS, mesh, gear, row["kg_m"], data["zeta"], row["source"],
            None, row["pulley_mm"] / 1e3 / row["gear_ratio"], row["torque_Nm"], False, *_lengths(row),
        )  # fmt: skip
    return result


def _lengths(row: dict[str, Any]) -> tuple[float, float, tuple[float, float]]:
    fixed, floating = row["ends_mm"]
    return row["diameter_mm"] / 1e3, row["nut_mm"] / 1e3, (fixed / 1e3, floating / 1e3)


def drive(name: str) -> DriveKind:
    """Return a drive.

    Raises:
        InputError: There is no such drive.
    """
    found = drives().get(name)
    if found is None:
        raise InputError("drive", f'there is no drive "{name}"; known are {", ".join(drives())}')
    return found
