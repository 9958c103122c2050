"""The log of a build: lines with dates and photos, searched, written as a page."""

from pathlib import Path

from PyQt6.QtCore import QSize, Qt, pyqtSignal
from PyQt6.QtGui import QIcon, QPixmap
from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from unterbau.errors import InputError
from unterbau.files.photos import folder_of, missing
from unterbau.shop.build.log import Entry, changed, found
from unterbau.ui.theme import em, font
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.ui.widgets.typed_line import TypedLine

PHOTO = 3.2  # em


class LogPanel(QWidget):
    """Shows a candidate's log and takes new lines."""

    added = pyqtSignal(str, float, float)
    """Words, hours, money."""
    photo_wanted = pyqtSignal(object)
    """A file that is to be kept beside the project."""
    removed = pyqtSignal(int)
    """Place of an entry in the log."""
    page_wanted = pyqtSignal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._log: tuple[Entry, ...] = ()
        self._candidate = ""
        self._path: Path | None = None
        self.list, self.line = QListWidget(self), TypedLine(self)
        self.hours, self.money, self.search = TypedLine(self), TypedLine(self), TypedLine(self)
        self.photo, self.remove = QPushButton("photo …", self), QPushButton("take out", self)
        self.page, self.problem = QPushButton("page …", self), label("", "error", 0.88)
        self._build()
        for line in (self.line, self.hours, self.money):
            line.returnPressed.connect(self._on_typed)
        self.line.given_up.connect(self.line.clear)
        self.search.textChanged.connect(self._show)
        self.search.given_up.connect(self.search.clear)
        self.photo.clicked.connect(self._ask_photo)
        self.page.clicked.connect(self._ask_page)
        self.remove.clicked.connect(self._on_removed)

    def show_log(self, log: tuple[Entry, ...], candidate: str, path: Path | None) -> None:
        """Show a candidate's entries; photos lie beside the project's file at a path."""
        self._log, self._candidate, self._path = log, candidate, path
        self._show()

    def say(self, problem: str) -> None:
        """Say what is wrong, beside the line."""
        self.problem.setText(problem)
        self.problem.setVisible(bool(problem))

    def take_words(self) -> str:
        """Return what stands in the line and empty it: words for a photo."""
        words = self.line.text().strip()
        self.line.clear()
        return words

    def _show(self) -> None:
        self.list.clear()
        size = round(PHOTO * em())
        for place in found(self._log, self._candidate, self.search.text()):
            one = self._log[place]
            figures = [f"{one.hours:g} h"] if one.hours else []
            figures += [f"{one.money:g} spent"] if one.money else []
            gone = missing(self._path, one.photos)
            figures += [f"photo missing: {', '.join(gone)}"] if gone else []
            rows = changed(self._log, place)
            figures += [f"changed: {'; '.join(rows)}"] if rows else []
            words = f"{one.when}  {one.text}" + (f"  ({'; '.join(figures)})" if figures else "")
            item = QListWidgetItem(words, self.list)
            item.setData(Qt.ItemDataRole.UserRole, place)
            item.setToolTip(plain_tip(words))
            there = [name for name in one.photos if name not in gone]
            if there and self._path is not None:
                picture = QPixmap(str(folder_of(self._path) / there[0]))
                if not picture.isNull():
                    shape = Qt.AspectRatioMode.KeepAspectRatio
                    smooth = Qt.TransformationMode.SmoothTransformation
                    item.setIcon(QIcon(picture.scaled(size, size, shape, smooth)))
        self.remove.setEnabled(self.list.count() > 0)
        self.page.setEnabled(bool(self._log))

    def _on_typed(self) -> None:
        try:
            hours, money = (self._number(line) for line in (self.hours, self.money))
        except InputError as error:
            self.say(error.problem)
            return
        if not self.line.text().strip():
            self.say("expected a few words of what was done")
            return
        self.say("")
        words = self.take_words()
        for line in (self.hours, self.money):
            line.clear()
        self.added.emit(words, hours, money)

    @staticmethod
    def _number(line: TypedLine) -> float:
        text = line.text().strip().replace(",", ".")
        try:
            value = float(text or 0.0)
        except ValueError:
            raise InputError("log", f'"{text}" is no number') from None
        if not abs(value) <= 1e7:
            raise InputError("log", f'"{text}": expected up to 10 000 000')
        return value

    def _on_removed(self) -> None:
        item = self.list.currentItem() or self.list.item(0)
        if item is not None:
            self.removed.emit(int(item.data(Qt.ItemDataRole.UserRole)))

    def _ask_photo(self) -> None:
        kinds = "Photos (*.jpg *.jpeg *.png *.JPG *.PNG)"
        names, _ = QFileDialog.getOpenFileNames(self, "Photos of the build", str(Path.home()), kinds)
        if names:
            self.photo_wanted.emit(tuple(Path(name) for name in names))

    def _ask_page(self) -> None:
        start = self._path.with_suffix(".log.html") if self._path is not None else Path.home() / "log.html"
        path = ask_save_path(self, "Save the log", start, "HTML (*.html);;Markdown (*.md)")
        if path is not None:
            self.page_wanted.emit(path)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.25 * unit))
        row = QHBoxLayout()
        self.line.setAccessibleName("What was done")
        self.line.setPlaceholderText("what was done, Enter")
        for line, name, words, wide in (
            (self.hours, "Hours of it", "h", 3.5), (self.money, "Money spent", "spent", 4.5),
            (self.search, "Search the log", "search", 8.0),
        ):  # fmt: skip
            line.setAccessibleName(name)
            line.setPlaceholderText(words)
            line.setMaximumWidth(round(wide * unit))
        for button, tip in (
            (self.photo, "photos of today, with the words in the line; kept in a folder beside the project's file"),
            (self.remove, "take the chosen entry out"), (self.page, "the log as a page: HTML or Markdown"),
        ):  # fmt: skip
            button.setFont(font(0.86))
            button.setProperty("small", True)
            button.setToolTip(tip)
        row.addWidget(self.line, 1)
        for widget in (self.hours, self.money, self.photo, self.search, self.remove, self.page):
            row.addWidget(widget)
        box.addLayout(row)
        box.addWidget(self.problem)
        self.problem.hide()
        self.list.setAccessibleName("Entries of the log, the newest first")
        self.list.setFont(font(0.9))
        self.list.setIconSize(QSize(round(PHOTO * unit), round(PHOTO * unit)))
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        box.addWidget(self.list, 1)
