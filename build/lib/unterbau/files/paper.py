"""A4 pages in millimetres: what drawings, templates and quote sheets are drawn on."""

import io
from dataclasses import dataclass
from functools import lru_cache
from importlib.util import find_spec
from pathlib import Path
from typing import Any

A4 = (297.0, 210.0)
"""Lying, mm."""
MARGIN = 10.0
REGULAR, BOLD = "DejaVuSans", "DejaVuSans-Bold"
THIN, THICK = 0.13, 0.35
"""Of lines, mm."""
ARROW = 2.2
POINTS = 72.0 / 25.4


@lru_cache(maxsize=1)
def _fonts() -> bool:
    """Make fonts known that have ⌀ and µ (a library ships them, with their licence); return whether they are there."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFError, TTFont

    found = find_spec("matplotlib")
    places = found.submodule_search_locations if found is not None else None
    try:
        for name in (REGULAR, BOLD):
            folder = Path(places[0] if places else "") / "mpl-data" / "fonts" / "ttf"
            pdfmetrics.registerFont(TTFont(name, str(folder / f"{name}.ttf")))
    except (OSError, TTFError):
        return False
    return True


@dataclass(slots=True)
class Paper:
    """A PDF that grows page by page; from the lower left corner, mm."""

    canvas: Any
    stream: io.BytesIO
    size: tuple[float, float]
    pages: int = 0

    def page(self) -> None:
        """End a page."""
        self.canvas.showPage()
        self.pages += 1

    def line(self, x0: float, y0: float, x1: float, y1: float, width: float = THIN, dash: bool = False) -> None:
        """Draw a line."""
        self.canvas.setLineWidth(width * POINTS)
        self.canvas.setDash(*((4.0, 2.0) if dash else ()))
        self.canvas.line(x0 * POINTS, y0 * POINTS, x1 * POINTS, y1 * POINTS)
        self.canvas.setDash()

    def closed(self, corners: list[tuple[float, float]], width: float = THICK) -> None:
        """Draw a closed outline."""
        path = self.canvas.beginPath()
        path.moveTo(corners[0][0] * POINTS, corners[0][1] * POINTS)
        for x, y in corners[1:]:
            path.lineTo(x * POINTS, y * POINTS)
        path.close()
        self.canvas.setLineWidth(width * POINTS)
        self.canvas.drawPath(path, stroke=1, fill=0)

    def circle(self, x: float, y: float, radius: float, width: float = 0.25, dash: bool = False) -> None:
        """Draw a circle."""
        self.canvas.setLineWidth(width * POINTS)
        self.canvas.setDash(*((2.0, 1.5) if dash else ()))
        self.canvas.circle(x * POINTS, y * POINTS, radius * POINTS, stroke=1, fill=0)
        self.canvas.setDash()

    def text(self, x: float, y: float, words: str, size: float = 3.0, bold: bool = False, to: str = "left") -> None:
        """Write a line, its capitals so many mm tall divided by .7; `to` is left, middle or right."""
        self.canvas.setFont(*self._font(size, bold))
        draw = {"left": self.canvas.drawString, "middle": self.canvas.drawCentredString,
                "right": self.canvas.drawRightString}[to]  # fmt: skip
        draw(x * POINTS, y * POINTS, words)

    def upright(self, x: float, y: float, words: str, size: float = 3.0) -> None:
        """Write a line upwards, its middle at a place."""
        self.canvas.saveState()
        self.canvas.translate(x * POINTS, y * POINTS)
        self.canvas.rotate(90)
        self.canvas.setFont(*self._font(size, False))
        self.canvas.drawCentredString(0, 0, words)
        self.canvas.restoreState()

    def wide(self, words: str, size: float = 3.0, bold: bool = False) -> float:
        """Return how wide words are, mm."""
        return float(self.canvas.stringWidth(words, *self._font(size, bold))) / POINTS

    def wrapped(self, words: str, room: float, size: float = 3.0) -> list[str]:
        """Return words in lines that fit into a room, mm."""
        lines, now = [], ""
        for word in words.split():
            longer = f"{now} {word}".strip()
            if now and self.wide(longer, size) > room:
                lines.append(now)
                now = word
            else:
                now = longer
        return [*lines, now] if now else lines

    def dimension(self, x0: float, y0: float, x1: float, y1: float, words: str) -> None:
        """Draw a dimension line, level or upright, with its figure."""
        self.line(x0, y0, x1, y1)
        for x, y, way in ((x0, y0, 1.0), (x1, y1, -1.0)):
            level = y0 == y1
            for side in (-1.0, 1.0):
                end = (x + way * ARROW, y + side * 0.5) if level else (x + side * 0.5, y + way * ARROW)
                self.line(x, y, *end)
        if y0 == y1 and abs(x1 - x0) < self.wide(words) + 2 * ARROW:
            self.text(x1 + 2.0, y0 - 1.0, words)
        elif y0 == y1:
            self.text((x0 + x1) / 2, y0 + 1.0, words, to="middle")
        else:
            self.upright(x0 - 1.0, (y0 + y1) / 2, words)

    def data(self) -> bytes:
        """Return the file."""
        self.canvas.save()
        return self.stream.getvalue()

    def _font(self, size: float, bold: bool) -> tuple[str, float]:
        named = (REGULAR, BOLD) if _fonts() else ("Helvetica", "Helvetica-Bold")
        return named[bold], size * POINTS


def paper(title: str, size: tuple[float, float] = A4) -> Paper:
    """Return an empty file of pages of a size, mm; the same content gives the same bytes."""
    from reportlab.pdfgen.canvas import Canvas

    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=(size[0] * POINTS, size[1] * POINTS), invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Unterbau")
    return Paper(canvas, stream, size)
