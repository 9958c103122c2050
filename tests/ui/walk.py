"""Walks every station, lens and dialog in every size of window and text, and measures what is cut off.

Run as a command (`./dev walk`) it does all; the tests walk a sample in which every two choices meet.
"""

import itertools
import sys
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from PyQt6.QtCore import QElapsedTimer, QEvent
from PyQt6.QtWidgets import QApplication, QDialog

from tests.ui.clipping import cut_off
from unterbau.ui.shell.application import end, open_window
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.shell.station_bar import STATIONS
from unterbau.ui.stations.machine.lenses import LENSES
from unterbau.ui.stations.workshop.station import VIEWS

TEXTS = (0.85, 1.0, 1.25, 1.5, 2.0)
SIZES = ((1100, 700), (1280, 800), (1920, 1080))
UNITS = ("mm", "inch")
COLOURS = ("light", "dark")
SETTLES = 400  # ms at the most for a layout
BENCHES = ("gantry_beam", "beam_joint", "x_guides", "x_drive", "spindle", "cutter", "bed", "dimensions")


@dataclass(frozen=True, slots=True)
class Look:
    """How the window stands."""

    text: float
    size: tuple[int, int]
    units: str
    colours: str

    def __str__(self) -> str:
        return f"text {self.text:.0%}, {self.size[0]}×{self.size[1]}, {self.units}, {self.colours}"


ALL = tuple(Look(*one) for one in itertools.product(TEXTS, SIZES, UNITS, COLOURS))


def sample() -> tuple[Look, ...]:
    """Return few looks among which every pair of choices occurs."""
    missing = {pair for one in ALL for pair in _pairs(one)}
    found: list[Look] = []
    while missing:
        best = max(ALL, key=lambda one: len(missing & set(_pairs(one))))
        missing -= set(_pairs(best))
        found.append(best)
    return tuple(found)


def _pairs(one: Look) -> list[tuple[tuple[int, object], tuple[int, object]]]:
    choices = enumerate((one.text, one.size, one.units, one.colours))
    return list(itertools.combinations(choices, 2))


def walk(window: MainWindow, look: Look) -> Iterator[str]:
    """Yield what is cut off, with where."""
    window.view.restyle(look.colours, look.text)
    window.view.set_units("mm" if look.units == "mm" else "inch")
    window.resize(*look.size)
    for place, words in _places(window):
        yield from _measured(place, f"{look}: {words}")


def _places(window: MainWindow) -> Iterator[tuple[MainWindow | QDialog, str]]:
    for station, name in enumerate(STATIONS):
        window.show_station(station)
        yield window, name
    window.show_station(STATIONS.index("Workshop"))
    for view in VIEWS:
        window.workshop.show_view(view)
        yield window, f"workshop, {view}"
    window.show_station(STATIONS.index("Machine"))
    for sort in ("panel", "left_out"):
        window.machine.begin_change(sort)
        yield window, f"change, {sort} on its way"
    window.machine.changing.give_up()
    for lens in LENSES:
        window.machine.view.use_lens(lens)
        yield window, f"lens {lens}"
    window.machine.view.use_lens("flex")
    for key in BENCHES:
        window.machine.choose_link(key)
        yield window, f"bench of {key}"
    window.machine.choose_link("gantry_beam")
    window.machine.show_why()
    yield window, "why so soft"
    for ask, words in ((window.show_settings, "settings"), (window.show_keys, "keys")):
        yield from _dialog(window, ask, words)


def _dialog(window: MainWindow, ask: Callable[[], None], words: str) -> Iterator[tuple[QDialog, str]]:
    ask()
    for dialog in window.findChildren(QDialog):
        if dialog.isVisible():
            yield dialog, words
            dialog.close()


def _measured(place: MainWindow | QDialog, words: str) -> list[str]:
    """Return what is cut off once the layout has settled."""
    clock = QElapsedTimer()
    clock.start()
    while True:
        QApplication.processEvents()
        found = cut_off(place)
        if not found or clock.elapsed() > SETTLES:
            return [f"{words}: {one}" for one in found]


def main() -> int:
    """Walk all looks, or the sample (`--sample`); print what is cut off."""
    application = QApplication(sys.argv[:1])
    window = open_window(["--demo"], 10.0)
    window.show()
    count = 0
    looks = sample() if "--sample" in sys.argv else ALL
    for look in looks:
        for one in walk(window, look):
            sys.stdout.write(f"{one}\n")
            count += 1
        application.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    sys.stdout.write(f"{len(looks)} looks, {count} faults\n")
    window.document.stack.setClean()
    end(application, window)
    return 1 if count else 0


if __name__ == "__main__":
    sys.exit(main())
