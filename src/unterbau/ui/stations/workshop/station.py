"""The Workshop station: pieces of the chosen candidate, the bars they are sawn from, the chosen piece beside."""

from dataclasses import replace
from functools import partial
from typing import Any

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
from unterbau.machine.item_words import text_words
from unterbau.machine.machine import Machine, lay_out
from unterbau.materials.material import material
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.bars import BarPlan, bar_plans
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.shop.sheet_plan import Sheet
from unterbau.shop.sheets import PlatesPlan, sheet_plans
from unterbau.shop.state import BarOffer, ShopState
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.workshop.piece_panel import PiecePanel
from unterbau.ui.stations.workshop.plans_page import PlansPage
from unterbau.ui.stations.workshop.section_plan import SectionPlan
from unterbau.ui.stations.workshop.shopping import Shopping
from unterbau.ui.stations.workshop.thickness_plan import ThicknessPlan
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import Units, length_text, mass_text

VIEWS = ("pieces", "bars", "sheets", "shopping")
TIPS = {
    "pieces": "every piece as it is cut",
    "bars": "the bars that pieces are sawn from, drawn to scale",
    "sheets": "the sheets that plates are cut from, drawn to scale",
    "shopping": "what is needed, ordered, here, fitted, and its money",
}


WORDS = {"kerf": "saw cut", "trim": "ends of bars", "gap": "between plates", "border": "around a sheet"}
Plans = tuple[tuple[BarPlan, ...], tuple[PlatesPlan, ...]]


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
        self.gap = QuantityField("between plates", "length", view, self)
        self.border = QuantityField("around a sheet", "length", view, self)
        self.bars = PlansPage((("a saw cut takes", self.kerf), ("off each end of a bar", self.trim)), self._bar, self)
        self.sheets = PlansPage((("between plates", self.gap), ("around a sheet", self.border)), self._sheet, self)
        self.panel, self.shopping = PiecePanel(view, self), Shopping(document, selection, view, self)
        self._pages = QStackedLayout()
        self._build()
        self.views.idClicked.connect(self._on_view)
        self.list.currentRowChanged.connect(self._on_row)
        for name, field in self._lost().items():
            field.committed.connect(partial(self._on_lost, name))
        self.plans.ready.connect(self._on_plans)
        self.plans.failed.connect(self.trouble)
        self.shopping.trouble.connect(self.trouble)
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
        for name, field in self._lost().items():
            field.set_value(getattr(shop, name))
        self._list()
        self._show_piece()
        self.shopping.show_list()
        asked = (self._machine, shop)
        self._show_summary(self.plans.known(asked))
        self.plans.ask(asked)

    def show_view(self, name: str) -> None:
        """Show the pieces, or the bars."""
        place = VIEWS.index(name)
        button = self.views.button(place)
        if button is not None:
            button.setChecked(True)
        self._on_view(place)

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

    def _show_summary(self, plans: Plans | None) -> None:
        count, mass = sum(one.count for one in self._pieces), sum(one.mass * one.count for one in self._pieces)
        holes = sum(len(one.holes) * one.count for one in self._pieces)
        text = (
            f"{self._selection.candidate}: {count} pieces of {len(self._pieces)} sorts, "
            f"{mass_text(mass, self._view.units)}, {holes} holes"
        )
        if plans is not None:
            bars = sum(len(one.plan.bars) for one in plans[0] if one.plan is not None)
            sheets = sum(len(one.plan.sheets) for one in plans[1] if one.plan is not None)
            cost = sum(one.plan.cost for one in plans[0] if one.plan is not None and _priced(one))
            money = f" for {cost:.0f} {self._document.project.prices.currency}" if cost else ""
            text += f", from {bars} bars{money}, {sheets} sheets"
        self.summary.setText(text)

    def _on_plans(self, plans: Plans | None) -> None:
        if plans is None:
            return
        shop = self._document.project.shop
        for section, plan in zip(self.bars.keep(len(plans[0])), plans[0], strict=True):
            section.show_plan(plan, shop.of(plan.section, plan.material), self._chosen)
        for thickness, cut in zip(self.sheets.keep(len(plans[1])), plans[1], strict=True):
            told = shop.sheet(cut.material, cut.thickness)
            thickness.show_plan(cut, told, self._chosen)
        self._show_summary(plans)

    def _bar(self) -> SectionPlan:
        one = SectionPlan(self._view, self)
        one.chosen.connect(self.choose)
        one.offered.connect(self._on_offered)
        return one

    def _sheet(self) -> ThicknessPlan:
        one = ThicknessPlan(self._view, self)
        one.chosen.connect(self.choose)
        one.sheet_told.connect(self._on_sheet)
        return one

    def _lost(self) -> dict[str, QuantityField]:
        return {"kerf": self.kerf, "trim": self.trim, "gap": self.gap, "border": self.border}

    def _on_changed(self, *_: object) -> None:
        if self.isVisible():
            self.show_machine()

    @override
    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.show_machine()

    def _on_view(self, place: int) -> None:
        self._pages.setCurrentIndex(place)
        self.panel.setVisible(VIEWS[place] != "shopping")

    def _on_row(self, row: int) -> None:
        if 0 <= row < len(self._pieces):
            self.choose(self._pieces[row].label)

    def _on_offered(self, section: str, material_id: str, bars: tuple[BarOffer, ...]) -> None:
        self._set_shop(self._document.project.shop.with_bars(section, material_id, bars), "bars to saw from")

    def _on_sheet(self, material_id: str, thickness: float, sheet: Sheet | None) -> None:
        try:
            self._set_shop(self._document.project.shop.with_sheet(material_id, thickness, sheet), "sheets to cut from")
        except InputError as error:
            self.trouble.emit(str(error))

    def _on_lost(self, name: str, value: float) -> None:
        changed: dict[str, Any] = {name: value}
        try:
            self._set_shop(replace(self._document.project.shop, **changed), WORDS[name])
        except InputError as error:
            self._lost()[name].refuse(error.problem)

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
        for page in (self.bars, self.sheets):
            self._pages.addWidget(page.widget)
        self._pages.addWidget(self.shopping.page)
        middle.addWidget(left, 7)
        middle.addWidget(hairline(vertical=True))
        self.panel.setMinimumWidth(round(22 * unit))
        middle.addWidget(self.panel, 4)
        box.addLayout(middle, 1)


def _plans(asked: tuple[Machine, ShopState], progress: Progress) -> Plans:
    machine, shop = asked
    pieces = pieces_of(lay_out(machine))
    sheets = sheet_plans(pieces, shop.sheet, shop.gap, shop.border, progress)
    return bar_plans(pieces, shop.stocks(), shop.kerf, shop.trim, progress), sheets


def _priced(plan: BarPlan) -> bool:
    return plan.plan is not None and any(bar.stock.price for bar in plan.plan.bars)


def _line(one: ShopPiece, units: Units) -> str:
    size = length_text(one.length, units, with_unit=not one.width)
    size += f" × {length_text(one.width, units)}" if one.width else ""
    mitred = ", mitred" if any(end.angle for end in one.ends) else ""
    holes = f", {len(one.holes)} holes" if one.holes else ""
    stock = f"{text_words(one.stock, units)}, {material(one.material).label}"
    return f"{one.label}   {one.count} × {stock}, {size}{mitred}{holes}"
