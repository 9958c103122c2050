"""The report of a comparison: pictures of the machines and of all as dots, written as HTML or PDF."""

from datetime import date
from pathlib import Path

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QRectF
from PyQt6.QtGui import QPainter, QPixmap
from PyQt6.QtWidgets import QWidget

from unterbau.files.atomic import write_atomically
from unterbau.files.comparison_html import Comparison, comparison_html, write_comparison
from unterbau.machine.machine import bodies_of
from unterbau.project.project import Project
from unterbau.structure.parts import Place
from unterbau.studies.compare import Figures
from unterbau.ui.theme import colour
from unterbau.ui.widgets.page_pdf import pdf_of
from unterbau.ui.widgets.thumbnail import outlines, paint
from unterbau.units import Units

SIZE = (400, 300)  # pixels of a machine


def write_report(
    path: Path, project: Project, rows: tuple[Figures, ...], verdict: tuple[str, ...], units: Units, dots: QWidget
) -> None:
    """Write a report; its ending chooses the format.

    Raises:
        UnterbauError: The file could not be written.
    """
    machines = {one.name: _machine(project, one.name) for one in rows}
    made = Comparison(project, rows, verdict, date.today().isoformat(), units, _png(dots.grab()), machines)
    if path.suffix.lower() in (".html", ".htm"):
        write_comparison(path, made)
    else:
        write_atomically(path, pdf_of(comparison_html(made), f"{project.name}: comparison", one_page=False))


def _machine(project: Project, name: str) -> bytes:
    held = QPixmap(*SIZE)
    held.fill(colour("paper"))
    painter = QPainter(held)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    paint(
        painter, outlines(bodies_of(project.candidate(name).machine, Place())), QRectF(8, 8, SIZE[0] - 16, SIZE[1] - 16)
    )
    painter.end()
    return _png(held)


def _png(picture: QPixmap) -> bytes:
    held = QByteArray()
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    picture.save(buffer, "PNG")
    buffer.close()
    return held.data()
