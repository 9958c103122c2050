"""Readings as they are typed at a bench, and what the bench makes of them against what is wanted."""

from collections.abc import Callable
from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.shop.measure.benches import (
    arm_shim,
    diagonals,
    flatness,
    parallel,
    square_reversal,
    straightness,
    tram,
    twist,
)
from unterbau.shop.measure.positioning import positioning
from unterbau.shop.measure.result import Instrument, Measured, Verdict

HUNDREDTHS = 1e-6
MM = 1e-3
LEVEL = 0.02e-3
"""Standard uncertainty of a level of a tenth of a millimetre per metre, m/m; common practice, no source."""
HINTS = {
    "diagonals": "both diagonals and both sides in mm: 1281.4 1280.2 800 1000",
    "straightness": "heights in µm at even places along the rail: 0 12 31 38 30 24",
    "parallel": "distance to the master rail in µm at even places: 0 4 9 11",
    "tram": "readings in mm at 0, 90, 180, 270 degrees, then the radius: 0 0.03 0.08 -0.01 100",
    "flatness": "heights in µm on an even grid, rows parted by /: 0 8 5 / 12 25 14 / 4 15 2",
    "crossed strings": "heights in mm, front left and right, back left and right, the width: 0 0.12 0.15 0.05 600",
    "square reversed": "readings in mm, the square turned round for the second, then the length: 0.042 -0.018 200",
    "column": "against a square, in mm: low, high, with the square turned round low, high, the travel, the pitch of "
    "its bolts: 0 0.03 0 -0.01 200 80",
    "arm": "places along the arm / readings there / pitch of its bolts, in mm: 50 100 150 200 / 0.020 0.043 0.058 "
    "0.081 / 60",
    "level": "a level across the front, then across the back, in mm per metre, then the width in mm: 0.10 -0.05 600",
    "both ways": "deviations in µm going up, then / and going down: 2 3 2 / -5 -4 -6",
}


@dataclass(frozen=True, slots=True)
class Read:
    """What a bench says."""

    value: Measured
    verdict: Verdict
    words: str
    line: tuple[float, ...]
    """To be drawn along what is measured, m; empty where there is none."""
    typed: tuple[float, ...] = ()
    """All readings as they were typed."""


def read_bench(bench: str, text: str, within: float, dial: Instrument, span: float = 1.0) -> Read:
    """Return what a bench makes of readings.

    Args:
        bench: Its name.
        text: As typed.
        within: Tolerance, m.
        dial: What it is read with.
        span: Length that even places go over, m.

    Raises:
        InputError: What was expected.
    """
    if bench not in HINTS:
        raise InputError("bench", f'there is no bench "{bench}"')
    if bench in BY_ROWS:
        return BY_ROWS[bench](text, within, dial)
    values = _numbers(text, bench)
    if bench in BY_VALUES:
        return BY_VALUES[bench](values, within, dial)
    heights = tuple(one * HUNDREDTHS for one in values)
    places = tuple(span * n / max(len(heights) - 1, 1) for n in range(len(heights)))
    if bench == "straightness":
        found = straightness(places, heights, dial)
        words = f"straight within {found.zone.value * 1e6:.1f} µm (least squares {found.least_squares.value * 1e6:.1f})"
        high = max(range(len(heights)), key=lambda n: found.residuals[n])
        words += f"; highest {found.residuals[high] * 1e6:.0f} µm at place {high + 1}: scrape there or shim beside it"
        return Read(found.zone, found.zone.verdict(within), words, found.residuals)
    gap = parallel(places, tuple(0.0 for _ in heights), heights, span, dial)
    words = f"{gap.value * 1e6:+.1f} µm over {span * 1e3:.0f} mm: move the far end by {-gap.value * 1e6:+.1f} µm"
    return Read(gap, gap.verdict(within), words, heights)


