"""Find any command by a few letters of its name."""

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QDialog, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.ui.commands import Command
from unterbau.ui.theme import em

GROUPS = (("link-",), ("lens-", "station-", "sizes"))
"""What comes first, by the beginning of its id."""
MAKES = ("start-", "delete", "duplicate", "new", "demo-", "rename")
"""What makes something new, takes something away or opens something else."""
MAKING = ("start", "new", "delete", "copy", "duplicate", "open", "demo", "rename")
"""Words by which one asks for that."""


def matching(commands: list[Command], text: str) -> list[Command]:
    """Return the enabled commands whose text or tip holds every word.

    First where the words begin words of its name: parts of this machine, then lenses and stations, then the rest. What
    makes or takes away comes behind all others that fit as loosely.
    """
    words = text.lower().split()
    found = [c for c in commands if c.enabled() and all(w in f"{c.text} {c.tip}".lower() for w in words)]
    return sorted(found, key=lambda c: _order(c, words))


def _order(command: Command, words: list[str]) -> tuple[int, int]:
    names = command.text.lower().replace(":", " ").split()
    begins = all(any(name.startswith(word) for name in names) for word in words)
    looseness = 0 if begins else 1 if all(word in command.text.lower() for word in words) else 2
    group = next((n for n, starts in enumerate(GROUPS) if command.id.startswith(starts)), len(GROUPS))
    if command.id.startswith(MAKES):
        return (looseness if words and words[0] in MAKING else 3, len(GROUPS) + 1)
    return (looseness, group)


class CommandFinder(QDialog):
    """A field and what fits; Enter runs the first."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.setAccessibleName("Find anything")
        self._commands: list[Command] = []
        self.text = QLineEdit(self)
        self.text.setPlaceholderText("find a command or a part")
        self.text.setAccessibleName("Find a command or a part")
        self.list = QListWidget(self)
        self.list.setAccessibleName("What fits")
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        box = QVBoxLayout(self)
        box.addWidget(self.text)
        box.addWidget(self.list)
        self.setFixedSize(round(30 * em()), round(24 * em()))
        self.text.textChanged.connect(self._on_text)
        self.text.returnPressed.connect(self._on_run)
        self.list.itemClicked.connect(self._on_run)
        self.text.installEventFilter(self)

    def open_with(self, commands: list[Command]) -> None:
        """Show the finder over its window."""
        self._commands = commands
        self.text.clear()
        self._on_text("")
        window = self.parentWidget()
        if window is not None:
            corner = window.mapToGlobal(window.rect().topRight())
            self.move(corner.x() - self.width() - round(em()), corner.y() + round(3.6 * em()))
        self.show()
        self.text.setFocus()

    @override
    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
            if step is not None and self.list.count():
                row = self.list.currentRow() + step
                self.list.setCurrentRow(max(0, min(self.list.count() - 1, row)))
                return True
        return super().eventFilter(watched, event)

    def _on_text(self, text: str) -> None:
        self.list.clear()
        for command in matching(self._commands, text):
            shortcut = f"      {command.shortcut}" if command.shortcut else ""
            item = QListWidgetItem(f"{command.text}{shortcut}", self.list)
            item.setData(Qt.ItemDataRole.UserRole, command.id)
            item.setToolTip(command.tip)
        if self.list.count():
            self.list.setCurrentRow(0)
        else:
            QListWidgetItem("nothing of this name; try fewer letters", self.list).setFlags(Qt.ItemFlag.NoItemFlags)

    def _on_run(self) -> None:
        item = self.list.currentItem()
        chosen = item.data(Qt.ItemDataRole.UserRole) if item else None
        command = next((c for c in self._commands if c.id == chosen), None)
        if command is not None:
            self.hide()
            command.run()
