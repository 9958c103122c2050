"""A section from a drawing: seen, its faults shown where they are, its unit asked, then solved."""

from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QBrush, QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.files.atomic import read_text
from unterbau.files.section_dxf import read_dxf
from unterbau.files.section_text import read_section_text
from unterbau.sections.drawing import PER_UNIT, Drawing
from unterbau.sections.solved import CustomSection, SolvedSection
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.jobs.solve_apart import STEP, solve_apart
from unterbau.ui.theme import colour, em, font
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label


def open_drawing(path: Path) -> Drawing:
    """Return the drawing in a DXF or text file.

    Raises:
        UnterbauError: It cannot be read.
    """
    return read_dxf(path) if path.suffix.lower() == ".dxf" else read_section_text(read_text(path))


class DrawingView(QWidget):
    """The drawing to scale; faults as numbered rings."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._drawing: Drawing | None = None
        self.setAccessibleName("The drawn section, faults marked")

    def show_drawing(self, drawing: Drawing) -> None:
        """Show a drawing."""
        self._drawing = drawing
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(30 * em()), round(22 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        drawing = self._drawing
        if drawing is None:
            return
        points = [p for _, ring in drawing.rings for p in ring] + [p for line in drawing.open_lines for p in line]
        if not points:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        xs, ys = zip(*points, strict=True)
        area = QRectF(self.rect()).adjusted(2 * em(), 2 * em(), -2 * em(), -2 * em())
        scale = min(area.width() / max(max(xs) - min(xs), 1e-6), area.height() / max(max(ys) - min(ys), 1e-6))
        middle, centre = ((max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2), area.center()

        def at(x: float, y: float) -> QPointF:
            return QPointF(centre.x() + (x - middle[0]) * scale, centre.y() - (y - middle[1]) * scale)

        path = QPainterPath()
        for _, ring in drawing.rings:
            path.addPolygon(QPolygonF([at(*p) for p in (*ring, ring[0])]))
        painter.setPen(QPen(colour("ink"), 1.2))
        painter.setBrush(QBrush(colour("sunken")))
        painter.drawPath(path)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for line in drawing.open_lines:
            painter.drawPolyline(QPolygonF([at(*p) for p in line]))
        painter.setFont(font(0.9))
        painter.setPen(QPen(colour("warning"), 2))
        for number, fault in enumerate(drawing.faults, 1):
            place = at(fault.x, fault.y)
            painter.drawEllipse(place, 0.7 * em(), 0.7 * em())
            painter.drawText(place + QPointF(0.8 * em(), -0.5 * em()), str(number))


class DrawnSection(QDialog):
    """Shows a drawing before it becomes a section."""

    solved = pyqtSignal(object)

    def __init__(self, drawing: Drawing, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle("Section from a drawing")
        self._read = self.drawing = drawing
        self.view = DrawingView(self)
        self.unit = ChoiceBox("Unit of the drawing", (("", "which unit?"), *((u, u) for u in PER_UNIT)), self)
        self.name = QLineEdit(name, self)
        self.name.setAccessibleName("Name of the section")
        self.report, self.faults = label("", "muted", 0.92), label("", "error", 0.92)
        self.use = QPushButton("use this section", self)
        self.leave = QPushButton("leave it", self)
        self._asker = Asker(solve_apart, self)
        box = QVBoxLayout(self)
        box.addWidget(self.view, 1)
        row = QHBoxLayout()
        row.addWidget(label("name", "muted"))
        row.addWidget(self.name, 1)
        row.addWidget(self.unit)
        box.addLayout(row)
        for text in (self.report, self.faults):
            text.setWordWrap(True)
            box.addWidget(text)
        buttons = QHBoxLayout()
        buttons.addStretch()
        buttons.addWidget(self.leave)
        buttons.addWidget(self.use)
        box.addLayout(buttons)
        self.unit.setVisible(not drawing.unit)
        self.unit.activated.connect(self._on_unit)
        self.use.clicked.connect(self._on_use)
        self.leave.clicked.connect(self.reject)
        self._asker.ready.connect(self._on_solved)
        self._asker.failed.connect(self.faults.setText)
        self._asker.progressed.connect(self._on_steps)
        self.finished.connect(self._on_finished)
        self._show()

    def _show(self) -> None:
        self.view.show_drawing(self.drawing)
        lines = list(self.drawing.report)
        if not self.drawing.unit:
            lines.append("say which unit it is drawn in")
        self.report.setText("; ".join(lines))
        self.faults.setText("\n".join(f"{n}  {fault.text}" for n, fault in enumerate(self.drawing.faults, 1)))
        self.use.setEnabled(bool(self.drawing.unit) and not self.drawing.faults)

    def _on_unit(self, index: int) -> None:
        unit = str(self.unit.itemData(index))
        self.drawing = self._read.in_unit(unit) if unit else self._read
        self._show()

    def _on_use(self) -> None:
        self._asker.ask((self.drawing, self.name.text()))

    def _on_steps(self, done: int, total: int) -> None:
        self.use.setEnabled(not total)
        if total:
            self.report.setText(f"solving the cross-section by finite elements, {done * STEP:.0f} s …")

    def _on_solved(self, found: SolvedSection) -> None:
        self.solved.emit(CustomSection(found))
        self.accept()

    def _on_finished(self, result: int) -> None:
        del result
        self._asker.close()
