"""Quantities as people type them, and as they like to read them."""

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from unterbau.errors import InputError

Units = Literal["mm", "inch"]
Kind = Literal["length", "force", "mass", "money", "plain"]

_ALIASES = {
    "length": {"mm": "mm", "cm": "cm", "m": "m", "µm": "um", "μm": "um", "um": "um", "in": "inch",
               "inch": "inch", "inches": "inch", '"': "inch", "″": "inch", "ft": "foot", "'": "foot",
               "′": "foot", "foot": "foot", "feet": "foot", "thou": "thou"},
    "force": {"N": "newton", "n": "newton", "kN": "kilonewton", "kgf": "kgf", "lbf": "lbf", "lb": "lbf"},
    "mass": {"kg": "kilogram", "g": "gram", "lb": "pound", "lbs": "pound"},
    "money": {},
    "plain": {},
}  # fmt: skip
_BASE = {"length": "m", "force": "newton", "mass": "kilogram", "money": "", "plain": ""}
_EXAMPLES = {
    "length": 'a length such as 12, 12 mm, 1/2 in, 3 3/8", 2 ft 6 or 1250-2*40',
    "force": "a force such as 100, 100 N or 20 lbf",
    "mass": "a mass such as 2.5, 2.5 kg or 5 lb",
    "money": "an amount such as 1200 or 1200 EUR",
    "plain": "a number",
}
BARE = {
    "mm": {"length": "mm", "force": "N", "mass": "kg"}, "inch": {"length": "in", "force": "lbf", "mass": "lb"},
}  # fmt: skip
"""What a number without a unit is taken as."""
LONGEST = 120
"""Letters of a quantity."""
DEEPEST = 20
"""Brackets and signs in one another."""
MOST = 1e15
"""No quantity of a machine is beyond it, in SI units."""
_CURRENCY = re.compile(r"[€$£¥]|(?<![A-Za-z])[A-Za-z]{3}(?![A-Za-z])")
_THOUSANDS = re.compile(r"(\d{1,3}(?:,\d{3})+|\d{1,3}(?:\.\d{3})+)((?:[.,]\d{1,2})?)")
"""An amount of money with its thousands apart: no amount has three decimals."""
_FOOT_INCH = re.compile(r"('|′|ft|feet|foot)\s*-\s*(?=\d)")
"""A dash between feet and inches, as in 5'-6": it takes nothing away."""
_BINARY = r"(\d+/(?:2|4|8|16|32|64))"
_MIXED_INCH = re.compile(rf"(?<![\d./])(\d+)-{_BINARY}(?=\s*(?:in\b|inch|\"|″))")
_MIXED_ANY = re.compile(rf"(?<![\d./])(\d+)-{_BINARY}(?![\d/])")
"""A dash between whole inches and a binary fraction, as in 3-3/8; without a unit where inches are shown."""
_TOKEN = re.compile(r"\s*(?:(\d+(?:[.,]\d+)?|[.,]\d+)|([a-zA-Zµμ]+|[\"'″′])|([-+*/()×]))")


@lru_cache(maxsize=1)
def _registry() -> Any:
    import pint

    return pint.UnitRegistry(cache_folder=None)


@lru_cache(maxsize=64)
def factor(kind: Kind, unit: str) -> float:
    """Return the factor from a unit as typed to SI."""
    return float(_registry().Quantity(1.0, _ALIASES[kind][unit]).to(_BASE[kind]).magnitude)


@dataclass(frozen=True, slots=True)
class _Value:
    number: float
    has_unit: bool


