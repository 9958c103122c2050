"""Drawings of pieces reopened and measured: outline, holes, threads, units."""

from pathlib import Path
from typing import Any

import pytest
from ezdxf.filemanagement import readfile

from unterbau.cli.main import run
from unterbau.files.piece_dxf import file_name, piece_dxf
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import lay_out
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.ui.shell.file_actions import demo_project


def reopened(piece: ShopPiece, folder: Path) -> Any:
    path = folder / f"{file_name(piece)}.dxf"
    path.write_text(piece_dxf(piece) or "", encoding="utf-8")
    return readfile(path)


def test_a_plate_is_as_long_wide_and_drilled_as_its_piece(tmp_path: Path) -> None:
    pieces = pieces_of(lay_out(MovingGantry()))
    bed = next(one for one in pieces if "bed" in one.names)
    drawing = reopened(bed, tmp_path)
    assert drawing.header["$INSUNITS"] == 4
    space = drawing.modelspace()
    (outline,) = space.query("LWPOLYLINE")
    assert outline.closed
    corners = [(p[0], p[1]) for p in outline.get_points()]
    xs, ys = zip(*corners, strict=True)
    assert (max(xs) - min(xs), max(ys) - min(ys)) == pytest.approx((bed.length * 1e3, bed.width * 1e3))
    circles = list(space.query('CIRCLE[layer=="HOLES"]'))
    assert len(circles) == len(bed.holes)
    wanted = sorted((round(hole.x * 1e3, 6), round(hole.y * 1e3, 6), hole.diameter * 1e3) for hole in bed.holes)
    found = sorted((round(c.dxf.center.x, 6), round(c.dxf.center.y, 6), 2 * c.dxf.radius) for c in circles)
    assert [row[:2] for row in found] == [row[:2] for row in wanted]
    assert [row[2] for row in found] == pytest.approx([row[2] for row in wanted])
    drilled = [one for one in pieces if one.sort == "plate" or (one.sort == "bar" and one.holes)]
    assert {one.label for one in pieces if piece_dxf(one) is not None} == {one.label for one in drilled}


def test_a_bar_shows_its_threads_on_each_face(tmp_path: Path) -> None:
    pieces = pieces_of(lay_out(MovingGantry()))
    beam = next(one for one in pieces if "gantry beam" in one.names)
    space = reopened(beam, tmp_path).modelspace()
    taps = list(space.query('CIRCLE[layer=="TAPS"]'))
    assert len(taps) == sum(hole.face in ("up", "down", "side", "other side") for hole in beam.holes)
    assert {round(2 * one.dxf.radius, 3) for one in taps} == {3.3}, "M4 is drilled 3.3"
    assert len(list(space.query("LWPOLYLINE"))) == len({hole.face for hole in beam.holes} - {"first end", "last end"})


def test_drawings_of_a_project_are_written_and_listed(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    from unterbau.files.project_json import write_project

    source = tmp_path / "mill.unterbau"
    write_project(source, demo_project("clock-plate-mill"))
    assert run(["drawings", str(source), "-o", str(tmp_path / "out" / "dxf")]) == 0
    listed = capsys.readouterr().out.splitlines()[1:]
    assert sorted(name.strip() for name in listed) == sorted(p.name for p in (tmp_path / "out" / "dxf").iterdir())
    for path in (tmp_path / "out" / "dxf").glob("*.dxf"):
        assert not readfile(path).audit().errors
    blocked = tmp_path / "file"
    blocked.write_text("x")
    assert run(["drawings", str(source), "-o", str(blocked / "in")]) == 2
    assert "cannot be made" in capsys.readouterr().err
