"""How long it takes, what is printed, what has to be lifted: three tables; minutes of each kind of work are typed."""

from dataclasses import dataclass, replace
from functools import partial
from typing import Any

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QGridLayout,
    QHeaderView,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from unterbau.catalogue import cautions
from unterbau.errors import InputError
from unterbau.machine.item_words import text_words
from unterbau.shop.fasteners import Fastener
from unterbau.shop.hours import Hours, Pace
from unterbau.shop.lifting import Load, who_lifts
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.printed import CREEP, Print, Printing
from unterbau.structure.vectors import Vector
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.units import Units, length_text, mass_text

PACES = (
    ("cut", "a saw cut"), ("setup", "a set-up"), ("hole", "a hole"), ("tapped", "a thread"), ("weld", "weld, a metre"),
    ("sawn", "edge, a metre"), ("milled", "milled, a dm²"), ("joint", "a joint"), ("rail", "a rail"),
    ("drive", "a drive"), ("fetched", "a sort fetched"),
)  # fmt: skip
USUAL = 25.0
"""One person lifts where the brief does not say it, kg: ISO 11228-1, before reductions."""
NEAR = 0.5e-3
"""Of the middle, m."""
BESIDE = 4
"""Fields beside one another."""


@dataclass(frozen=True, slots=True)
class Work:
    """What the page shows."""

    hours: Hours
    loads: tuple[Load, ...]
    prints: tuple[tuple[ShopPiece, Print], ...]
    pace: Pace
    printing: Printing
    lift: float
    """One person lifts, kg."""
    fasteners: tuple[Fastener, ...]
    unsettled: tuple[str, ...] = ()
    """What one has to settle oneself."""


class WorkPage(QWidget):
    """Shows the work on a candidate."""

    pace_told = pyqtSignal(object)
    printing_told = pyqtSignal(object)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._work: Work | None = None
        self.words, self.lifting, self.printed = (
            label("", size=0.98),
            label(cautions.LIFTING.text, "muted", 0.86),
            label("", size=0.9),
        )
        self.unsettled = label("", size=0.9)
        self.tasks = _table(("work", "how many", "minutes each", "hours"), "Hours of work")
        self.fasteners = _table(("screws and what goes with them", "how many", "for"), "Fasteners to buy")
        self.loads = _table(("what is lifted", "mass", "in balance at X, Y, Z", "who"), "What has to be lifted")
        self.paces = {name: QuantityField(f"minutes for {words}", "plain", view, self) for name, words in PACES}
        self.prints = {
            "walls": QuantityField("walls of a print", "plain", view, self),
            "infill": QuantityField("share of the inside that is filled, per cent", "plain", view, self),
            "rate": QuantityField("plastic laid down in an hour, cm³", "plain", view, self),
        }
        self._build()
        for name, field in self.paces.items():
            field.committed.connect(partial(self._on_pace, name))
        for name, field in self.prints.items():
            field.committed.connect(partial(self._on_print, name))

    def show_work(self, work: Work) -> None:
        """Show the work on a candidate."""
        self._work, units = work, self._view.units
        hours = work.hours
        self.words.setText(
            f"About {hours.metalwork:.0f} hours at the bench, and as many again for all that is not metalwork: wiring, "
            f"waiting, driving, tidying. Together {hours.metalwork + hours.other:.0f} hours."
        )
        _fill(self.tasks, [
            (one.words, f"{one.count:.3g} {one.unit}".strip(), f"{one.minutes:g}", f"{one.hours:.1f}")
            for one in hours.tasks
        ])  # fmt: skip
        _fill(self.loads, [
            (one.words, mass_text(one.mass, units), _place(one.centre, units), who_lifts(one.mass, work.lift or USUAL))
            for one in work.loads
        ])  # fmt: skip
        _fill(self.fasteners, [(one.words, str(one.count), ", ".join(one.of)) for one in work.fasteners])
        self.unsettled.setText("\n".join(f"– {text_words(text, units)}" for text in work.unsettled) or "nothing")
        lines = [
            f"{piece.label} {piece.count} × {piece.names[0]}: {mass_text(made.mass, units, 2)} and {made.hours:.1f} h "
            f"each, {made.bending:.0%} as stiff as full"
            for piece, made in work.prints
        ]
        creep = f"Prints under lasting load: {CREEP}."
        self.printed.setText("\n".join([*lines, creep]) if lines else "nothing is printed")
        for name, field in self.paces.items():
            field.set_value(getattr(work.pace, name))
        how = work.printing
        for name, value in (("walls", float(how.walls)), ("infill", 100 * how.infill), ("rate", how.rate * 1e6)):
            self.prints[name].set_value(value)

    def refuse(self, error: InputError) -> None:
        """Say at its field why a value was not taken."""
        field = self.paces.get(error.where) or self.prints.get(error.where)
        if field is not None:
            field.refuse(error.problem)

    def _on_pace(self, name: str, value: float) -> None:
        if self._work is not None:
            changed: dict[str, Any] = {name: value}
            self.pace_told.emit(replace(self._work.pace, **changed))

    def _on_print(self, name: str, value: float) -> None:
        if self._work is not None:
            made = {"walls": round(value), "infill": value / 100, "rate": value * 1e-6}[name]
            changed: dict[str, Any] = {name: made}
            self.printing_told.emit(replace(self._work.printing, **changed))

    def _build(self) -> None:
        unit = em()
        inside = QWidget(self)
        box = QVBoxLayout(inside)
        box.setContentsMargins(round(1.1 * unit), round(0.6 * unit), round(1.1 * unit), round(0.6 * unit))
        box.setSpacing(round(0.4 * unit))
        box.addWidget(heading("hours"))
        self.words.setWordWrap(True)
        box.addWidget(self.words)
        box.addWidget(self.tasks)
        box.addWidget(label("minutes in this shop", "muted", 0.88))
        box.addLayout(_fields([(words, self.paces[name]) for name, words in PACES], self))
        box.addWidget(heading("lifting"))
        self.lifting.setWordWrap(True)
        box.addWidget(self.lifting)
        box.addWidget(self.loads)
        box.addWidget(heading("fasteners"))
        box.addWidget(self.fasteners)
        box.addWidget(heading("to be settled before drilling"))
        self.unsettled.setWordWrap(True)
        box.addWidget(self.unsettled)
        box.addWidget(heading("printed"))
        self.printed.setWordWrap(True)
        box.addWidget(self.printed)
        rows = [("walls", self.prints["walls"]), ("filled, %", self.prints["infill"]), ("cm³/h", self.prints["rate"])]
        box.addLayout(_fields(rows, self))
        box.addStretch(1)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(ScrolledPage(inside, self))