def _flatness(text: str, within: float, dial: Instrument) -> Read:
    rows = tuple(tuple(v * HUNDREDTHS for v in _numbers(row, "flatness")) for row in text.split("/"))
    if len({len(row) for row in rows}) != 1:
        raise InputError("readings", f"expected rows of one length: {HINTS['flatness']}")
    found = flatness((1.0, 1.0), rows, dial)
    high = max(((r, c) for r in range(len(rows)) for c in range(len(rows[0]))),
               key=lambda at: found.residuals[at[0]][at[1]])  # fmt: skip
    squares = found.least_squares.value * 1e6
    words = (
        f"flat within {found.zone.value * 1e6:.1f} µm (least squares {squares:.1f}); highest in "
        f"row {high[0] + 1}, place {high[1] + 1}, by {found.residuals[high[0]][high[1]] * 1e6:.0f} µm"
    )
    told = tuple(one / HUNDREDTHS for row in rows for one in row)
    return Read(found.zone, found.zone.verdict(within), words, (), told)


def _column(values: tuple[float, ...], within: float, dial: Instrument) -> Read:
    if len(values) != 6 or min(values[4:]) <= 0:
        raise InputError("readings", f"expected {HINTS['column']}")
    low, high, low_turned, high_turned, travel, pitch = (one * MM for one in values)
    machine, square = square_reversal(high - low, high_turned - low_turned, travel, dial)
    over = Measured(machine.value * travel, 2**0.5 * machine.uncertainty * travel, "m")  # differences of two readings
    words = (
        f"it leans by {machine.value * 1e3:+.3f} mrad; shim {machine.value * pitch * 1e3:+.3f} mm under the bolts "
        f"{values[5]:g} mm apart, on the side it leans to; the square itself is off by {square.value * 1e3:+.3f} mrad"
    )
    return Read(over, over.verdict(within), words, (), values)


def _arm(text: str, within: float, dial: Instrument) -> Read:
    rows = [_numbers(row, "arm") for row in text.split("/")]
    if len(rows) != 3 or len(rows[0]) != len(rows[1]) or len(rows[2]) != 1 or rows[2][0] <= 0:
        raise InputError("readings", f"expected {HINTS['arm']}")
    places, heights = (tuple(one * MM for one in row) for row in rows[:2])
    slope, shim = arm_shim(places, heights, rows[2][0] * MM, dial)
    long = max(places) - min(places)
    over = Measured(slope.value * long, slope.uncertainty * long, "m")
    words = (
        f"it rises by {slope.value * 1e3:+.3f} mrad along its reach; shim {shim.value * 1e3:+.3f} mm under the bolts "
        f"{rows[2][0]:g} mm apart"
    )
    return Read(over, over.verdict(within), words, heights, (*rows[0], *rows[1], *rows[2]))


def _level(values: tuple[float, ...], within: float, _dial: Instrument) -> Read:
    if len(values) != 3 or values[2] <= 0:
        raise InputError("readings", f"expected {HINTS['level']}")
    front, back, width = values[0], values[1], values[2] * MM
    over = Measured((front - back) * MM * width, LEVEL * 2 * 2**0.5 * width, "m")
    words = (
        f"front and back differ by {front - back:+.2f} mm per metre; one corner stands {over.value * 1e3:+.3f} mm out "
        f"of the plane of the other three: shim it by {-over.value * 1e3:+.3f} mm"
    )
    return Read(over, over.verdict(within), words, (), values)


def _strings(values: tuple[float, ...], within: float, dial: Instrument) -> Read:
    if len(values) != 5 or values[4] <= 0:
        raise InputError("readings", f"expected {HINTS['crossed strings']}")
    fl, fr, bl, br, width = (one * MM for one in values)
    angle, gap = twist(fl, fr, bl, br, width, dial)
    apart, shim = abs(gap.value) * 1e3, -2 * gap.value * 1e3
    words = (
        f"twisted by {angle.value * 1e3:+.2f} mrad; crossed strings are {apart:.3f} mm apart; shim one corner by "
        f"{shim:+.3f} mm"
    )
    return Read(gap, gap.verdict(within), words, (), values)


