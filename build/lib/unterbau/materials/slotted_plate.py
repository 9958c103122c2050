"""Extruded plates with T-slots: what a slot every so far leaves of a plain plate, along the slots and across them."""

from dataclasses import dataclass, replace
from functools import lru_cache

from unterbau.materials.material import Material, material

PITCH, THROAT, LIPS, CAVITY, DEEP = 1.25, 0.4, 0.225, 0.8, 0.375
"""Of usual ones, in thicknesses: between slots, the slot's opening and the lips beside it, the room for nuts under
them, how deep it is; from memory, makers differ."""


@dataclass(frozen=True, slots=True)
class SlottedPlate:
    """A plate of the same thickness that bends like one with slots."""

    material: Material
    """E and G along the slots, and what it weighs."""
    across: float
    """Stiffness across the slots against that along them."""


@lru_cache(maxsize=64)
def slotted_plate(name: str) -> SlottedPlate:
    """Return what plates with T-slots of a material bend and weigh like.

    Along the slots the section's own inertia; across them what is under the slots bends in series with what stands
    between them, the lips carry nothing; twist by the mean of the cubes of what is there.

    Raises:
        InputError: There is no such material.

    Source:
        Parallel axes, and strips in series (hand sum); in thicknesses, a pitch wide.
    """
    base = material(name)
    floor = 1.0 - LIPS - DEEP
    rows = ((PITCH, 1.0, 0.5), (-CAVITY, DEEP, floor + DEEP / 2), (-THROAT, LIPS, 1.0 - LIPS / 2))
    area = sum(wide * tall for wide, tall, _ in rows)
    middle = sum(wide * tall * z for wide, tall, z in rows) / area
    inertia = sum(wide * tall**3 / 12 + wide * tall * (z - middle) ** 2 for wide, tall, z in rows)
    along = inertia / (PITCH / 12)
    between = PITCH - CAVITY
    across = PITCH / (between + CAVITY / floor**3)
    twist = (between + THROAT * floor**3 + (CAVITY - THROAT) * (floor**3 + LIPS**3)) / PITCH
    words = f"{base.label}, T-slots"
    changed = replace(
        base, id=f"{base.id} with T-slots", label=words, E=base.E * along, G=base.G * twist,
        rho=base.rho * area / PITCH, source=f"{base.source}; slots by their shape, usual proportions from memory",
    )  # fmt: skip
    return SlottedPlate(changed, across / along)
