"""What is loaded when the window is painted first: nothing that is not needed for it."""

import json
import os
import subprocess
import sys
from pathlib import Path

LATER = {
    "vtkmodules", "pyqtgraph", "sectionproperties", "shapely", "ezdxf", "matplotlib", "networkx", "pandas", "pyvista",
    "PyQt6.QtPrintSupport", "unterbau.ui.viewport.canvas", "unterbau.ui.stations.compare.station",
    "unterbau.ui.shell.price_window", "scipy.optimize", "scipy.integrate", "scipy.signal", "scipy.stats",
    "scipy.special",
}  # fmt: skip
SCRIPT = """
import json, sys
from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QApplication

application = QApplication([])
from unterbau.ui.shell.application import open_window

window = open_window(["--demo"], 10.0)
seen = []

class Watch(QObject):
    def eventFilter(self, watched, event):
        if event.type() == QEvent.Type.Paint and not seen:
            seen.append(sorted(sys.modules))
        return False

watch = Watch()
window.installEventFilter(watch)
window.show()
while not seen:
    application.processEvents()
print(json.dumps(seen[0]), flush=True)
import os
os._exit(0)
"""


def test_the_window_is_painted_before_what_it_does_not_need_is_loaded(tmp_path: Path) -> None:
    away = {f"XDG_{name}_HOME": str(tmp_path) for name in ("CONFIG", "DATA", "STATE", "CACHE")}
    done = subprocess.run(
        [sys.executable, "-c", SCRIPT], capture_output=True, text=True, timeout=120, check=True, env=os.environ | away
    )
    loaded = set(json.loads(done.stdout.splitlines()[-1]))
    assert "unterbau.ui.stations.machine.station" in loaded
    assert not [one for one in LATER if one in loaded or any(name.startswith(f"{one}.") for name in loaded)]