def _fields(rows: list[tuple[str, QuantityField]], parent: QWidget) -> QGridLayout:
    grid = QGridLayout()
    for number, (words, field) in enumerate(rows):
        grid.addWidget(captioned(words, field, parent), number // BESIDE, number % BESIDE)
    grid.setColumnStretch(BESIDE, 1)
    return grid


def captioned(words: str, field: QuantityField, parent: QWidget) -> QWidget:
    """Return a field with its caption above it."""
    pair = QWidget(parent)
    column = QVBoxLayout(pair)
    column.setContentsMargins(0, 0, 0, 0)
    column.setSpacing(0)
    caption = label(words, "muted", 0.84)
    caption.setBuddy(field.edit)
    field.setFixedWidth(round(6.4 * em()))
    column.addWidget(caption)
    column.addWidget(field)
    return pair


def _table(columns: tuple[str, ...], name: str) -> QTableWidget:
    table = QTableWidget(0, len(columns))
    table.setHorizontalHeaderLabels(columns)
    table.setAccessibleName(name)
    table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
    table.setFont(font(0.9))
    table.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    header, rows = table.horizontalHeader(), table.verticalHeader()
    if header is not None and rows is not None:
        header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        header.setFont(font(0.88))
        rows.hide()
        rows.setDefaultSectionSize(round(1.7 * em()))
    return table


def _fill(table: QTableWidget, lines: list[tuple[str, ...]]) -> None:
    table.setRowCount(len(lines))
    for row, cells in enumerate(lines):
        for column, text in enumerate(cells):
            item = QTableWidgetItem(text)
            item.setToolTip(plain_tip(text))
            if column in (1, 2) or (column == 3 and text.replace(".", "").isdigit()):
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            table.setItem(row, column, item)
    header = table.horizontalHeader()
    tall = header.sizeHint().height() if header is not None else 0
    table.setFixedHeight(tall + sum(table.rowHeight(row) for row in range(len(lines))) + 4)


def _place(place: Vector, units: Units) -> str:
    rounded = (0.0 if abs(value) < NEAR else value for value in place)
    return ", ".join(length_text(value, units, with_unit=False).replace("-", "−") for value in rounded)
