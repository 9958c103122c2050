"""What candidates can be drawn by: any answer against any other."""

from collections.abc import Callable
from dataclasses import dataclass

from unterbau.band import Band
from unterbau.catalogue.prices import PriceBook
from unterbau.studies.compare import Figures
from unterbau.studies.designs import Design
from unterbau.units import Units, in_units, unit_text

PULL = "pull"


@dataclass(frozen=True, slots=True)
class Quantity:
    """One answer of a candidate."""

    key: str
    words: str
    unit: str
    """Metric; nothing of money, which has its currency."""
    per: float
    """Of SI to that unit."""
    value: Callable[[Figures, int], Band]
    """Of a candidate, pulled along an axis."""
    more: bool = True
    """Whether more of it is better."""

    def read(self, found: Figures, axis: int, units: Units) -> Band:
        """Return it as it is read."""
        scale = in_units(self.per, self.unit, units)[0] if self.unit else self.per
        band = self.value(found, axis).scaled(scale)
        low, high = band.ends
        return Band(low, band.likely, high)

    def title(self, axis: str, book: PriceBook, units: Units) -> str:
        """Return what stands at the axis of a picture."""
        words = f"stiffness along {axis}" if self.key == PULL else self.words
        return f"{words}, {unit_text(self.unit, units) if self.unit else book.currency}"

    def axis_of(self, pulled: int) -> int | None:
        """Return the axis that it is a stiffness along; nothing of others."""
        if self.key == PULL:
            return pulled
        return "xyz".index(self.key) if self.key in ("x", "y", "z") else None


def _fixed(value: float) -> Band:
    return Band(value, value, value)


def _along(axis: int) -> Callable[[Figures, int], Band]:
    return lambda f, _axis: f.answers.stiffness[axis]


QUANTITIES: tuple[Quantity, ...] = (
    Quantity(PULL, "stiffness as pulled", "N/µm", 1e-6, lambda f, axis: f.answers.stiffness[axis]),
    *(Quantity(name.lower(), f"stiffness along {name}", "N/µm", 1e-6, _along(n)) for n, name in enumerate("XYZ")),
    Quantity("least", "least stiffness", "N/µm", 1e-6, lambda f, _: min(f.answers.worst, key=lambda b: b.likely)),
    Quantity("droop", "droop", "µm", 1e6, lambda f, _: f.answers.droop, False),
    Quantity("shake", "first mode", "Hz", 1.0, lambda f, _: f.frequency or _fixed(0.0)),
    Quantity("mass", "mass", "kg", 1.0, lambda f, _: _fixed(f.answers.likely.mass), False),
    Quantity("money", "money", "", 1.0, lambda f, _: _fixed(f.cost.money), False),
)


def of_design(key: str, design: Design, pulled: int) -> float | None:
    """Return a quantity of a design that a search found, SI; None of those that it does not solve for."""
    axis = quantity(key).axis_of(pulled)
    if axis is not None:
        return design.stiffness[axis]
    return {"mass": design.mass, "money": design.money}.get(key)


def quantity(key: str) -> Quantity:
    """Return a quantity by its key."""
    return next(one for one in QUANTITIES if one.key == key)


def unbeaten(dots: list[tuple[float, float]], more: tuple[bool, bool]) -> list[int]:
    """Return which of some points none of the others beats in both, from left to right."""
    signs = tuple(1.0 if one else -1.0 for one in more)
    better = [(x * signs[0], y * signs[1]) for x, y in dots]
    found = [
        n for n, a in enumerate(better)
        if not any(b[0] >= a[0] and b[1] >= a[1] and b != a for b in better)
    ]  # fmt: skip
    return sorted(found, key=lambda n: dots[n])
