"""All screenshots of the main views, from the demo project: `python -m unterbau.ui.shell.shots FOLDER`."""

import os
import sys
import tempfile
from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QElapsedTimer, QThread
from PyQt6.QtWidgets import QApplication

from unterbau.ui.jobs.asker import Asker
from unterbau.ui.shell.application import end, open_window
from unterbau.ui.shell.file_actions import DEMOS
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.widgets.instrument_box import REHEARSED

NOT_SHOWN = (
    "carving-router", "leather-table", "lettering-engraver", "greenhouse-camera", "railway-arm-mill",
    "organ-pipe-router",
)  # fmt: skip
QUIET, LONGEST = 800, 60_000  # ms
TUBE = "steel tube, epoxied sides"


def _flex(window: MainWindow) -> None:
    window.machine.choose_link("beam_joint")


def _bench(window: MainWindow) -> None:
    window.selection.choose_candidate(TUBE)
    window.machine.choose_link("gantry_beam")


def _shake(window: MainWindow) -> None:
    window.selection.choose_candidate(TUBE)
    window.machine.view.use_lens("shake")


def _reach(window: MainWindow) -> None:
    window.machine.view.use_lens("reach")
    window.machine.choose_link("bed")


def _why(window: MainWindow) -> None:
    window.machine.view.use_lens("flex")
    window.selection.choose_candidate(TUBE)
    window.machine.choose_link("gantry_beam")
    window.machine.show_why()


def _sizes(window: MainWindow) -> None:
    window.machine.bench.show_form()
    window.selection.choose_candidate(TUBE)
    window.machine.show_sizes()


def _dark(window: MainWindow) -> None:
    window.machine.view.use_lens("flex")
    window.machine.choose_link("z_plate")
    window.view.restyle("dark", 1.0)


def _compare(window: MainWindow) -> None:
    window.selection.choose_candidate("plate box")
    window.show_station(2)


def _prices(window: MainWindow) -> None:
    window.show_prices()


def _pour(window: MainWindow) -> None:
    _demo("clock-plate-mill", window)
    window.show_station(3)
    window.pour.choose("mould")


def _build(window: MainWindow) -> None:
    _demo("lettering-engraver", window)
    window.show_station(5)
    window.build.bench.instrument.choose(REHEARSED)
    while not window.build.list.count():
        QApplication.processEvents()
    window.build.choose("rail-y_guides-2")
    window.build.bench.read.click()


def _brief(window: MainWindow) -> None:
    window.prices.close()
    window.selection.choose_candidate(TUBE)
    window.show_station(0)


def _checks(window: MainWindow) -> None:
    _demo("clock-plate-mill", window)
    window.machine.view.use_lens("checks")


def _change(window: MainWindow) -> None:
    """A brace put up, in inches and light colours: what was added is a link like any other."""
    window.view.restyle("light", 1.0)
    window.machine.view.use_lens("flex")
    window.selection.choose_candidate("bolted slotted profile")
    window.view.set_units("inch")
    window.machine.begin_change("brace")
    changing = window.machine.changing
    words = [one.words for one in changing.spots]
    for name in ("right side, left, start, one edge", "gantry beam, front, three quarters along"):
        window.machine.view.viewport.spots.clicked.emit(words.index(name))
    changing.bar.both.setChecked(True)


def _workshop(view: str, window: MainWindow) -> None:
    window.view.set_units("mm")
    window.document.stack.setIndex(0)
    window.selection.choose_candidate(TUBE)
    window.show_station(4)
    window.workshop.show_view(view)
    window.workshop.choose("A" if view == "bars" else "D")


def _clash(window: MainWindow) -> None:
    _demo("telescope-lathe", window)
    window.machine.view.use_lens("clash")


def _demo(name: str, window: MainWindow) -> None:
    window.document.stack.setClean()
    window.files.open_demo(name)
    window.show_station(1)
    window.machine.view.use_lens("flex")
    while window.feed.likely(window.feed.machine()) is None:
        QApplication.processEvents()
    window.machine.choose_weakest()
    window.machine.view.viewport.reset_view()


VIEWS: dict[str, Callable[[MainWindow], None]] = {
    "machine-flex": _flex,
    "machine-bench": _bench,
    "machine-shake": _shake,
    "machine-reach": _reach,
    "machine-why": _why,
    "machine-sizes": _sizes,
    "machine-dark": _dark,
    "machine-change": _change,
    "workshop-bars": partial(_workshop, "bars"),
    "workshop-shopping": partial(_workshop, "shopping"),
    "compare": _compare,
    "price-book": _prices,
    "brief": _brief,
    "pour": _pour,
    "build": _build,
    "machine-checks": _checks,
    "machine-clash": _clash,
    **{f"demo-{name}": partial(_demo, name) for name in DEMOS if name not in NOT_SHOWN},
}


def main() -> None:
    """Write one PNG for each view; one's own settings and kept work are neither seen nor touched."""
    folder = Path(sys.argv[1] if len(sys.argv) > 1 else "out")
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as home:
        for place in ("CONFIG", "DATA", "STATE", "CACHE"):
            os.environ[f"XDG_{place}_HOME"] = home
        _shoot(folder)


def _shoot(folder: Path) -> None:
    application = QApplication(sys.argv[:1])
    window = open_window(["--demo"], 10.0)
    window.resize(1280, 800)
    window.show()
    window.machine.first_steps.end.click()
    for name, prepare in VIEWS.items():
        prepare(window)
        _settle(application, window)
        seen = window.prices if window.prices.isVisible() else window
        seen.grab().save(str(folder / f"{name}.png"))
        sys.stdout.write(f"{folder / name}.png\n")
    window.document.stack.setClean()
    end(application, window)


def _settle(application: QApplication, window: MainWindow) -> None:
    """Let bands arrive, digits roll out and the picture be drawn."""
    clock = QElapsedTimer()
    clock.start()
    feed = window.machine.feed
    station = window.machine

    def busy() -> bool:
        asked = [station.advice, *station.view.behind.askers]
        for place, station_there in ((4, "workshop"), (3, "pour"), (5, "build")):
            if window.pages.currentIndex() == place:
                asked += getattr(window, station_there).findChildren(Asker)
        behind = [
            *asked,
            *([window.compare.checking, window.compare.judging.asker] if window.compare.isVisible() else []),
        ]
        shown = [one.machine for one in window.document.project.candidates] if window.compare.isVisible() else []
        return any(feed.full(one) is None for one in (feed.machine(), *shown)) or any(one.busy for one in behind)

    def wait() -> None:
        application.processEvents()
        QThread.msleep(5)  # leaves the workers their turn

    quiet = QElapsedTimer()
    quiet.start()
    while quiet.elapsed() < QUIET and clock.elapsed() < LONGEST:
        wait()
        if busy():
            quiet.restart()


if __name__ == "__main__":
    main()
