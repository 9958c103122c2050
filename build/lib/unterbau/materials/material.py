"""Material cards by id."""

import json
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files

from unterbau.errors import InputError


@dataclass(frozen=True, slots=True)
class Material:
    """One material. SI units."""

    id: str
    label: str
    kind: str
    """Chooses tint and hatching: steel, iron, aluminium, brass, stone, timber, plastic, carbide."""
    E: float
    G: float
    rho: float
    zeta: float
    """Damping ratio, half the middle of the loss factor's range."""
    alpha: float
    """Thermal expansion, 1/K; from memory, the middle of the usual range."""
    source: str


@lru_cache(maxsize=1)
def materials() -> dict[str, Material]:
    """Return all cards by id, in the order they are offered."""
    text = (files("unterbau.materials") / "cards.json").read_text(encoding="utf-8")
    return {
        row["id"]: Material(
            row["id"], row["label"], row["kind"], row["E_GPa"] * 1e9, row["G_GPa"] * 1e9,
            float(row["rho"]), sum(row["eta"]) / 4, row["alpha"] * 1e-6, row["source"],
        )
        for row in json.loads(text)
    }  # fmt: skip


def material(name: str) -> Material:
    """Return a card.

    Raises:
        InputError: There is no such material.
    """
    found = materials().get(name)
    if found is None:
        raise InputError("material", f'there is no material "{name}"; known are {", ".join(materials())}')
    return found
