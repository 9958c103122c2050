"""The measuring bench of a step: readings typed where they are taken, drawn along the thing, judged at once."""

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QPushButton, QSizePolicy, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.errors import InputError
from unterbau.shop.build.steps import Step
from unterbau.shop.measure.reading_words import HINTS, Read, read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import mass_text, tolerance_text

DIAL = Instrument()


class LineView(QWidget):
    """Readings along a rail, far larger than they are, between the lines they have to keep."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._line: tuple[float, ...] = ()
        self._within = 0.0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(round(9 * em()))

    def show_line(self, line: tuple[float, ...], within: float) -> None:
        """Show readings, m, and half of what they may range over."""
        self._line, self._within = line, within
        told = ", ".join(f"{one * 1e6:.0f}" for one in line)
        self.setAccessibleName(f"Readings along it in µm: {told}" if line else "no readings along it")
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(20 * em()), self.height())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        area = QRectF(self.rect()).adjusted(0.5 * unit, unit, -0.5 * unit, -1.6 * unit)
        most = max([abs(one) for one in self._line] + [self._within, 1e-9])
        scale, middle = area.height() / 2 / most, area.center().y()
        painter.setPen(QPen(colour("hairline"), 1.0))
        painter.drawLine(QPointF(area.left(), middle), QPointF(area.right(), middle))
        painter.setPen(QPen(colour("accent"), 1.0, Qt.PenStyle.DashLine))
        for side in (-0.5, 0.5):
            y = middle - side * self._within * scale
            painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))
        if len(self._line) > 1:
            step = area.width() / (len(self._line) - 1)
            points = [QPointF(area.left() + n * step, middle - v * scale) for n, v in enumerate(self._line)]
            painter.setPen(QPen(colour("ink"), 1.6))
            painter.drawPolyline(QPolygonF(points))
            painter.setBrush(colour("ink"))
            for point in points:
                painter.drawEllipse(point, 2.5, 2.5)
        painter.setPen(colour("muted"))
        painter.setFont(font(0.84))
        words = f"between the dashed lines: {tolerance_text(self._within, self._view.units)}" if self._within else ""
        painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignHCenter, words)


class BenchPanel(QWidget):
    """Shows a step and its bench."""

    done_wanted = pyqtSignal(object, float, float)
    """A step is done: the step, what its hold point was measured at and its uncertainty, m."""
    undone_wanted = pyqtSignal(object)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._step: Step | None = None
        self._read: Read | None = None
        self._is_done = False
        self.title, self.words = label("", size=1.1, bold=True), label("", size=0.94)
        self.hold, self.hint = label("", size=0.94), label("", "muted", 0.86)
        self.line, self.drawn = TypedLine(self), LineView(view, self)
        self.how = ChoiceBox("Measured by", tuple((one, f"by {one}") for one in HINTS), self)
        self.result, self.problem = label("", size=0.96), label("", "error", 0.9)
        self.caution, self.done = label("", "error", 0.9), QPushButton("done", self)
        self._build()
        self.line.editingFinished.connect(self._on_typed)
        self.done.clicked.connect(self._on_done)
        self.how.activated.connect(self._on_how)

    def show_step(self, step: Step | None, is_done: bool, told: str) -> None:
        """Show a step; `told` is when it can be done, in words."""
        fresh = step is None or self._step is None or step.id != self._step.id
        self._step, self._is_done = step, is_done
        if fresh:
            self.line.clear()
            self._read = None
            self.result.setText("")
            self.problem.setText("")
        self.done.setEnabled(step is not None)
        self.done.setText("not done after all" if is_done else "done")
        if step is None:
            return
        self.title.setText(step.words)
        words = [told]
        heavy = mass_text(step.lifted, self._view.units, 0)
        words += [f"lifts {heavy}: {step.people}"] if step.people else []
        words += ["no way back from here: take apart once more first"] if not step.reversible else []
        self.words.setText("; ".join(words))
        self.caution.setText(step.caution)
        self.caution.setVisible(bool(step.caution))
        hold = step.hold
        for one in (self.hold, self.how, self.hint, self.line, self.drawn, self.result):
            one.setVisible(hold is not None)
        if hold is not None:
            within = tolerance_text(hold.within, self._view.units)
            self.hold.setText(f"hold: {hold.words}, within {within} ({hold.why})")
            if fresh:
                self.how.show_value(hold.bench)
                self._show_hint()
                self.drawn.show_line((), hold.within)

    def _show_hint(self) -> None:
        hint = HINTS[str(self.how.currentData())]
        self.hint.setText(hint)
        self.line.setAccessibleName(f"Readings: {hint}")

    def _on_how(self, _index: int) -> None:
        """Measure another way: what was read before counts no more."""
        self._read = None
        self.line.clear()
        self.result.setText("")
        self.problem.hide()
        self._show_hint()

    def _on_typed(self) -> None:
        if self._step is None or self._step.hold is None or not self.line.text().strip():
            return
        hold = self._step.hold
        try:
            self._read = read_bench(str(self.how.currentData()), self.line.text(), hold.within, DIAL)
        except InputError as error:
            self.problem.setText(error.problem)
            self.problem.show()
            return
        self.problem.hide()
        value = self._read.value
        off, doubt = (tolerance_text(one, self._view.units) for one in (value.value, value.uncertainty))
        told = f"{off} ± {doubt} (k = 2)"
        self.result.setText(f"{self._read.verdict}: {told}. {self._read.words}")
        self.drawn.show_line(self._read.line, hold.within)

    def _on_done(self) -> None:
        if self._step is None:
            return
        if self._is_done:
            self.undone_wanted.emit(self._step)
            return
        value = self._read.value if self._read is not None else None
        self.done_wanted.emit(self._step, value.value if value else 0.0, value.uncertainty if value else 0.0)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.5 * unit))
        box.setSpacing(round(0.35 * unit))
        box.addWidget(heading("the step"))
        self.line.setFont(font(0.94))
        for one in (self.title, self.words, self.caution, self.hold, self.hint, self.result, self.problem):
            one.setWordWrap(True)
        for widget in (
            self.title, self.words, self.caution, self.hold, self.how, self.hint, self.line, self.problem, self.drawn,
            self.result, self.done,
        ):  # fmt: skip
            box.addWidget(widget)
        self.problem.hide()
        box.addStretch(1)
