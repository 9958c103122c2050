"""Why is this so soft? The causes of the chosen link's give, with numbers, formula and source."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.studies.explain import FORCE, Explanation, Reason
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import heading, label
from unterbau.units import Units, force_text, movement_text, stiffness_text, told

WAYS = ("sideways", "front to back", "up")
RESISTS = {
    "E·I": ("kN·m²", 1e-3), "G·J": ("kN·m²", 1e-3), "G·As": ("MN", 1e-6), "E·A": ("MN", 1e-6),
    "D": ("kN·m", 1e-3), "E·t": ("MN/m", 1e-6), FORCE: ("N/µm", 1e-6), "N·m": ("kN·m/rad", 1e-3),
}  # fmt: skip


HAND = 100.0
"""Of a push, N."""


def first_lines(found: Explanation, axis: int, load: float, units: Units) -> str:
    """Return what the link does to the tool, in one or two sentences."""
    share = found.compliance / found.total
    text = (
        f"Of the {movement_text(found.total * load, units)} that the tool moves when pulled {WAYS[axis]} with "
        f"{force_text(load, units)}, {movement_text(found.compliance * load, units)} ({share:.0%}) are here, likely."
    )
    if found.reasons:
        now, rigid = 1.0 / found.total, found.rigid
        text += (
            f" Were this link perfectly rigid, the tool would stand at {stiffness_text(rigid, units)} or a little more"
            f" instead of {stiffness_text(now, units)}."
        )
    return text


def reason_lines(reason: Reason, found: Explanation, load: float, units: Units) -> tuple[str, str]:
    """Return a cause in words, and its numbers with the formula."""
    share = reason.compliance / found.compliance
    words = f"{reason.words}: {movement_text(reason.compliance * load, units)}, {share:.0%} of its give"
    unit, scale = RESISTS[reason.quantity if reason.symbol.startswith("k") else reason.symbol]
    numbers = (
        f"largest load {told(reason.load * load, reason.quantity, units, 3)}; "
        f"{reason.symbol} {told(reason.stiffness * scale, unit, units, 3)}; {reason.formula}"
    )
    return words, numbers


class Why(QWidget):
    """A page of the bench."""

    closed = pyqtSignal()

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._shown: tuple[Explanation, int, float] | None = None
        self.title = label("", size=1.1, bold=True)
        self.first = label("", size=0.95)
        self.cure = label("", size=0.95)
        self.facts = label("", "muted", 0.86)
        self.back = QPushButton("back to the part", self)
        self.reasons = QVBoxLayout()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.35 * em()))
        top = QHBoxLayout()
        top.addWidget(heading("why"))
        top.addStretch()
        top.addWidget(self.back)
        box.addLayout(top)
        for text in (self.title, self.first):
            text.setWordWrap(True)
            box.addWidget(text)
        box.addLayout(self.reasons)
        for text in (self.cure, self.facts):
            text.setWordWrap(True)
            box.addWidget(text)
        box.addStretch(1)
        for text in (self.first, self.cure, self.facts):
            text.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.back.clicked.connect(self.closed)
        view.changed.connect(self._show)

    def show_explanation(self, found: Explanation, axis: int, load: float) -> None:
        """Show why a link gives under a load along an axis."""
        self._shown = (found, axis, load)
        self._show()

    def texts(self) -> list[str]:
        """Return everything that is said of the causes."""
        items = (self.reasons.itemAt(n) for n in range(self.reasons.count()))
        widgets = (item.widget() for item in items if item is not None)
        return [str(widget.property("text")) for widget in widgets if widget is not None]

    def _show(self) -> None:
        if self._shown is None:
            return
        found, axis, load = self._shown
        self.title.setText(f"{found.label}: why so soft?")
        self.first.setText(first_lines(found, axis, load, self._view.units))
        while self.reasons.count():
            item = self.reasons.takeAt(0)
            widget = item.widget() if item else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        for reason in found.reasons:
            words, numbers = reason_lines(reason, found, load, self._view.units)
            for text in (label(words[0].upper() + words[1:], bold=True, size=0.95), label(numbers, "muted", 0.86)):
                text.setWordWrap(True)
                self.reasons.addWidget(text)
        self.cure.setText(f"What helps: {found.cure}")
        self.facts.setText("\n".join((*self._pushed(found), *found.facts)))

    def _pushed(self, found: Explanation) -> tuple[str, ...]:
        """Say how the part gives to one's hand where it gives most."""
        if found.hand is None:
            return ()
        hand, units = found.hand, self._view.units
        own = (hand.give - hand.stand) * HAND
        ways = (f"{movement_text(move, units)} along {name}" for move, name in zip(own.tolist(), "XYZ", strict=True))
        sways = float(hand.stand.max()) * HAND
        said = [(f"Pushed with one's hand, {force_text(HAND, units)} at its softest end, it moves {', '.join(ways)}, "
                f"likely; the stand sways by up to {movement_text(sways, units)} more.")]  # fmt: skip
        if max(hand.play) > 0.0:
            free = (f"{movement_text(move, units)} along {name}" for move, name in zip(hand.play, "XYZ", strict=True))
            said.append(f"Before its caps hold, a first push moves it freely by {', '.join(free)}.")
        return tuple(said)
