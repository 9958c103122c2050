"""The plates of one thickness: how good their plan is, the sheets drawn, what size they are cut from."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.shop.sheet_plan import Sheet, SheetPlan
from unterbau.shop.sheets import PlatesPlan, usual_sheet
from unterbau.shop.stock_words import read_sheet, sheet_text
from unterbau.ui.stations.workshop.sheets_view import SheetsView
from unterbau.ui.stations.workshop.stock_plan import StockPlan
from unterbau.ui.view_settings import ViewSettings

TIP = "length × width of the sheets on sale or at hand, as 2000 × 1000"


def sheets_words(plan: PlatesPlan) -> str:
    """Return how good a plan is, in a line."""
    found = plan.plan
    if found is None:
        return plan.problem
    count = len(found.sheets)
    if found.by_hand:
        return f"{count} sheet{'s' if count != 1 else ''}, as laid by hand; {found.used:.0%} used"
    proven = "no plan has fewer (proven)" if found.proven else f"no plan has fewer than {found.least}"
    return f"{count} sheet{'s' if count != 1 else ''}; {proven}; {found.used:.0%} used"


class ThicknessPlan(StockPlan):
    """Shows one thickness's sheets; tells of another size that is typed."""

    sheet_told = pyqtSignal(str, float, object)
    """Material, thickness, and the sheet, or nothing for the usual one."""
    laid = pyqtSignal(object, object)
    """The plan's plates, and how a hand laid them; nothing where they are to be laid anew."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        self.sheets = SheetsView()
        super().__init__(view, self.sheets, "cut from", TIP, parent)
        self.plan: PlatesPlan | None = None
        self.sheets.chosen.connect(self.chosen)
        self.sheets.moved.connect(self._on_moved)
        self.sheets.refused.connect(self.say)
        self.button.setText("lay anew")
        self.button.setToolTip("forget what was moved by hand")
        self.button.clicked.connect(self._on_anew)

    def show_plan(self, plan: PlatesPlan, told: Sheet | None, lit: str) -> None:
        """Show a plan; `told` is the sheet that was typed for it."""
        self.plan, units = plan, self._view.units
        self.show_stock(plan.stock, plan.material, sheets_words(plan), plan.plan is not None)
        self.sheets.show_plan(plan, lit)
        self.button.setVisible(plan.plan is not None and plan.plan.by_hand)
        text = sheet_text(told, units) if told is not None else ""
        name = f"Size of the sheets that {plan.stock} is cut from"
        self.show_line(text, sheet_text(usual_sheet(plan.material), units), name)

    @override
    def take(self, text: str) -> None:
        if self.plan is not None:
            self.sheet_told.emit(self.plan.material, self.plan.thickness, read_sheet(text, self._view.units))

    def _on_moved(self, plan: SheetPlan) -> None:
        self.laid.emit(self.plan, plan)

    def _on_anew(self) -> None:
        self.laid.emit(self.plan, None)
