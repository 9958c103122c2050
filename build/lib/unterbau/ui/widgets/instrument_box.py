"""Where readings come from: one's hand, a rehearsed machine, an instrument on a serial port."""

from dataclasses import dataclass
from functools import lru_cache

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QInputDialog, QPushButton, QWidget
from typing_extensions import override

from unterbau.errors import InputError
from unterbau.files.serial_port import ports, read_reading
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.shop.instruments.reading import Reading
from unterbau.shop.measure.tap import Tapped, tap_test
from unterbau.studies.rehearsal.instruments import Rehearsal
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.theme import font
from unterbau.ui.widgets.choice_box import ChoiceBox

HAND, REHEARSED, OTHER = "by hand", "rehearsed", "other"
FIXED = (
    (HAND, "readings typed by hand"), (REHEARSED, "rehearsed: simulated instruments"), (OTHER, "another serial port …"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Asked:
    """One reading, or all of a bench."""

    source: str
    machine: Machine
    seed: int
    what: str
    """bench, push, weigh, tap, warmth, hidden; of a serial port: bench or the sort of test."""
    name: str
    """Of the bench, or the axis."""
    number: int
    """Which in a row: each reading is a new one."""


@dataclass(frozen=True, slots=True)
class Answer:
    """What an instrument said."""

    asked: Asked
    text: str = ""
    """Of a bench as typed; what was hidden in words."""
    forces: tuple[float, ...] = ()
    """Of a push, N."""
    readings: tuple[float, ...] = ()
    """m."""
    value: float = 0.0
    """Hz, kg."""
    reading: Reading | None = None
    """Of a serial port, or of a thermometer."""
    heard: Tapped | None = None
    """Of a tap."""


class InstrumentBox(QWidget):
    """Chooses an instrument and asks it."""

    said = pyqtSignal(object)
    """An answer."""
    trouble = pyqtSignal(str)
    changed = pyqtSignal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._machine: Machine | None = None
        self._number, self.seed = 0, 1
        self.source = ChoiceBox("Readings come from", FIXED, self)
        self.again = QPushButton("other faults", self)
        self.asker = Asker(_answer, self)
        box = QHBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self.source, 1)
        box.addWidget(self.again)
        self.again.setFont(font(0.86))
        self.again.setProperty("small", True)
        self.again.setToolTip("rehearse with other hidden faults")
        self.again.hide()
        self.again.clicked.connect(self._on_again)
        self.source.activated.connect(self._on_source)
        self.asker.ready.connect(self.said)
        self.asker.failed.connect(self.trouble)

    @property
    def is_typed(self) -> bool:
        """Whether readings are typed by hand."""
        return self._chosen == HAND

    @property
    def is_rehearsed(self) -> bool:
        """Whether the machine is only rehearsed."""
        return self._chosen == REHEARSED

    @property
    def _chosen(self) -> str:
        return str(self.source.currentData())

    def show_machine(self, machine: Machine) -> None:
        """Read this machine from now on."""
        self._machine = machine

    @override
    def showEvent(self, a0: QShowEvent | None) -> None:
        super().showEvent(a0)
        self.find_ports()

    def find_ports(self) -> None:
        """Offer the serial ports there are now."""
        for device, words in ports():
            self.add_port(device, words)

    def add_port(self, device: str, words: str = "") -> None:
        """Offer a serial port."""
        if self.source.findData(device) < 0:
            self.source.insertItem(self.source.count() - 1, f"{device}  {words}".strip(), device)

    def choose(self, source: str) -> None:
        """Choose where readings come from."""
        self.source.setCurrentIndex(self.source.findData(source))
        self._on_source(self.source.currentIndex())

    def ask(self, what: str, name: str = "") -> None:
        """Ask for a reading; the answer comes by `said`."""
        if self._machine is None or self.is_typed:
            return
        self._number += 1
        self.asker.ask(Asked(self._chosen, self._machine, self.seed, what, name, self._number))

    def _on_again(self) -> None:
        self.seed += 1
        self.changed.emit()

    def _on_source(self, _index: int) -> None:
        if self._chosen == OTHER:
            name, sure = QInputDialog.getText(self, "Serial port", "device, as /dev/ttyUSB0 or COM3:")
            if sure and name.strip():
                self.add_port(name.strip())
            self.source.setCurrentIndex(self.source.findData(name.strip() if sure and name.strip() else HAND))
        self.again.setVisible(self.is_rehearsed)
        self.changed.emit()


@lru_cache(maxsize=2)
def _rehearsal(machine: Machine, seed: int) -> Rehearsal:
    return Rehearsal(machine, seed)


def _answer(asked: Asked, progress: Progress) -> Answer:
    progress.step(0, 1, "reading")
    if asked.source != REHEARSED:
        return Answer(asked, reading=read_reading(asked.source))
    stands = _rehearsal(asked.machine, asked.seed)
    match asked.what:
        case "bench":
            return Answer(asked, stands.bench(asked.name))
        case "push":
            forces, readings = stands.push(asked.name)
            return Answer(asked, forces=forces, readings=readings)
        case "weigh":
            return Answer(asked, value=stands.weigh().value)
        case "warmth":
            return Answer(asked, reading=stands.temperature())
        case "tap":
            heard = tap_test(*stands.tap())
            if not heard.peaks:
                raise InputError("recording", "nothing stands out in it")
            return Answer(asked, value=max(heard.peaks, key=lambda one: one.height).frequency, heard=heard)
        case _:
            return Answer(asked, f"hidden were: {stands.hidden.words(asked.machine)}")
