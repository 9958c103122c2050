"""What a drive is bought of beside its screw, belt or rack: motor, coupling, bearings, nut; and how big they are."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from unterbau.catalogue.drives import drive, motors
from unterbau.catalogue.tables import table


@dataclass(frozen=True, slots=True)
class Envelope:
    """The room that a bought part takes about its axis. SI units."""

    across: float
    """Diameter, or side of its square, m."""
    length: float
    """Along its axis, m."""
    mass: float
    """kg."""


@dataclass(frozen=True, slots=True)
class MotorSize:
    """One motor."""

    torque: float
    """The most that one of this size holds, N·m."""
    body: Envelope


LAST = MotorSize(float("inf"), Envelope(0.18, 0.3, 25.0))
"""Where no motor of the list is strong enough."""


def motor_size(kind: str, torque: float) -> MotorSize:
    """Return the least motor of a kind that holds a torque, N·m.

    Source:
        Usual frame sizes, from memory.
    """
    return next((one for one in _sizes()[kind] if torque <= one.torque * (1 + 1e-9)), LAST)


@dataclass(frozen=True, slots=True)
class Train:
    """What belongs to a drive, by what it is called; what it has none of is missing."""

    parts: dict[str, Envelope]
    motors: int
    """How many it is driven by."""

    def motor(self, drive_name: str, kind: str, torque: float) -> MotorSize:
        """Return each motor of a drive; a torque of 0 is the drive's usual one, N·m."""
        return motor_size(kind, (torque or drive(drive_name).torque) / self.motors)


def train(drive_name: str) -> Train:
    """Return what belongs to a drive.

    Raises:
        InputError: There is no such drive.
    """
    drive(drive_name)
    return _trains()[drive_name]


@lru_cache(maxsize=1)
def _sizes() -> dict[str, tuple[MotorSize, ...]]:
    rows = {row["id"]: row["sizes"] for row in table("drives")["motors"]}
    return {
        kind: tuple(
            MotorSize(torque, Envelope(side / 1e3, long / 1e3, mass)) for torque, side, long, mass in rows[kind]
        )
        for kind in motors()
    }


@lru_cache(maxsize=1)
def _trains() -> dict[str, Train]:
    data = table("drives")
    return {row["id"]: _train(row) for sort in ("screws", "belts", "racks") for row in data[sort]}


def _train(row: dict[str, Any]) -> Train:
    parts = {
        name: Envelope(one["d_mm"] / 1e3, one.get("l_mm", row["nut_mm"]) / 1e3, one["kg"])
        for name, one in row["train"].items()
    }
    return Train(parts, row.get("motors", 1))
