"""Try instead: what else could stand here, with what it changes as three small bars."""

from functools import partial

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetricsF, QPainter, QPaintEvent
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.studies.advise import Order, Trial, ranked
from unterbau.ui.theme import colour, em, font
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.units import Units, in_units, unit_text

AXES = ("X", "Y", "Z")
FIRST = 8
ORDERS: tuple[tuple[Order, str, str], ...] = (
    ("stiffness", "stiffest", "most stiffness along the pull first"),
    ("money", "by money", "of those that gain, what saves or costs the least money first"),
    ("mass", "by weight", "of those that gain, what saves or weighs the least first"),
)
INSTEAD, CURES = "try instead", "worth doing, over the whole machine"
"""What the list is headed by: for one part, for the machine."""
COLUMNS = (0.47, 0.7, 0.85)
"""Where the three columns start, as shares of the width."""


def percent(share: float) -> str:
    """Return a change in per cent with its sign."""
    return f"{share:+.0%}".replace("-", "−") if abs(share) >= 0.005 else "0%"


def signed(value: float, digits: int = 1) -> str:
    """Return a change with its sign, or a dash for none."""
    text = f"{value:+.{digits}f}".replace("-", "−")
    return text if text.strip("+−0.") else "0"


class TrialRow(QAbstractButton):
    """One alternative."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.trial: Trial | None = None
        self._axis, self._most, self._heavier = 0, (1.0, 1.0, 1.0), 0.0

    def show_trial(
        self, trial: Trial, axis: int, most: tuple[float, float, float], currency: str, units: Units
    ) -> None:
        """Show a trial; bars are drawn against the largest of each column."""
        self.trial, self._axis, self._most = trial, axis, most
        self.setEnabled(not trial.problem)
        if trial.problem:
            text = f"{trial.alternative.text}: {trial.problem}"
            self.setAccessibleName(text)
            self.setToolTip(plain_tip(text))
            self.update()
            return
        gains = ", ".join(f"{name} {percent(gain)}" for name, gain in zip(AXES, trial.gain, strict=True))
        self._heavier, unit = in_units(trial.mass, "kg", units)
        more = f"{signed(self._heavier)} {unit}, {signed(trial.money, 0)} {currency}"
        why = f"; {trial.reason}" if trial.reason else ""
        text = f"{trial.alternative.text}: stiffness {gains}; {more}{why}"
        self.setAccessibleName(text)
        self.setToolTip(plain_tip(f"{text}, likely\nclick to put it in; Ctrl+Z takes it back"))
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(18 * em()), round(1.62 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.trial is None:
            return
        painter, unit, width = QPainter(self), em(), float(self.width())
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.underMouse() or self.hasFocus():
            painter.fillRect(self.rect(), colour("accent_soft"))
        face = font(0.9)
        painter.setFont(face)
        painter.setPen(colour("muted" if self.trial.problem else "ink"))
        room = COLUMNS[0] * width - 0.5 * unit
        text = QFontMetricsF(face).elidedText(self.trial.alternative.text, Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(0.2 * unit, 0, room, self.height()), Qt.AlignmentFlag.AlignVCenter, text)
        if self.trial.problem:
            cell = QRectF(COLUMNS[0] * width, 0, (1 - COLUMNS[0]) * width, self.height())
            words = QFontMetricsF(face).elidedText(self.trial.problem, Qt.TextElideMode.ElideRight, cell.width())
            painter.drawText(cell, Qt.AlignmentFlag.AlignVCenter, words)
            return
        gain = self.trial.gain[self._axis]
        cells = (
            (gain, percent(gain), gain < 0), (self.trial.mass, signed(self._heavier), self.trial.mass > 0),
            (self.trial.money, signed(self.trial.money, 0), self.trial.money > 0),
        )  # fmt: skip
        ends = (*COLUMNS[1:], 1.0)
        for start, end, most, (value, words, worse) in zip(COLUMNS, ends, self._most, cells, strict=True):
            cell = QRectF(start * width, 0, (end - start) * width - 0.4 * unit, self.height())
            painter.setPen(colour("ink"))
            painter.drawText(cell.adjusted(0, 0, 0, -0.35 * unit), Qt.AlignmentFlag.AlignVCenter, words)
            bar = QRectF(cell.left(), cell.bottom() - 0.42 * unit, cell.width(), 0.2 * unit)
            painter.fillRect(bar, colour("sunken"))
            bar.setWidth(bar.width() * min(1.0, abs(value) / most))
            painter.fillRect(bar, colour("warning" if worse else "accent"))


class TryInstead(QWidget):
    """The list under the part on the bench."""

    chosen = pyqtSignal(object)
    """A trial to be put in."""
    whole_wanted = pyqtSignal()
    """The whole machine's cures are asked for."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._trials: tuple[Trial, ...] = ()
        self._axis, self._currency, self._all = 1, "", False
        self._units: Units = "mm"
        self.order: Order = "stiffness"
        self.rows: list[TrialRow] = []
        self.busy = label("", "muted", 0.86)
        self.columns = [label("", "muted", 0.86) for _ in COLUMNS]
        self.orders = QButtonGroup(self)
        self.more, self.whole = QPushButton("", self), QPushButton("all parts ▸", self)
        self._list = QVBoxLayout()
        self._build()
        self.orders.idClicked.connect(self._on_order)
        self.more.clicked.connect(self._on_more)
        self.whole.clicked.connect(self.whole_wanted)

    def head(self, whole: bool) -> None:
        """Say whether the list is of one part or of the whole machine."""
        self.title.setText(CURES if whole else INSTEAD)
        self.whole.setVisible(not whole)

    def show_waiting(self, text: str) -> None:
        """Say how far the solving is; empty when it is done."""
        self.busy.setText(text)

    def show_trials(self, trials: tuple[Trial, ...], axis: int, currency: str, units: Units) -> None:
        """Show alternatives for a pull along an axis."""
        self._trials, self._axis, self._currency, self._units = trials, axis, currency, units
        self._show()

    def _show(self) -> None:
        shown = ranked(self._trials, self._axis, self.order)
        count = len(shown) if self._all else min(FIRST, len(shown))
        while len(self.rows) < count:
            row = TrialRow(self)
            row.clicked.connect(partial(self._on_row, len(self.rows)))
            self._list.addWidget(row)
            self.rows.append(row)
        most = (
            max((abs(t.gain[self._axis]) for t in shown[:count]), default=0.0) or 1.0,
            max((abs(t.mass) for t in shown[:count]), default=0.0) or 1.0,
            max((abs(t.money) for t in shown[:count]), default=0.0) or 1.0,
        )
        for row, trial in zip(self.rows, shown, strict=False):
            row.show_trial(trial, self._axis, most, self._currency, self._units)
        for place, row in enumerate(self.rows):
            row.setVisible(place < count)
        words = (f"{AXES[self._axis]} stiffness", unit_text("kg", self._units), self._currency)
        for column, text in zip(self.columns, words, strict=True):
            column.setText(text if shown else "")
        self.more.setVisible(len(shown) > FIRST)
        self.more.setText("fewer" if self._all else f"all {len(shown)} …")

    def _build(self) -> None:
        box = QVBoxLayout(self)
        box.setContentsMargins(0, round(0.3 * em()), 0, 0)
        box.setSpacing(0)
        top = QHBoxLayout()
        self.title = heading(INSTEAD)
        top.addWidget(self.title)
        self.whole.setFlat(True)
        self.whole.setFont(font(0.82))
        self.whole.setProperty("small", True)
        self.whole.setToolTip("what is worth doing over the whole machine, whichever part it is done to")
        self.whole.setAccessibleName("Cures for the whole machine")
        top.addWidget(self.whole)
        top.addStretch()
        for place, (order, words, tip) in enumerate(ORDERS):
            button = QPushButton(words, self)
            button.setFlat(True)
            button.setCheckable(True)
            button.setFont(font(0.82))
            button.setProperty("small", True)
            button.setChecked(order == self.order)
            button.setToolTip(tip)
            button.setAccessibleName(f"Order of the list: {tip}")
            self.orders.addButton(button, place)
            top.addWidget(button)
        top.setSpacing(0)
        box.addLayout(top)
        head = QHBoxLayout()
        head.setSpacing(0)
        head.addWidget(self.busy, round(100 * COLUMNS[0]))
        for column, start, end in zip(self.columns, COLUMNS, (*COLUMNS[1:], 1.0), strict=True):
            head.addWidget(column, round(100 * (end - start)))
        box.addLayout(head)
        self._list.setSpacing(0)
        box.addLayout(self._list)
        self.more.setFlat(True)
        self.more.setSizePolicy(QSizePolicy.Policy.Minimum, QSizePolicy.Policy.Fixed)
        self.more.hide()
        box.addWidget(self.more, 0, Qt.AlignmentFlag.AlignLeft)

    def _on_order(self, place: int) -> None:
        self.order = ORDERS[place][0]
        self._show()

    def _on_more(self) -> None:
        self._all = not self._all
        self._show()

    def _on_row(self, place: int, checked: bool = False) -> None:
        del checked
        trial = self.rows[place].trial
        if trial is not None:
            self.chosen.emit(trial)
