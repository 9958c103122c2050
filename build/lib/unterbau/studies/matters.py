"""Whose doubt a band is: how much of it each joint, guide, drive and material owns, and what is left once known."""

from dataclasses import dataclass

import numpy as np

from unterbau.machine.machine import Machine, links
from unterbau.studies.bands import ENDS, Pieces, components
from unterbau.studies.compliance import Solved
from unterbau.studies.loads import TIP

LEAST = 0.05
"""Owners of less are not named."""


@dataclass(frozen=True, slots=True)
class Owner:
    """One link's part in a band."""

    key: str
    label: str
    share: float
    """Of the variance of the tool's give."""
    narrower: float
    """By how much the band would be narrower if its stiffness were known: 0.3 is by three tenths."""


def owners(machine: Machine, solved: Solved, uncertain: Pieces, axis: int) -> tuple[Owner, ...]:
    """Return who owns the doubt of a solved machine's stiffness along an axis, the largest first."""
    u = solved.statics.u[TIP][axis : axis + 1]
    parts = components(solved, u, u)[0]
    each = np.einsum("gs,gsn->gn", parts, uncertain.flexibility)
    whole = each.sum(axis=0)
    width = _width(whole)
    labels = {one.key: one.label for one in links(machine)}
    variance = each.var(axis=1)
    total = float(variance.sum())
    if total <= 0.0:
        return ()
    names = solved.statics.system.elements.frame.groups
    found = []
    for n in np.argsort(-variance).tolist():
        share = float(variance[n]) / total
        if share < LEAST:
            break
        known = whole - each[n] + float(parts[n].sum())
        label = labels.get(names[n], names[n].replace("_", " "))
        found.append(Owner(names[n], label, share, 1.0 - _width(known) / width))
    return tuple(found)


def _width(give: np.ndarray) -> float:
    low, high = np.percentile(1.0 / give, ENDS)
    return float(high - low)


def matters_words(found: tuple[Owner, ...]) -> str:
    """Return whose doubt it is in a sentence; nothing where nobody owns much."""
    if not found:
        return ""
    named = ", ".join(f"{one.share:.0%} {one.label}" for one in found[:3])
    first = found[0]
    less = max(first.narrower, 0.0)
    return f"whose doubt it is: {named}; with {first.label} measured, the band is {less:.0%} narrower"
