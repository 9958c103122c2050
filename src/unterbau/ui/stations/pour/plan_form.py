"""What is poured with what, how thick, when: fields of the plan that is shown; a change is told as a new plan."""

from dataclasses import replace
from functools import partial
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from unterbau.errors import InputError
from unterbau.shop.pour.grain_words import grains_text, read_grains
from unterbau.shop.pour.mould import Mould
from unterbau.shop.pour.open_words import open_text, read_open
from unterbau.shop.pour.plan import CEMENTS, MOULD, RESIN_SHARES, SCHOOLS, SORTS, PourPlan, check_pour
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.typed_line import TypedLine, abandon_in
from unterbau.units import Kind

RESIN, CEMENT, FORM = "epoxy granite", ("concrete", "mortar"), "form"
# name, words, kind, unit, factor from what is typed to SI, where it counts
FIELDS: tuple[tuple[str, str, Kind, str, float, str], ...] = (
    ("resin_share", "resin", "plain", "%", 0.01, RESIN),
    ("voids", "voids measured", "plain", "%", 0.01, RESIN),
    ("resin.pot_life", "pot life", "plain", "min", 1.0, RESIN),
    ("resin.ratio", "hardener to resin", "plain", "", 1.0, RESIN),
    ("resin.age", "resin is old", "plain", "months", 1.0, RESIN),
    ("water_cement", "water to cement", "plain", "", 1.0, "cement"),
    ("water", "water a m³", "plain", "kg", 1.0, "cement"),
    ("lift", "lifts of", "length", "", 1.0, ""),
    ("wait", "wait between", "plain", "h", 1.0, ""),
    ("shop", "shop", "plain", "°C", 1.0, ""),
    ("bucket", "bucket", "plain", "l", 1e-3, ""),
    ("carries", "one carries", "mass", "", 1.0, ""),
    ("mould.length", "piece long", "length", "", 1.0, FORM),
    ("mould.width", "wide", "length", "", 1.0, FORM),
    ("mould.height", "tall", "length", "", 1.0, FORM),
    ("mould.draft", "draft", "plain", "°", 1.0, FORM),
    ("mould.board", "boards", "length", "", 1.0, FORM),
    ("mould.brace", "braces every", "length", "", 1.0, FORM),
)
BESIDE = 3


