"""The next smaller and larger of anything: sections, plates, blocks, screws, cutters."""

from dataclasses import replace

from unterbau.catalogue.drives import drives
from unterbau.catalogue.guides import blocks
from unterbau.sections.section import neighbours
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Part, Plate

THICKNESSES = tuple(t / 1e3 for t in (3, 4, 5, 6, 8, 10, 12, 15, 18, 20, 22, 24, 25, 30, 35, 40, 45, 50, 60, 80, 100))
DIAMETERS = tuple(d / 1e3 for d in (1, 1.5, 2, 3, 3.175, 4, 5, 6, 6.35, 8, 10, 12, 16, 20))


def step(part: Part, up: bool) -> Part | None:
    """Return the part one size larger or smaller, or None at the end of its family."""
    match part:
        case Member():
            smaller, larger = neighbours(part.section)
            name = larger if up else smaller
            return replace(part, section=name) if name else None
        case Plate():
            size = _next(THICKNESSES, part.thickness, up)
            return replace(part, thickness=size) if size else None
        case Cutter():
            size = _next(DIAMETERS, part.diameter, up)
            return replace(part, diameter=size) if size else None
        case Guide():
            name = _neighbour(tuple(blocks()), part.block, up)
            return replace(part, block=name) if name else None
        case Drive():
            name = _neighbour(tuple(drives()), part.kind, up)
            return replace(part, kind=name) if name else None
        case Joint():
            count = part.count + (1 if up else -1)
            return replace(part, count=count) if 1 <= count <= 24 else None
        case _:
            return None


def _next(sizes: tuple[float, ...], now: float, up: bool) -> float | None:
    if up:
        return next((s for s in sizes if s > now * 1.0001), None)
    return next((s for s in reversed(sizes) if s < now * 0.9999), None)


def _neighbour(names: tuple[str, ...], now: str, up: bool) -> str | None:
    place = names.index(now) + (1 if up else -1)
    return names[place] if 0 <= place < len(names) else None
