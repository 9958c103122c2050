"""The figures of all candidates as a table."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, Qt
from typing_extensions import override

from unterbau.band import Band
from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.studies.compare import Figures
from unterbau.studies.purchase.check import counted
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.units import Units, in_units, mass_text, movement_text, number_text, unit_text

WAITING = "…"


@dataclass(frozen=True)
class Row:
    """A candidate; its figures may still be on their way."""

    name: str
    benchmark: bool
    figures: Figures | None
    prices: PriceBook


@dataclass(frozen=True)
class Column:
    """What a column shows, and by what it is sorted."""

    title: str
    tip: str
    text: Callable[[Figures, PriceBook, Units], str]
    value: Callable[[Figures], float]
    usual: bool = True
    """Whether it is shown to start with."""


def band_words(band: Band, scale: float) -> str:
    """Return a band as likely (low – high), the smaller end first."""
    low, high = band.ends
    return f"{number_text(band.likely * scale)} ({number_text(low * scale)} – {number_text(high * scale)})"


def _stiffness(axis: int, name: str) -> Column:
    return Column(
        f"{name}  {{N/µm}}", f"stiffness at the tool tip along {name}: likely (low – high)",
        lambda f, _p, u: band_words(f.answers.stiffness[axis], in_units(1e-6, "N/µm", u)[0]),
        lambda f: f.answers.stiffness[axis].likely,
    )  # fmt: skip


def _elsewhere(axis: int, name: str) -> Column:
    return Column(
        f"least {name}  {{N/µm}}", f"stiffness along {name} at the weakest place of the travel: likely (low – high)",
        lambda f, _p, u: band_words(f.answers.worst[axis], in_units(1e-6, "N/µm", u)[0]),
        lambda f: f.answers.worst[axis].likely, False,
    )  # fmt: skip


def _nose(axis: int, name: str) -> Column:
    return Column(
        f"nose {name}  {{N/µm}}", f"stiffness at the spindle's nose along {name}: likely (low – high)",
        lambda f, _p, u: band_words(f.answers.nose[axis], in_units(1e-6, "N/µm", u)[0]),
        lambda f: f.answers.nose[axis].likely, False,
    )  # fmt: skip


def _moves(name: str) -> Column:
    return Column(
        f"{name} moves  {{kg}}", f"mass that the axis {name} moves",
        lambda f, _p, u: mass_text(f.answers.likely.moving[name], u).split(" ")[0],
        lambda f: f.answers.likely.moving[name], False,
    )  # fmt: skip


def titled(text: str, units: Units) -> str:
    """Return a title with its unit, which stands in braces, as it is read."""
    before, brace, rest = text.partition("{")
    unit, _, after = rest.partition("}")
    return f"{before}{unit_text(unit, units)}{after}" if brace else text


def _droop(found: Figures, _prices: PriceBook, units: Units) -> str:
    droop = found.answers.droop
    low, likely, high = (movement_text(v, units) for v in (droop.ends[0], droop.likely, droop.ends[1]))
    return f"{likely} ({low.split()[0]} – {high.split()[0]})"


def _shake(found: Figures, _prices: PriceBook, _units: Units) -> str:
    return band_words(found.frequency, 1.0) if found.frequency else "–"


COLUMNS = (
    *(_stiffness(axis, name) for axis, name in enumerate("XYZ")),
    Column("least  {N/µm}", "least of X, Y, Z, each at the weakest place of the travel: likely (low – high)",
           lambda f, _p, u: band_words(min(f.answers.worst, key=lambda b: b.likely), in_units(1e-6, "N/µm", u)[0]),
           lambda f: min(b.likely for b in f.answers.worst)),
    Column("droop", "range of the tool's sinking by weight over the travel", _droop, lambda f: f.answers.droop.likely),
    Column("shake  Hz", "lowest natural frequency: likely (low – high)", _shake,
           lambda f: f.frequency.likely if f.frequency else 0.0),
    Column("mass  {kg}", "whole machine", lambda f, _p, u: mass_text(f.answers.likely.mass, u).split(" ")[0],
           lambda f: f.answers.likely.mass),
    Column("money", "by the price book of the project", lambda f, p, _u: money_text(f.cost.money, p),
           lambda f: f.cost.money),
    Column("checks", "before buying: what fails, what is near its limit, what cannot be told",
           lambda f, _p, _u: WAITING if f.checked is None else counted(f.checked),
           lambda f: sum(100.0 * (one.verdict == "fail") + (one.verdict == "watch") for one in f.checked or ())),
    *(_elsewhere(axis, name) for axis, name in enumerate("XYZ")),
    *(_nose(axis, name) for axis, name in enumerate("XYZ")),
    Column("tool sinks", "how far the tool itself sinks by weight",
           lambda f, _p, u: movement_text(f.answers.sag.likely, u), lambda f: f.answers.sag.likely, False),
    *(_moves(name) for name in "XYZ"),
)  # fmt: skip


class FiguresModel(QAbstractTableModel):
    """One row a candidate, in the order of the shelf."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._rows: tuple[Row, ...] = ()
        self._units: Units = "mm"

    @property
    def rows(self) -> tuple[Row, ...]:
        """What is shown."""
        return self._rows

    def show_rows(self, rows: tuple[Row, ...], units: Units) -> None:
        """Show candidates."""
        if [row.name for row in rows] != [row.name for row in self._rows]:
            self.beginResetModel()
            self._rows, self._units = rows, units
            self.endResetModel()
            return
        self._rows, self._units = rows, units
        self.headerDataChanged.emit(Qt.Orientation.Horizontal, 0, len(COLUMNS))
        if rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(rows) - 1, len(COLUMNS)))

    @override
    def rowCount(self, parent: QModelIndex = QModelIndex()) -> int:  # noqa: B008 - Qt's own default
        return 0 if parent.isValid() else len(self._rows)

    @override
    def columnCount(self, parent: QModelIndex = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(COLUMNS) + 1

    @override
    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if orientation != Qt.Orientation.Horizontal:
            return None
        column = COLUMNS[section - 1] if section else None
        if role == Qt.ItemDataRole.DisplayRole:
            return titled(column.title, self._units) if column else "candidate"
        if role == Qt.ItemDataRole.ToolTipRole:
            return titled(column.tip, self._units) if column else "★ is the benchmark"
        return None

    @override
    def data(self, index: QModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not index.isValid():
            return None
        row = self._rows[index.row()]
        if role == Qt.ItemDataRole.TextAlignmentRole:
            side = Qt.AlignmentFlag.AlignRight if index.column() else Qt.AlignmentFlag.AlignLeft
            return side | Qt.AlignmentFlag.AlignVCenter
        if index.column() == 0:
            name = ("★ " if row.benchmark else "") + row.name
            words = {
                Qt.ItemDataRole.DisplayRole: name, Qt.ItemDataRole.UserRole: row.name,
                Qt.ItemDataRole.ToolTipRole: plain_tip(row.name),
            }  # fmt: skip
            return words.get(Qt.ItemDataRole(role))
        column = COLUMNS[index.column() - 1]
        if role == Qt.ItemDataRole.DisplayRole:
            return column.text(row.figures, row.prices, self._units) if row.figures else WAITING
        if role == Qt.ItemDataRole.UserRole:
            return column.value(row.figures) if row.figures else 0.0
        return None
