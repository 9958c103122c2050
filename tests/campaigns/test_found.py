"""What campaigns found, each class as a small test."""

import json
from dataclasses import replace
from functools import partial
from pathlib import Path

import numpy as np
import pytest

from tests.frames import cantilever
from unterbau.errors import InputError
from unterbau.files.frame_json import read_frame, solve_document
from unterbau.files.section_dxf import dxf_text, read_dxf
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.kinds.slab_router import SlabRouter
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.machine import lay_out, to_frame
from unterbau.model.footprint import footprint
from unterbau.sections.drawing import Drawing, checked
from unterbau.sections.find import nearest
from unterbau.sections.section import section
from unterbau.shop.offer_words import read_line_offers, read_postage
from unterbau.shop.pour.grain_words import read_grains
from unterbau.shop.pour.mould import Mould
from unterbau.shop.pour.open_words import read_open
from unterbau.shop.stock_words import read_sheet
from unterbau.structure.parts import Member, Place
from unterbau.studies.answers import likely_answers
from unterbau.studies.travel import Travel


def test_an_entity_of_no_known_kind_is_left_out(tmp_path: Path) -> None:
    place = tmp_path / "a.dxf"
    place.write_text(dxf_text(section("rhs-80x40x4")).replace("\nLWPOLYLINE\n", "\nLWP0LYLINE\n", 1), encoding="utf-8")
    drawing = read_dxf(place)
    assert any("left out" in line for line in drawing.report)


def test_a_line_there_and_back_is_an_outline_without_area() -> None:
    ring = ("0", ((0.0, 0.0), (50.0, 0.0)))
    square = ("0", ((0.0, 0.0), (50.0, 0.0), (50.0, 50.0), (0.0, 50.0)))
    found = checked(Drawing((square, ring), (), (), (), "mm"))
    assert [fault.text for fault in found.faults] == ["this outline holds no area"]


@pytest.mark.parametrize(
    ("where", "value", "words"),
    [
        ("modes", 10**40, "from 0 to 200"),
        ("sections", {"Iyz": 1e300}, "Iy·Iz must be greater"),
    ],
)
def test_numbers_without_sense_are_refused(where: str, value: object, words: str) -> None:
    frame = cantilever(1)
    if isinstance(value, dict):
        frame[where][0].update(value)
    else:
        frame[where] = value
    with pytest.raises(InputError, match=words):
        solve_document(read_frame(json.dumps(frame)))


def test_a_frame_that_falls_apart_in_hundreds_of_pieces_is_refused_soon() -> None:
    frame = cantilever(400)
    frame["beams"] = frame["beams"][:1]
    with pytest.raises(InputError, match="nothing resists a movement of"):
        solve_document(read_frame(json.dumps(frame)))


def test_work_beyond_its_tables_edge_hangs_over() -> None:
    columns, rows = (0.0, 0.2, 0.4), (0.0, 0.1, 0.2)
    i, j, share = footprint(columns, rows, np.array([[0.7, 0.1]]), np.array([0.1]))
    assert np.isfinite(share).all()
    assert i.max() == 2
    # The work's rigid movement is kept: crossings that all sink and tilt alike carry it along.
    tilt = np.zeros((16, 6))
    for n, (p, q) in enumerate(zip(i[0].tolist(), j[0].tolist(), strict=True)):
        tilt[n, 2] = 1.0 - 0.5 * columns[p] + 0.3 * rows[q]
    moved = np.einsum("nab,nb->a", share[0], tilt)
    assert moved[2] == pytest.approx(1.0 - 0.5 * 0.7 + 0.3 * 0.1)


def test_modes_that_never_settle_are_given_up() -> None:
    """An area of 1e-300 m² in a mutated file: the space of trial movements grew without an end, for hours."""
    text = (Path(__file__).parent / "frames" / "area-next-to-nothing.frame.json").read_text(encoding="utf-8")
    document = read_frame(text)
    result = solve_document(document)
    frequencies = [mode["frequency"] for mode in result.get("modes", [])]
    assert len(frequencies) <= 4
    assert all(np.isfinite(value) and value > 0.0 for value in frequencies)


@pytest.mark.parametrize(("reach", "overhang"), [(0.15, 0.045), (0.1855620969722326, 0.1068112432647424), (0.2, 0.2)])
def test_an_arm_without_length_is_refused(reach: float, overhang: float) -> None:
    """The head's plate and the plate on the beam in one plane: a bar without direction."""
    machine = WallAxis()
    with pytest.raises(InputError, match=r"arm_reach.*expected at least \d+ mm"):
        lay_out(replace(machine, dimensions=replace(machine.dimensions, arm_reach=reach, spindle_overhang=overhang)))


