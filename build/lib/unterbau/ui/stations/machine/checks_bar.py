"""What the lens Checks adds under the view: what will not do, the worst first, each with its working and a cure."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QListWidget, QListWidgetItem, QPushButton, QWidget

from unterbau.machine.alternatives import Alternative
from unterbau.studies.purchase.check import Check
from unterbau.ui.stations.machine.list_beside import lay_list_beside
from unterbau.ui.theme import colour, font
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip

MARKS = {"pass": "✓", "watch": "!", "fail": "✕", "unknown": "?"}
HEATS = {"fail": 1.0, "watch": 0.45}
"""On the heat scale, for parts that a check is about."""
WORDS = {"pass": "will do", "watch": "to be watched", "fail": "will not do", "unknown": "cannot be told"}


def check_title(check: Check) -> str:
    """Return a check in a line: mark, name, and how much of the limit is asked."""
    share = "" if check.verdict == "unknown" or check.share != check.share else f", {check.share:.0%} of what it can"
    return f"{MARKS[check.verdict]}  {check.name}: {WORDS[check.verdict]}{share}"


def count_words(found: tuple[Check, ...]) -> str:
    """Return how many checks came out how."""
    counts = [(sum(one.verdict == verdict for one in found), words) for verdict, words in WORDS.items()]
    return ", ".join(f"{count} {words}" for count, words in reversed(counts) if count)


class ChecksBar(QWidget):
    """A list of checks and the working of the chosen one."""

    chosen = pyqtSignal(str)
    """The link that a check is about should be put on the bench."""
    cure_asked = pyqtSignal(object)
    """What would cure this check?"""
    cure_wanted = pyqtSignal(object)
    """Do this."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._found: tuple[Check, ...] = ()
        self.list = QListWidget(self)
        self.list.setAccessibleName("Checks before buying, the worst first")
        self.head = label("", "muted", 0.86)
        self.asked, self.working, self.cure = label("", size=0.92), label("", "muted", 0.88), label("", size=0.92)
        self.source = label("", "muted", 0.82)
        self.do = QPushButton("", self)
        self.do.setFont(font(0.88))
        self.do.setProperty("small", True)
        self.do.hide()
        self._cure: Alternative | None = None
        lay_list_beside(self, self.head, self.list, (self.asked, self.working, self.cure, self.do, self.source))
        self.list.currentRowChanged.connect(self._on_row)
        self.do.clicked.connect(self._on_do)

    @property
    def found(self) -> tuple[Check, ...]:
        """What is shown."""
        return self._found

    def heats(self) -> dict[str, float]:
        """Return the heat of each link that a check is about, by its worst verdict."""
        found: dict[str, float] = {}
        for one in self._found:  # the worst first
            for key in (one.key, one.key.replace("_motor", "_drive")):  # motors are drawn with their drives
                found.setdefault(key, HEATS.get(one.verdict, 0.0))
        return found

    def show_checks(self, found: tuple[Check, ...]) -> None:
        """Show checks; the chosen one stays where it is there still."""
        if found == self._found:
            return
        now = self._found[self.list.currentRow()].name if 0 <= self.list.currentRow() < len(self._found) else ""
        self._found = found
        self.list.blockSignals(True)
        self.list.clear()
        for one in found:
            item = QListWidgetItem(check_title(one), self.list)
            item.setToolTip(plain_tip(f"{one.asked}; {one.working}"))
            if one.verdict in ("fail", "watch"):
                item.setForeground(colour("warning" if one.verdict == "fail" else "ink"))
        row = next((n for n, one in enumerate(found) if one.name == now), 0)
        self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self.head.setText(f"before buying: {count_words(found)}; likely joints, the brief's cuts and speeds")
        self._show(row)

    def show_cure(self, cure: Alternative | None) -> None:
        """Offer a change that cures the chosen check, or none."""
        self._cure = cure
        self.do.setVisible(cure is not None)
        if cure is not None:
            self.do.setText(f"do it: {cure.text}")
            self.do.setToolTip("puts it in, solved and checked again; undo takes it back")

    def show_waiting(self, done: int, total: int) -> None:
        """Say that checks are being made."""
        if total and not self._found:
            self.head.setText(f"checks are being made, {done} of {total} …")

    def _show(self, row: int) -> None:
        if not 0 <= row < len(self._found):
            return
        one = self._found[row]
        self.show_cure(None)
        if one.cure and one.key:
            self.cure_asked.emit(one)
        self.asked.setText(f"asked: {one.asked}")
        self.working.setText(one.working)
        self.cure.setText(f"helps: {one.cure}" if one.cure else "nothing needs to be done")
        self.source.setText(one.source)

    def _on_do(self) -> None:
        if self._cure is not None:
            self.cure_wanted.emit(self._cure)

    def _on_row(self, row: int) -> None:
        self._show(row)
        if 0 <= row < len(self._found) and self._found[row].key:
            self.chosen.emit(self._found[row].key)
