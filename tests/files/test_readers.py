"""Whatever stands in a file is read or refused in a sentence with its place."""

import json
import stat
from contextlib import suppress
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.frames import random_frame
from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import read_text, write_atomically
from unterbau.files.frame_json import read_frame, solve_document
from unterbau.files.project_json import parse_project
from unterbau.files.strict_json import json_path

JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=5),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=5), inner, max_size=3),
    max_leaves=8,
)


@given(JSON)
def test_any_json_is_refused_with_a_path(value: object) -> None:
    for read in (read_frame, parse_project):
        with pytest.raises(InputError) as error:
            read(json.dumps(value))
        assert error.value.where.startswith("$")
        assert error.value.problem


@given(st.data())
def test_a_frame_with_anything_anywhere_is_solved_or_refused(data: st.DataObject) -> None:
    frame = random_frame(1)
    place: object = frame
    for _ in range(data.draw(st.integers(1, 5))):
        if isinstance(place, dict):
            key = data.draw(st.sampled_from(sorted(place)))
        elif isinstance(place, list) and place:
            key = data.draw(st.integers(0, len(place) - 1))
        else:
            break
        holder, name, place = place, key, place[key]
    holder[name] = data.draw(JSON | st.floats(-1e3, 1e3))
    with suppress(InputError):
        json.dumps(solve_document(read_frame(json.dumps(frame))), allow_nan=False)


@given(st.binary(max_size=40))
def test_any_bytes_are_refused(content: bytes) -> None:
    with pytest.raises(InputError):
        read_frame(content.decode("utf-8", errors="replace"))


def test_deep_nesting_is_refused() -> None:
    with pytest.raises(InputError):
        read_frame("[" * 100_000)
    with pytest.raises(InputError):
        parse_project("[" * 100_000)


def test_paths_read_like_paths() -> None:
    assert json_path(("beams", 3, "offset_i", 0)) == "$.beams[3].offset_i[0]"


def test_a_file_keeps_its_mode_and_no_part_file_stays(tmp_path: Path) -> None:
    path = tmp_path / "x.json"
    write_atomically(path, "one")
    path.chmod(0o640)
    write_atomically(path, "zwölf")
    assert read_text(path) == "zwölf"
    assert stat.S_IMODE(path.stat().st_mode) == 0o640
    assert [p.name for p in tmp_path.iterdir()] == ["x.json"]


def test_a_link_is_followed_and_stays_a_link(tmp_path: Path) -> None:
    real, link = tmp_path / "real.json", tmp_path / "link.json"
    real.write_text("old")
    link.symlink_to(real)
    write_atomically(link, "new")
    assert link.is_symlink()
    assert real.read_text() == "new"


def test_a_folder_in_the_way_is_said(tmp_path: Path) -> None:
    with pytest.raises(UnterbauError, match="was not written"):
        write_atomically(tmp_path, "text")
    with pytest.raises(UnterbauError, match="could not be read"):
        read_text(tmp_path)
