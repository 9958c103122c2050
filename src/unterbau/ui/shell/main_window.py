"""The main window: only puts header, stations and files together."""

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtGui import QCloseEvent, QDesktopServices
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QMainWindow, QMenu, QStackedWidget, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.machine.machine import KINDS, links
from unterbau.project import edits
from unterbau.project.project import Project
from unterbau.ui import theme
from unterbau.ui.commands import Command, install
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.selection import Selection
from unterbau.ui.shell.command_finder import CommandFinder
from unterbau.ui.shell.dropped_files import DroppedFiles
from unterbau.ui.shell.file_actions import FileActions
from unterbau.ui.shell.header import Header
from unterbau.ui.shell.keeping import Keeper
from unterbau.ui.shell.late_stations import COMPARE, LATE, LateStations
from unterbau.ui.shell.left_behind import LeftBehind
from unterbau.ui.shell.notice import Notice
from unterbau.ui.shell.preferences import Preferences, recovery_folder, settings_file
from unterbau.ui.shell.settings_dialog import SettingsDialog
from unterbau.ui.shell.shortcut_page import ShortcutPage
from unterbau.ui.shell.station_bar import STATIONS, StationBar
from unterbau.ui.shell.summary_actions import SummaryActions
from unterbau.ui.shell.undo_anywhere import UndoAnywhere
from unterbau.ui.stations.machine.station import MachineStation
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.ui.widgets.typed_line import abandon_in

if TYPE_CHECKING:
    from unterbau.ui.shell.price_window import PriceWindow
    from unterbau.ui.stations.brief.station import BriefStation
    from unterbau.ui.stations.build.station import BuildStation
    from unterbau.ui.stations.compare.station import CompareStation
    from unterbau.ui.stations.pour.station import PourStation
    from unterbau.ui.stations.workshop.station import WorkshopStation

MACHINE = STATIONS.index("Machine")


