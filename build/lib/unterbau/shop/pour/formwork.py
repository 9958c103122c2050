"""What wet mixes do to a form: pressure, boards that bow, the hump of a bed, braces, cores that float."""

from dataclasses import dataclass
from typing import Literal

from unterbau.errors import InputError

G = 9.81
Held = Literal["one span", "clamped", "several spans"]
BOWS: dict[Held, float] = {"one span": 5 / 384, "clamped": 1 / 384, "several spans": 1 / 145}
"""c of w = c·q·L⁴/(E·I); several spans: the worst of three or more (ACI 347, recalled without the document open)."""


@dataclass(frozen=True, slots=True)
class Panel:
    """A board of a form."""

    name: str
    pressure: float
    """At its lowest, Pa: the full fluid head; under a slab its whole weight."""
    bows: float
    """Between two braces, m."""
    brace: float
    """Between braces, m."""
    for_flatness: float
    """Braces so far apart would keep it as flat as wanted, m."""


def pressure(density: float, head: float) -> float:
    """Return the pressure of a wet mix of a density below a head, Pa: full fluid head."""
    return density * G * head


def bow(load: float, span: float, thickness: float, E: float, held: Held = "one span") -> float:
    """Return how far a board bows between two braces, m.

    Args:
        load: Pa.
        span: Between braces, m.
        thickness: Of the board, m.
        E: Of the board along its span, Pa.
        held: How it goes on beyond the braces.

    Source:
        A strip as a beam, w = c·q·L⁴/(E·I) with I = t³/12 a metre of width.
    """
    return BOWS[held] * load * span**4 / (E * thickness**3 / 12)


def span_for(load: float, flatness: float, thickness: float, E: float, held: Held = "one span") -> float:
    """Return how far apart braces may stand for a board to bow no more than a flatness, m."""
    if flatness <= 0.0 or load <= 0.0:
        raise InputError("flatness", "expected more than 0")
    return float((flatness * E * thickness**3 / 12 / (BOWS[held] * load)) ** 0.25)


def lift_of(volume: float, density: float) -> float:
    """Return how strongly a core of a volume is lifted by a wet mix, N, less nothing: cores are hollow or light."""
    return volume * density * G


def panels(
    density: float, height: float, thickness: float, E: float, brace: float, flatness: float
) -> tuple[Panel, ...]:
    """Return the boards of a box form: its sides under the full head, its bed under the whole weight."""
    load = pressure(density, height)
    apart = span_for(load, flatness, thickness, E)
    bowed = bow(load, brace, thickness, E)
    return (
        Panel("sides, at their lowest", load, bowed, brace, apart),
        Panel("bed: the hump of the face that is cast against it", load, bowed, brace, apart),
    )