class _Parser:
    def __init__(self, text: str, kind: Kind, bare: str) -> None:
        self.text, self.kind, self.bare = text, kind, bare
        self.tokens: list[tuple[str, str]] = []
        self.place = self.depth = 0
        at = 0
        stripped = text.rstrip()
        while at < len(stripped):
            match = _TOKEN.match(stripped, at)
            if not match:
                raise self.error()
            names = ("number", "unit", "sign")
            self.tokens += [(n, g) for n, g in zip(names, match.groups(), strict=True) if g]
            at = match.end()

    def error(self) -> InputError:
        return InputError("", f"expected {_EXAMPLES[self.kind]}")

    def peek(self, ahead: int = 0) -> tuple[str, str]:
        place = self.place + ahead
        return self.tokens[place] if place < len(self.tokens) else ("end", "")

    def take(self) -> tuple[str, str]:
        token = self.peek()
        self.place += 1
        return token

    def read(self) -> float:
        value = self.sum()
        if self.peek()[0] != "end":
            raise self.error()
        return self.with_unit(value).number

    def with_unit(self, value: _Value) -> _Value:
        if value.has_unit or self.kind in ("plain", "money"):
            return value
        return _Value(value.number * factor(self.kind, self.bare), True)

    def sum(self) -> _Value:
        value = self.product()
        while self.peek()[1] in ("+", "-") and self.peek()[0] == "sign":
            sign = 1.0 if self.take()[1] == "+" else -1.0
            other = self.product()
            if value.has_unit != other.has_unit:
                value, other = self.with_unit(value), self.with_unit(other)
            value = _Value(value.number + sign * other.number, value.has_unit)
        return value

    def product(self) -> _Value:
        value = self.item()
        while self.peek() in (("sign", "*"), ("sign", "×"), ("sign", "/")):
            divide = self.take()[1] == "/"
            other = self.item()
            if (other.has_unit and divide) or (other.has_unit and value.has_unit):
                raise self.error()
            if divide and other.number == 0.0:
                raise InputError("", "division by zero")
            number = value.number / other.number if divide else value.number * other.number
            value = _Value(number, value.has_unit or other.has_unit)
        return value

    def item(self) -> _Value:
        name, text = self.take()
        if (name, text) in (("sign", "-"), ("sign", "(")):
            self.depth += 1
            if self.depth > DEEPEST:
                raise self.error()
            inner = self.item() if text == "-" else self.sum()
            if text == "(" and self.take() != ("sign", ")"):
                raise self.error()
            self.depth -= 1
            return _Value(-inner.number, inner.has_unit) if text == "-" else inner
        if name != "number":
            raise self.error()
        value = self.measure(self.mixed(float(text.replace(",", "."))))
        while value.has_unit and self.peek()[0] == "number":
            last = self.peek(-1)[1]
            after = self.mixed(float(self.take()[1].replace(",", ".")))
            small = self.measure(after)
            if not small.has_unit:
                if self.kind != "length" or _ALIASES["length"].get(last) != "foot":
                    raise self.error()
                small = _Value(after * factor("length", "in"), True)
            value = _Value(value.number + small.number, True)
        return value

    def mixed(self, number: float) -> float:
        """Return a whole number with a fraction behind it (3 3/8) or a fraction (1/2)."""
        shape = [self.peek(n)[0] for n in range(3)]
        if shape == ["number", "sign", "number"] and self.peek(1)[1] == "/" and number % 1.0 == 0.0:
            top, bottom = float(self.peek(0)[1].replace(",", ".")), float(self.peek(2)[1].replace(",", "."))
            if bottom:
                self.place += 3
                return number + top / bottom
        if self.peek() == ("sign", "/") and self.peek(1)[0] == "number" and self.peek(2)[0] == "unit":
            bottom = float(self.peek(1)[1].replace(",", "."))
            if bottom:
                self.place += 2
                return number / bottom
        return number

    def measure(self, number: float) -> _Value:
        name, text = self.peek()
        if name != "unit":
            return _Value(number, False)
        if text not in _ALIASES[self.kind]:
            raise self.error()
        self.place += 1
        return _Value(number * factor(self.kind, text), True)


def parse(text: str, kind: Kind, units: Units = "mm") -> float:
    """Return a typed quantity in SI units.

    Args:
        text: What was typed.
        kind: What it should be; numbers without a unit are mm, N, kg, or inches, lbf, lb.
        units: In which quantities are shown at the moment.

    Raises:
        InputError: Says what was expected; also of what is too long, too deep in brackets, or no number one can use.
    """
    bare = BARE[units].get(kind, "")
    if not text.strip():
        raise InputError("", f"expected {_EXAMPLES[kind]}")
    if len(text) > LONGEST:
        raise InputError("", f"expected {_EXAMPLES[kind]}, in at most {LONGEST} letters")
    value = _Parser(_plain(text, kind, units), kind, bare).read()
    if not abs(value) <= MOST:
        raise InputError("", f"expected {_EXAMPLES[kind]}, less than {MOST:g} in SI units")
    return value


def _plain(text: str, kind: Kind, units: Units) -> str:
    """Return a text with signs, spaces and ways of writing that mean the same brought into one form."""
    text = text.replace("−", "-").replace("\u00a0", " ").replace("\u202f", " ").replace("\u2009", " ")
    if kind == "money":
        text = _CURRENCY.sub("", text).strip()
        grouped = _THOUSANDS.fullmatch(text)
        return text if grouped is None else f"{re.sub('[,.]', '', grouped[1])}{(grouped[2] or '').replace(',', '.')}"
    if kind == "length":
        text = _FOOT_INCH.sub(r"\1 ", text)
        mixed = _MIXED_INCH if units == "mm" else _MIXED_ANY
        text = mixed.sub(r"\1 \2", text)
    return text


