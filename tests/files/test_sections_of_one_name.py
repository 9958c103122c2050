"""Two files whose own sections go by one name, open in one session: each is computed with its own values."""

import json
from dataclasses import replace

import pytest

from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine
from unterbau.model.member import member_values
from unterbau.project import edits
from unterbau.project.project import Candidate, Project
from unterbau.sections.section import section
from unterbau.sections.solved import CustomSection, SolvedSection
from unterbau.structure.parts import Member

RING = ((-0.03, -0.04), (0.03, -0.04), (0.03, 0.04), (-0.03, 0.04))


def own(name: str, second: float) -> SolvedSection:
    return SolvedSection(name, "mine", 1e-3, second, 2e-6, 0.0, 1e-6, 5e-4, 5e-4, 0.0, 0.0, 0.0, (RING,))


def saved(of: CustomSection) -> str:
    machine: Machine = replace(MovingGantry(), gantry_beam=Member(of, "steel-s235"))
    return project_text(Project("p", "a", (Candidate("a", machine),)))


def beam_of(text: str) -> Member:
    machine = parse_project(text).candidates[0].machine
    assert isinstance(machine, MovingGantry)
    return machine.gantry_beam


def test_the_second_file_keeps_its_own_values() -> None:
    texts = [saved(CustomSection(own("own-twice", second))) for second in (1e-6, 3e-6)]
    first, other = (beam_of(text) for text in texts)
    assert member_values(first).Iy == 1e-6
    assert member_values(other).Iy == 3e-6
    assert first.section_name == other.section_name == "own-twice"
    assert first != other
    assert section(other.section).label == "mine"
    assert beam_of(project_text(parse_project(texts[1]))) == other


def test_two_of_one_name_in_one_project_are_told_apart() -> None:
    first, other = (
        replace(MovingGantry(), gantry_beam=Member(CustomSection(own("own-twice", second)), "steel-s235"))
        for second in (1e-6, 3e-6)
    )
    project, _ = edits.add(Project("p", "a", (Candidate("a", first),)), "b", other)
    again = parse_project(project_text(project))
    assert again == project
    beams = [one.machine.gantry_beam for one in again.candidates if isinstance(one.machine, MovingGantry)]
    assert [member_values(beam).Iy for beam in beams] == [1e-6, 3e-6]
    assert len({beam.section_name for beam in beams}) == 2
    assert project_text(again) == project_text(project)


def test_what_is_built_up_of_it_follows() -> None:
    def text(second: float) -> str:
        built = replace(own("stack2-of-own-tee", 4 * second), J=7 * second)
        return saved(CustomSection(built, own("own-tee", second)))

    values = [member_values(replace(beam_of(text(second)), seam="bonded")) for second in (1e-6, 3e-6)]
    steiner = 2 * 1e-3 * 0.04**2  # two of 1,000 mm², 40 mm from the middle
    assert [one.Iy for one in values] == pytest.approx([2e-6 + steiner, 6e-6 + steiner])
    assert [one.J for one in values] == pytest.approx([7e-6, 21e-6]), "as solved"
    found = beam_of(text(3e-6)).section
    assert len(section(found).pieces) == 2
    assert [piece.properties.Iy for piece in section(found).pieces] == pytest.approx([3e-6, 3e-6])


def test_a_name_without_values_and_values_of_one_name_are_refused() -> None:
    text = saved(CustomSection(own("own-twice", 1e-6)))
    with pytest.raises(InputError, match=r'values of "own-lost" are missing'):
        parse_project(text.replace('"section": "own-twice"', '"section": "own-lost"'))
    data = json.loads(text)
    data["sections"] *= 2
    with pytest.raises(InputError, match="another section is called"):
        parse_project(json.dumps(data))
