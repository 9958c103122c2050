"""Settings come back; damaged ones are start values; a folder that cannot be written is said."""

from pathlib import Path

import pytest

from unterbau.errors import UnterbauError
from unterbau.files.settings_json import RECENT, Settings, read_settings, write_settings


def test_settings_come_back_equal(tmp_path: Path) -> None:
    path = tmp_path / "config" / "settings.json"
    settings = Settings("dark", 1.5, "inch", ("/a.unterbau",), ("link",))
    write_settings(path, settings)
    assert read_settings(path) == settings


@pytest.mark.parametrize("text", ["", "{", "[]", '{"theme": "pink"}', '{"text": "big"}', '{"other": 1}', "\0"])
def test_damaged_settings_are_start_values(tmp_path: Path, text: str) -> None:
    path = tmp_path / "settings.json"
    path.write_text(text)
    assert read_settings(path) == Settings()
    assert read_settings(tmp_path / "none.json") == Settings()


def test_a_text_that_cannot_be_read_is_not_used(tmp_path: Path) -> None:
    path = tmp_path / "settings.json"
    path.write_text('{"text": 40.0, "theme": "dark"}')
    assert read_settings(path) == Settings("dark")


def test_recent_files_are_few_and_the_last_is_first() -> None:
    settings = Settings()
    for number in range(RECENT + 3):
        settings = settings.with_recent(Path(f"/{number}"))
    settings = settings.with_recent(Path("/5"))
    assert settings.recent[0] == "/5"
    assert len(settings.recent) == RECENT
    assert len(set(settings.recent)) == RECENT


def test_a_folder_in_the_way_is_said(tmp_path: Path) -> None:
    (tmp_path / "config").write_text("a file")
    with pytest.raises(UnterbauError, match="was not written"):
        write_settings(tmp_path / "config" / "settings.json", Settings())
