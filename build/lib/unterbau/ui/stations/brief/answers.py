"""What follows from the brief, in words, against the machine that is looked at."""

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from unterbau.brief.targets import Targets, met
from unterbau.studies.answers import Answers
from unterbau.studies.budget import Cure, Finding
from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import heading, label
from unterbau.units import Units, force_text, forces_text, in_units, number_text, two_told

AXES = "XYZ"


class TargetsPanel(QWidget):
    """Force, stiffness, and whether the candidate has it."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.15 * em()))
        box.addWidget(heading("what follows"))
        self.force = label("", bold=True)
        self.stiffness = label("")
        self.reached = label("", "", 0.95)
        self.reasons = label("", "muted", 0.86)
        self.fold = QPushButton("why these numbers ▸", self)
        self.fold.setFlat(True)
        self.fold.setCheckable(True)
        self.fold.setProperty("small", True)
        self.fold.setToolTip("forces, formulas and sources behind them")
        self.fold.toggled.connect(self._on_folded)
        for one in (self.force, self.stiffness, self.reached, self.fold, self.reasons):
            box.addWidget(one, 0, Qt.AlignmentFlag.AlignLeft) if one is self.fold else box.addWidget(one)
            if isinstance(one, QLabel):
                one.setWordWrap(True)
        self.reasons.hide()

    def show_targets(self, found: Targets, answers: Answers | None, name: str, units: Units) -> None:
        """Show targets, and how a candidate meets them at the weakest place of the travel."""
        self.force.setText(
            f"Expect {force_text(found.force.likely, units)} at the tool "
            f"({forces_text(found.force.low, found.force.high, units)})."
        )
        scale, unit = in_units(1e-6, "N/µm", units)
        needed = ", ".join(
            f"{axis} {number_text(value * scale)}" for axis, value in zip(AXES, found.stiffness, strict=True)
        )
        self.stiffness.setText(f"Needed at the tip: {needed} {unit}. {found.picky_words}")
        self.reached.setText(self._reached(found, answers, name, units))
        self.reasons.setText(f"{found.force_words} {found.stiffness_words} {found.speed_words}")

    def _on_folded(self, open_: bool) -> None:
        self.reasons.setVisible(open_)
        self.fold.setText("why these numbers ▾" if open_ else "why these numbers ▸")

    def _reached(self, found: Targets, answers: Answers | None, name: str, units: Units) -> str:
        if answers is None:
            return f"“{name}”: being computed"
        scale, unit = in_units(1e-6, "N/µm", units)
        rows = [
            f"{axis} {two_told(reached.likely * scale, target * scale)[0]} {met(target, reached, units)[1]}"
            for axis, target, reached in zip(AXES, found.stiffness, answers.worst, strict=True)
        ]
        text = f"“{name}” at the weakest place of its travel, {unit}: {'; '.join(rows)}."
        if found.mode and answers.headline:
            first = answers.headline.frequency
            text += (
                f" Lowest mode {first.likely:.0f} Hz ({first.low:.0f} – {first.high:.0f}) of {found.mode:.0f} wanted."
            )
        return text


class Findings(QScrollArea):
    """The budget's lines; a click leads to the cure."""

    cure_wanted = pyqtSignal(str)
    cure_done = pyqtSignal(object)
    """A size should be changed as a finding says."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFrameShape(QScrollArea.Shape.NoFrame)
        self.setWidgetResizable(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._inside = QWidget(self)
        self._box = QVBoxLayout(self._inside)
        self._box.setContentsMargins(0, 0, 0, 0)
        self._box.setSpacing(round(0.25 * em()))
        self.empty = label("Say how large the work is and where the machine stands; what does not fit is listed here.",
                           "muted", 0.92)  # fmt: skip
        self.empty.setWordWrap(True)
        self._box.addWidget(self.empty)
        self.rows: list[QWidget] = []
        self._box.addStretch()
        self.setWidget(self._inside)

    def show_findings(self, found: tuple[Finding, ...]) -> None:
        """Show findings, conflicts first."""
        for row in self.rows:
            row.hide()
            row.deleteLater()
        self.rows = []
        self.empty.setVisible(not found)
        for place, one in enumerate(sorted(found, key=lambda f: f.fits)):
            row = self._row(one)
            self.rows.append(row)
            self._box.insertWidget(place + 1, row)

    def _row(self, one: Finding) -> QWidget:
        holder = QWidget(self._inside)
        box = QVBoxLayout(holder)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        text = label(("✓  " if one.fits else "✕  ") + one.words, "muted" if one.fits else "error", 0.92)
        text.setWordWrap(True)
        box.addWidget(text)
        if not one.fits and one.key:
            row = QHBoxLayout()
            if one.cure is not None:
                row.addWidget(
                    self._button(f"{one.cure.words} ▸", f"do it: {one.words}", partial(self._on_cure, one.cure))
                )
            row.addWidget(
                self._button("go there ▸", f"Go to the cure of: {one.words}", partial(self._on_lead, one.key))
            )
            row.addStretch()
            box.addLayout(row)
        return holder

    def _button(self, words: str, name: str, run: Callable[[bool], None]) -> QPushButton:
        button = QPushButton(words, self._inside)
        button.setFlat(True)
        button.setProperty("small", True)
        button.setAccessibleName(name)
        button.clicked.connect(run)
        return button

    def _on_cure(self, cure: Cure, checked: bool = False) -> None:
        del checked
        self.cure_done.emit(cure)

    def _on_lead(self, key: str, checked: bool = False) -> None:
        del checked
        self.cure_wanted.emit(key)
