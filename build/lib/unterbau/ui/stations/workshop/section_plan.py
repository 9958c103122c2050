"""The bars of one section: how good their plan is, the bars drawn, what there is to saw from."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.shop.bars import USUAL, BarPlan
from unterbau.shop.hours import Pace
from unterbau.shop.rack import after_sawing, too_long
from unterbau.shop.state import BarOffer
from unterbau.shop.stock_words import offers_text, read_offers
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


def gang_words(plan: BarPlan) -> str:
    """Return which pieces are cut together at one stop, in a line; nothing where none are."""
    gangs = [f"{one.label} × {one.count}" for one in plan.pieces if one.count > 1]
    return f"one stop each: {', '.join(gangs)}" if gangs else ""


def minutes_words(plan: BarPlan, pace: Pace) -> str:
    """Return how long sawing takes: a set-up for each different bar, a cut for each piece."""
    if plan.plan is None:
        return ""
    cuts = sum(one.count for one in plan.pieces)
    return f"about {plan.plan.setups * pace.setup + cuts * pace.cut:.0f} minutes"


class SectionPlan(StockPlan):
    """Shows one section's bars; tells of other bars that are typed, and that the plan was sawn."""

    offered = pyqtSignal(str, str, object)
    """Section, material, and the bars there are now."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        self.bars = BarsView()
        super().__init__(view, self.bars, "saw from", TIP, parent)
        self.plan: BarPlan | None = None
        self._offers: tuple[BarOffer, ...] = ()
        self.button.setText("sawn")
        self.button.setToolTip("the plan is done: what is left goes into the rack, own bars that were used leave it")
        self.button.clicked.connect(self._on_sawn)
        self.bars.chosen.connect(self.chosen)

    def show_plan(self, plan: BarPlan, offers: tuple[BarOffer, ...], lit: str, carried: float, pace: Pace) -> None:
        """Show a plan and what it is sawn from; `carried` is the longest piece that the car takes, m, 0 for any."""
        self.plan, self._offers, units = plan, offers, self._view.units
        words = "; ".join(one for one in (plan_words(plan), gang_words(plan), minutes_words(plan, pace)) if one)
        long = too_long({one.label: one.length for one in plan.pieces}, carried)
        if long:
            words += f"; {', '.join(long)} too long for the car: delivered, or spliced"
        elif carried and plan.plan is not None and any(bar.stock.length > carried for bar in plan.plan.bars):
            words += f"; bars longer than the car: have them cut once at the yard, to {length_text(carried, units)}"
        self.button.setEnabled(plan.plan is not None)
        self.show_stock(plan.stock, plan.material, words, plan.plan is not None)
        self.bars.show_plan(plan, lit, units)
        name = f"Bars of {plan.stock} there are, lengths with prices, own ones from the rack"
        self.show_line(offers_text(offers, units), length_text(USUAL, units), name)

    @override
    def take(self, text: str) -> None:
        if self.plan is not None:
            bars = read_offers(text, self.plan.section, self.plan.material, self._view.units)
            self.offered.emit(self.plan.section, self.plan.material, bars)

    def _on_sawn(self) -> None:
        if self.plan is None or self.plan.plan is None:
            return
        bars = after_sawing(self._offers, self.plan.plan, self.plan.section, self.plan.material)
        self.offered.emit(self.plan.section, self.plan.material, bars)
