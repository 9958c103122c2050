"""Where gussets are held, of their legs."""

from unterbau.structure.parts import Joint

PLACES = (1 / 6, 1 / 2, 5 / 6)
"""Where each leg is held, of its length."""
OF_LEG = 0.12
"""Half of each such place, of the leg."""


def gusset_stops(chosen: Joint) -> tuple[float, ...]:
    """Return where a part needs nodes for its gussets, m from its end."""
    return tuple(chosen.gusset_leg * place for place in PLACES) if chosen.gussets else ()
