"""The header: project, candidate, undo and redo, units, command finder."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QFont
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QMenu, QPushButton, QSizePolicy, QToolButton, QWidget

from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.eliding import ElidingButton, ElidingPush
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip


class Header(QWidget):
    """One row over all stations."""

    undo_wanted = pyqtSignal()
    redo_wanted = pyqtSignal()
    finder_wanted = pyqtSignal()

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._view = view
        self.project = ElidingButton(self)
        self.menu = QMenu(self)
        self.candidate = label("", "muted")
        self.undo = QPushButton("◂ undo", self)
        self.redo = QPushButton("redo ▸", self)
        self.units = QButtonGroup(self)
        self.finder = ElidingPush("find anything   Ctrl K", self)
        self._build()
        self.undo.clicked.connect(self.undo_wanted)
        self.redo.clicked.connect(self.redo_wanted)
        self.finder.clicked.connect(self.finder_wanted)
        self.units.idClicked.connect(self._on_units)
        view.changed.connect(self._show_units)

    def show_names(self, project: str, candidate: str, modified: bool) -> None:
        """Show what is open."""
        self.project.setText(f"{project}{' •' if modified else ''}  ▾")
        self.project.setToolTip(plain_tip(f"{project}: {'unsaved changes; ' if modified else ''}open, save, …"))
        self.candidate.setText(f"candidate: {candidate}")

    def show_undo(self, undo: str, redo: str) -> None:
        """Show what can be undone and redone; empty texts cannot."""
        self.undo.setEnabled(bool(undo))
        self.redo.setEnabled(bool(redo))
        self.undo.setToolTip(plain_tip(f"undo {undo}, Ctrl+Z") if undo else "nothing to undo")
        self.redo.setToolTip(plain_tip(f"redo {redo}, Ctrl+Shift+Z") if redo else "nothing to redo")

    def _build(self) -> None:
        unit = em()
        row = QHBoxLayout(self)
        row.setContentsMargins(round(0.9 * unit), round(0.45 * unit), round(1.1 * unit), round(0.45 * unit))
        row.setSpacing(round(0.5 * unit))
        self.project.setFont(font(1.12, QFont.Weight.DemiBold))
        self.project.setProperty("flat", True)
        self.project.setAccessibleName("Project menu")
        self.project.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.project.setMenu(self.menu)
        self.project.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.project.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        row.addWidget(self.project)
        row.addWidget(self.candidate)
        row.addStretch(1)
        for button in (self.undo, self.redo):
            button.setFlat(True)
            row.addWidget(button)
        row.addSpacing(round(0.6 * unit))
        for place, (name, tip) in enumerate((("mm", "show millimetres"), ("inch", "show inches"))):
            button = QPushButton(name, self)
            button.setCheckable(True)
            button.setToolTip(tip)
            button.setAccessibleName(tip)
            self.units.addButton(button, place)
            row.addWidget(button)
        row.addSpacing(round(0.6 * unit))
        self.finder.setToolTip("find a command or a part by name, Ctrl+K")
        row.addWidget(self.finder)
        self._show_units()

    def _show_units(self) -> None:
        button = self.units.button(0 if self._view.units == "mm" else 1)
        if button is not None:
            button.setChecked(True)

    def _on_units(self, place: int) -> None:
        self._view.set_units("mm" if place == 0 else "inch")