def test_a_bed_of_six_metres_on_twelve_members_stays_small() -> None:
    """468 screws and 75 bolts to a rail made it solve for ten seconds."""
    machine = RaisedSides()
    sizes = replace(machine.dimensions, travel_x=6.0, travel_y=3.0, cross_members=12)
    frame = to_frame(replace(machine, dimensions=sizes), Place(), "likely").frame
    assert len(frame.nodes) < 1300
    assert max(len(plate.patches) for plate in frame.plates) < 230


def test_a_plate_is_laid_alike_wherever_it_stands() -> None:
    """Blocks whose patches are in each other's way by the same on both sides: rounding chose which had to give."""
    small = replace(LightTable().dimensions, travel_x=0.9, x_stance=0.08, z_stance=0.0416, travel_z=0.04)
    machine = replace(LightTable(), dimensions=small)
    specs = [
        [one.spec for one in to_frame(machine, Place(x, 0.5, 0.0), "likely").frame.plates] for x in (0.1, 0.3, 0.5, 0.8)
    ]
    assert all(one == specs[0] for one in specs)


def test_feet_that_pass_each_other_are_refused() -> None:
    """Of a table, front to back: they stood beside it, and the block under them weighed otherwise in list and frame."""
    wrong = replace(SlabRouter(), dimensions=replace(SlabRouter().dimensions, foot_inset=0.9))
    with pytest.raises(InputError, match=r"expected at most .* mm: the table ends there") as told:
        lay_out(wrong)
    assert told.value.where == "dimensions.foot_inset"
    most = float(str(told.value).split("at most ")[1].split(" mm")[0]) / 1e3
    assert to_frame(replace(wrong, dimensions=replace(wrong.dimensions, foot_inset=most - 1e-3)), Place(), "likely")


@pytest.mark.parametrize(
    "text", ["pocket 5, 5: " + "2 × " * 5000, "insert M8 " + " " * 9000 + "x, 3", "core " + "1" * 9000]
)
def test_what_nobody_types_is_refused_before_it_is_parted(text: str) -> None:
    """A form tried every way to part some thousand letters: the window stood still for eight seconds."""
    with pytest.raises(InputError, match="is too long; expected at most 160 letters"):
        read_open(text, Mould(), "mm")
    for read in (read_grains, read_postage, partial(read_line_offers, item="a")):
        with pytest.raises(InputError, match="too long"):
            read(text)
    with pytest.raises(InputError, match="expected its size as 2000 × 1000"):
        read_sheet(text, "mm")
    with pytest.raises(InputError, match="at most 400 entries"):
        read_grains("1-2;" * 401)
    assert len(nearest(text)) == 3


def test_a_block_stands_where_it_stands_on_a_rail_that_is_held_beside() -> None:
    """A rail's screw beside another holding place shares its node: over the travel the tool gave a thousandth else."""
    lathe = Lathe(bed_tube=Member("shs-90x90x4", "steel-s235", "epoxy-granite-10"))
    sizes = replace(lathe.dimensions, y_rail_spacing=0.1268536226, tool_ahead=0.1087171607, stop=0.0123202424)
    lathe = replace(lathe, dimensions=sizes)
    built = to_frame(lathe, Place(), "likely")
    beams = built.frame.beams
    beside = np.abs(beams.offset_i[:, :2]).max()
    assert beside > 1e-3, "no rail is held beside its axis here"
    seats = built.frame.seats
    start = built.frame.nodes[beams.i] + beams.offset_i
    along = built.frame.nodes[beams.j] + beams.offset_j - start
    foot = start[seats.beam] + seats.station[:, None] * along[seats.beam]  # plain geometry: square to the axis
    away = built.frame.nodes[seats.node] - foot
    assert np.abs(np.sum(away * along[seats.beam], axis=1)).max() < 1e-9
    for place in (Place(), Place(0.9, 0.9, 0.9)):
        put_up = likely_answers(lathe, place)[0].compliance
        there = Travel(lathe).answers(np.array([[place.x, place.y, place.z]])).compliance[0]
        assert np.abs(there - put_up).max() < 1e-8 * np.abs(put_up).max()
