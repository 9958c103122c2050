"""The comparison as CSV: one row a candidate, low, likely and high of each prediction."""

import csv
import io
from collections.abc import Callable
from pathlib import Path

from unterbau.band import Band
from unterbau.files.atomic import write_atomically
from unterbau.files.csv_cells import as_text
from unterbau.studies.compare import Figures

Pick = Callable[[Figures], Band | None]
BANDS: tuple[tuple[str, float, Pick], ...] = (
    *((f"stiffness {axis} N/µm", 1e-6, lambda f, n=n: f.answers.stiffness[n]) for n, axis in enumerate("XYZ")),
    *((f"worst over the travel {axis} N/µm", 1e-6, lambda f, n=n: f.answers.worst[n]) for n, axis in enumerate("XYZ")),
    ("droop µm", 1e6, lambda f: f.answers.droop),
    ("lowest mode Hz", 1.0, lambda f: f.frequency),
)  # fmt: skip


def figures_text(rows: list[Figures], currency: str) -> str:
    """Return the comparison as CSV."""
    stream = io.StringIO()
    out = csv.writer(stream, lineterminator="\n")
    bands = [f"{name}, {level}" for name, _, _ in BANDS for level in ("low", "likely", "high")]
    moving = [f"{axis} moves kg" for axis in "XYZ"]
    out.writerow(("candidate", *bands, "mass kg", *moving, f"money {currency}", "prices"))
    for row in rows:
        out.writerow(
            (
                as_text(row.name),
                *(value for _, scale, pick in BANDS for value in _cells(pick(row), scale)),
                f"{row.answers.likely.mass:.2f}",
                *(f"{row.answers.likely.moving[axis]:.2f}" for axis in "XYZ"),
                f"{row.cost.money:.2f}",
                "partly invented" if row.cost.invented else "own",
            )
        )
    return stream.getvalue()


def _cells(band: Band | None, scale: float) -> tuple[str, ...]:
    if band is None:
        return ("", "", "")
    return tuple(f"{value * scale:.5g}" for value in (band.low, band.likely, band.high))


def write_figures(path: Path, rows: list[Figures], currency: str) -> None:
    """Write the comparison, whole or not at all.

    Raises:
        UnterbauError: The file could not be written.
    """
    write_atomically(path, figures_text(rows, currency))
