"""The machine as built: joints, guides and drives as they were measured, wherever its head stands; saved, told."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from tests.studies.taught import built_machine, read_on
from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.changes.change import Measured
from unterbau.machine.differs import differences
from unterbau.machine.machine import lay_out, listed_mass, not_standing, to_frame, with_part
from unterbau.project.project import Candidate, Project
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.learning.as_built import as_built
from unterbau.studies.learning.learn import learn
from unterbau.studies.learning.springs import ScaledSprings
from unterbau.studies.reach import weakest

MACHINE = built_machine()
MODEL = ScaledSprings(MACHINE)


def measured(*pairs: tuple[str, float]) -> object:
    changes = tuple(Measured(f"measured_{n}", key, factor) for n, (key, factor) in enumerate(pairs, 1))
    return replace(MACHINE, changes=changes)


@pytest.mark.parametrize("key", ["beam_joint", "z_drive", "x_guides", "spindle", "z_motor"])
def test_a_measured_link_is_as_stiff_as_it_was_read(key: str) -> None:
    """The same as its springs scaled in the frame, to rounding."""
    built = measured((key, 0.3))
    theta = np.where(np.array(MODEL.keys) == key, np.log(0.3), 0.0)
    assert (theta != 0.0).sum() == 1
    mine = tip_compliance(solve(built, Place(), "likely"))  # type: ignore[arg-type]
    assert mine == pytest.approx(tip_compliance(MODEL.solved(Place(), theta)), rel=1e-9)
    assert listed_mass(built) == listed_mass(MACHINE)  # type: ignore[arg-type]


def test_over_the_travel_a_measured_drive_stays_measured() -> None:
    built = measured(("y_drive", 0.25))
    corners = np.array([(0.0, 0.0, 0.0), (1.0, 1.0, 0.0)])
    whole, _, _ = weakest(built, corners)  # type: ignore[arg-type]
    del whole
    for place in (Place(0.0, 0.0, 0.0), Place(1.0, 1.0, 0.0)):
        theta = np.where(np.array(MODEL.keys) == "y_drive", np.log(0.25), 0.0)
        mine = tip_compliance(solve(built, place, "likely"))  # type: ignore[arg-type]
        assert mine == pytest.approx(tip_compliance(MODEL.solved(place, theta)), rel=1e-9)


def test_levels_are_those_of_the_measurement() -> None:
    built = replace(MACHINE, changes=(Measured("measured_1", "beam_joint", 0.5, 1.2),))
    frames = {level: to_frame(built, Place(), level).frame for level in ("low", "likely", "high")}
    rows = frames["likely"].springs.group == frames["likely"].groups.index("beam_joint")
    low, likely, high = (frames[level].springs.k[rows] for level in ("low", "likely", "high"))
    some = np.isfinite(likely) & (likely > 0)
    assert low[some] == pytest.approx(likely[some] / 1.2)
    assert high[some] == pytest.approx(likely[some] * 1.2)


def test_a_loose_drive_becomes_a_candidate_with_narrower_bands() -> None:
    truth = np.where(np.array(MODEL.keys) == "z_drive", np.log(0.2), 0.0)
    found = learn(MACHINE, read_on(MODEL, truth, np.random.default_rng(1)))
    built = as_built(MACHINE, found)
    factors = {one.key: one.factor for one in built.changes if isinstance(one, Measured)}
    assert factors["z_drive"] == pytest.approx(0.2, rel=0.15)
    as_predicted, now = answers(MACHINE, Place()).stiffness[2], answers(built, Place()).stiffness[2]
    real = 1 / tip_compliance(MODEL.solved(Place(), truth))[2, 2]
    assert now.likely == pytest.approx(real, rel=0.06)
    assert now.high / now.low < as_predicted.high / as_predicted.low
    told = found.stiffness[2]
    assert told.low < real < told.high
    assert told.high / told.low < now.high / now.low < (told.high / told.low) ** 2
    assert as_built(built, found).changes == built.changes
    assert any("z drive as built" in one for one in differences(MACHINE, built))


def test_it_is_saved_and_what_it_is_about_may_be_gone() -> None:
    built = measured(("z_drive", 0.2))
    project = Project("p", "built", (Candidate("built", built),))  # type: ignore[arg-type]
    assert parse_project(project_text(project)) == project
    gone = measured(("no_such_part", 0.5))
    assert "no such part" in not_standing(gone)["measured_1"]  # type: ignore[arg-type]
    stiffer = with_part(built, "z_plate", replace(MACHINE.z_plate, thickness=0.03))  # type: ignore[type-var]
    assert stiffer.changes == built.changes  # type: ignore[attr-defined]
    with pytest.raises(InputError, match="factor"):
        lay_out(measured(("z_drive", 0.0)))  # type: ignore[arg-type]


def test_the_sample_of_this_version_still_opens() -> None:
    text = (Path(__file__).parents[1] / "files" / "version-8.unterbau").read_text(encoding="utf-8")
    assert parse_project(text)
