"""Cross-sections from drawings: what is read, mended, refused and where; out again as DXF and SVG."""

import math
from pathlib import Path
from xml.etree import ElementTree as ET

import pytest
from ezdxf.filemanagement import new

from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.files.drawn_section import layer_materials, solve_drawn
from unterbau.files.project_json import parse_project, project_text
from unterbau.files.section_dxf import dxf_text, read_dxf, svg_text
from unterbau.files.section_text import read_section_text, section_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import with_part
from unterbau.materials.material import material
from unterbau.model.member import member_values
from unterbau.project import edits
from unterbau.project.custom_sections import custom_sections
from unterbau.project.project import Candidate, Project
from unterbau.sections.drawing import Drawing, polygons
from unterbau.sections.section import section
from unterbau.sections.solved import CustomSection
from unterbau.structure.parts import Member

Points = list[tuple[float, float]]


def drawing(
    path: Path, closed: list[Points], lines: list[Points] | None = None, unit: int = 4, circle: float = 0.0,
    layers: list[str] | None = None,
) -> Path:  # fmt: skip
    document = new("R2010")
    document.header["$INSUNITS"] = unit
    space = document.modelspace()
    for n, points in enumerate(closed):
        space.add_lwpolyline(points, close=True, dxfattribs={"layer": layers[n] if layers else "0"})
    for a, b in lines or []:
        space.add_line(a, b)
    if circle:
        space.add_circle((0, 0), circle)
    document.saveas(path)
    return path


def rectangle(x: float, y: float, w: float, h: float) -> Points:
    return [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]


def test_a_tube_of_two_outlines(tmp_path: Path) -> None:
    found = read_dxf(drawing(tmp_path / "a.dxf", [rectangle(0, 0, 60, 60), rectangle(4, 4, 52, 52)]))
    assert found.unit == "mm"
    assert not found.faults
    one = solve_drawn(found, "my tube")
    assert one.name.startswith("own-my-tube-")
    assert pytest.approx((60**2 - 52**2) * 1e-6) == one.A
    assert one.Iy == pytest.approx((60**4 - 52**4) / 12 * 1e-12)
    assert pytest.approx(4 * 56**4 * 4 / (4 * 56) * 1e-12, rel=0.05) == one.J  # Bredt, 4·Am²·t/s; corners add
    assert solve_drawn(found, "my tube").name == one.name


def test_arcs_circles_and_bulges_are_followed(tmp_path: Path) -> None:
    """A round is a round: A = πr², J = πr⁴/2, chords within a hundredth of a millimetre."""
    one = solve_drawn(read_dxf(drawing(tmp_path / "a.dxf", [], circle=25.0)), "round")
    assert pytest.approx(math.pi * 0.025**2, rel=2e-3) == one.A
    assert pytest.approx(math.pi * 0.025**4 / 2, rel=5e-3) == one.J
    document = new("R2010")
    document.header["$INSUNITS"] = 6
    document.modelspace().add_lwpolyline([(0, 0, 1), (0.04, 0, 1)], format="xyb", close=True)
    document.saveas(tmp_path / "b.dxf")
    again = read_dxf(tmp_path / "b.dxf")
    assert polygons(again)["0"].area == pytest.approx(math.pi * 20**2, rel=2e-3)


def test_lines_that_meet_are_joined_and_small_gaps_closed(tmp_path: Path) -> None:
    lines = [[(0, 0), (40, 0)], [(40, 0.03), (40, 20)], [(0, 20), (40, 20)], [(0, 20), (0, 0)]]
    found = read_dxf(drawing(tmp_path / "a.dxf", [], lines))  # type: ignore[arg-type]
    assert not found.faults
    assert any("gaps of up to 0.030 mm closed" in line for line in found.report)
    wide = read_dxf(tmp_path / "a.dxf", tolerance=0.01)
    assert {fault.text for fault in wide.faults} >= {"this line ends in the open"}
    assert (40.0, 0.0) in {(round(f.x, 3), round(f.y, 3)) for f in wide.faults}


FAULTY = [
    ([[(0, 0), (40, 0), (0, 40), (40, 40)]], "crosses itself", (20, 20)),
    ([rectangle(0, 0, 20, 20), rectangle(50, 0, 20, 20)], "pieces apart", None),
    ([rectangle(0, 0, 20, 20), rectangle(10, 10, 20, 20)], "outlines cross here", None),
    ([rectangle(0, 0, 0.2, 0.2)], "is the unit right?", None),
    ([], "no closed outline", None),
]


@pytest.mark.parametrize(("closed", "words", "place"), FAULTY)
def test_faults_say_where(tmp_path: Path, closed: list[Points], words: str, place: Points | None) -> None:
    found = read_dxf(drawing(tmp_path / "a.dxf", closed))
    assert words in found.faults[0].text
    if place:
        assert (found.faults[0].x, found.faults[0].y) == pytest.approx(place)
    with pytest.raises(InputError, match=words.split()[0]):
        solve_drawn(found, "x")


