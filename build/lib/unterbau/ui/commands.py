"""Actions as data: menus, the command finder and the shortcuts are built from these."""

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QWidget


@dataclass(frozen=True)
class Command:
    """Something one can do."""

    id: str
    text: str
    run: Callable[[], object]
    shortcut: str = ""
    tip: str = ""
    enabled: Callable[[], bool] = lambda: True


def install(commands: list[Command], owner: QWidget) -> dict[str, QAction]:
    """Make an action with its shortcut for each command."""
    actions = {}
    for command in commands:
        action = QAction(command.text, owner)
        if command.shortcut:
            action.setShortcut(QKeySequence(command.shortcut))
        action.setToolTip(command.tip or command.text)
        action.triggered.connect(_runner(command))
        owner.addAction(action)
        actions[command.id] = action
    return actions


def _runner(command: Command) -> Callable[[bool], None]:
    def run(checked: bool = False) -> None:
        del checked
        if command.enabled():
            command.run()

    return run
