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

SEALED = 0.4
"""Of that, what is left behind sealed faces and edges over a season: they slow the damp, none keeps it out; from
memory."""


def lasting_checks(machine: Machine) -> list[Check]:
    """Return a check for each part of plastic or timber; they are watched, never failed: it depends on care."""
    found = []
    made = [(key, part, name) for key, part in parts(machine) for name in _made_of(part)]
    for key, part, made_of in made:
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
                _grows(part, made_of), nan, "watch",
                ("" if _sealed(part) else "seal all faces and edges alike; ")
                + "surface it again when the room has settled; aluminium where it has to stay flat",
                "common practice, values from memory",
            ))  # fmt: skip
    return found


def _made_of(part: Part) -> tuple[str, ...]:
    """Return what of a part lasts or not: `plastic`, or the material's name."""
    if isinstance(part, Joint):
        return ("plastic",) if part.kind == "printed" else ()
    if isinstance(part, Member | Plate):
        lower = (part.under,) if isinstance(part, Plate) and part.under and part.under != part.material else ()
        cards = (material(name) for name in (part.material, *lower))
        return tuple("plastic" if card.kind == "plastic" else card.id for card in cards)
    return ()


def _sealed(part: Part) -> bool:
    return isinstance(part, Plate) and part.sealed


def _grows(part: Part, made_of: str) -> str:
    if _sealed(part):
        share = SWELLS[made_of] * SEALED
        return f"sealed: grows by about {share:.1%} across in a damp season; unsealed {SWELLS[made_of]:.1%}"
    return f"grows by about {SWELLS[made_of]:.1%} across between dry and damp"
