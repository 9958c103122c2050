"""A page of HTML as PDF."""

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF
from PyQt6.QtGui import QPageLayout, QPageSize, QPdfWriter, QTextDocument

from unterbau.ui.theme import font

RESOLUTION = 150  # dots per inch of the printed page
MARGIN = 12.0  # mm


def pdf_of(html: str, title: str, one_page: bool = True) -> bytes:
    """Return an HTML page as PDF, A4; scaled down until it fits on one page where it should."""
    held = QByteArray()
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(buffer)
    writer.setResolution(RESOLUTION)
    writer.setTitle(title)
    margins = QMarginsF(MARGIN, MARGIN, MARGIN, MARGIN)
    page, upright = QPageSize(QPageSize.PageSizeId.A4), QPageLayout.Orientation.Portrait
    writer.setPageLayout(QPageLayout(page, upright, margins, QPageLayout.Unit.Millimeter))
    document = QTextDocument()
    document.setDefaultFont(font(0.8))
    document.setHtml(html)
    area = writer.pageLayout().paintRectPixels(72)
    document.setPageSize(area.size().toSizeF())
    for _ in range(12 if one_page else 0):
        if document.pageCount() <= 1:
            break
        document.setPageSize(document.pageSize() * 1.06)
    document.print(writer)
    buffer.close()
    return held.data()
