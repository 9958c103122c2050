"""Guides: profiled rails, wheels, bushings on shafts; stiffness of an installed block, sizes, masses."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from unterbau.band import Band, Level
from unterbau.catalogue.joints import Six
from unterbau.catalogue.tables import table
from unterbau.errors import InputError

Preload = Literal["light", "medium"]
Under = Literal["granite", "iron", "steel", "aluminium", "tube", "profile", "timber"]
"""What lies under a rail: stone, cast iron, thick steel, thick aluminium, a thin tube whose wall is counted apart, a
bolted profile, timber."""


@lru_cache(maxsize=1)
def installed() -> dict[str, Band]:
    """Return what part of its own stiffness a block has on each ground."""
    return {name: Band(*row) for name, row in table("guides")["installed"].items()}


@dataclass(frozen=True, slots=True)
class Block:
    """A guide block and its rail. SI units."""

    id: str
    label: str
    light: Band
    """Stiffness across the rail by itself, light preload, N/m."""
    medium: Band
    pitch: Band
    """Stiffness against pitching and yawing by itself, N·m/rad."""
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
    profiled: bool = True
    """Whether what lies under its rail leaves it a part of its own stiffness only; wheels and bushings are as told."""

    rating: tuple[float, float] | None = None
    """Dynamic and static load rating, N; nothing of wheels, which are not rated."""
    rail_screws: tuple[str, float] | None = None
    """Size, and pitch along the rail, m; from memory."""
    block_screws: tuple[str, float, float] | None = None
    """Size of four, and how far apart across the rail and along it, m; narrow blocks, from memory."""

    def springs(self, level: Level, preload: Preload, under: Under = "profile") -> Six:
        """Return stiffness when installed: along the rail (free), sideways, off the rail; roll, pitch, yaw.

        Four rows of balls at 45° are as stiff sideways as off the rail; roll comes from the
        rows' distance, taken as the rail's width.
        """
        part = installed()[under].at(level) if self.profiled else 1.0
        k = (self.light if preload == "light" else self.medium).at(level) * part
        pitch = self.pitch.at(level) * part
        return (0.0, k, k, k * (self.rail_width / 2) ** 2, pitch, pitch)


@lru_cache(maxsize=1)
def blocks() -> dict[str, Block]:
    """Return all block sizes by id, smallest first."""
    data = table("guides")
    result = {}
    for row in data["blocks"]:
        result[row["id"]] = Block(
            id=row["id"],
            label=row["label"],
            light=_light(row),
            medium=_light(row) if "pair" in row else _between(row["medium"], 1e6),
            pitch=Band(*row["pitch_pair"]).scaled(1e3) if "pair" in row else _between(row["pitch"], 1e3),
            profiled="pair" not in row,
            height=row["height_mm"] / 1e3,
            length=row["length_mm"] / 1e3,
            width=row["width_mm"] / 1e3,
            rail_width=row["rail_mm"] / 1e3,
            block_mass=row["block_kg"],
            rail_mass=row["rail_kg_m"],
            zeta=data["zeta"],
            free=row.get("free_mm", 0.0) / 1e3,
            rating=(row["rating_kN"][0] * 1e3, row["rating_kN"][1] * 1e3) if row["rating_kN"] else None,
            rail_screws=(row["rail_screws"][0], row["rail_screws"][1] / 1e3) if "rail_screws" in row else None,
            block_screws=_pattern(row["block_screws"]) if "block_screws" in row else None,
            source=row["source"] if "pair" in row else f"{row['source']}; {data['installed_source']}",
        )
    return result


def _pattern(row: list[Any]) -> tuple[str, float, float]:
    size, across, along = row
    return size, across / 1e3, along / 1e3


def _light(row: dict[str, Any]) -> Band:
    """Return the stiffness of a block with light preload, or of a pair of wheels as it is."""
    return Band(*row["pair"]).scaled(1e6) if "pair" in row else _between(row["light"], 1e6)


def _between(values: list[float], unit: float) -> Band:
    low, high = values
    return Band(low, (low + high) / 2, high).scaled(unit)


def block(name: str) -> Block:
    """Return a block size.

    Raises:
        InputError: There is no such size.
    """
    found = blocks().get(name)
    if found is None:
        raise InputError("guide", f'there is no guide "{name}"; known are {", ".join(blocks())}')
    return found
