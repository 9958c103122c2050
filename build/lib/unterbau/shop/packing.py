"""Rectangles into a larger one, in whole steps: quickly, or in every way."""

from dataclasses import dataclass, field

MOST_STEPS = 300_000
"""Places that are tried before giving up."""


@dataclass(frozen=True, slots=True)
class Rect:
    """A rectangle to be laid."""

    name: str
    number: int
    wide: int
    tall: int
    turns: bool


@dataclass(frozen=True, slots=True, order=True)
class Placed:
    """A rectangle in its place."""

    y: int
    x: int
    wide: int
    tall: int
    rect: Rect = field(compare=False)


Free = tuple[int, int, int, int]
"""A free rectangle: x, y, wide, tall."""


def fill_sheet(rects: list[Rect], wide: int, tall: int) -> tuple[list[Placed], list[Rect]]:
    """Return what was laid on a sheet and what is left, in the order given; each where it leaves the least beside."""
    free: list[Free] = [(0, 0, wide, tall)]
    placed, left = [], []
    for rect in rects:
        best: tuple[tuple[int, int, int], Free, int, int] | None = None
        for place in free:
            for w, h in ways_of(rect):
                if w <= place[2] and h <= place[3]:
                    score = (min(place[2] - w, place[3] - h), place[1], place[0])
                    if best is None or score < best[0]:
                        best = (score, place, w, h)
        if best is None:
            left.append(rect)
            continue
        _, (x, y, _, _), w, h = best
        placed.append(Placed(y, x, w, h, rect))
        free = _without(free, (x, y, w, h))
    return placed, left


def fill_by_edges(rects: list[Rect], wide: int, tall: int, sides: list[bool]) -> tuple[list[Placed], list[Rect]]:
    """Return what was laid so that a saw can part it by cuts from edge to edge, and what is left.

    Args:
        rects: In the order they are laid.
        wide: Of the sheet.
        tall: Of the sheet.
        sides: For each rectangle, whether what is beside it becomes as tall as the room, else what is above it as wide.
    """
    free: list[Free] = [(0, 0, wide, tall)]
    placed, left = [], []
    for rect, side in zip(rects, sides, strict=True):
        fits = [
            (min(room[2] - w, room[3] - h), room[1], room[0], n, w, h)
            for n, room in enumerate(free) for w, h in ways_of(rect) if w <= room[2] and h <= room[3]
        ]  # fmt: skip
        if not fits:
            left.append(rect)
            continue
        *_, n, w, h = min(fits)
        x, y, p, q = free.pop(n)
        placed.append(Placed(y, x, w, h, rect))
        beside, above = (x + w, y, p - w, q if side else h), (x, y + h, w if side else p, q - h)
        free += [one for one in (beside, above) if one[2] > 0 and one[3] > 0]
    return placed, left


def ways_of(rect: Rect) -> list[tuple[int, int]]:
    """Return how a rectangle may lie."""
    if rect.turns and rect.wide != rect.tall:
        return [(rect.wide, rect.tall), (rect.tall, rect.wide)]
    return [(rect.wide, rect.tall)]


def _without(free: list[Free], taken: Free) -> list[Free]:
    """Return the largest free rectangles when one is taken away."""
    x, y, w, h = taken
    found: list[Free] = []
    for a, b, p, q in free:
        if x >= a + p or x + w <= a or y >= b + q or y + h <= b:
            found.append((a, b, p, q))
            continue
        if x > a:
            found.append((a, b, x - a, q))
        if x + w < a + p:
            found.append((x + w, b, a + p - x - w, q))
        if y > b:
            found.append((a, b, p, y - b))
        if y + h < b + q:
            found.append((a, y + h, p, b + q - y - h))
    kept = list(dict.fromkeys(found))
    return [one for one in kept if not any(other != one and _inside(one, other) for other in kept)]


def _inside(one: Free, other: Free) -> bool:
    return (
        one[0] >= other[0] and one[1] >= other[1] and one[0] + one[2] <= other[0] + other[2]
        and one[1] + one[3] <= other[1] + other[3]
    )  # fmt: skip


def fill_exactly(rects: list[Rect], wide: int, tall: int) -> tuple[list[Placed] | None, bool]:
    """Return all rectangles on one sheet, or nothing where no way was found; and whether none is there.

    Every place from the lowest corner on is tried; where nothing may be lost, that is every way there is.
    """
    spare = wide * tall - sum(one.wide * one.tall for one in rects)
    if spare < 0:
        return None, True
    filling = _Filling(wide, tall, spare)
    found = filling.laid(rects)
    return found, found is None and spare == 0 and filling.steps <= MOST_STEPS


class _Filling:
    """Fills a sheet from below: its upper outline is a row of steps, the lowest is filled next or given up."""

    def __init__(self, wide: int, tall: int, spare: int) -> None:
        self._wide, self._tall, self._spare = wide, tall, spare
        self.steps = 0

    def laid(self, rects: list[Rect]) -> list[Placed] | None:
        """Return all of them in place."""
        return self._next(((0, self._wide, 0),), rects, [], self._spare)

    def _next(
        self, outline: tuple[tuple[int, int, int], ...], left: list[Rect], placed: list[Placed], spare: int
    ) -> list[Placed] | None:
        if not left:
            return placed
        self.steps += 1
        if self.steps > MOST_STEPS:
            return None
        place = min(range(len(outline)), key=lambda n: (outline[n][2], outline[n][0]))
        x, room, y = outline[place]
        tried = set()
        for number, rect in enumerate(left):
            for w, h in ways_of(rect):
                if (w, h) in tried or w > room or y + h > self._tall:
                    continue
                tried.add((w, h))
                raised = _merged((*outline[:place], (x, w, y + h), (x + w, room - w, y), *outline[place + 1 :]))
                rest = [*left[:number], *left[number + 1 :]]
                found = self._next(raised, rest, [*placed, Placed(y, x, w, h, rect)], spare)
                if found is not None:
                    return found
        sides = [outline[n][2] for n in (place - 1, place + 1) if 0 <= n < len(outline)]
        level = min(sides, default=self._tall)
        lost = room * (level - y)
        if lost > spare or level >= self._tall:
            return None
        filled = _merged((*outline[:place], (x, room, level), *outline[place + 1 :]))
        return self._next(filled, left, placed, spare - lost)


def _merged(outline: tuple[tuple[int, int, int], ...]) -> tuple[tuple[int, int, int], ...]:
    """Return an outline without steps of no width, and with neighbours of one height as one."""
    found: list[tuple[int, int, int]] = []
    for x, room, y in outline:
        if room == 0:
            continue
        if found and found[-1][2] == y:
            found[-1] = (found[-1][0], found[-1][1] + room, y)
        else:
            found.append((x, room, y))
    return tuple(found)
