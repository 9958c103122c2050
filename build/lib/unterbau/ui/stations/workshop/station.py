"""The Workshop station: pieces of the chosen candidate, the bars they are sawn from, the chosen piece beside."""

from dataclasses import replace
from functools import partial
from typing import Any

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QButtonGroup,
    QCheckBox,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStackedLayout,
    QVBoxLayout,
    QWidget,
)

from unterbau.errors import InputError
from unterbau.machine.item_words import text_words
from unterbau.machine.machine import Machine, lay_out
from unterbau.materials.material import material
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.bars import BarPlan, bar_plans
from unterbau.shop.by_hand import hand_of, kept_by_hand, with_hand, without_hand
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.shop.sheet_plan import Sheet, SheetPlan
from unterbau.shop.sheets import PlatesPlan, sheet_plans
from unterbau.shop.state import BarOffer, ShopState
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.workshop.drawing_actions import DrawingActions
from unterbau.ui.stations.workshop.piece_panel import PiecePanel
from unterbau.ui.stations.workshop.plans_page import PlansPage
from unterbau.ui.stations.workshop.section_plan import SectionPlan
from unterbau.ui.stations.workshop.shopping import Shopping
from unterbau.ui.stations.workshop.thickness_plan import ThicknessPlan
from unterbau.ui.stations.workshop.working import Working
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.followed import FollowingPage
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import Units, length_text, mass_text

VIEWS = ("pieces", "bars", "sheets", "shopping", "work")
TIPS = {
    "pieces": "every piece as it is cut",
    "bars": "the bars that pieces are sawn from, drawn to scale",
    "sheets": "the sheets that plates are cut from, drawn to scale",
    "shopping": "what is needed, ordered, here, fitted, and its money",
    "work": "hours, what is printed, what has to be lifted",
}


WORDS = {
    "kerf": "saw cut", "trim": "ends of bars", "gap": "between plates", "border": "around a sheet",
    "carried": "what the car carries",
}  # fmt: skip
ALONE = ("shopping", "work")
"""Views without the piece beside them."""
Asked = tuple[Machine, ShopState, str]
Plans = tuple[tuple[BarPlan, ...], tuple[PlatesPlan, ...]]


