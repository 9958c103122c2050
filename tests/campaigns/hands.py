"""`./dev soak [EVENTS [SEED [DEMO]]]`: random hands on the real window; prints what broke and how the memory went."""

import os
import random
import sys
import tempfile
import traceback
from collections import Counter
from collections.abc import Callable, Iterator
from pathlib import Path
from threading import Thread, get_ident
from time import sleep
from traceback import FrameSummary, StackSummary, extract_tb, walk_stack
from types import TracebackType
from typing import Any, TypeVar

from PyQt6.QtCore import QEvent, QEventLoop, QPoint, Qt, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QDialog,
    QFileDialog,
    QInputDialog,
    QLineEdit,
    QListWidget,
    QMenu,
    QMessageBox,
    QSlider,
    QWidget,
)

from unterbau.ui.shell.application import open_window
from unterbau.ui.shell.main_window import MainWindow

Widget = TypeVar("Widget", bound=QWidget)
HAND: Any = QTest
LEFT_ALONE = {"quit", "settings-folder"}
TYPED = ("", "0", "-5", "100", "250", "1e9", "900 mm", "36 in", "2 ft", "abc", "(", "12/0", "1,5", "x" * 300)
KEYS = (
    Qt.Key.Key_Tab, Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Left,
    Qt.Key.Key_Right, Qt.Key.Key_Home, Qt.Key.Key_End, Qt.Key.Key_Space, Qt.Key.Key_Delete, Qt.Key.Key_Backspace,
    Qt.Key.Key_Plus, Qt.Key.Key_Minus,
)  # fmt: skip
FAULT = "inside the program"
COMPUTED = "could not be computed"
PAUSES = (0, 0, 0, 1, 5, 30, 120)  # ms after an event
MENU = 50  # ms that a menu stays open
ROOM, ROUND = 300, 40
"""Calls that are let in to tell where all went round, and how many of the last are told."""
DEEP, LOOK = 250, 0.004
"""So many nested calls go round; s between looks."""
EACH = 250
"""Events between looks at the memory."""


class Depth(Thread):
    """Looks how deep the window's calls are nested; told in time, for no hook is called any more where it ends."""

    def __init__(self) -> None:
        super().__init__(daemon=True, name="depth")
        self._main = get_ident()
        self.deepest: list[str] = []

    def run(self) -> None:
        """Look, again and again."""
        while True:
            sleep(LOOK)
            frame, inner = sys._current_frames().get(self._main), list[str]()
            depth = 0
            while frame is not None and depth < DEEP:
                if depth < ROUND:
                    code = frame.f_code
                    inner.append(f"{code.co_name} ({Path(code.co_filename).name}:{frame.f_lineno})")
                frame, depth = frame.f_back, depth + 1
            if depth >= DEEP and not self.deepest:
                self.deepest = inner


