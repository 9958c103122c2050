"""What the model may miss on a machine: what comparisons with solid bodies left over, and what was never compared."""

from unterbau.machine.kind import Kind
from unterbau.machine.machine import Machine, kind_of, parts
from unterbau.model.walls import has_walls
from unterbau.sections.section import section
from unterbau.structure.parts import Member

CLOSED = "up to 12 % softer or stiffer where rails sit on hollow members (solid bodies of eleven such members)"
OPEN = "up to 18 % where they sit on channels or I sections (one solid body)"
SLOTTED = "slot lips under guides and bolts only by the catalogue's spread, no solid body was compared"
FILLED = "up to 7 % stiffer where a fill is bonded, nothing where it comes loose"
BUILT = "holes, pockets, welds and play are left out and only make softer"
MEASURED = "no machine that was built and measured has been compared yet"


def may_miss(machine: Machine) -> str:
    """Return in one line what the model may miss on this machine, beside the band."""
    kind = kind_of(machine)
    found: list[str] = []
    for name, member in parts(machine):
        if isinstance(member, Member):
            found += _of_member(kind, name, member)
    return "May be missed: " + "; ".join([*dict.fromkeys(found), BUILT, MEASURED]) + "."


def _of_member(kind: Kind, name: str, member: Member) -> list[str]:
    if member.section_name.startswith(("tslot", "cprofile")):
        return [SLOTTED]
    if member.fill is not None and not has_walls(member):
        return [FILLED]
    if name in kind.carrying and has_walls(member):
        return [CLOSED if section(member.section).cavity is not None else OPEN]
    return []
