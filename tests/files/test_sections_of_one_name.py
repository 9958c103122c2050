"""Two files whose own sections go by one name, open in one session: each is computed with its own values."""

from dataclasses import replace

import pytest

from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine
from unterbau.model.member import member_values
from unterbau.project.project import Candidate, Project
from unterbau.sections.section import section
from unterbau.sections.solved import SolvedSection
from unterbau.structure.parts import Member

RING = ((-0.03, -0.04), (0.03, -0.04), (0.03, 0.04), (-0.03, 0.04))


def own(name: str, second: float) -> SolvedSection:
    return SolvedSection(name, "mine", 1e-3, second, 2e-6, 0.0, 1e-6, 5e-4, 5e-4, 0.0, 0.0, 0.0, (RING,))


def saved(*sections: SolvedSection) -> str:
    machine: Machine = replace(MovingGantry(), gantry_beam=Member(sections[0].name, "steel-s235"))
    return project_text(Project("p", "a", (Candidate("a", machine),), sections=sections))


def beam_of(text: str) -> Member:
    machine = parse_project(text).candidates[0].machine
    assert isinstance(machine, MovingGantry)
    return machine.gantry_beam


def test_the_second_file_keeps_its_own_values() -> None:
    texts = [saved(own("own-twice", second)) for second in (1e-6, 3e-6)]
    first, other = (beam_of(text) for text in texts)
    assert member_values(first).Iy == 1e-6
    assert member_values(other).Iy == 3e-6
    assert first.section == "own-twice"
    assert other.section != first.section
    assert section(other.section).label == "mine"
    again = parse_project(project_text(parse_project(texts[1])))
    assert beam_of(project_text(again)) == other
    assert beam_of(texts[0]) == first


def test_what_is_built_up_of_it_follows() -> None:
    def text(second: float) -> str:
        return saved(replace(own("stack2-of-own-tee", 4 * second), J=7 * second), own("own-tee", second))

    values = [member_values(replace(beam_of(text(second)), seam="bonded")) for second in (1e-6, 3e-6)]
    steiner = 2 * 1e-3 * 0.04**2  # two of 1,000 mm², 40 mm from the middle
    assert [one.Iy for one in values] == pytest.approx([2e-6 + steiner, 6e-6 + steiner])
    assert [one.J for one in values] == pytest.approx([7e-6, 21e-6]), "as solved"
    name = beam_of(text(3e-6)).section
    assert len(section(name).pieces) == 2
    assert [piece.properties.Iy for piece in section(name).pieces] == pytest.approx([3e-6, 3e-6])
