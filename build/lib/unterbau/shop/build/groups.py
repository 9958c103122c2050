"""Sub-assemblies: what stands still, and what each set of axes moves as one, from the ground up."""

from dataclasses import dataclass

from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Structure


@dataclass(frozen=True, slots=True)
class Group:
    """Pieces that move as one."""

    axes: str
    """That move it; nothing of what stands still."""
    pieces: tuple[str, ...]


def groups_of(structure: Structure) -> tuple[Group, ...]:
    """Return the sub-assemblies of a machine that are made of pieces, what stands still first."""
    found: dict[str, list[str]] = {}
    for step in structure.flat:
        if isinstance(step, Bar | PlatePiece):
            found.setdefault(step.carrier.axes, []).append(step.name)
    return tuple(Group(axes, tuple(names)) for axes, names in sorted(found.items(), key=lambda pair: len(pair[0])))
