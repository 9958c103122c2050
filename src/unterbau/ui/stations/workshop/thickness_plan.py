"""The plates of one thickness: their plan in words, the sheets drawn, what size they are cut from."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from unterbau.errors import InputError
from unterbau.machine.item_words import text_words
from unterbau.materials.material import material
from unterbau.shop.offers import read_sheet, sheet_text
from unterbau.shop.sheet_plan import Sheet
from unterbau.shop.sheets import PlatesPlan, usual_sheet
from unterbau.ui.stations.workshop.sheets_view import SheetsView
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import Units


def sheets_words(plan: PlatesPlan) -> str:
    """Return how good a plan is, in a line."""
    found = plan.plan
    if found is None:
        return plan.problem
    count = len(found.sheets)
    proven = "no plan has fewer (proven)" if found.proven else f"no plan has fewer than {found.least}"
    return f"{count} sheet{'s' if count != 1 else ''}; {proven}; {found.used:.0%} used"


class ThicknessPlan(QWidget):
    """Shows one thickness's sheets; tells of another size that is typed."""

    chosen = pyqtSignal(str)
    sheet_told = pyqtSignal(str, float, object)
    """Material, thickness, and the sheet, or nothing for the usual one."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._plan: PlatesPlan | None = None
        self._shown = ""
        self.title, self.words = label("", bold=True), label("", "muted", 0.9)
        self.sheets = SheetsView(self)
        self.caption = label("cut from", "muted", 0.88)
        self.sheet_size = TypedLine(self)
        self.message = label("", "error", 0.86)
        self.message.hide()
        self._build()
        self.sheets.chosen.connect(self.chosen)
        self.sheet_size.editingFinished.connect(self._on_typed)
        self.sheet_size.given_up.connect(self._on_given_up)

    def show_plan(self, plan: PlatesPlan, told: Sheet | None, lit: str, units: Units) -> None:
        """Show a plan; `told` is the sheet that was typed for it."""
        self._plan = plan
        self.title.setText(f"{text_words(plan.stock, units)}, {material(plan.material).label}")
        self.words.setText(sheets_words(plan))
        self.words.setProperty("role", "muted" if plan.plan is not None else "error")
        self.sheets.setVisible(plan.plan is not None)
        self.sheets.show_plan(plan, lit)
        usual = usual_sheet(plan.material)
        self._shown = sheet_text(told, units) if told is not None else ""
        self.sheet_size.setText(self._shown)
        self.sheet_size.setPlaceholderText(f"{sheet_text(usual, units)}, as is usual")
        self.sheet_size.setAccessibleName(f"Size of the sheets that {plan.stock} is cut from")
        self.message.hide()

    def _on_typed(self) -> None:
        if self._plan is None or self.sheet_size.text() == self._shown:
            return
        try:
            sheet = read_sheet(self.sheet_size.text(), self._view.units)
        except InputError as error:
            self.message.setText(error.problem)
            self.message.show()
            return
        self.message.hide()
        self.sheet_told.emit(self._plan.material, self._plan.thickness, sheet)

    def _on_given_up(self) -> None:
        self.sheet_size.setText(self._shown)
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
        box.addWidget(self.sheets)
        row = QHBoxLayout()
        self.caption.setBuddy(self.sheet_size)
        self.sheet_size.setFont(font(0.9))
        self.sheet_size.setToolTip("length × width of the sheets on sale or at hand, as 2000 × 1000")
        row.addWidget(self.caption)
        row.addWidget(self.sheet_size, 1)
        box.addLayout(row)
        self.message.setWordWrap(True)
        box.addWidget(self.message)