class Hands:
    """Does one thing after another at random, and remembers what went wrong."""

    def __init__(self, window: MainWindow, seed: int) -> None:
        self.window, self.draw = window, random.Random(seed)
        self.faults: list[str] = []
        self.done: Counter[str] = Counter()
        self._last = ""
        self.start = window.document.project
        self.depth = Depth()
        self.depth.start()
        self._menus = QTimer()
        self._menus.setInterval(MENU)
        self._menus.timeout.connect(self._close_menu)
        self._menus.start()

    def event(self) -> None:
        """Do something."""
        ways = (self.command, self.click, self.press, self.choose, self.write, self.wheel, self.undo, self.resize)
        way = self.draw.choices(ways, (4, 8, 3, 3, 4, 1, 3, 0.2))[0]
        self.done[way.__name__] += 1
        try:
            self._last = way.__name__
            way()
            QApplication.processEvents(QEventLoop.ProcessEventsFlag.AllEvents, self.draw.choice(PAUSES))
            self._close_others()
        except Exception as error:  # raised where we called, not in a slot
            self.on_fault(type(error), error, error.__traceback__)
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
        self._look()

    def command(self) -> None:
        """Run a command of the finder."""
        every = [*self.window.commands(), *self.window.machine.link_commands()]
        one = self.draw.choice([c for c in every if c.id not in LEFT_ALONE and c.enabled()])
        self._last = f"command {one.id}"
        one.run()

    def click(self) -> None:
        """Click anywhere in something that is seen."""
        seen = self._seen(QWidget)
        if not seen:
            return
        one = self.draw.choice(seen)
        place = QPoint(self.draw.randrange(max(1, one.width())), self.draw.randrange(max(1, one.height())))
        self._last = f"click {type(one).__name__} {one.accessibleName()!r}"
        HAND.mouseClick(one, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, place)

    def press(self) -> None:
        """Press keys wherever the focus is."""
        focus = QApplication.focusWidget() or self.window
        key = self.draw.choice(KEYS)
        modifier = self.draw.choice((Qt.KeyboardModifier.NoModifier,) * 4 + (Qt.KeyboardModifier.ShiftModifier,))
        self._last = f"key {key.name} in {type(focus).__name__} {focus.accessibleName()!r}"
        HAND.keyClick(focus, key, modifier)

    def choose(self) -> None:
        """Choose of a list or move a slider."""
        seen: list[QWidget] = [
            *self._seen(QComboBox),
            *self._seen(QListWidget),
            *self._seen(QSlider),
            *self._seen(QAbstractSpinBox),
        ]
        if not seen:
            return
        one = self.draw.choice(seen)
        self._last = f"choose in {type(one).__name__} {one.accessibleName()!r}"
        if isinstance(one, QComboBox) and one.count():
            place = self.draw.randrange(one.count())
            one.setCurrentIndex(place)
            one.activated.emit(place)
        elif isinstance(one, QListWidget) and one.count():
            one.setCurrentRow(self.draw.randrange(one.count()))
        elif isinstance(one, QSlider):
            one.setValue(self.draw.randint(one.minimum(), one.maximum()))
        elif isinstance(one, QAbstractSpinBox):
            one.stepBy(self.draw.choice((-20, -1, 1, 20)))

    def write(self) -> None:
        """Type a value."""
        seen = self._seen(QLineEdit)
        if not seen:
            return
        one, text = self.draw.choice(seen), self.draw.choice(TYPED)
        self._last = f"type {text[:20]!r} in {one.accessibleName()!r}"
        one.setFocus()
        one.selectAll()
        HAND.keyClicks(one, text)
        if self.draw.random() < 0.8:
            HAND.keyClick(one, Qt.Key.Key_Return)

    def wheel(self) -> None:
        """Go to another candidate or part."""
        names = [c.name for c in self.window.document.project.candidates]
        self._last = "another candidate"
        self.window.selection.choose_candidate(self.draw.choice(names))

    def undo(self) -> None:
        """Go back or forth, also many steps."""
        stack = self.window.document.stack
        for _ in range(self.draw.choice((1, 1, 2, 15))):
            if self.draw.random() < 0.7:
                stack.undo()
            else:
                stack.redo()

    def take_all_back(self) -> None:
        """Undo everything; the project is what it was."""
        while self.window.document.stack.canUndo():
            self.window.document.stack.undo()
        if self.window.document.project != self.start:
            self._note("all taken back, the project is not what it was")

    def resize(self) -> None:
        """Give the window another size."""
        self.window.resize(self.draw.randint(600, 1900), self.draw.randint(500, 1150))

    def _seen(self, sort: type[Widget]) -> list[Widget]:
        root: QWidget = next(iter(self._dialogs()), self.window)
        return [w for w in _shown(root) if isinstance(w, sort) and w.isEnabled()]

    def _dialogs(self) -> list[QDialog]:
        return [w for w in QApplication.topLevelWidgets() if isinstance(w, QDialog) and w.isVisible()]

    def _close_others(self) -> None:
        for dialog in self._dialogs():
            if self.draw.random() < 0.1:
                dialog.close()

    def _close_menu(self) -> None:
        """Choose something of an open menu, or none: it runs a loop of its own, which nothing else would end."""
        popup = QApplication.activePopupWidget()
        if popup is None:
            return
        if isinstance(popup, QMenu) and (actions := [a for a in popup.actions() if a.isEnabled() and not a.menu()]):
            chosen = self.draw.choice(actions)
            self._last = f"menu {chosen.text()!r}"
            popup.close()
            if "uit" not in chosen.text():
                chosen.trigger()
            return
        popup.close()

    def _look(self) -> None:
        if self.depth.deepest:
            self._note("goes deep: " + " < ".join(self.depth.deepest))
            self.depth.deepest = []
        words = self.window.notice.message.text() if self.window.notice.isVisible() else ""
        if FAULT in words or COMPUTED in words:
            self._note(words)
            self.window.notice.hide()
        if not self.window.document.stack.count():
            self.start = self.window.document.project
        names = [c.name for c in self.window.document.project.candidates]
        if self.window.selection.candidate not in names:
            self._note(f"the chosen candidate {self.window.selection.candidate!r} is not there")

    def on_fault(self, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        """Note what was raised in a slot; where all went round, which calls did."""
        deep = isinstance(error, RecursionError)
        if deep:
            sys.setrecursionlimit(sys.getrecursionlimit() + ROOM)
            self._note("goes round: " + " < ".join(f"{one.name} ({Path(one.filename).name})" for one in _inner(trace)))
        last = extract_tb(trace)[-1] if trace is not None and not deep else None
        where = f"{last.name} ({Path(last.filename).name}:{last.lineno})" if last is not None else "?"
        self._note(f"{kind.__name__} in {where}: {str(error)[:100]}")
        if os.environ.get("SOAK_TRACE"):
            traceback.print_exception(kind, error, trace)

    def _note(self, words: str) -> None:
        self.faults.append(f"{words}; after {self._last}")


def _shown(root: QWidget) -> Iterator[QWidget]:
    """Yield what is seen under a widget: nothing is looked for under what is hidden, which is most of it."""
    for child in root.children():
        if isinstance(child, QWidget) and child.isVisible() and not child.isWindow():
            yield child
            yield from _shown(child)


def _inner(trace: TracebackType | None) -> list[FrameSummary]:
    """Return the innermost calls of a trace, without walking all of a deep one."""
    frames = [frame for frame, _ in zip(walk_stack(None), range(ROUND), strict=False)]
    del trace
    return list(StackSummary.extract(((frame, line) for frame, line in frames), lookup_lines=False))


def quiet(folder: Path, put: Callable[[object, str, object], None] = setattr) -> None:
    """Let no dialog wait for anybody: files are saved into a folder, questions answered by no."""

    def saved(*asked: object) -> tuple[str, str]:
        del asked
        return str(folder / "hands.out"), ""

    def nothing(*asked: object, **more: object) -> tuple[str, bool]:
        del asked, more
        return "", False

    for owner, name, answer in (
        (QFileDialog, "getSaveFileName", saved), (QFileDialog, "getOpenFileName", lambda *_: ("", "")),
        (QFileDialog, "getExistingDirectory", lambda *_: str(folder)),
        (QInputDialog, "getText", nothing), (QDialog, "exec", lambda _: 0),
        (QMessageBox, "exec", lambda _: QMessageBox.StandardButton.Discard.value),
    ):  # fmt: skip
        put(owner, name, answer)


def memory() -> float:
    """Return what the program has of the memory, MB."""
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


def campaign(hands: Hands, events: int) -> Iterator[str]:
    """Yield what broke, and lines of memory."""
    for number in range(events):
        hands.event()
        yield from hands.faults
        hands.faults.clear()
        if number % EACH == EACH - 1:
            yield f"tried: {number + 1} events, {memory():.0f} MB"
    hands.take_all_back()
    yield from hands.faults
    yield f"tried: {events} events: {', '.join(f'{n} × {name}' for name, n in hands.done.items())}"


def main() -> int:
    """Run; return 1 where anything broke."""
    events = int(sys.argv[1]) if len(sys.argv) > 1 else 3000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    demo = sys.argv[3] if len(sys.argv) > 3 else "carving-router"
    faults = 0
    with tempfile.TemporaryDirectory() as folder:
        for place in ("CONFIG", "DATA", "STATE", "CACHE"):
            os.environ[f"XDG_{place}_HOME"] = folder  # one's own settings and kept work stay as they are
        application = QApplication([])
        quiet(Path(folder))
        window = open_window(["--demo"], 10.0)
        window.resize(1280, 800)
        window.show()
        window.files.open_demo(demo)
        hands = Hands(window, seed)
        sys.excepthook = hands.on_fault
        for line in campaign(hands, events):
            faults += not line.startswith("tried")
            sys.stdout.write(f"{line}\n")
            sys.stdout.flush()
        window.document.stack.setClean()
        window.close()
        application.processEvents()
    sys.stdout.write(f"{faults} faults\n")
    sys.stdout.flush()
    os._exit(1 if faults else 0)  # what still runs behind is not waited for


if __name__ == "__main__":
    main()
