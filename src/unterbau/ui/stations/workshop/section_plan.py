"""The bars of one section: its plan in words, its bars drawn, what there is to saw from."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from unterbau.errors import InputError
from unterbau.machine.item_words import text_words
from unterbau.materials.material import material
from unterbau.shop.bars import USUAL, BarPlan
from unterbau.shop.offers import offers_text, read_offers
from unterbau.shop.state import BarOffer
from unterbau.ui.stations.workshop.bars_view import BarsView
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import Units, length_text


def plan_words(plan: BarPlan) -> str:
    """Return how good a plan is, in a line."""
    found = plan.plan
    if found is None:
        return plan.problem
    count = len(found.bars)
    proven = "no plan is cheaper (proven)" if found.proven else "perhaps a cheaper one exists: not proven in the time"
    setups = f"{found.setups} set-up{'s' if found.setups != 1 else ''}"
    return f"{count} bar{'s' if count != 1 else ''}, {setups}; {proven}; {found.waste:.0%} is left or lost"


class SectionPlan(QWidget):
    """Shows one section's bars; tells of other bars that are typed."""

    chosen = pyqtSignal(str)
    offered = pyqtSignal(str, str, object)
    """Section, material, and the bars there are now."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._plan: BarPlan | None = None
        self._shown = ""
        self.title, self.words = label("", bold=True), label("", "muted", 0.9)
        self.bars = BarsView(self)
        self.caption = label("saw from", "muted", 0.88)
        self.offers = TypedLine(self)
        self.message = label("", "error", 0.86)
        self.message.hide()
        self._build()
        self.bars.chosen.connect(self.chosen)
        self.offers.editingFinished.connect(self._on_typed)
        self.offers.given_up.connect(self._on_given_up)

    def show_plan(self, plan: BarPlan, offers: tuple[BarOffer, ...], lit: str, units: Units) -> None:
        """Show a plan and what it is sawn from."""
        self._plan = plan
        self.title.setText(f"{text_words(plan.stock, units)}, {material(plan.material).label}")
        self.words.setText(plan_words(plan))
        self.words.setProperty("role", "muted" if plan.plan is not None else "error")
        self.bars.setVisible(plan.plan is not None)
        self.bars.show_plan(plan, lit, units)
        self._shown = offers_text(offers, units)
        self.offers.setText(self._shown)
        self.offers.setPlaceholderText(f"{length_text(USUAL, units)}, as is usual")
        self.offers.setAccessibleName(f"Bars of {plan.stock} there are, lengths with prices, own ones from the rack")
        self.message.hide()

    def _on_typed(self) -> None:
        if self._plan is None or self.offers.text() == self._shown:
            return
        try:
            bars = read_offers(self.offers.text(), self._plan.section, self._plan.material, self._view.units)
        except InputError as error:
            self.message.setText(error.problem)
            self.message.show()
            return
        self.message.hide()
        self.offered.emit(self._plan.section, self._plan.material, bars)

    def _on_given_up(self) -> None:
        self.offers.setText(self._shown)
        self.message.hide()

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, round(0.6 * unit))
        box.setSpacing(round(0.25 * unit))
        head = QHBoxLayout()
        head.addWidget(self.title)
        head.addSpacing(round(0.6 * unit))
        head.addWidget(self.words, 1)
        box.addLayout(head)
        box.addWidget(self.bars)
        row = QHBoxLayout()
        self.caption.setBuddy(self.offers)
        self.offers.setFont(font(0.9))
        self.offers.setToolTip("lengths on offer with the price of each, own ones from the rack: "
                               "6000 at 42; 3000 at 23; own 2 × 1300")  # fmt: skip
        row.addWidget(self.caption)
        row.addWidget(self.offers, 1)
        box.addLayout(row)
        self.message.setWordWrap(True)
        box.addWidget(self.message)
