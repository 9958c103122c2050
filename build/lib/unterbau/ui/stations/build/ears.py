"""Recordings: a tap is listened to, a hammer's blow is made a receptance."""

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QInputDialog, QWidget

from unterbau.errors import InputError, UnterbauError
from unterbau.files.wav import channels_of, read_struck, read_wav
from unterbau.shop.measure.hammer import hammer_test
from unterbau.shop.measure.tap import tap_test
from unterbau.ui.stations.build.step_words import struck_words
from unterbau.ui.view_settings import ViewSettings

HAMMER = 2
"""Channels of a recording that may hold a hammer's force."""


class Ears(QObject):
    """Reads recordings and says what is heard."""

    heard = pyqtSignal(float, str)
    """A frequency, Hz, and what else there is to say."""
    listened = pyqtSignal(object)
    """All that a recording holds."""
    recorded = pyqtSignal(object, str)
    """A file that was read, and what it is, in words."""
    trouble = pyqtSignal(str)

    def __init__(self, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self._view, self._parent = view, parent

    def ask(self) -> None:
        """Ask for a recording and read it."""
        name, _ = QFileDialog.getOpenFileName(self._parent, "A recording of a tap", str(Path.home()), "WAV (*.wav)")
        if not name:
            return
        if channels_of(Path(name)) == HAMMER:
            asked = "two channels: force in N and acceleration in m/s² at full scale, as 500 100; empty for a tap"
            text, sure = QInputDialog.getText(self._parent, "A hammer's blow", asked)
            if sure and text.strip():
                self._blow(Path(name), text)
            if not sure or text.strip():
                return
        self.listen(Path(name))

    def listen(self, path: Path) -> None:
        """Take the loudest frequency of a recording of a tap; a failure is said."""
        try:
            found = tap_test(*read_wav(path))
            if not found.peaks:
                raise InputError(path.name, "nothing stands out in it")
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.listened.emit(found)
        self.recorded.emit(path, "a tap, recorded")
        self.heard.emit(max(found.peaks, key=lambda one: one.height).frequency, "")

    def strike(self, path: Path, newton: float, acceleration: float) -> None:
        """Take the lowest mode of a hammer's blow, N and m/s² at full scale; all modes are told, a failure is said."""
        try:
            found = hammer_test(*read_struck(path, newton, acceleration))
            if not found.circles:
                raise InputError(path.name, "no mode stands out in it")
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.recorded.emit(path, "a hammer's blow, recorded")
        self.heard.emit(found.circles[0].frequency, struck_words(found, self._view.units))

    def _blow(self, path: Path, text: str) -> None:
        try:
            newton, acceleration = (float(one) for one in text.replace(",", ".").split())
        except ValueError:
            self.trouble.emit(f'"{text}": expected two numbers, as 500 100')
            return
        self.strike(path, newton, acceleration)
