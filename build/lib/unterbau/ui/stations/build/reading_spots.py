"""Where on the picture of a bench each of its readings is taken."""

from collections.abc import Callable
from math import cos, radians, sin

from PyQt6.QtCore import QPointF, QRectF

from unterbau.shop.measure.slots import Slots
from unterbau.ui.theme import em

Spots = list[QPointF]
FIELD = 3.5
"""Width of a field, em."""
GAP = 0.4
"""Between fields in a row, em."""
BESIDE = 3.6
"""From what leans to its reading, em."""


def spots_of(slots: Slots, area: QRectF) -> Spots:
    """Return the middles of the fields of all readings; none where they would lie over each other."""
    widest = max(slots.counts)
    if slots.bench not in FIXED_SPOTS and widest * FIELD * em() > 2 * area.width():
        return []
    if slots.bench == "flatness" and (widest * FIELD * em() > area.width() or len(slots.counts) * em() > area.height()):
        return []
    return FIXED_SPOTS[slots.bench](area) if slots.bench in FIXED_SPOTS else ROWS[slots.bench](area, slots.counts)


def _row(area: QRectF, count: int, y: float) -> Spots:
    """Readings along the area; every second a line lower where they stand close."""
    step = area.width() / max(count - 1, 1)
    close = step < (FIELD + GAP) * em()
    lower = -1.6 * em() if y > area.center().y() else 1.6 * em()
    return [QPointF(area.left() + n * step, y + (lower if close and n % 2 else 0.0)) for n in range(count)]


def _along(area: QRectF, counts: tuple[int, ...]) -> Spots:
    return _row(area, counts[0], area.top() - 0.2 * em())


def _arm(area: QRectF, counts: tuple[int, ...]) -> Spots:
    low = area.bottom() + 0.6 * em()
    pitch = QPointF(area.right() - 0.6 * em(), low - 2.2 * em())
    return [*_row(area, counts[0], low), *_row(area, counts[1], area.top() - 0.2 * em()), pitch]


def _both_ways(area: QRectF, counts: tuple[int, ...]) -> Spots:
    return [*_row(area, counts[0], area.top() - 0.2 * em()), *_row(area, counts[1], area.bottom() + 0.4 * em())]


def _grid(area: QRectF, counts: tuple[int, ...]) -> Spots:
    wide, tall = area.width(), area.height() / len(counts)
    return [
        QPointF(area.left() + wide * (place + 0.5) / count, area.top() + tall * (row + 0.5))
        for row, count in enumerate(counts)
        for place in range(count)
    ]  # fmt: skip


def _below(area: QRectF) -> QPointF:
    return QPointF(area.center().x(), area.bottom() + 0.8 * em())


def _diagonals(area: QRectF) -> Spots:
    wide = min(area.width(), 1.5 * area.height())
    left, right = area.center().x() - wide / 2, area.center().x() + wide / 2
    y = area.bottom() - 0.28 * area.height() - 0.9 * em()
    first, second = QPointF(left + 0.25 * wide, y), QPointF(right - 0.25 * wide, y)
    return [first, second, _below(area), QPointF(right + 2.4 * em(), area.center().y())]


def _tram(area: QRectF) -> Spots:
    middle, r = area.center(), area.height() / 2 - 0.4 * em()
    found = []
    for turn, across, up in ((0, 2.6, 0.0), (90, 0.0, 1.1), (180, -2.6, 0.0), (270, 0.0, -1.1)):
        x = middle.x() + r * cos(radians(turn)) + across * em()
        found.append(QPointF(x, middle.y() - r * sin(radians(turn)) + up * em()))
    return [*found, QPointF(area.right() - 1.6 * em(), area.bottom())]


def corners(area: QRectF, off: float) -> Spots:
    """Return the corners of a frame seen from its front: front left, right, back left, right."""
    slant = 0.22 * area.width()
    return [
        QPointF(area.left() + slant, area.bottom()), QPointF(area.right() - 0.4 * slant, area.bottom()),
        QPointF(area.left(), area.top() + off), QPointF(area.right() - 1.4 * slant, area.top() + off),
    ]  # fmt: skip


def _strings(area: QRectF) -> Spots:
    places = corners(area, 0.12 * area.height())
    away = (-1.9, 1.9, 1.2, 2.3)
    return [
        *(QPointF(p.x() + away[n] * em(), p.y() - (0.7 if n < 2 else 1.0) * em()) for n, p in enumerate(places)),
        _below(area),
    ]


def _feet(area: QRectF) -> tuple[float, float]:
    return area.center().x() - 0.24 * area.width(), area.center().x() + 0.24 * area.width()


def _squares(area: QRectF) -> Spots:
    left, right = _feet(area)
    y = area.top() + 0.5 * em()
    return [QPointF(left - BESIDE * em(), y), QPointF(right + BESIDE * em(), y), _below(area)]


def _column(area: QRectF) -> Spots:
    left, right = _feet(area)
    low, high = area.bottom() - 1.2 * em(), area.top() + 0.5 * em()
    travel = QPointF(area.center().x(), area.center().y())
    left, right = left - BESIDE * em(), right + BESIDE * em()
    return [
        QPointF(left, low), QPointF(left, high), QPointF(right, low), QPointF(right, high), travel, _below(area),
    ]  # fmt: skip


def _level(area: QRectF) -> Spots:
    x = area.center().x() + 7.4 * em()
    return [QPointF(x, area.top() + share * area.height()) for share in (0.72, 0.28)] + [_below(area)]


FIXED_SPOTS: dict[str, Callable[[QRectF], Spots]] = {
    "diagonals": _diagonals, "tram": _tram, "crossed strings": _strings, "square reversed": _squares,
    "column": _column, "level": _level,
}  # fmt: skip
ROWS: dict[str, Callable[[QRectF, tuple[int, ...]], Spots]] = {
    "straightness": _along, "parallel": _along, "arm": _arm, "both ways": _both_ways, "flatness": _grid,
}  # fmt: skip
ALONE = ("width", "height", "radius", "length", "travel", "pitch of the bolts")
"""Sizes that stand among the readings; they are named on the picture."""
