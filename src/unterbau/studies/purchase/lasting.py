"""What bears a load for years: printed parts creep, timber works with the weather."""

from math import nan

from unterbau.machine.machine import Machine, link, parts
from unterbau.materials.material import material
from unterbau.structure.parts import Joint, Member, Part, Plate
from unterbau.studies.purchase.check import Check

CREEPS = 3.0
"""Times its first give that a printed part gives under a load that lasts, after months; from memory, 2 to 5."""
SWELLS = {"mdf": 0.03, "birch-ply": 0.015, "beech": 0.08}
"""Share of its thickness, or across the grain, that timber grows from a dry to a damp room; from memory."""


def lasting_checks(machine: Machine) -> list[Check]:
    """Return a check for each part of plastic or timber; they are watched, never failed: it depends on care."""
    found = []
    for key, part in parts(machine):
        made_of = _made_of(part)
        if made_of == "plastic":
            found.append(Check(
                key, f"{link(machine, key).label}, creep", "printed or of plastic, under a load that lasts",
                f"what is first answered gives about {CREEPS:g} times as much after months, more where it is warm",
                nan, "watch",
                "metal where weight, belt tension or clamping stay on it; thick walls, full infill, a washer as wide "
                "as it can be; tighten again after a week",
                "creep of PETG and PLA at room temperature, 2 to 5 times, from memory",
            ))  # fmt: skip
        elif made_of in SWELLS:
            found.append(Check(
                key, f"{link(machine, key).label}, moisture",
                f"{material(made_of).label} in a room that is now damp, now dry",
                f"grows by about {SWELLS[made_of]:.1%} across between dry and damp", nan, "watch",
                "seal all faces and edges alike; surface it again when the room has settled; aluminium where it has to "
                "stay flat",
                "common practice, values from memory",
            ))  # fmt: skip
    return found


def _made_of(part: Part) -> str:
    if isinstance(part, Joint):
        return "plastic" if part.kind == "printed" else ""
    if isinstance(part, Member | Plate):
        card = material(part.material)
        return "plastic" if card.kind == "plastic" else card.id
    return ""
