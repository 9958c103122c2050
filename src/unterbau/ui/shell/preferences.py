"""The program's settings while it runs; every change is written at once."""

import dataclasses
from pathlib import Path
from typing import Any

import platformdirs
from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.errors import UnterbauError
from unterbau.files.settings_json import Settings, read_settings, write_settings

NAME = "unterbau"


def settings_file() -> Path:
    """Return where the settings are kept."""
    return platformdirs.user_config_path(NAME) / "settings.json"


def recovery_folder() -> Path:
    """Return where unsaved work is set aside."""
    return platformdirs.user_state_path(NAME) / "recovery"


class Preferences(QObject):
    """Holds the settings."""

    changed = pyqtSignal()
    failed = pyqtSignal(str)

    def __init__(self, file: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._file = file
        self._settings = read_settings(file)

    @property
    def settings(self) -> Settings:
        """The settings as they are now."""
        return self._settings

    def change(self, **changes: Any) -> None:
        """Change some settings and write them."""
        self._keep(dataclasses.replace(self._now(), **changes))

    def remember(self, path: Path) -> None:
        """Put a file first among the recent ones."""
        self._keep(self._now().with_recent(path.absolute()))

    def forget(self, path: Path) -> None:
        """Take a file off the recent ones."""
        now = self._now()
        self._keep(dataclasses.replace(now, recent=tuple(one for one in now.recent if one != str(path))))

    def _now(self) -> Settings:
        """Return the settings as the file has them: another window of the program may have changed some meanwhile."""
        return read_settings(self._file, self._settings)

    def _keep(self, settings: Settings) -> None:
        if settings == self._settings:
            return
        self._settings = settings
        try:
            write_settings(self._file, settings)
        except UnterbauError as error:
            self.failed.emit(f"The settings could not be kept: {error}")
        self.changed.emit()
