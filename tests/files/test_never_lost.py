"""Nothing is written that cannot be read, nothing newer is replaced, photos and drawings are whole or not there."""

import json
import os
from dataclasses import replace
from pathlib import Path

import pytest

from unterbau.errors import UnterbauError
from unterbau.files import drawings, recovery
from unterbau.files.atomic import MOST, write_atomically
from unterbau.files.photos import carry, folder_of, keep_photo
from unterbau.files.project_json import VERSION, parse_project, project_text, read_project, write_project
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.project import edits
from unterbau.project.checks import NAME_LENGTH
from unterbau.project.project import Candidate, Project
from unterbau.shop.build.done import Done
from unterbau.shop.build.log import Entry
from unterbau.shop.state import ShopState

PROJECT = Project("p", "A", (Candidate("A", MovingGantry()), Candidate("B", MovingGantry())))


def test_records_go_with_their_candidate_and_a_namesake_starts_afresh() -> None:
    """Deleted and its name given to another: the file opened no more, for a step was done twice."""
    records = ShopState(done=(Done("A", "parts-make"), Done("B", "parts-make")))
    project = replace(PROJECT, shop=records)
    left = edits.rename(edits.delete(project, "A"), "B", "A")
    assert [one.candidate for one in left.shop.done] == ["A"]
    assert parse_project(project_text(left)) == left
    copied, name = edits.duplicate(edits.delete(project, "A"), "B")
    assert [one.candidate for one in copied.shop.done] == ["B"]
    assert name not in [one.candidate for one in copied.shop.done]


@pytest.mark.parametrize("length", [NAME_LENGTH - 1, NAME_LENGTH])
def test_a_copy_of_a_long_name_can_be_read_back(length: int) -> None:
    project = replace(PROJECT, candidates=(Candidate("x" * length, MovingGantry()),), benchmark="x" * length)
    for _ in range(12):
        project, name = edits.duplicate(project, project.benchmark)
        assert len(name) <= NAME_LENGTH
    project, _ = edits.add(project, "x" * length, MovingGantry())
    assert parse_project(project_text(project)) == project


def test_what_could_not_be_read_back_is_not_written(tmp_path: Path) -> None:
    path = tmp_path / "p.unterbau"
    write_project(path, PROJECT)
    before = path.read_bytes()
    twice = replace(PROJECT, shop=ShopState(done=(Done("A", "x"), Done("A", "x"))))
    with pytest.raises(UnterbauError, match="could not be opened again"):
        write_project(path, twice)
    entry = Entry("A", "2026-01-01", "é" * 4000)
    huge = replace(PROJECT, shop=ShopState(log=(entry,) * 4200))
    with pytest.raises(UnterbauError, match="at most 32 MB"):
        write_project(path, huge)
    assert path.read_bytes() == before


def test_work_larger_than_a_project_file_is_still_set_aside_and_read_back(tmp_path: Path) -> None:
    log = tuple(Entry("A", "2026-01-01", "a" * 3900 + str(n)) for n in range(900))
    big = replace(PROJECT, shop=ShopState(log=log))
    text = project_text(big)
    spaced = text.replace('"log": [', '"log": [' + " " * (MOST - len(text) + 1000))
    path = recovery.keep(tmp_path, big, None, "2026-01-01T10:00", process=999_999_9)
    data = json.loads(path.read_text(encoding="utf-8"))
    path.write_text(json.dumps({**data, "project": spaced}), encoding="utf-8")
    assert path.stat().st_size > MOST
    (kept,) = recovery.left_behind(tmp_path)
    assert kept.project == big


@pytest.mark.parametrize("version", [VERSION + 1, float(VERSION + 1), 1e9])
def test_a_newer_file_is_left_alone(tmp_path: Path, version: float) -> None:
    path = tmp_path / "p.unterbau"
    data = json.loads(project_text(PROJECT))
    path.write_text(json.dumps({**data, "version": version}), encoding="utf-8")
    before = path.read_bytes()
    with pytest.raises(UnterbauError, match="newer"):
        write_project(path, PROJECT)
    with pytest.raises(UnterbauError, match="newer"):
        read_project(path)
    assert path.read_bytes() == before


def test_a_file_larger_than_any_project_is_left_alone(tmp_path: Path) -> None:
    path = tmp_path / "p.unterbau"
    with path.open("wb") as stream:
        stream.truncate(MOST + 1)
    with pytest.raises(UnterbauError, match="larger than any project"):
        write_project(path, PROJECT)
    assert path.stat().st_size == MOST + 1


def test_pipes_devices_and_folders_are_not_replaced(tmp_path: Path) -> None:
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)
    for target in (pipe, tmp_path, Path("/dev/null")):
        with pytest.raises(UnterbauError, match="expected a file"):
            write_atomically(target, "text")
    assert pipe.is_fifo()
    assert Path("/dev/null").is_char_device()


def test_a_photo_is_carried_whole_and_a_broken_one_is_mended(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    old, new = tmp_path / "old.unterbau", tmp_path / "new.unterbau"
    photo = tmp_path / "a.jpg"
    photo.write_bytes(b"\xff\xd8\xff" + os.urandom(200_000))
    name = keep_photo(old, photo)
    assert carry(old, new, (name,)) == ()
    copied = folder_of(new) / name
    assert copied.read_bytes() == photo.read_bytes()
    copied.write_bytes(photo.read_bytes()[:1000])  # as a killed copy left it
    assert carry(old, new, (name,)) == ()
    assert copied.read_bytes() == photo.read_bytes()
    copied.unlink()

    def full(_path: Path, _data: bytes) -> None:
        raise UnterbauError("no space left")

    monkeypatch.setattr("unterbau.files.photos.write_atomically", full)
    assert carry(old, new, (name,)) == (name,)
    assert not copied.exists()


def test_drawings_are_all_there_or_none(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    wanted = drawings.Wanted("p", "A", MovingGantry(), ShopState(), (), {}, "mm", "2026-01-01")
    monkeypatch.setattr(drawings, "_files", lambda _: ((f"{n}.svg", lambda: "text") for n in range(5)))
    written = 0

    def fills_up(path: Path, content: str) -> None:
        nonlocal written
        written += 1
        if written == 4:
            raise UnterbauError(f"{path.name} was not written: No space left on device")
        write_atomically(path, content)

    there = tmp_path / "there"
    there.mkdir()
    (there / "0.svg").write_text("old")
    monkeypatch.setattr(drawings, "write_atomically", fills_up)
    for folder in (there, tmp_path / "fresh"):
        written = 0
        with pytest.raises(UnterbauError, match="No space left"):
            drawings.write_all(folder, wanted)
    assert [one.name for one in there.iterdir()] == ["0.svg"]
    assert (there / "0.svg").read_text() == "old"
    assert not (tmp_path / "fresh").exists()
    monkeypatch.setattr(drawings, "write_atomically", write_atomically)
    assert len(drawings.write_all(tmp_path / "fresh", wanted)) == 5
    assert sorted(one.name for one in (tmp_path / "fresh").iterdir()) == [f"{n}.svg" for n in range(5)]
