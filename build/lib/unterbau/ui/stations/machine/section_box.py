"""The list of sections, found by typing any piece of a name; each with a small picture of its outline."""

from functools import lru_cache

from PyQt6.QtCore import QModelIndex, QPointF, QSize, QStringListModel, Qt, pyqtSignal
from PyQt6.QtGui import QIcon, QPainter, QPainterPath, QPixmap, QPolygonF
from PyQt6.QtWidgets import QComboBox, QCompleter, QStyledItemDelegate, QStyleOptionViewItem, QWidget
from typing_extensions import override

from unterbau.errors import InputError
from unterbau.sections.find import find
from unterbau.sections.section import section
from unterbau.ui.theme import colour, em
from unterbau.ui.widgets.choice_box import ChoiceBox, Choices
from unterbau.ui.widgets.typed_line import TypedLine

SHOWN = 40
"""Sections that are offered while one types."""


class SectionBox(ChoiceBox):
    """A list one can type into."""

    typed = pyqtSignal(str)
    """A text was finished."""
    given_up = pyqtSignal()

    def __init__(self, name: str, choices: Choices, parent: QWidget) -> None:
        super().__init__(name, choices, parent)
        line = TypedLine(self)
        line.setAccessibleName(name)
        line.setPlaceholderText("any piece of its name")
        self.setEditable(True)
        self.setLineEdit(line)
        self.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        self._found = QStringListModel(self)
        offers = QCompleter(self._found, self)
        offers.setCompletionMode(QCompleter.CompletionMode.UnfilteredPopupCompletion)
        offers.setMaxVisibleItems(12)
        popup = offers.popup()
        if popup is not None:
            popup.setMinimumWidth(round(17 * em()))
        self.setCompleter(offers)
        self._pictures = Pictures(self)
        for view in (self.view(), offers.popup()):
            if view is not None:
                view.setItemDelegate(self._pictures)
        line.textEdited.connect(self._on_text)
        line.editingFinished.connect(self._on_finished)
        line.given_up.connect(self.given_up)

    def _on_text(self, text: str) -> None:
        self._found.setStringList([section(name).label for name in find(text)[:SHOWN]])

    def _on_finished(self) -> None:
        self.typed.emit(self.currentText())


class Pictures(QStyledItemDelegate):
    """Draws the outline of a section before its words."""

    @override
    def initStyleOption(self, option: QStyleOptionViewItem | None, index: QModelIndex) -> None:
        super().initStyleOption(option, index)
        picture = outline(index.data(Qt.ItemDataRole.DisplayRole) or "", round(1.2 * em()), colour("ink").name())
        if option is not None and picture is not None:
            option.icon = picture
            option.decorationSize = QSize(round(1.2 * em()), round(1.2 * em()))
            option.features |= QStyleOptionViewItem.ViewItemFeature.HasDecoration


@lru_cache(maxsize=512)
def outline(label: str, size: int, ink: str) -> QIcon | None:
    """Return a small picture of the section of a label, or nothing."""
    name = _names().get(label)
    if name is None:
        return None
    try:
        loops = section(name).loops
    except InputError:
        return None
    picture = QPixmap(size, size)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    ys, zs = zip(*loops[0], strict=True)
    scale = (size - 2) / max(max(ys) - min(ys), max(zs) - min(zs))
    middle = QPointF((max(ys) + min(ys)) / 2, (max(zs) + min(zs)) / 2)
    path = QPainterPath()
    for ring in loops:
        corners = (QPointF(y - middle.x(), middle.y() - z) * scale for y, z in (*ring, ring[0]))
        path.addPolygon(QPolygonF([QPointF(size / 2, size / 2) + corner for corner in corners]))
    painter.fillPath(path, colour("ink"))
    painter.end()
    del ink  # part of what the picture is kept by
    return QIcon(picture)


@lru_cache(maxsize=1)
def _names() -> dict[str, str]:
    return {section(name).label: name for name in find("")}
