"""The bars of one section: how good their plan is, the bars drawn, what there is to saw from."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.shop.bars import USUAL, BarPlan
from unterbau.shop.offers import offers_text, read_offers
from unterbau.shop.state import BarOffer
from unterbau.ui.stations.workshop.bars_view import BarsView
from unterbau.ui.stations.workshop.stock_plan import StockPlan
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import length_text

TIP = "lengths on offer with the price of each, own ones from the rack: 6000 at 42; 3000 at 23; own 2 × 1300"


def plan_words(plan: BarPlan) -> str:
    """Return how good a plan is, in a line."""
    found = plan.plan
    if found is None:
        return plan.problem
    count = len(found.bars)
    proven = "no plan is cheaper (proven)" if found.proven else "perhaps a cheaper one exists: not proven in the time"
    setups = f"{found.setups} set-up{'s' if found.setups != 1 else ''}"
    return f"{count} bar{'s' if count != 1 else ''}, {setups}; {proven}; {found.waste:.0%} is left or lost"


class SectionPlan(StockPlan):
    """Shows one section's bars; tells of other bars that are typed."""

    offered = pyqtSignal(str, str, object)
    """Section, material, and the bars there are now."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        self.bars = BarsView()
        super().__init__(view, self.bars, "saw from", TIP, parent)
        self.plan: BarPlan | None = None
        self.bars.chosen.connect(self.chosen)

    def show_plan(self, plan: BarPlan, offers: tuple[BarOffer, ...], lit: str) -> None:
        """Show a plan and what it is sawn from."""
        self.plan, units = plan, self._view.units
        self.show_stock(plan.stock, plan.material, plan_words(plan), plan.plan is not None)
        self.bars.show_plan(plan, lit, units)
        name = f"Bars of {plan.stock} there are, lengths with prices, own ones from the rack"
        self.show_line(offers_text(offers, units), length_text(USUAL, units), name)

    @override
    def take(self, text: str) -> None:
        if self.plan is not None:
            bars = read_offers(text, self.plan.section, self.plan.material, self._view.units)
            self.offered.emit(self.plan.section, self.plan.material, bars)
