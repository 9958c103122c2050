"""Builds the wheel and installs it with its dependencies into a fresh environment outside the tree; `./dev wheel`.

What the development environment happens to hold is invisible here: an undeclared import fails.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).parents[2]
WINDOW = """
import sys
from time import monotonic
from PyQt6.QtWidgets import QApplication
from unterbau.ui.shell.application import end, open_window
application = QApplication(sys.argv[:1])
window = open_window(["--demo"])
window.show()
latest = monotonic() + 120
machine = window.feed.machine()
while window.feed.full(machine) is None and monotonic() < latest:
    application.processEvents()
answered, painted = window.feed.full(machine) is not None, not window.grab().isNull()
end(application, window)
print("window painted, answers with ranges" if answered and painted else "no answers within two minutes")
sys.exit(not (answered and painted))
"""


def run(*command: str | Path, folder: Path, home: Path) -> str:
    """Return what a command prints, run outside the tree without its paths; stop where it fails."""
    environment = {k: v for k, v in os.environ.items() if k not in ("PYTHONPATH", "VIRTUAL_ENV")}
    environment |= {"HOME": str(home), "XDG_CONFIG_HOME": str(home / "config"), "XDG_STATE_HOME": str(home / "state")}
    outcome = subprocess.run(
        [str(part) for part in command], cwd=folder, env=environment, capture_output=True, text=True, check=False
    )
    if outcome.returncode:
        sys.stderr.write(outcome.stdout + outcome.stderr)
        sys.exit(f"failed: {' '.join(str(part)[:80] for part in command)}")
    return outcome.stdout


def main() -> None:
    """Build, install, ask for the version, for one machine's answers, and for one window."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        home = folder / "home"
        home.mkdir()
        source = folder / "source"  # built in a copy: what is built in the tree stays there, and into the next wheel
        shutil.copytree(ROOT / "src", source / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
        for one in ("pyproject.toml", "README.md", "LICENSE"):
            shutil.copy(ROOT / one, source)
        run(sys.executable, "-m", "pip", "wheel", "-q", "--no-deps", "--no-build-isolation", "-w", folder, source,
            folder=folder, home=home)  # fmt: skip
        (wheel,) = folder.glob("*.whl")
        run(sys.executable, "-m", "venv", folder / "env", folder=folder, home=home)
        python = folder / "env" / "bin" / "python"
        run(python, "-m", "pip", "install", "-q", "-c", ROOT / "requirements.txt", wheel, folder=folder, home=home)
        run(python, "-m", "pip", "check", folder=folder, home=home)
        unterbau = folder / "env" / "bin" / "unterbau"
        sys.stdout.write(run(unterbau, "--version", folder=folder, home=home))
        demo = run(python, "-c", "from importlib.resources import files; print(files('unterbau.demo'))",
                   folder=folder, home=home).strip()  # fmt: skip
        if Path(demo).is_relative_to(ROOT):
            sys.exit("the fresh environment sees the tree")
        answers = run(unterbau, "answers", Path(demo) / "carving-router.unterbau", folder=folder, home=home)
        if "N/µm" not in answers:
            sys.exit(f"no stiffness in the answers:\n{answers}")
        sys.stdout.write(run(python, "-c", WINDOW, folder=folder, home=home))


if __name__ == "__main__":
    main()
