"""What the documents promise is there."""

import re
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
README = (ROOT / "README.md").read_text(encoding="utf-8")


PAGES = ["README.md", "CONTRIBUTING.md", *(str(p.relative_to(ROOT)) for p in sorted((ROOT / "docs").glob("*.md")))]


@pytest.mark.parametrize("page", PAGES)
def test_links_lead_somewhere(page: str) -> None:
    text = (ROOT / page).read_text(encoding="utf-8")
    for target in re.findall(r"\]\(([^)#:]+)\)", text):
        assert ((ROOT / page).parent / target).exists(), f"{page}: {target}"


def test_every_screenshot_is_linked_and_there_are_few() -> None:
    shots = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert 3 < len(shots) < 20
    assert all(shot.name in README for shot in shots)


def test_named_checks_exist() -> None:
    text = (ROOT / "docs" / "verification.md").read_text(encoding="utf-8")
    named = set(re.findall(r"`((?:validation|mechanics|studies|machine|files|brief)/test_\w+)`", text))
    assert len(named) >= 6
    assert all((ROOT / "tests" / f"{name}.py").exists() for name in named)


def test_shipped_things_have_their_licences() -> None:
    assets = ROOT / "src" / "unterbau" / "ui" / "assets"
    assert "OPEN FONT LICENSE" in (assets / "fonts" / "LICENSE-Inter.txt").read_text(encoding="utf-8").upper()
    assert (assets / "icons" / "LICENSE.txt").exists()
    assert "GNU GENERAL PUBLIC LICENSE" in (ROOT / "LICENSE").read_text(encoding="utf-8")


def test_scripts_parse_and_ci_calls_the_test_command() -> None:
    for script in ("dev", ".ci/run"):
        assert subprocess.run(["bash", "-n", str(ROOT / script)], check=False).returncode == 0
    assert "./dev test" in (ROOT / ".ci" / "run").read_text(encoding="utf-8")
    assert "./dev test" in README
    assert "./dev demo" in README


def test_without_a_display_the_window_says_so() -> None:
    found = subprocess.run(
        [sys.executable, "-m", "unterbau"], env={"PATH": "/usr/bin:/bin"}, capture_output=True, text=True, check=False
    )
    assert found.returncode == 2
    assert found.stderr.startswith("unterbau: There is no display")
    assert "Traceback" not in found.stderr
