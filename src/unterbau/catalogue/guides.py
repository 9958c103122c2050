"""Guides: profiled rails, wheels, bushings on shafts; stiffness of an installed block, sizes, masses."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from unterbau.band import Band, Level
from unterbau.catalogue.joints import Six
from unterbau.catalogue.tables import table
from unterbau.errors import InputError

Preload = Literal["light", "medium"]


@dataclass(frozen=True, slots=True)
class Block:
    """A guide block and its rail. SI units."""

    id: str
    label: str
    light: Band
    """Stiffness across the rail when installed, light preload, N/m."""
    medium: Band
    pitch: Band
    """Stiffness against pitching and yawing when installed, N·m/rad."""
    height: float
    """From the rail's seat to the block's top."""
    length: float
    width: float
    rail_width: float
    block_mass: float
    rail_mass: float
    """kg/m."""
    zeta: float
    source: str
    free: float = 0.0
    """Diameter of a shaft that is free between its ends, m; 0 where the rail is bolted down all along."""

    def springs(self, level: Level, preload: Preload) -> Six:
        """Return stiffness along the rail (free), sideways, off the rail; roll, pitch, yaw.

        Four rows of balls at 45° are as stiff sideways as off the rail; roll comes from the
        rows' distance, taken as the rail's width.
        """
        k = (self.light if preload == "light" else self.medium).at(level)
        pitch = self.pitch.at(level)
        return (0.0, k, k, k * (self.rail_width / 2) ** 2, pitch, pitch)


@lru_cache(maxsize=1)
def blocks() -> dict[str, Block]:
    """Return all block sizes by id, smallest first."""
    data = table("guides")
    installed = Band(*data["installed"])
    result = {}
    for row in data["blocks"]:
        result[row["id"]] = Block(
            id=row["id"],
            label=row["label"],
            light=_light(row, installed),
            medium=_light(row, installed) if "pair" in row else _installed(row["medium"], installed, 1e6),
            pitch=(Band(*row["pitch_pair"]).scaled(1e3) if "pair" in row else _installed(row["pitch"], installed, 1e3)),
            height=row["height_mm"] / 1e3,
            length=row["length_mm"] / 1e3,
            width=row["width_mm"] / 1e3,
            rail_width=row["rail_mm"] / 1e3,
            block_mass=row["block_kg"],
            rail_mass=row["rail_kg_m"],
            zeta=data["zeta"],
            free=row.get("free_mm", 0.0) / 1e3,
            source=row["source"] if "pair" in row else f"{row['source']}; {data['installed_source']}",
        )
    return result


def _light(row: dict[str, Any], installed: Band) -> Band:
    """Return the stiffness of a block with light preload, or of a pair of wheels as it is."""
    return Band(*row["pair"]).scaled(1e6) if "pair" in row else _installed(row["light"], installed, 1e6)


def _installed(values: list[float], installed: Band, unit: float) -> Band:
    low, high = values
    return Band(low * installed.low, (low + high) / 2 * installed.likely, high * installed.high).scaled(unit)


def block(name: str) -> Block:
    """Return a block size.

    Raises:
        InputError: There is no such size.
    """
    found = blocks().get(name)
    if found is None:
        raise InputError("guide", f'there is no guide "{name}"; known are {", ".join(blocks())}')
    return found
