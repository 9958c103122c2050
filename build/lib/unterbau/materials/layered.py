"""Two plates glued flat on one another, as one plate that bends like both together."""

from dataclasses import replace
from functools import lru_cache

from unterbau.materials.material import Material, material


@lru_cache(maxsize=256)
def layered(upper: str, lower: str, thickness: float, below: float) -> Material:
    """Return what a plate of two glued layers is made of, as a plate of its whole thickness.

    E and G are those of bending about the common middle of stiffness; stretched, it is as stiff to within a fifth for
    timber on timber. The bow of unlike layers in warmth or damp is left out.

    Args:
        upper: Material on top.
        lower: Material below.
        thickness: Of both, m.
        below: Of the lower layer, m.

    Raises:
        InputError: There is no such material.

    Source:
        Transformed section (Gere & Goodno, Mechanics of Materials, composite beams; from memory).
    """
    a, b = material(upper), material(lower)
    above = thickness - below
    E, G = (12 * _bent((x, above), (y, below)) / thickness**3 for x, y in ((a.E, b.E), (a.G, b.G)))
    stretch = (a.E * above, b.E * below)
    share = stretch[0] / sum(stretch)
    return replace(
        a, id=f"{a.id} on {b.id}", label=f"{a.label} on {b.label}", E=E, G=G,
        rho=(a.rho * above + b.rho * below) / thickness, zeta=share * a.zeta + (1 - share) * b.zeta,
        alpha=share * a.alpha + (1 - share) * b.alpha, source=f"{a.source}; {b.source}; layers glued, as one section",
    )  # fmt: skip


def _bent(upper: tuple[float, float], lower: tuple[float, float]) -> float:
    """Return ∫E·z² per width of two layers about their common middle; of each E and thickness."""
    (Ea, ta), (Eb, tb) = upper, lower
    za, zb = tb + ta / 2, tb / 2
    middle = (Ea * ta * za + Eb * tb * zb) / (Ea * ta + Eb * tb)
    return sum(E * (t**3 / 12 + t * (z - middle) ** 2) for E, t, z in ((Ea, ta, za), (Eb, tb, zb)))
