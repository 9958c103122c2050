"""The chosen piece: drawn with its holes, where it sits, how it ends, its holes in a table."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from unterbau.catalogue import cautions
from unterbau.machine.item_words import text_words
from unterbau.machine.machine import Machine, bodies_of
from unterbau.materials.material import material
from unterbau.shop.making import HOWS, Need, does_not_matter, ways_of
from unterbau.shop.pieces import ShopPiece, hole_words
from unterbau.structure.parts import Place
from unterbau.ui.stations.workshop.piece_view import FACES, PieceView
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.where_view import WhereView
from unterbau.units import length_text, mass_text, tolerance_text

COLUMNS = ("hole", "along", "across", "face")
CAUTIONS = {
    "bar": cautions.SAWING.text, "plate": f"{cautions.DRILLING.text} {cautions.SHEET_EDGES.text}",
    "round": cautions.TURNING.text,
}  # fmt: skip


class PiecePanel(QWidget):
    """Shows one piece; who makes it is chosen here."""

    how_chosen = pyqtSignal(str)

    def __init__(self, view: ViewSettings, drawing: QPushButton, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view, self._button = view, drawing
        self.how = ChoiceBox("Who makes the piece", tuple((one, one) for one in HOWS), self)
        self.needs = label("", size=0.88)
        self.title, self.words = label("", size=1.18, bold=True), label("", size=0.94)
        self.ends, self.caution = label("", "muted", 0.88), label("", "muted", 0.84)
        self.drawing, self.where = PieceView(view, self), WhereView(self)
        self.holes = QTableWidget(0, len(COLUMNS), self)
        self._build()
        self.how.activated.connect(self._on_how)

    def show_how(self, piece: ShopPiece, how: str, needs: tuple[Need, ...]) -> None:
        """Show who makes a piece, and what of it matters."""
        self.how.offer(tuple((one, one) for one in ways_of(piece)))
        self.how.show_value(how)
        words = [f"{one.words} within {tolerance_text(one.within, self._view.units)}" for one in needs[:2]]
        words.append(does_not_matter(piece, needs, self._view.units))
        self.needs.setText("; ".join(words))
        self.needs.setToolTip(plain_tip("; ".join(f"{one.words}: {one.why}" for one in needs)))

    def show_piece(self, machine: Machine, piece: ShopPiece | None) -> None:
        """Show a piece of a machine, or none."""
        self.drawing.show_piece(piece)
        for one in (self.how, self.needs, self._button):
            one.setEnabled(piece is not None)
        units = self._view.units
        if piece is None:
            self.title.setText("no piece")
            self.words.setText("")
            self.holes.setRowCount(0)
            return
        self.title.setText(f"{piece.label}   {piece.count} × {text_words(piece.stock, units)}")
        size = length_text(piece.length, units)
        size += f" × {length_text(piece.width, units)}" if piece.width else ""
        net = piece.mass - piece.drilled
        drilled = f" ({mass_text(net, units)} drilled)" if piece.drilled > 0.0005 else ""
        mass = f"{mass_text(piece.mass, units)} each{drilled}"
        line = f"{material(piece.material).label}, {size}, {mass}: {', '.join(piece.names)}"
        self.words.setText(line)
        self.ends.setText(_ends(piece))
        self.ends.setVisible(bool(piece.ends))
        self.caution.setText(CAUTIONS[piece.sort])
        self.where.show_bodies(bodies_of(machine, Place()), piece.names)
        self.holes.setVisible(bool(piece.holes))
        self.holes.setRowCount(len(piece.holes))
        for row, hole in enumerate(piece.holes):
            cells = (
                hole_words(hole), length_text(hole.x, units), length_text(hole.y, units),
                FACES.get(hole.face, hole.face),
            )  # fmt: skip
            for column, text in enumerate(cells):
                item = QTableWidgetItem(text)
                why = "; the wall is too thin for a thread" if hole.sort == "insert" else ""
                item.setToolTip(plain_tip(f"for what holds {hole.of.replace('_', ' ')}{why}"))
                if column:
                    item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                self.holes.setItem(row, column, item)

    def _on_how(self, index: int) -> None:
        self.how_chosen.emit(str(self.how.itemData(index)))

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.5 * unit))
        box.setSpacing(round(0.3 * unit))
        box.addWidget(heading("the piece"))
        for one in (self.title, self.words, self.ends, self.needs):
            _wrapped(one)
            box.addWidget(one)
        row = QHBoxLayout()
        self.how.setToolTip("make it oneself, buy it, print it, or have it made: hours and the quote sheet follow")
        row.addWidget(self.how, 1)
        row.addWidget(self._button)
        box.addLayout(row)
        box.addWidget(self.drawing, 3)
        box.addWidget(self.where)
        self.holes.setHorizontalHeaderLabels(COLUMNS)
        self.holes.setAccessibleName("Holes of the piece, along from its first end, across from its edge or middle")
        self.holes.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.holes.setFont(font(0.86))
        header, rows = self.holes.horizontalHeader(), self.holes.verticalHeader()
        if header is not None and rows is not None:
            header.setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
            header.setSectionResizeMode(0, QHeaderView.ResizeMode.ResizeToContents)
            header.setFont(font(0.86))
            rows.hide()
            rows.setDefaultSectionSize(round(1.6 * unit))
        box.addWidget(self.holes, 2)
        _wrapped(self.caution)
        box.addWidget(self.caution)


def _wrapped(one: QLabel) -> None:
    one.setWordWrap(True)
    one.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)


def _ends(piece: ShopPiece) -> str:
    words = []
    for name, end in zip(("first end", "other end"), piece.ends, strict=False):
        how = f"mitred {end.angle:.1f}°" if end.angle else "square"
        words.append(f"{name} {how}{f', to the {end.joined}' if end.joined else ''}")
    return "; ".join(words)