def test_the_unit_is_asked_when_the_file_has_none(tmp_path: Path) -> None:
    found = read_dxf(drawing(tmp_path / "a.dxf", [rectangle(0, 0, 2, 1)], unit=0))
    assert found.unit == ""
    assert "the file does not say its unit" in found.report
    inches = found.in_unit("inch")
    assert polygons(inches)["0"].area == pytest.approx(2 * 25.4**2)
    assert inches.in_unit("m") == inches
    large = read_dxf(drawing(tmp_path / "b.dxf", [rectangle(0, 0, 200, 100)], unit=0)).in_unit("m")
    assert "is the unit right?" in large.faults[0].text


def test_what_is_no_drawing_is_refused(tmp_path: Path) -> None:
    (tmp_path / "a.dxf").write_bytes(b"not a drawing \xff\x00 at all\n" * 20)
    with pytest.raises(InputError, match="not a DXF drawing"):
        read_dxf(tmp_path / "a.dxf")
    with pytest.raises(InputError, match="could not be read"):
        read_dxf(tmp_path / "missing.dxf")


def test_layers_called_by_materials_are_materials(tmp_path: Path) -> None:
    """Transformed section by hand: a steel and an aluminium bar, bonded side by side."""
    path = drawing(
        tmp_path / "a.dxf", [rectangle(0, 0, 20, 40), rectangle(20, 0, 20, 40)],
        layers=["steel-s235", "aluminium-6082"],
    )  # fmt: skip
    found = read_dxf(path)
    assert set(layer_materials(found)) == {"steel-s235", "aluminium-6082"}
    one = solve_drawn(found, "two metals")
    n = 70 / 210
    assert one.material == "steel-s235"
    assert pytest.approx(800e-6 * (1 + n), rel=1e-6) == one.A
    assert one.Iy == pytest.approx(20 * 40**3 / 12 * 1e-12 * (1 + n), rel=1e-6)
    values = member_values(Member(CustomSection(one), "steel-s235"))
    expected = 800e-6 * (material("steel-s235").rho + material("aluminium-6082").rho)
    assert values.mass_per_metre == pytest.approx(expected, rel=1e-6)
    with pytest.raises(InputError, match="several materials"):
        member_values(Member(CustomSection(one), "aluminium-6082"))
    assert not layer_materials(Drawing(found.rings[:1], (), (), (), "mm"))


def test_a_section_in_a_few_lines_of_text() -> None:
    found = read_section_text("# a channel\nunits mm\noutline 0,0 40,0 40,4 4,4 4,80 0,80\nhole circle 2,70 1\n")
    assert polygons(found)["section"].area == pytest.approx(40 * 4 + 4 * 76 - math.pi, rel=1e-6)
    again = read_section_text(section_text(found))
    assert polygons(again)["section"].area == pytest.approx(polygons(found)["section"].area, rel=1e-4)


@pytest.mark.parametrize(
    ("text", "where", "words"),
    [
        ("outline 0,0 1,1", "line 1", "at least three points"), ("units yard", "line 1", "mm, cm, m, inch"),
        ("units mm\nblob 3", "line 2", "got blob"), ("outline 0,0 1,1 two", "line 1", "such as 40,2.5"),
        ("circle 0,0 -3", "line 1", "radius"), ("outline 0,0 inf,1 2,2", "line 1", "such as 40,2.5"),
    ],
)  # fmt: skip
def test_bad_text_names_its_line(text: str, where: str, words: str) -> None:
    with pytest.raises(InputError, match=words) as error:
        read_section_text(text)
    assert error.value.where == where


@pytest.mark.parametrize("name", ["shs-60x60x4", "tslot-40L-1x2", "upn-100", "box3-of-cprofile-40x80"])
def test_outlines_go_out_and_come_back(tmp_path: Path, name: str) -> None:
    (tmp_path / "a.dxf").write_text(dxf_text(section(name)), encoding="utf-8")
    found = read_dxf(tmp_path / "a.dxf")
    assert not found.faults
    area = sum(shape.area for shape in polygons(found).values())
    assert area == pytest.approx(section(name).properties.A * 1e6, rel=0.01)
    root = ET.fromstring(svg_text(section(name)))
    assert root.get("width", "").endswith("mm")


def test_an_own_section_travels_with_its_project(tmp_path: Path) -> None:
    one = solve_drawn(read_dxf(drawing(tmp_path / "a.dxf", [rectangle(0, 0, 30, 90)])), "bar")
    machine = with_part(MovingGantry(), "gantry_beam", Member(CustomSection(one), "steel-s235"))
    project = edits.set_machine(Project("p", "a", (Candidate("a", MovingGantry()),)), "a", machine)
    assert custom_sections(project.candidates) == (one,)
    again = parse_project(project_text(project))
    assert again == project
    back = edits.set_machine(project, "a", MovingGantry())
    assert custom_sections(back.candidates) == ()
    broken = project_text(project).replace('"Iw":', '"Iv":')
    with pytest.raises(InputError, match=r"sections"):
        parse_project(broken)


def test_the_command_line_solves_a_drawing(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = drawing(tmp_path / "a.dxf", [rectangle(0, 0, 2, 1)], unit=0)
    assert run(["section", "--from", str(path)]) == 2
    assert "--unit" in capsys.readouterr().err
    out = tmp_path / "out.svg"
    assert run(["section", "--from", str(path), "--unit", "inch", "--svg", str(out)]) == 0
    assert "12.9" in capsys.readouterr().out
    assert out.exists()
