"""Sections of one's own by their dimensions: a shape and its sizes make a name, and back."""

from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.sections.section import Section, section
from unterbau.sections.solved import SectionRef, section_name


@dataclass(frozen=True, slots=True)
class Shape:
    """A shape and the sizes that make it, in the order of its name."""

    id: str
    label: str
    sizes: tuple[str, ...]


SHAPES = (
    Shape("shs", "square tube", ("side", "wall")),
    Shape("rhs", "rectangular tube", ("height", "width", "wall")),
    Shape("chs", "round tube", ("diameter", "wall")),
    Shape("box", "box of plates", ("height", "width", "wall")),
    Shape("flat", "solid bar", ("height", "width")),
    Shape("rod", "solid round", ("diameter",)),
    Shape("angle", "angle", ("height", "width", "wall")),
)
"""Shapes with free sizes; rolled and slotted ones come as they are."""


def shape(name: str) -> Shape:
    """Return a shape by its id."""
    return next(one for one in SHAPES if one.id == name)


def shape_of(of: SectionRef) -> Shape:
    """Return the shape nearest to a section's: its own, or a solid bar for those that come as they are."""
    kind = section_name(of).split("-")[0]
    return next((one for one in SHAPES if one.id == kind), shape("flat"))


def sizes_of(of: SectionRef) -> dict[str, float]:
    """Return the sizes to start from, m: a section's own, or height and width of its outside."""
    kind, _, rest = section_name(of).partition("-")
    found = shape_of(of)
    if found.id != kind:
        whole = section(of)
        return {"height": round(whole.height, 5), "width": round(whole.width, 5)}
    values = [float(part) / 1e3 for part in rest.removesuffix("-hot").split("x")]
    if found.id == "shs":
        values = values[1:]
    return dict(zip(found.sizes, values, strict=True))


def converted(of: SectionRef, to: Shape) -> dict[str, float]:
    """Return sizes for another shape that keeps the outside and the wall of a section, m."""
    now = sizes_of(of)
    whole = section(of)
    wall = now.get("wall", round(max(0.002, min(whole.height, whole.width) / 12), 3))
    known = {
        "height": whole.height, "width": whole.width, "side": max(whole.height, whole.width),
        "diameter": max(whole.height, whole.width), "wall": wall,
    }  # fmt: skip
    return {size: round(known[size], 5) for size in to.sizes}


def section_of(kind: Shape, sizes: dict[str, float]) -> Section:
    """Return the section of a shape with given sizes.

    Args:
        kind: The shape.
        sizes: Each of its sizes, m.

    Raises:
        InputError: Sizes that make no such section; `where` is the size at fault where one is.
    """
    for name in kind.sizes:
        if not sizes[name] > 0.0:
            raise InputError(name, "expected more than nothing")
    wall = sizes.get("wall")
    outside = min(value for name, value in sizes.items() if name in kind.sizes and name != "wall")
    if wall is not None and 2 * wall >= outside:
        raise InputError("wall", f"expected less than half of {outside * 1e3:g} mm")
    values = [sizes[name] for name in kind.sizes]
    if kind.id == "shs":
        values = [values[0], *values]
    return section(f"{kind.id}-{'x'.join(f'{round(value * 1e3, 2):g}' for value in values)}")
