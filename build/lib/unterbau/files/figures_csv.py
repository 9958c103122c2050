"""The comparison as CSV or an OpenDocument table: one row a candidate, low, likely and high of each prediction."""

import csv
import io
from collections.abc import Callable
from pathlib import Path

from unterbau.band import Band
from unterbau.files.atomic import write_atomically
from unterbau.files.csv_cells import as_text
from unterbau.files.ods import ods
from unterbau.studies.compare import Figures

Pick = Callable[[Figures], Band | None]
BANDS: tuple[tuple[str, float, Pick], ...] = (
    *((f"stiffness {axis} N/µm", 1e-6, lambda f, n=n: f.answers.stiffness[n]) for n, axis in enumerate("XYZ")),
    *((f"worst over the travel {axis} N/µm", 1e-6, lambda f, n=n: f.answers.worst[n]) for n, axis in enumerate("XYZ")),
    ("droop µm", 1e6, lambda f: f.answers.droop),
    ("lowest mode Hz", 1.0, lambda f: f.frequency),
)  # fmt: skip


def figures_rows(rows: list[Figures], currency: str) -> list[tuple[str, ...]]:
    """Return the comparison as rows of cells, the head first."""
    bands = [f"{name}, {level}" for name, _, _ in BANDS for level in ("low", "likely", "high")]
    moving = [f"{axis} moves kg" for axis in "XYZ"]
    found = [("candidate", *bands, "mass kg", *moving, f"money {currency}", "prices")]
    return [*found, *(_row(one) for one in rows)]


def _row(one: Figures) -> tuple[str, ...]:
    return (
        one.name,
        *(value for _, scale, pick in BANDS for value in _cells(pick(one), scale)),
        f"{one.answers.likely.mass:.2f}",
        *(f"{one.answers.likely.moving[axis]:.2f}" for axis in "XYZ"),
        f"{one.cost.money:.2f}",
        "partly invented" if one.cost.invented else "own",
    )


def figures_text(rows: list[Figures], currency: str) -> str:
    """Return the comparison as CSV."""
    stream = io.StringIO()
    out = csv.writer(stream, lineterminator="\n")
    head, *cells = figures_rows(rows, currency)
    out.writerow(head)
    out.writerows((as_text(name), *values) for name, *values in cells)
    return stream.getvalue()


def figures_ods(rows: list[Figures], currency: str) -> bytes:
    """Return the comparison as the bytes of an .ods file."""
    head, *cells = figures_rows(rows, currency)
    return ods("figures", (head, *(tuple(map(_number, one)) for one in cells)))


def _number(cell: str) -> str | float:
    try:
        return float(cell)
    except ValueError:
        return cell


def _cells(band: Band | None, scale: float) -> tuple[str, ...]:
    if band is None:
        return ("", "", "")
    return tuple(f"{value * scale:.5g}" for value in (band.low, band.likely, band.high))


def write_figures(path: Path, rows: list[Figures], currency: str) -> None:
    """Write the comparison, whole or not at all; as .ods where the name ends so, else as CSV.

    Raises:
        UnterbauError: The file could not be written.
    """
    as_ods = path.suffix.lower() == ".ods"
    write_atomically(path, figures_ods(rows, currency) if as_ods else figures_text(rows, currency))