def length_text(value: float, units: Units, with_unit: bool = True) -> str:
    """Return a length for reading: millimetres to 0.1, inches to 0.001."""
    if units == "mm":
        number = f"{value * 1e3:.1f}".rstrip("0").rstrip(".")
        return f"{number} mm" if with_unit else number
    number = f"{value / 0.0254:.3f}".rstrip("0").rstrip(".")
    return f"{number} in" if with_unit else number


def two_told(one: float, other: float) -> tuple[str, str]:
    """Return two numbers for reading, with as many more digits as it takes to tell them apart."""
    a, b = number_text(one), number_text(other)
    for digits in (3, 4, 5):
        if a != b or one == other:
            break
        a, b = f"{one:.{digits}g}", f"{other:.{digits}g}"
    return a, b


def movement_text(value: float, units: Units) -> str:
    """Return a small movement: µm, or thousandths of an inch."""
    if units == "mm":
        micron = value * 1e6
        return f"{micron:.1f} µm" if abs(micron) < 9.95 else f"{micron:.0f} µm"
    return f"{value / 25.4e-6:.2f} thou"


def tolerance_text(value: float, units: Units) -> str:
    """Return a tolerance, m, as a workshop says it: millimetres or thou, two figures."""
    return f"{value * 1e3:.2g} mm" if units == "mm" else f"{value / 25.4e-6:.2g} thou"


def number_text(value: float, digits: int = 2) -> str:
    """Return a number with about so many significant digits and no exponent."""
    if value == 0.0:
        return "0"
    size = abs(value)
    decimals = max(0, digits - 1 - _magnitude(size))
    return f"{value:.{decimals}f}"


def _magnitude(size: float) -> int:
    from math import floor, log10

    return floor(log10(size) + 1e-9)


LBF, INCH, POUND = 4.4482216152605, 0.0254, 0.45359237
FOOT = 12 * INCH
_IN_INCHES = {
    "N/µm": ("lbf/thou", 1e6 / LBF * INCH / 1e3), "N": ("lbf", 1 / LBF), "kg": ("lb", 1 / POUND),
    "N·m": ("lbf·ft", 1 / LBF / FOOT), "kN·m": ("lbf·ft", 1e3 / LBF / FOOT),
    "kN·m/rad": ("lbf·ft/mrad", 1 / LBF / FOOT), "kN·m²": ("klbf·ft²", 1 / LBF / FOOT**2), "MN": ("klbf", 1e3 / LBF),
    "MN/m": ("klbf/in", 1e3 / LBF * INCH), "N/mm²": ("psi", 1e6 / LBF * INCH**2),
    "GPa": ("Mpsi", 1e3 / LBF * INCH**2), "kg/m": ("lb/ft", FOOT / POUND), "kg/m³": ("lb/ft³", FOOT**3 / POUND),
    "cm⁴": ("in⁴", 1e-8 / INCH**4), "cm²": ("in²", 1e-4 / INCH**2), "m/s²": ("ft/s²", 1 / FOOT),
    "m/min": ("ft/min", 1 / FOOT), "cm": ("in", 1e-2 / INCH), "m": ("ft", 1 / FOOT),
}  # fmt: skip
"""What those who think in inches call a unit, and how many of theirs one is."""


def in_units(value: float, unit: str, units: Units) -> tuple[float, str]:
    """Return a value in a metric unit, and the unit, as they are read; a unit that all share stays."""
    if units == "mm" or unit not in _IN_INCHES:
        return value, unit
    name, many = _IN_INCHES[unit]
    return value * many, name


def unit_text(unit: str, units: Units) -> str:
    """Return what a metric unit is called where other units are read."""
    return in_units(0.0, unit, units)[1]


def told(value: float, unit: str, units: Units, digits: int = 2) -> str:
    """Return a value in a metric unit for reading, with about so many significant digits."""
    number, name = in_units(value, unit, units)
    return f"{number_text(number, digits)} {name}"


def stiffness_text(value: float, units: Units) -> str:
    """Return a stiffness, N/m, for reading: N/µm or lbf/thou."""
    return told(value * 1e-6, "N/µm", units)


def force_text(value: float, units: Units) -> str:
    """Return a force, N, for reading: whole newtons, or pounds-force to about three digits."""
    number, name = in_units(value, "N", units)
    whole = units == "mm" and abs(number) >= 9.95
    return f"{number:.0f} {name}" if whole else f"{number_text(number, 3).rstrip('0').rstrip('.') or '0'} {name}"


def forces_text(low: float, high: float, units: Units) -> str:
    """Return a range of forces, N, for reading."""
    return f"{force_text(low, units).split(' ')[0]} – {force_text(high, units)}"


def mass_text(value: float, units: Units, decimals: int = 1) -> str:
    """Return a mass, kg, for reading."""
    number, name = in_units(value, "kg", units)
    return f"{number:.{decimals}f} {name}"