class PlanForm(QWidget):
    """Fields of a pour."""

    planned = pyqtSignal(object, str)
    """The plan as it is wanted, and what was changed."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._plan: PourPlan | None = None
        self.sort = ChoiceBox("What is poured", tuple((one, one) for one in SORTS), self)
        self.school = ChoiceBox("School of the mix", tuple((one, one) for one in SCHOOLS), self)
        self.cement = ChoiceBox("Class of cement", tuple((one, f"cement {one}") for one in CEMENTS), self)
        self._view = view
        self._base: Mould | None = None
        self.start, self.grains, self.open = TypedLine(self), TypedLine(self), TypedLine(self)
        self.as_base = QPushButton("as the machine's base", self)
        self.problem = label("", "error", 0.88)
        self.fields: dict[str, QuantityField] = {}
        self._cells: dict[str, QWidget] = {}
        for name, words, kind, unit, _, _ in FIELDS:
            optional = name in ("voids", "wait", "carries")
            self.fields[name] = QuantityField(words, kind, view, self, self.problem, unit=unit, optional=optional)
        self._build()
        self.sort.activated.connect(self._on_sort)
        self.school.activated.connect(self._on_school)
        self.cement.activated.connect(self._on_cement)
        self.start.editingFinished.connect(self._on_start)
        self.grains.editingFinished.connect(self._on_grains)
        self.open.editingFinished.connect(self._on_open)
        self.as_base.clicked.connect(self._on_as_base)
        for line in (self.start, self.grains, self.open):
            line.given_up.connect(partial(self._on_given_up, line))
        for name, field in self.fields.items():
            field.committed.connect(partial(self._on_field, name))

    def show_plan(self, plan: PourPlan, base: Mould | None = None) -> None:
        """Show a plan; `base` is the mould of the machine's own base, if it stands on one."""
        if self._plan is not None and plan.part != self._plan.part:
            abandon_in(self)
        self._plan, self._base = plan, base
        self.as_base.setVisible(plan.part == MOULD and base is not None)
        self.as_base.setEnabled(base != plan.mould)
        self.sort.show_value(plan.sort)
        self.school.show_value(plan.school)
        self.school.setVisible(plan.sort == RESIN)
        self.cement.show_value(plan.cement_class)
        self.cement.setVisible(plan.sort in CEMENT)
        for name, _, _, _, factor, counts in FIELDS:
            self.fields[name].set_value(_get(plan, name) / factor)
            shown = counts in ("", plan.sort) or (counts == "cement" and plan.sort in CEMENT)
            self._cells[name].setVisible(shown or (counts == FORM and plan.part == MOULD))
        self._cells["grains"].setVisible(plan.sort == RESIN or plan.sort in CEMENT)
        self._cells["open"].setVisible(plan.part == MOULD)
        self._place_cells()
        self._show_lines()
        if not any(line.pending for line in self.findChildren(TypedLine)):
            self.say("")

    def say(self, problem: str) -> None:
        """Say what cannot be."""
        self.problem.setText(problem)
        self.problem.setVisible(bool(problem))

    def change(self, name: str, value: float) -> None:
        """Change a field as if it were typed."""
        self._on_field(name, value)

    def _place_cells(self) -> None:
        """Put the fields that count beside one another, without gaps."""
        shown = [self._cells[row[0]] for row in FIELDS if not self._cells[row[0]].isHidden()]
        for number, cell in enumerate(shown):
            self._grid.addWidget(cell, 1 + number // BESIDE, number % BESIDE)

    def _show_lines(self) -> None:
        if self._plan is not None:
            self.start.show_text(self._plan.start)
            self.grains.show_text(grains_text(self._plan.grains))
            self.open.show_text(open_text(self._plan.mould, self._view.units))

    def _on_given_up(self, line: TypedLine) -> None:
        line.accept_text()
        self._show_lines()
        self.say("")

    def _tell(self, plan: PourPlan, words: str, line: TypedLine | None = None) -> None:
        try:
            check_pour(plan)
        except InputError as error:
            self.say(error.problem)
            return
        if line is not None:
            line.accept_text()
        if plan != self._plan:
            self.planned.emit(plan, words)

    def _on_field(self, name: str, value: float) -> None:
        factor = next(row[4] for row in FIELDS if row[0] == name)
        words = next(row[1] for row in FIELDS if row[0] == name)
        if self._plan is not None:
            self._tell(_set(self._plan, name, value * factor), words)

    def _on_sort(self, index: int) -> None:
        if self._plan is not None:
            changed: dict[str, Any] = {"sort": self.sort.itemData(index)}
            self._tell(replace(self._plan, **changed), "what is poured")

    def _on_school(self, index: int) -> None:
        school = SCHOOLS[index]
        if self._plan is not None:
            self._tell(replace(self._plan, school=school, resin_share=RESIN_SHARES[school]), school)

    def _on_cement(self, index: int) -> None:
        if self._plan is not None:
            self._tell(replace(self._plan, cement_class=CEMENTS[index]), "class of cement")

    def _on_start(self) -> None:
        if self._plan is not None and self.start.text() != self._plan.start:
            self._tell(
                replace(self._plan, start=self.start.text().strip().replace(" ", "T")), "start of the pour", self.start
            )

    def _on_grains(self) -> None:
        if self._plan is None or self.grains.text() == grains_text(self._plan.grains):
            return
        try:
            self._tell(replace(self._plan, grains=read_grains(self.grains.text())), "grains at hand", self.grains)
        except InputError as error:
            self.say(error.problem)

    def _on_open(self) -> None:
        units = self._view.units
        if self._plan is None or self.open.text() == open_text(self._plan.mould, units):
            return
        try:
            mould = read_open(self.open.text(), self._plan.mould, units)
            self._tell(replace(self._plan, mould=mould), "what stays open", self.open)
        except InputError as error:
            self.say(error.problem)

    def _on_as_base(self) -> None:
        if self._plan is not None and self._base is not None:
            self._tell(replace(self._plan, mould=self._base), "the mould of the base")

    def _build(self) -> None:
        unit = em()
        grid = self._grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(round(0.6 * unit))
        grid.addWidget(self.sort, 0, 0, 1, 2)
        grid.addWidget(self.school, 0, 2)
        grid.addWidget(self.cement, 0, 2)
        for number, (name, words, *_) in enumerate(FIELDS):
            self._cells[name] = self._cell(words, self.fields[name], self.fields[name].edit)
            grid.addWidget(self._cells[name], 1 + number // BESIDE, number % BESIDE)
        low = 2 + len(FIELDS) // BESIDE
        for row, (name, words, line) in enumerate((
            ("start", "start", self.start), ("grains", "grains", self.grains), ("open", "stays open", self.open),
        )):  # fmt: skip
            line.setFont(font(0.9))
            line.setAccessibleName(words)
            self._cells[name] = self._cell(words, line, line)
            grid.addWidget(self._cells[name], low + row, 0, 1, BESIDE)
        self.start.setToolTip("date and time of the first lift, as 2026-06-06T10:00")
        self.grains.setToolTip("sieve fractions at hand in mm, with price a kg and water: 0.1-0.5 at 0.40; 2-8 wet 2 %")
        self.open.setToolTip(
            "pockets from below and sumps by corner and size, cores, inserts: pocket 50, 50: 220 × 350 × 50; "
            "sump 400, 120: 150 × 200 × 40; core 30 × 200; insert M8 60, 60"
        )
        self.as_base.setFont(font(0.88))
        self.as_base.setProperty("small", True)
        self.as_base.setToolTip("length, width, height, pockets between its ribs, inserts under the machine's feet")
        grid.addWidget(self.as_base, low + 3, 0, 1, BESIDE)
        self.problem.setWordWrap(True)
        self.problem.hide()
        grid.addWidget(self.problem, low + 4, 0, 1, BESIDE)

    def _cell(self, words: str, field: QWidget, buddy: QLineEdit) -> QWidget:
        pair = QWidget(self)
        column = QVBoxLayout(pair)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        caption = label(words, "muted", 0.84)
        caption.setBuddy(buddy)
        column.addWidget(caption)
        column.addWidget(field)
        return pair


def _get(plan: PourPlan, name: str) -> float:
    at: Any = plan
    for step in name.split("."):
        at = getattr(at, step)
    return float(at)


def _set(plan: PourPlan, name: str, value: float) -> PourPlan:
    first, _, rest = name.partition(".")
    changed: dict[str, Any] = {first: replace(getattr(plan, first), **{rest: value}) if rest else value}
    return replace(plan, **changed)
