"""Photos beside a project: kept once, limited, carried along, missed by name."""

from pathlib import Path

import pytest

from unterbau.errors import InputError, UnterbauError
from unterbau.files import photos
from unterbau.files.photos import carry, folder_of, keep_photo, missing

PNG, JPEG = b"\x89PNG\r\n\x1a\n" + b"a" * 50, b"\xff\xd8\xff" + b"b" * 50


def test_a_photo_is_kept_once_and_carried_along(tmp_path: Path) -> None:
    project = tmp_path / "lute.unterbau"
    shot = tmp_path / "IMG 1 (rails).PNG"
    shot.write_bytes(PNG)
    name = keep_photo(project, shot)
    assert name.startswith("IMG-1--rails-")
    assert name.endswith(".png")
    assert (folder_of(project) / name).read_bytes() == PNG
    assert keep_photo(project, shot) == name
    assert [one.name for one in folder_of(project).iterdir()] == [name]
    other = tmp_path / "elsewhere" / "harp.unterbau"
    other.parent.mkdir()
    assert carry(project, other, (name, "gone.png")) == ("gone.png",)
    assert missing(other, (name, "gone.png")) == ("gone.png",)
    assert missing(None, (name,)) == (name,)
    assert carry(project, project, (name,)) == ()
    moved = tmp_path / "moved"
    other.parent.rename(moved)
    assert missing(moved / "harp.unterbau", (name,)) == ()


def test_what_is_no_photo_or_too_large_is_refused(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    project, text = tmp_path / "lute.unterbau", tmp_path / "notes.jpg"
    text.write_text("no photo", encoding="utf-8")
    with pytest.raises(InputError, match="JPEG or PNG"):
        keep_photo(project, text)
    monkeypatch.setattr(photos, "MOST_BYTES", 40)
    text.write_bytes(JPEG)
    with pytest.raises(InputError, match="expected a photo of at most"):
        keep_photo(project, text)
    with pytest.raises(UnterbauError, match="expected a file"):
        keep_photo(project, tmp_path / "none.jpg")
    assert not folder_of(project).exists()


def test_a_folder_that_cannot_be_made_is_said(tmp_path: Path) -> None:
    project, shot = tmp_path / "lute.unterbau", tmp_path / "a.jpg"
    shot.write_bytes(JPEG)
    folder_of(project).write_text("in the way", encoding="utf-8")
    with pytest.raises(UnterbauError, match="cannot be made"):
        keep_photo(project, shot)