class WorkshopStation(FollowingPage):
    """What one cuts."""

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
        self.carried = QuantityField("longest piece that fits into the car", "length", view, self, optional=True)
        self.by_edges = QCheckBox("cuts from edge to edge", self)
        fields = ("a saw cut takes", self.kerf), ("off each end of a bar", self.trim), ("the car takes", self.carried)
        self.bars = PlansPage(fields, self._bar, self)
        around = ("between plates", self.gap), ("around a sheet", self.border)
        self.sheets = PlansPage(around, self._sheet, self, (self.by_edges,))
        self.drawings = DrawingActions(document, selection, view, self)
        self.panel, self.shopping = PiecePanel(view, self.drawings.one, self), Shopping(document, selection, view, self)
        self.working = Working(document, selection, view, self)
        self._pages = QStackedLayout()
        self._build()
        self.views.idClicked.connect(self._on_view)
        self.list.currentRowChanged.connect(self._on_row)
        for name, field in self._lost().items():
            field.committed.connect(partial(self._on_lost, name))
        self.plans.ready.connect(self._on_plans)
        self.plans.failed.connect(self.trouble)
        for trouble in (self.shopping.trouble, self.drawings.trouble, self.working.trouble):
            trouble.connect(self.trouble)
        self.drawings.wrote.connect(self.wrote)
        self.working.known.connect(self._show_piece)
        self.panel.how_chosen.connect(self._on_how)
        self.by_edges.clicked.connect(self._on_by_edges)
        self.follow(document, selection, view)
        self.show_machine()

    def show_machine(self) -> None:
        """Show the chosen candidate's pieces, and ask for its bars."""
        try:
            self._pieces = pieces_of(lay_out(self._machine))
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self.working.ask()
        if all(one.label != self._chosen for one in self._pieces):
            self._chosen = self._pieces[0].label if self._pieces else ""
        shop = self._document.project.shop
        for name, field in self._lost().items():
            field.set_value(getattr(shop, name))
        self.by_edges.setChecked(shop.sawn == "guillotine")
        self._list()
        self._show_piece()
        self.shopping.show_list()
        plans = self.plans.known(self.asked)
        self._show_summary(plans)
        self._show_work(plans)
        self.plans.ask(self.asked)

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
            self._on_plans(self.plans.known(self.asked))

    def close_station(self) -> None:
        """Stop what is computed and written behind."""
        self.plans.close()
        self.working.close_work()
        self.drawings.close_actions()

    @property
    def asked(self) -> Asked:
        """What plans are made of."""
        return self._machine, self._document.project.shop, self._selection.candidate

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
        self.drawings.piece = piece
        if piece is not None:
            self.panel.show_how(piece, *self.working.making(piece))

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
            section.show_plan(plan, shop.of(plan.section, plan.material), self._chosen, shop.carried, shop.pace)
        for thickness, cut in zip(self.sheets.keep(len(plans[1])), plans[1], strict=True):
            told = shop.sheet(cut.material, cut.thickness)
            thickness.show_plan(cut, told, self._chosen)
        self._show_summary(plans)
        self.shopping.show_bars(plans[0])
        self._show_work(plans)

    def _show_work(self, plans: Plans | None) -> None:
        """Show hours and loads, where they are looked at."""
        if VIEWS[self._pages.currentIndex()] == "work":
            self.working.show_work(self._pieces, plans[0] if plans is not None else ())

    def _bar(self) -> SectionPlan:
        one = SectionPlan(self._view, self)
        one.chosen.connect(self.choose)
        one.offered.connect(self._on_offered)
        return one

    def _sheet(self) -> ThicknessPlan:
        one = ThicknessPlan(self._view, self)
        one.chosen.connect(self.choose)
        one.sheet_told.connect(self._on_sheet)
        one.laid.connect(self._on_laid)
        return one

    def _lost(self) -> dict[str, QuantityField]:
        return {"kerf": self.kerf, "trim": self.trim, "gap": self.gap, "border": self.border,
                "carried": self.carried}  # fmt: skip

    def _on_view(self, place: int) -> None:
        self._pages.setCurrentIndex(place)
        self.panel.setVisible(VIEWS[place] not in ALONE)
        if VIEWS[place] == "work":
            self._show_work(self.plans.known(self.asked))

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

    def _on_laid(self, plates: PlatesPlan, plan: SheetPlan | None) -> None:
        shop, name = self._document.project.shop, self._selection.candidate
        if plan is None:
            rows = without_hand(shop.by_hand, name, plates.material, plates.thickness)
        else:
            rows = with_hand(shop.by_hand, kept_by_hand(plan, name, plates.material, plates.thickness))
        changed, key = replace(shop, by_hand=rows), f"plates/{plates.material}/{plates.thickness:g}"
        if plan is None:
            self._set_shop(changed, "plates laid anew")
        else:
            self._document.apply(edits.set_shop(self._document.project, changed), "plates moved", key)

    def _on_how(self, how: str) -> None:
        if self.drawings.piece is not None:
            self.working.choose_how(self.drawings.piece, how)

    def _on_by_edges(self, checked: bool) -> None:
        shop = replace(self._document.project.shop, sawn="guillotine" if checked else "free")
        self._set_shop(shop, "cuts from edge to edge")

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
        head.addSpacing(round(1.1 * unit))
        self.summary.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        head.addWidget(self.summary, 1)
        head.addSpacing(round(0.6 * unit))
        head.addWidget(self.drawings.all)
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
        self._pages.addWidget(self.working.page)
        middle.addWidget(left, 7)
        middle.addWidget(hairline(vertical=True))
        self.panel.setMinimumWidth(round(22 * unit))
        middle.addWidget(self.panel, 4)
        box.addLayout(middle, 1)


def _plans(asked: Asked, progress: Progress) -> Plans:
    machine, shop, candidate = asked
    pieces = pieces_of(lay_out(machine))
    sheets = sheet_plans(
        pieces, shop.sheet, shop.gap, shop.border, progress, shop.sawn == "guillotine",
        lambda material, thickness: hand_of(shop.by_hand, candidate, material, thickness),
    )  # fmt: skip
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