def _reversed(values: tuple[float, ...], within: float, dial: Instrument) -> Read:
    if len(values) != 3 or values[2] <= 0:
        raise InputError("readings", f"expected {HINTS['square reversed']}")
    direct, turned, length = (one * MM for one in values)
    machine, square = square_reversal(direct, turned, length, dial)
    over = Measured(machine.value * length, machine.uncertainty * length, "m")
    by_square = square.value * length * 1e3
    words = f"the machine is off by {over.value * 1e3:+.3f} mm over {values[2]:g}, the square by {by_square:+.3f}"
    return Read(over, over.verdict(within), words, (), values)


def _diagonals(values: tuple[float, ...], within: float, dial: Instrument) -> Read:
    if len(values) != 4 or min(values) <= 0:
        raise InputError("readings", f"expected {HINTS['diagonals']}")
    a, b, width, height = (one * MM for one in values)
    found = diagonals(a, b, width, height, Instrument(max(dial.resolution, 0.2e-3), dial.hysteresis))
    over = Measured(found.value * max(width, height), found.uncertainty * max(width, height), "m")
    words = f"out of square by {found.value * 1e3:.2f} mrad, {over.value * 1e3:.2f} mm over the longer side"
    return Read(over, over.verdict(within), words, (), values)


def _tram(values: tuple[float, ...], within: float, dial: Instrument) -> Read:
    if len(values) != 5 or values[4] <= 0:
        raise InputError("readings", f"expected {HINTS['tram']}")
    r0, r90, r180, r270, radius = (one * MM for one in values)
    found = tram((r0, r90, r180, r270), radius, dial)
    worst = max((found.about_x, found.about_y), key=lambda one: abs(one.value))
    over = Measured(abs(worst.value) * 2 * radius, worst.uncertainty * 2 * radius, "m")
    x, y = found.shims(0.08)
    words = (
        f"leans {found.about_x.value * 1e3:+.2f} and {found.about_y.value * 1e3:+.2f} mrad; shims {x * 1e3:+.3f} and "
        f"{y * 1e3:+.3f} mm under bolts 80 mm apart; {found.warped * 1e3:.3f} mm of it is the bed's"
    )
    return Read(over, over.verdict(within), words, (), values)


def _both_ways(text: str, within: float, dial: Instrument) -> Read:
    sides = text.split("/")
    if len(sides) != 2:
        raise InputError("readings", f"expected {HINTS['both ways']}")
    up, down = (tuple(v * HUNDREDTHS for v in _numbers(side, "both ways")) for side in sides)
    found = positioning(((up, down),))
    value = Measured(found.reversal, 2 * 2**0.5 * dial.standard, "m")
    words = (
        f"reversal {found.reversal * 1e6:.1f} µm, repeats within {found.repeatability * 1e6:.1f}, accuracy "
        f"{found.accuracy * 1e6:.1f} µm"
    )
    told = tuple(v / HUNDREDTHS for v in (*up, *down))
    return Read(value, value.verdict(within), words, (), told)


def _numbers(text: str, bench: str) -> tuple[float, ...]:
    found = []
    for word in text.replace(";", " ").split():
        try:
            found.append(float(word.replace(",", ".").replace("−", "-")))
        except ValueError:
            raise InputError("readings", f'"{word}" is no reading; expected {HINTS[bench]}') from None
    if not found or not all(abs(one) < 1e6 for one in found):
        raise InputError("readings", f"expected {HINTS[bench]}")
    return tuple(found)


BY_ROWS: dict[str, Callable[[str, float, Instrument], Read]] = {
    "both ways": _both_ways, "flatness": _flatness, "arm": _arm,
}  # fmt: skip
BY_VALUES: dict[str, Callable[[tuple[float, ...], float, Instrument], Read]] = {
    "crossed strings": _strings, "square reversed": _reversed, "diagonals": _diagonals, "tram": _tram,
    "column": _column, "level": _level,
}  # fmt: skip
