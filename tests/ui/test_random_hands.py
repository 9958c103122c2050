"""A short fixed sample of random hands on the real window (`./dev soak` does thousands)."""

from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from tests.campaigns.hands import Hands, campaign, quiet
from tests.ui.conftest import settle
from unterbau.ui.shell.main_window import MainWindow

EVENTS = 100


@pytest.mark.parametrize("seed", [3])
def test_random_hands_break_nothing(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, seed: int
) -> None:
    quiet(tmp_path, monkeypatch.setattr)
    assert not [line for line in campaign(Hands(window, seed), EVENTS) if not line.startswith("tried")]
    window.document.stack.setClean()
    window.files.open_demo()
    window.show_station(1)
    settle(window, qtbot)
