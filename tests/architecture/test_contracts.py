"""Each contract breaks when a forbidden import is planted: a check that cannot fail is none."""

import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
PLANTED = [
    ("layers", "mechanics/frame.py", "import unterbau.structure.parts"),
    ("layers", "structure/piece.py", "import unterbau.model.bars"),
    ("layers", "model/bars.py", "import unterbau.machine.kind"),
    ("layers", "parts_list/bill.py", "import unterbau.model.bars"),
    ("no-gui", "studies/shares.py", "import PyQt6.QtCore"),
    ("no-disk", "parts_list/bill.py", "import csv"),
    ("json", "studies/shares.py", "import json"),
    ("pieces", "structure/layout.py", "import unterbau.mechanics.frame"),
    ("kinds", "studies/shares.py", "import unterbau.machine.kinds.lathe"),
    ("numbers-only", "mechanics/statics.py", "import unterbau.units"),
    ("ui", "ui/widgets/labels.py", "import unterbau.ui.shell.header"),
    ("stations", "ui/stations/machine/bench.py", "import unterbau.ui.stations.pour.station"),
    ("vtk", "ui/shell/header.py", "import vtkmodules"),
    ("pyqtgraph", "ui/widgets/labels.py", "import pyqtgraph"),
    ("platformdirs", "files/atomic.py", "import platformdirs"),
    ("pint", "files/atomic.py", "import pint"),
    ("pydantic", "studies/shares.py", "import pydantic"),
    ("sectionproperties", "model/member.py", "import sectionproperties"),
    ("shapely", "model/member.py", "import shapely"),
    ("paper", "shop/pieces.py", "import reportlab"),
    ("measuring", "shop/pieces.py", "import networkx"),
    ("ezdxf", "model/bars.py", "import ezdxf"),
    ("cycles", "units.py", "import unterbau.band\n"),
]


def lint(folder: Path, contract: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [str(Path(sys.executable).parent / "lint-imports"), "--config", str(folder / "pyproject.toml"), "--no-cache",
         "--contract", contract],
        cwd=folder, env={"PYTHONPATH": str(folder / "src"), "PATH": "/usr/bin:/bin"}, capture_output=True, text=True,
        check=False,
    )  # fmt: skip


@pytest.mark.parametrize(("contract", "file", "line"), PLANTED)
def test_a_planted_import_breaks_its_contract(tmp_path: Path, contract: str, file: str, line: str) -> None:
    shutil.copytree(
        ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("assets", "*.egg-info", "__pycache__")
    )
    shutil.copy(ROOT / "pyproject.toml", tmp_path)
    target = tmp_path / "src" / "unterbau" / file
    target.write_text(f"{target.read_text(encoding='utf-8')}\n{line}\n", encoding="utf-8")
    if contract == "cycles":
        other = tmp_path / "src" / "unterbau" / "band.py"
        other.write_text(f"{other.read_text(encoding='utf-8')}\nimport unterbau.units\n", encoding="utf-8")
    outcome = lint(tmp_path, contract)
    assert outcome.returncode == 1, outcome.stdout
    assert "BROKEN" in outcome.stdout
