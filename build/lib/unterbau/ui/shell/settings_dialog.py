"""Settings: colours, text size, units; each choice takes effect at once."""

from PyQt6.QtWidgets import QComboBox, QDialog, QFormLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.ui.shell.preferences import Preferences
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import heading, label

THEMES = (("light", "paper, light"), ("dark", "slate, dark"))
TEXTS = (0.85, 1.0, 1.15, 1.3, 1.5, 1.75, 2.0)
UNITS = (("mm", "millimetres"), ("inch", "inches"))


class SettingsDialog(QDialog):
    """Stands beside the window; closes with Escape."""

    def __init__(self, preferences: Preferences, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Settings")
        self._preferences, self._view = preferences, view
        settings = preferences.settings
        self.theme = self._choice("Colours", THEMES, settings.theme)
        self.text = self._choice("Size of the text", tuple((t, f"{t:.0%}") for t in TEXTS), settings.text)
        self.units = self._choice("Units of new projects", UNITS, settings.units)
        self.hints = QPushButton("show the first steps again", self)
        self.hints.setEnabled(bool(settings.hints_done))
        form = QFormLayout()
        for words, box in (
            ("colours", self.theme), ("size of the text", self.text), ("units of new projects", self.units),
        ):  # fmt: skip
            form.addRow(label(words, "muted"), box)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(*[round(1.2 * em())] * 4)
        layout.setSpacing(round(0.7 * em()))
        layout.addWidget(heading("settings"))
        layout.addLayout(form)
        layout.addWidget(self.hints)
        layout.addWidget(label("Kept on this computer, not in the project.", "muted", 0.86))
        self.theme.activated.connect(self._on_look)
        self.text.activated.connect(self._on_look)
        self.units.activated.connect(self._on_units)
        self.hints.clicked.connect(self._on_hints)

    def _choice(self, name: str, choices: tuple[tuple[object, str], ...], now: object) -> QComboBox:
        box = QComboBox(self)
        box.setAccessibleName(name)
        for value, words in choices:
            box.addItem(words, value)
        box.setCurrentIndex(max(0, box.findData(now)))
        return box

    def _on_look(self) -> None:
        theme, text = self.theme.currentData(), self.text.currentData()
        self._preferences.change(theme=theme, text=text)
        self._view.restyle(theme, text)

    def _on_units(self) -> None:
        self._preferences.change(units=self.units.currentData())

    def _on_hints(self) -> None:
        self.hints.setEnabled(False)
        self._preferences.change(hints_done=())
