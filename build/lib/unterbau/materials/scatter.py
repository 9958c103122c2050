"""How far the stiffness of a material is known."""

from unterbau.band import Band
from unterbau.materials.material import Material

BY_KIND = {
    "steel": Band(0.97, 1.0, 1.03), "aluminium": Band(0.97, 1.0, 1.03), "brass": Band(0.97, 1.0, 1.03),
    "carbide": Band(0.97, 1.0, 1.03), "iron": Band(0.9, 1.0, 1.1), "timber": Band(0.85, 1.0, 1.15),
    "stone": Band(0.85, 1.0, 1.15), "plastic": Band(0.8, 1.0, 1.2),
}  # fmt: skip
"""E and G of a delivered part against its card, nine tenths of them; metals by their standards, others from memory."""
TAMPED = Band(0.6, 1.0, 1.1)
"""Of a mix that is tamped by hand: 15 to 25 GPa, against 28 to 33 where it is vibrated; from memory."""


def scatter(card: Material) -> Band:
    """Return the spread of a material's stiffness as factors."""
    if card.id.startswith("epoxy-granite"):
        return TAMPED
    return BY_KIND.get(card.kind, Band(0.85, 1.0, 1.15))
