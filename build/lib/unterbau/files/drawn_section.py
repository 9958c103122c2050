"""A drawn section with its layers taken as materials where they are called by them."""

from unterbau.materials.material import Material, materials
from unterbau.sections.drawing import Drawing, solve_drawing
from unterbau.sections.solved import SolvedSection, Stuff


def layer_materials(drawing: Drawing) -> dict[str, Material]:
    """Return the material of each layer where all of several layers are called by a material, else nothing."""
    by_word = {word.lower(): one for one in materials().values() for word in (one.id, one.label)}
    layers = dict.fromkeys(layer for layer, _ in drawing.rings)
    if len(layers) < 2 or any(layer.lower() not in by_word for layer in layers):
        return {}
    return {layer: by_word[layer.lower()] for layer in layers}


def solve_drawn(drawing: Drawing, label: str) -> SolvedSection:
    """Return a drawn section with its values; takes seconds.

    Raises:
        InputError: The drawing has faults.
    """
    of = {layer: Stuff(one.id, one.E, one.rho) for layer, one in layer_materials(drawing).items()}
    return solve_drawing(drawing, label, of)
