"""The Workshop station: pieces of the chosen candidate, the bars they are sawn from, the chosen piece beside."""

from dataclasses import replace
from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStackedLayout,
    QVBoxLayout,
    QWidget,
)
from typing_extensions import override

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, lay_out
from unterbau.materials.material import material
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.bars import BarPlan, bar_plans
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.shop.state import BarOffer, ShopState
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.workshop.piece_panel import PiecePanel
from unterbau.ui.stations.workshop.section_plan import SectionPlan
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.units import Units, length_text, mass_text

VIEWS = ("pieces", "bars")
TIPS = {"pieces": "every piece as it is cut", "bars": "the bars that pieces are sawn from, drawn to scale"}


class WorkshopStation(QWidget):
    """What one cuts."""

    trouble = pyqtSignal(str)

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view = document, selection, view
        self._pieces: tuple[ShopPiece, ...] = ()
        self._chosen = ""
        self.plans = Asker(_plans, self)
        self.views = QButtonGroup(self)
        self.summary = label("", "muted", 0.94)
        self.list = QListWidget(self)
        self.kerf = QuantityField("saw cut", "length", view, self)
        self.trim = QuantityField("off each end", "length", view, self)
        self.sections: list[SectionPlan] = []
        self.panel = PiecePanel(view, self)
        self._pages = QStackedLayout()
        self._plan_box = QVBoxLayout()
        self._build()
        self.views.idClicked.connect(self._pages.setCurrentIndex)
        self.list.currentRowChanged.connect(self._on_row)
        self.kerf.committed.connect(partial(self._on_cut, "kerf"))
        self.trim.committed.connect(partial(self._on_cut, "trim"))
        self.plans.ready.connect(self._on_plans)
        self.plans.failed.connect(self.trouble)
        document.changed.connect(self._on_changed)
        selection.candidate_changed.connect(self._on_changed)
        view.changed.connect(self._on_changed)
        self.show_machine()

    def show_machine(self) -> None:
        """Show the chosen candidate's pieces, and ask for its bars."""
        try:
            self._pieces = pieces_of(lay_out(self._machine))
        except InputError as error:
            self.trouble.emit(str(error))
            return
        if all(one.label != self._chosen for one in self._pieces):
            self._chosen = self._pieces[0].label if self._pieces else ""
        shop = self._document.project.shop
        self.kerf.set_value(shop.kerf)
        self.trim.set_value(shop.trim)
        self._list()
        self._show_piece()
        asked = (self._machine, shop)
        self._show_summary(self.plans.known(asked))
        self.plans.ask(asked)

    def show_view(self, name: str) -> None:
        """Show the pieces, or the bars."""
        place = VIEWS.index(name)
        button = self.views.button(place)
        if button is not None:
            button.setChecked(True)
        self._pages.setCurrentIndex(place)

    def choose(self, name: str) -> None:
        """Show a piece by its label."""
        if name != self._chosen:
            self._chosen = name
            self._list()
            self._show_piece()
            self._on_plans(self.plans.known((self._machine, self._document.project.shop)))

    def close_station(self) -> None:
        """Stop what is computed behind."""
        self.plans.close()

    @property
    def _machine(self) -> Machine:
        return self._document.project.candidate(self._selection.candidate).machine

    def _list(self) -> None:
        units = self._view.units
        self.list.blockSignals(True)
        self.list.clear()
        for one in self._pieces:
            item = QListWidgetItem(_line(one, units), self.list)
            item.setToolTip(plain_tip(", ".join(one.names)))
        labels = [one.label for one in self._pieces]
        self.list.setCurrentRow(labels.index(self._chosen) if self._chosen in labels else -1)
        self.list.blockSignals(False)

    def _show_piece(self) -> None:
        piece = next((one for one in self._pieces if one.label == self._chosen), None)
        self.panel.show_piece(self._machine, piece)

    def _show_summary(self, plans: tuple[BarPlan, ...] | None) -> None:
        count, mass = sum(one.count for one in self._pieces), sum(one.mass * one.count for one in self._pieces)
        holes = sum(len(one.holes) * one.count for one in self._pieces)
        text = (
            f"{self._selection.candidate}: {count} pieces of {len(self._pieces)} sorts, "
            f"{mass_text(mass, self._view.units)}, {holes} holes"
        )
        if plans is not None:
            bars = sum(len(one.plan.bars) for one in plans if one.plan is not None)
            cost = sum(one.plan.cost for one in plans if one.plan is not None and _priced(one))
            money = f" for {cost:.0f} {self._document.project.prices.currency}" if cost else ""
            text += f", from {bars} bars{money}"
        self.summary.setText(text)

    def _on_plans(self, plans: tuple[BarPlan, ...] | None) -> None:
        if plans is None:
            return
        while len(self.sections) > len(plans):
            gone = self.sections.pop()
            self._plan_box.removeWidget(gone)
            gone.hide()
            gone.deleteLater()
        while len(self.sections) < len(plans):
            one = SectionPlan(self._view, self)
            one.chosen.connect(self.choose)
            one.offered.connect(self._on_offered)
            self._plan_box.insertWidget(len(self.sections), one)
            self.sections.append(one)
        shop = self._document.project.shop
        for section, plan in zip(self.sections, plans, strict=True):
            offers = shop.of(plan.section, plan.material)
            section.show_plan(plan, offers, self._chosen, self._view.units)
        self._show_summary(plans)

    def _on_changed(self, *_: object) -> None:
        if self.isVisible():
            self.show_machine()

    @override
    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.show_machine()

    def _on_row(self, row: int) -> None:
        if 0 <= row < len(self._pieces):
            self.choose(self._pieces[row].label)

    def _on_offered(self, section: str, material_id: str, bars: tuple[BarOffer, ...]) -> None:
        self._set_shop(self._document.project.shop.with_bars(section, material_id, bars), "bars to saw from")

    def _on_cut(self, name: str, value: float) -> None:
        shop = self._document.project.shop
        changed = replace(shop, kerf=value) if name == "kerf" else replace(shop, trim=value)
        try:
            self._set_shop(changed, "saw cut" if name == "kerf" else "ends of bars")
        except InputError as error:
            (self.kerf if name == "kerf" else self.trim).refuse(error.problem)

    def _set_shop(self, shop: ShopState, text: str) -> None:
        self._document.apply(edits.set_shop(self._document.project, shop), text)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        head = QHBoxLayout()
        head.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.4 * unit))
        for place, name in enumerate(VIEWS):
            button = QPushButton(name.capitalize(), self)
            button.setCheckable(True)
            button.setFlat(True)
            button.setChecked(place == 0)
            button.setToolTip(TIPS[name])
            self.views.addButton(button, place)
            head.addWidget(button)
        head.addStretch(1)
        head.addWidget(self.summary)
        box.addLayout(head)
        box.addWidget(hairline())
        middle = QHBoxLayout()
        middle.setSpacing(0)
        left = QWidget(self)
        left.setLayout(self._pages)
        self.list.setAccessibleName("Pieces of the candidate, by letters")
        self.list.setFont(font(0.95))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setTextElideMode(Qt.TextElideMode.ElideRight)
        self._pages.addWidget(self.list)
        self._pages.addWidget(self._bars_page())
        middle.addWidget(left, 7)
        middle.addWidget(hairline(vertical=True))
        self.panel.setMinimumWidth(round(22 * unit))
        middle.addWidget(self.panel, 4)
        box.addLayout(middle, 1)

    def _bars_page(self) -> QWidget:
        unit = em()
        inside = QWidget(self)
        column = QVBoxLayout(inside)
        column.setContentsMargins(round(1.1 * unit), round(0.6 * unit), round(1.1 * unit), round(0.6 * unit))
        row = QHBoxLayout()
        for words, field in (("a saw cut takes", self.kerf), ("off each end of a bar", self.trim)):
            caption = label(words, "muted", 0.9)
            caption.setBuddy(field.edit)
            field.setMaximumWidth(round(7 * unit))
            row.addWidget(caption)
            row.addWidget(field)
            row.addSpacing(round(1.2 * unit))
        row.addStretch(1)
        column.addLayout(row)
        column.addSpacing(round(0.4 * unit))
        column.addLayout(self._plan_box)
        column.addStretch(1)
        return ScrolledPage(inside, self)


def _plans(asked: tuple[Machine, ShopState], progress: Progress) -> tuple[BarPlan, ...]:
    machine, shop = asked
    return bar_plans(pieces_of(lay_out(machine)), shop.stocks(), shop.kerf, shop.trim, progress)


def _priced(plan: BarPlan) -> bool:
    return plan.plan is not None and any(bar.stock.price for bar in plan.plan.bars)


def _line(one: ShopPiece, units: Units) -> str:
    size = length_text(one.length, units, with_unit=not one.width)
    size += f" × {length_text(one.width, units)}" if one.width else ""
    mitred = ", mitred" if any(end.angle for end in one.ends) else ""
    holes = f", {len(one.holes)} holes" if one.holes else ""
    return f"{one.label}   {one.count} × {one.stock}, {material(one.material).label}, {size}{mitred}{holes}"
