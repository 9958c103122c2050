"""The brief as a form: plain words, everything optional."""

from dataclasses import replace
from functools import partial
from typing import Any

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QComboBox, QGridLayout, QPlainTextEdit, QScrollArea, QVBoxLayout, QWidget

from unterbau.brief.brief import FINISHES, LONGEST_TEXT, PROCESSES, STANDS, TOOLS, Brief
from unterbau.catalogue.cuts import cuts
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import Kind, force_text

Row = tuple[str, str, Kind, str]
WORK: tuple[Row, ...] = (
    ("work_x", "work, along X", "length", ""), ("work_y", "work, along Y", "length", ""),
    ("work_z", "tallest, with vice", "length", ""), ("tool_length", "longest tool", "length", ""),
    ("accuracy", "error allowed", "length", ""),
)  # fmt: skip
LIGHT: tuple[Row, ...] = (
    ("payload", "carried", "mass", ""), ("acceleration", "acceleration", "plain", "m/s²"),
)  # fmt: skip
PLACE: tuple[Row, ...] = (
    ("space_x", "room, along X", "length", ""), ("space_y", "room, along Y", "length", ""),
    ("space_z", "room, height", "length", ""), ("door", "door to pass", "length", ""),
    ("lift", "one person lifts", "mass", ""), ("money", "money", "money", ""),
)  # fmt: skip
NEEDED = ("accuracy", "acceleration")
"""What has a value always; the rest may be left open."""


class BriefForm(QScrollArea):
    """Left of the station; every change is a wish for another brief."""

    wanted = pyqtSignal(object, str)
    """The brief that was wished for, and the field that changed."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._brief = Brief()
        self.process, self.stands, self.finish = QComboBox(self), QComboBox(self), QComboBox(self)
        self.fields: dict[str, QuantityField] = {}
        self.cuts: dict[str, QCheckBox] = {}
        self.tools: dict[str, QCheckBox] = {}
        self.last = QPlainTextEdit(self)
        self._light: list[QWidget] = []
        self._cutting: list[QWidget] = []
        self._inside = QWidget(self)
        self._box = QVBoxLayout(self._inside)
        self._build()
        self.setWidget(self._inside)
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFrameShape(QScrollArea.Shape.NoFrame)

    def show_brief(self, brief: Brief) -> None:
        """Show a brief."""
        self._brief = brief
        for box, value in (
            (self.process, brief.process),
            (self.stands, brief.stands),
            (self.finish, brief.finish),
        ):
            box.setCurrentIndex(max(0, box.findData(value)))
        for name, field in self.fields.items():
            field.set_value(getattr(brief, name))
        for checks, chosen in ((self.cuts, brief.cuts), (self.tools, brief.tools)):
            for name, check in checks.items():
                check.blockSignals(True)
                check.setChecked(name in chosen)
                check.blockSignals(False)
        if self.last.toPlainText() != brief.last_machine:
            self.last.blockSignals(True)
            self.last.setPlainText(brief.last_machine)
            self.last.blockSignals(False)
        cutting = brief.process == "cutting"
        for widget in self._cutting:
            widget.setVisible(cutting)
        for widget in self._light:
            widget.setVisible(not cutting)

    def refuse(self, attribute: str, problem: str) -> None:
        """Say beside a field why its value cannot be used."""
        if attribute in self.fields:
            self.fields[attribute].refuse(problem)

    def _build(self) -> None:
        self._box.setContentsMargins(round(1.2 * em()), round(0.6 * em()), round(0.8 * em()), round(em()))
        self._box.setSpacing(round(0.3 * em()))
        self._box.addWidget(heading("what it is for"))
        self._choice(self.process, "Process", PROCESSES, "process")
        for name, one in cuts().items():
            check = QCheckBox(one.label, self)
            check.setToolTip(f"{one.tool}; {force_text(one.force.likely, self._view.units)} at its peak")
            check.toggled.connect(partial(self._on_checked, "cuts"))
            self.cuts[name] = check
            self._cutting.append(check)
            self._box.addWidget(check)
        self._rows(LIGHT, self._light)
        self._box.addSpacing(round(0.5 * em()))
        self._box.addWidget(heading("work"))
        self._rows(WORK, [])
        self._choice(self.finish, "Finish", FINISHES, "finish")
        self._box.addSpacing(round(0.5 * em()))
        self._box.addWidget(heading("where it stands, who builds it"))
        self._choice(self.stands, "Where it stands", STANDS, "stands")
        self._rows(PLACE, [])
        note = label("tools and favours at hand; none ticked: anything can be had", "muted", 0.86)
        note.setWordWrap(True)
        self._box.addWidget(note)
        for name, words in TOOLS.items():
            check = QCheckBox(words, self)
            check.toggled.connect(partial(self._on_checked, "tools"))
            self.tools[name] = check
            self._box.addWidget(check)
        self._rows((("largest_print", "longest print", "length", ""),), [])
        self._box.addWidget(label("what was wrong with the last machine", "muted", 0.92))
        self.last.setAccessibleName("What was wrong with the last machine")
        self.last.setTabChangesFocus(True)
        self.last.setFixedHeight(round(4.5 * em()))
        self.last.textChanged.connect(self._on_text)
        self._box.addWidget(self.last)
        self._box.addStretch()

    def _choice(self, box: QComboBox, name: str, choices: dict[str, str], attribute: str) -> None:
        box.setAccessibleName(name)
        for value, words in choices.items():
            box.addItem(words, value)
        box.activated.connect(partial(self._on_choice, box, attribute))
        self._box.addWidget(box)

    def _rows(self, rows: tuple[Row, ...], into: list[QWidget]) -> None:
        holder = QWidget(self)
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setVerticalSpacing(round(0.2 * em()))
        grid.setColumnStretch(1, 1)
        for row, (attribute, caption, kind, unit) in enumerate(rows):
            field = QuantityField(
                caption,
                kind,
                self._view,
                self,
                unit=unit,
                optional=attribute not in NEEDED,
                fine=attribute == "accuracy",
            )
            if attribute not in NEEDED:
                field.edit.setPlaceholderText("open")
            field.committed.connect(partial(self._on_value, attribute))
            self.fields[attribute] = field
            grid.addWidget(label(caption, "muted", 0.92), row, 0)
            grid.addWidget(field, row, 1)
        self._box.addWidget(holder)
        into.append(holder)

    def _on_choice(self, box: QComboBox, attribute: str) -> None:
        self._wish(attribute, box.currentData())

    def _on_value(self, attribute: str, value: float) -> None:
        self._wish(attribute, value)

    def _on_checked(self, attribute: str) -> None:
        checks = self.cuts if attribute == "cuts" else self.tools
        self._wish(attribute, tuple(name for name, check in checks.items() if check.isChecked()))

    def _on_text(self) -> None:
        self._wish("last_machine", self.last.toPlainText()[:LONGEST_TEXT])

    def _wish(self, attribute: str, value: object) -> None:
        changes: dict[str, Any] = {attribute: value}
        self.wanted.emit(replace(self._brief, **changes), attribute)
