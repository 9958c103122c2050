"""Asks where to save: one way for all dialogs, so that no file is replaced that nobody agreed to replace."""

import re
from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QMessageBox, QWidget

PATTERN = re.compile(r"\*(\.[\w.]+)")


def ask_save_path(parent: QWidget | None, title: str, start: Path | str, filters: str) -> Path | None:
    """Return the file that a person chose to save to, or nothing.

    A name without one of the endings of the filters gets the ending of the chosen filter behind it. The dialog has not
    asked about that name, so an existing file of it is asked about here.

    Args:
        parent: Window that asks.
        title: Of the dialog.
        start: Folder and name to start from.
        filters: As the dialog shows them, such as `CSV (*.csv);;Table (*.ods)`.
    """
    name, chosen = QFileDialog.getSaveFileName(parent, title, str(start), filters)
    if not name:
        return None
    path = with_ending(name, filters, chosen)
    if str(path) != name and path.exists() and not _agreed(parent, path):
        return None
    return path


def with_ending(name: str, filters: str, chosen: str = "") -> Path:
    """Return a path that ends as one of the filters: `router 1.5` becomes `router 1.5.unterbau`."""
    known = PATTERN.findall(filters)
    wanted = (PATTERN.findall(chosen) or known)[0]
    ending = max((one for one in known if name.lower().endswith(one)), key=len, default="")
    if ending and wanted != ending and wanted.endswith(ending):  # x.pdf as *.template.pdf
        return Path(f"{name[: -len(ending)]}{wanted}")
    return Path(name) if ending else Path(f"{name}{wanted}")


def _agreed(parent: QWidget | None, path: Path) -> bool:
    buttons = QMessageBox.StandardButton
    text = f"{path.name} is there already. Replace it?"
    answer = QMessageBox.question(parent, "Replace the file?", text, buttons.Yes | buttons.No, buttons.No)
    return answer == buttons.Yes
