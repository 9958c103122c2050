"""Plates of two glued layers: stiffness by hand, mass, list, pieces, what lasts, what is refused."""

from dataclasses import replace
from pathlib import Path

import pytest

from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, bill_of, lay_out, to_frame
from unterbau.materials.layered import layered
from unterbau.materials.material import material
from unterbau.mechanics.statics import total_mass
from unterbau.shop.pieces import pieces_of
from unterbau.structure.lines import lines_of
from unterbau.structure.parts import Place, Plate
from unterbau.studies.answers import likely_answers
from unterbau.studies.purchase.lasting import lasting_checks

LAYERED = Plate(0.036, "mdf", under="birch-ply", under_thickness=0.018)


def with_bed(bed: Plate) -> MovingGantry:
    return replace(MovingGantry(), bed=bed)


def test_two_equal_layers_are_one_plate() -> None:
    found, plain = layered("birch-ply", "birch-ply", 0.03, 0.012), material("birch-ply")
    assert (found.E, found.G, found.rho) == pytest.approx((plain.E, plain.G, plain.rho))


def test_unlike_halves_bend_about_their_own_middle() -> None:
    """Transformed section by hand: halves of E and 3E; middle at 5/8 of the height, EI = 4.875/3 E·h³/12."""
    soft, stiff = material("mdf"), material("birch-ply")
    ratio = stiff.E / soft.E
    h = 1.0
    middle = (0.75 * 0.5 + ratio * 0.25 * 0.5) / (0.5 + ratio * 0.5)
    by_hand = 0.5**3 / 12 * (1 + ratio) + 0.5 * ((0.75 - middle) ** 2 + ratio * (0.25 - middle) ** 2)
    assert pytest.approx(12 * by_hand * soft.E) == layered("mdf", "birch-ply", h, 0.5).E
    apart = (soft.E + stiff.E) / 2 / 4
    assert 3 * apart < layered("mdf", "birch-ply", h, 0.5).E  # glued, against two loose halves


def test_a_layered_bed_weighs_is_listed_and_cut_as_two_boards() -> None:
    machine = with_bed(LAYERED)
    lines = [one for one in bill_of(machine) if one.part == "bed"]
    assert [one.text for one in lines] == ["plate 18 mm, MDF", f"plate 18 mm, {material('birch-ply').label}"]
    whole = sum(line.mass for line in lines_of(lay_out(machine)))
    plain = sum(line.mass for line in lines_of(lay_out(with_bed(Plate(0.036, "mdf")))))
    frames = [total_mass(to_frame(one, Place(), "likely").frame)[0] for one in (machine, with_bed(Plate(0.036, "mdf")))]
    assert frames[0] - frames[1] == pytest.approx(whole - plain)
    boards = [one for one in pieces_of(lay_out(machine)) if one.part == "bed"]
    assert {one.material for one in boards} == {"mdf", "birch-ply"}
    assert len({len(one.holes) for one in boards}) == 1
    assert sum(one.mass for one in boards) == pytest.approx(sum(one.mass for one in lines), rel=1e-9)


def test_its_stiffness_lies_between_those_of_both() -> None:
    beds = (Plate(0.036, "mdf"), LAYERED, Plate(0.036, "birch-ply"))
    give = [likely_answers(with_bed(one), Place())[0].compliance[2, 2] for one in beds]
    assert give[0] > give[1] > give[2]


def test_damp_is_watched_for_both_layers_and_sealing_says_less() -> None:
    words = [one.name for one in lasting_checks(with_bed(LAYERED)) if "moisture" in one.name]
    assert len(words) == 2
    bare, sealed = (
        next(one for one in lasting_checks(with_bed(bed)) if "moisture" in one.name)
        for bed in (Plate(0.018, "mdf"), Plate(0.018, "mdf", sealed=True))
    )
    assert "seal all faces" in bare.cure
    assert "seal all faces" not in sealed.cure


@pytest.mark.parametrize(("bed", "where"), [
    (replace(LAYERED, under_thickness=0.036), "bed.under_thickness"),
    (replace(LAYERED, under_thickness=0.0), "bed.under_thickness"),
    (replace(LAYERED, under="cheese"), "material"),
])  # fmt: skip
def test_layers_that_cannot_be_are_refused(bed: Plate, where: str) -> None:
    with pytest.raises(InputError, match=where):
        lay_out(with_bed(bed))


def test_layers_survive_saving() -> None:
    text = (Path(__file__).parents[1] / "files" / "version-8.unterbau").read_text(encoding="utf-8")
    opened = parse_project(text)
    machine: Machine = opened.candidate("layered bed").machine
    assert isinstance(machine, MovingGantry)
    assert machine.bed == replace(LAYERED, sealed=True)
    assert parse_project(project_text(opened)) == opened
