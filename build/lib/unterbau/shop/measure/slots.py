"""The places of a bench where readings are taken, by name, and the line that readings at these places make."""

from dataclasses import dataclass

FIXED: dict[str, tuple[str, ...]] = {
    "diagonals": ("one diagonal", "the other diagonal", "width", "height"),
    "tram": ("at 0 degrees", "at 90 degrees", "at 180 degrees", "at 270 degrees", "radius"),
    "crossed strings": ("front left", "front right", "back left", "back right", "width"),
    "square reversed": ("reading", "the square turned round", "length"),
    "column": ("low", "high", "low, square turned round", "high, square turned round", "travel", "pitch of the bolts"),
    "level": ("across the front", "across the back", "width"),
}
STARTS: dict[str, tuple[int, ...]] = {
    "straightness": (5,), "parallel": (5,), "arm": (4, 4, 1), "both ways": (3, 3), "flatness": (3, 3, 3),
}  # fmt: skip
"""How many places one starts with, of benches that take more or fewer; a number for each row."""
ROWS = {
    "straightness": ("place",), "parallel": ("place",), "both ways": ("going up,", "going down,"),
    "arm": ("place along the arm,", "reading", "pitch of the bolts"),
}  # fmt: skip
MOST = 40


@dataclass(frozen=True, slots=True)
class Slots:
    """Places of a bench, in the order in which their readings stand in its line."""

    bench: str
    counts: tuple[int, ...]
    """Readings in each row."""

    @property
    def words(self) -> tuple[str, ...]:
        """What is read at each place."""
        if self.bench in FIXED:
            return FIXED[self.bench]
        rows = ROWS.get(self.bench) or tuple(f"row {number + 1}, place" for number in range(len(self.counts)))
        return tuple(
            row if count == 1 else f"{row} {number + 1}"
            for row, count in zip(rows, self.counts, strict=True)
            for number in range(count)
        )

    def line(self, values: tuple[str, ...]) -> str:
        """Return the line that readings make, or nothing while one is missing."""
        if len(values) != sum(self.counts) or not all(one.strip() for one in values):
            return ""
        rows, first = [], 0
        for count in self.counts:
            rows.append(" ".join(one.strip() for one in values[first : first + count]))
            first += count
        return " / ".join(rows)


def slots_of(bench: str, line: str = "") -> Slots:
    """Return the places of a bench: as many as a line has readings, else what one starts with."""
    if bench in FIXED:
        return Slots(bench, (len(FIXED[bench]),))
    counts = tuple(len(_words(row)) for row in line.split("/"))
    fits = len(counts) == len(STARTS[bench]) or bench == "flatness"
    if not line.strip() or not fits or min(counts) < 1 or sum(counts) > MOST:
        counts = STARTS[bench]
    return Slots(bench, counts)


def values_of(slots: Slots, line: str) -> tuple[str, ...]:
    """Return the readings of a line at their places; empty texts where it has none."""
    words = [one for row in line.split("/") for one in _words(row)]
    count = sum(slots.counts)
    return tuple((words + [""] * count)[:count])


def _words(row: str) -> list[str]:
    return row.replace(";", " ").split()