class MainWindow(QMainWindow):
    """Header over stations, stations beside the bar."""

    _prices: "PriceWindow | None"

    def __init__(self, project: Project, point_size: float | None = None) -> None:
        super().__init__()
        application = cast(QApplication, QApplication.instance())
        self._point_size = point_size or theme.desktop_size(application)
        self.preferences = Preferences(settings_file(), self)
        self.document = Document(project, self)
        self.selection = Selection(self)
        self.selection.candidate = project.benchmark
        self.view = ViewSettings(self)
        self.view.set_units(project.units)
        self.view.theme, self.view.text = self.preferences.settings.theme, self.preferences.settings.text
        self.feed = Feed(self.document, self.selection, self)
        self.keeper = Keeper(self.document, recovery_folder(), self)
        self.files = FileActions(self.document, self.view, self.preferences, self, self.say, self.start_from_nothing)
        self.summary = SummaryActions(
            self.document, self.selection, self.view, self.feed, self, self.say, self._picture,
            self._tell_written,
        )  # fmt: skip
        self.setMinimumSize(1100, 700)
        self.resize(1280, 800)
        self._assemble()
        self.left_behind = LeftBehind(self.document, self.keeper, self.files, self.notice, self)
        self._connect()
        UndoAnywhere(self)
        DroppedFiles(self.files, self.say, self)
        self.feed.refresh()

    def commands(self) -> list[Command]:
        """Return everything one can do, but for the links and recent files."""
        stack = self.document.stack
        return [
            *self.files.commands(),
            *self.summary.commands(),
            Command("prices", "Price book …", self.show_prices, "Ctrl+P", "what parts cost; CSV in and out"),
            Command("settings", "Settings …", self.show_settings, "Ctrl+,", "colours, text size, units"),
            Command("keys", "Keys", self.show_keys, "F1", "every command with its keys"),
            Command("undo", "Undo", stack.undo, "Ctrl+Z", enabled=stack.canUndo),
            Command("redo", "Redo", stack.redo, "Ctrl+Shift+Z", enabled=stack.canRedo),
            Command("millimetres", "Show millimetres", partial(self.view.set_units, "mm")),
            Command("inches", "Show inches", partial(self.view.set_units, "inch")),
            Command("stop", "Stop what is being computed", self.machine.stop, "Esc"),
            Command("find", "Find anything", self.open_finder, "Ctrl+K"),
            *(
                Command(f"station-{n}", f"Station: {name}", partial(self.show_station, n), f"Alt+{n + 1}")
                for n, name in enumerate(STATIONS)
            ),
            *self.machine.commands(),
            Command("copy-figures", "Copy the figures of all candidates", self._on_copy_wanted, "Ctrl+Shift+C"),
            Command("save-figures", "Save the figures as CSV …", self._on_figures_wanted, tip="for any table program"),
            *(
                Command(
                    f"start-{k.id}", f"Start a candidate: {k.label}", partial(self._on_kind_wanted, k.id), tip=k.good
                )
                for k in KINDS
            ),
            Command("quit", "Quit", self.close, "Ctrl+Q"),
        ]

    @property
    def compare(self) -> "CompareStation":
        """The Compare station, made when it is first wanted."""
        return self.late.compare

    @property
    def brief(self) -> "BriefStation":
        """The Brief station, made when it is first wanted."""
        return self.late.brief

    @property
    def pour(self) -> "PourStation":
        """The Pour station, made when it is first wanted."""
        return self.late.pour

    @property
    def workshop(self) -> "WorkshopStation":
        """The Workshop station, made when it is first wanted."""
        return self.late.workshop

    @property
    def build(self) -> "BuildStation":
        """The Build station, made when it is first wanted."""
        return self.late.build

    @property
    def prices(self) -> "PriceWindow":
        """The price book, made when it is first wanted."""
        if self._prices is None:
            from unterbau.ui.shell.price_window import PriceWindow

            self._prices = PriceWindow(self.document, self)
        return self._prices

    def show_station(self, place: int) -> None:
        """Open a station."""
        self.late.wanted(place)
        self.pages.setCurrentIndex(place)
        self.bar.show_station(place)

    def start_from_nothing(self) -> None:
        """Show the new machine's sizes, to be typed or dragged."""
        self.show_station(MACHINE)
        self.machine.show_sizes()

    def open_finder(self) -> None:
        """Open the command finder."""
        links = self.machine.link_commands()
        self.finder.open_with([*self.commands(), *links, *self.files.recent_commands()])

    def say(self, problem: str) -> None:
        """Say what went wrong, in place; an empty text takes it back."""
        self.notice.say(problem)

    def show_prices(self) -> None:
        """Open the price book beside the window."""
        self.prices.show()
        self.prices.raise_()
        self.prices.activateWindow()

    def show_settings(self) -> None:
        """Open the settings."""
        SettingsDialog(self.preferences, self.view, self).open()

    def show_keys(self) -> None:
        """Open the page of keys."""
        ShortcutPage(self.commands(), self).open()

    def offer_left_behind(self) -> None:
        """Offer the newest work that a crash left; nothing is asked when there is none."""
        self.left_behind.offer()

    def end_now(self) -> None:
        """Set unsaved work aside and stop, without a question: the session or somebody ends the program."""
        self.keeper.keep_at_once()

    @override
    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is None:
            return
        if not self.files.may_leave():
            event.ignore()
            return
        if self._prices is not None:
            self._prices.close()
        self.keeper.close()
        self.summary.close()
        self.feed.close()
        self._close_stations()
        event.accept()

    def _assemble(self) -> None:
        """Make everything that is seen, in the colours and text size chosen."""
        application = cast(QApplication, QApplication.instance())
        theme.apply(application, self._point_size * self.view.text, self.view.theme)
        self.header = Header(self.view, self)
        self.bar = StationBar(self)
        self.notice = Notice(self)
        self.view.changed.connect(self.notice.overtake)
        self.finder = CommandFinder(self)
        self._prices = None
        self.late = LateStations(self.document, self.selection, self.view, self.feed, self, self._fill_page)
        self.late.say, self.late.wrote, self.late.link_wanted = self.say, self._tell_written, self._on_link_wanted
        self.late.over_wanted = self._on_over_wanted
        self.late.kind_wanted, self.late.cure_wanted = self._on_kind_wanted, self._on_cure_wanted
        self.machine = MachineStation(self.document, self.selection, self.view, self.feed, self)
        self.pages = QStackedWidget(self)
        built = {MACHINE: self.machine, **{place: QWidget(self) for place in LATE}}
        for place in range(len(STATIONS)):
            self.pages.addWidget(ScrolledPage(built[place], self))
        self._lay_out()
        self.actions_by_id = install(self.commands(), self)
        self._fill_menu()
        self.bar.chosen.connect(self.show_station)
        self.header.undo_wanted.connect(self.document.stack.undo)
        self.header.redo_wanted.connect(self.document.stack.redo)
        self.header.finder_wanted.connect(self.open_finder)
        self.header.menu.aboutToShow.connect(self._fill_menu)
        self.machine.trouble.connect(self.say)
        self.machine.shelf.paired.connect(self._on_paired)
        self.machine.first_steps.done.connect(self._on_steps_done)
        self.machine.first_steps.show_done(self.preferences.settings.hints_done)
        self.machine.candidates.started.connect(self._on_kind_wanted)
        self.machine.candidates.told.connect(self._tell_started)
        self.show_station(MACHINE)
        self._show_names()

    def _lay_out(self) -> None:
        right = QVBoxLayout()
        right.setSpacing(0)
        for widget in (self.header, hairline(), self.notice):
            right.addWidget(widget)
        right.addWidget(self.pages, 1)
        centre = QWidget(self)
        box = QHBoxLayout(centre)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        bar = ScrolledPage(self.bar, self)
        bar.setFixedWidth(self.bar.width())
        bar.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        bar.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        box.addWidget(bar)
        box.addLayout(right, 1)
        self.setCentralWidget(centre)

    def _fill_menu(self) -> None:
        menu, actions = self.header.menu, self.actions_by_id
        menu.clear()
        demos = QMenu("Open a demo", menu)
        for command in self.files.commands():
            (demos if command.id.startswith("demo-") else menu).addAction(actions[command.id])
        menu.insertMenu(actions["save"], demos)
        recent = self.files.recent_commands()
        if recent:
            menu.addSeparator()
            for command in recent:
                action = menu.addAction(command.text)
                if action is not None:
                    action.setToolTip(command.tip)
                    action.triggered.connect(command.run)
        menu.addSeparator()
        for name in ("summary", "prices", "settings", "keys", "quit"):
            menu.addAction(actions[name])

    def _connect(self) -> None:
        stack = self.document.stack
        self.document.changed.connect(self._on_changed)
        self.document.file_changed.connect(self._show_names)
        self.document.replaced.connect(self._on_replaced)
        self.selection.candidate_changed.connect(self._on_candidate_changed)
        self.view.restyled.connect(self._on_restyled)
        self.preferences.failed.connect(self.say)
        self.preferences.changed.connect(self._on_preferences)
        self.keeper.failed.connect(self.say)
        stack.indexChanged.connect(self._on_changed)
        stack.cleanChanged.connect(self._on_changed)

    def _fill_page(self, place: int, station: QWidget) -> None:
        """Put a station where only its place was kept."""
        empty = self.pages.widget(place)
        assert empty is not None
        self.pages.removeWidget(empty)
        empty.deleteLater()
        self.pages.insertWidget(place, ScrolledPage(station, self))

    def _on_copy_wanted(self) -> None:
        self.compare.copy_figures()

    def _on_figures_wanted(self) -> None:
        self.compare.ask_save()

    def _on_steps_done(self, done: tuple[str, ...]) -> None:
        self.preferences.change(hints_done=done)

    def _on_preferences(self) -> None:
        self.machine.first_steps.show_done(self.preferences.settings.hints_done)

    def _on_paired(self, name: str, other: str) -> None:
        """Compare a candidate with the one it was dropped on."""
        project = self.document.project
        if project.benchmark != other:
            self.document.apply(edits.set_benchmark(project, other), f"benchmark {other}")
        self.selection.choose_candidate(name)
        self.show_station(COMPARE)

    def _on_over_wanted(self, name: str) -> None:
        self.show_station(1)
        self.machine.ghosting.choose(name)

    def _on_link_wanted(self, key: str) -> None:
        self.show_station(MACHINE)
        self.machine.choose_link(key)

    def _on_kind_wanted(self, kind: str) -> None:
        self.machine.candidates.start(kind, self.view.units)
        self.start_from_nothing()

    def _on_cure_wanted(self, key: str) -> None:
        self.show_station(MACHINE)
        if key.startswith("dimensions"):
            self.machine.show_sizes(key.partition(".")[2])
        elif any(one.key == key for one in links(self.feed.machine())):
            self.machine.choose_link(key)

    def _on_changed(self) -> None:
        self._show_names()

    def _on_replaced(self) -> None:
        abandon_in(self)

    def _on_candidate_changed(self) -> None:
        """Give up what was typed and not taken: it was typed for another candidate."""
        abandon_in(self)
        self._show_names()

    def _on_restyled(self) -> None:
        """Build all that is seen anew; project, undo and what is looked at stay."""
        station = self.pages.currentIndex()
        self._close_stations()
        for action in self.actions():
            self.removeAction(action)
            action.deleteLater()
        self.finder.deleteLater()
        if self._prices is not None:
            self._prices.close()
            self._prices.deleteLater()
        self._assemble()
        self.left_behind.use_notice(self.notice)
        self.show_station(station)
        self.feed.refresh()

    def _close_stations(self) -> None:
        """Stop what stations compute behind, and give graphics back."""
        self.machine.close_view()
        self.late.close()

    def _tell_written(self, path: Path) -> None:
        """Say where a page went, to be opened."""
        open_it = partial(QDesktopServices.openUrl, QUrl.fromLocalFile(str(path)))
        self.notice.say(f"Written: {path}", "", (("open it", open_it),), "good")

    def _tell_started(self, words: str) -> None:
        self.notice.say(words, "", (), "good")

    def _picture(self) -> bytes:
        return self.machine.view.png()

    def _show_names(self) -> None:
        stack, document = self.document.stack, self.document
        self.header.show_names(document.project.name, self.selection.candidate, document.modified)
        undo = stack.undoText() or "change" if stack.canUndo() else ""
        redo = stack.redoText() or "change" if stack.canRedo() else ""
        self.header.show_undo(undo, redo)
        count = len(document.project.candidates)
        self.bar.buttons[MACHINE].show_done(1.0 if count else 0.0)
        self.bar.buttons[COMPARE].show_done(min(1.0, (count - 1) / 2))
        path = f" — {document.path.name}" if document.path else ""
        self.setWindowTitle(f"{document.project.name}{path} — Unterbau")
