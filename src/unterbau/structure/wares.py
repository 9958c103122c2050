"""Lines of the list of parts for what is made: members and plates."""

from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.structure.line import Line
from unterbau.structure.parts import Member, Plate
from unterbau.structure.weights import bar_mass, fill_mass

SLOTTED = ("tslot", "cprofile")


def member_lines(key: str, member: Member, count: int, length: float) -> tuple[Line, ...]:
    """Return a member's lines on the list of parts: itself, and its fill."""
    shape, base = section(member.section), material(member.material)
    sort = "slotted" if member.section_name.startswith(SLOTTED) else "bar"
    names = (f"section:{member.section_name}", f"{sort}:{base.id}", f"{sort}:{base.kind}", f"bar:{base.kind}")
    own = bar_mass(member) * length * count
    lines = [Line(key, f"{shape.label}, {base.label}", count, length, own, names)]
    if member.fill is not None:
        inside, mass = material(member.fill), fill_mass(member) * length * count
        lines.append(
            Line(key, f"fill, {inside.label}", count, length, mass, (f"fill:{inside.id}", f"fill:{inside.kind}"))
        )
    return tuple(lines)


def plate_line(key: str, plate: Plate, count: int, width: float, length: float) -> Line:
    """Return a plate's line on the list of parts."""
    base = material(plate.material)
    mass = base.rho * plate.thickness * width * length * count
    text = f"plate {plate.thickness * 1e3:g} mm, {base.label}"
    return Line(key, text, count, length, mass, plate_names(plate.material), width)


def plate_names(material_name: str) -> tuple[str, ...]:
    """Return what a plate of a material is called in the price book."""
    base = material(material_name)
    return (f"plate:{base.id}", f"plate:{base.kind}")
