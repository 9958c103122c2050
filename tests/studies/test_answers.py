"""Answers of the router: exact sums, order of levels, believable sizes."""

from dataclasses import replace
from importlib.resources import files

import numpy as np
import pytest

from unterbau.band import Band
from unterbau.errors import InputError
from unterbau.files.answers_json import answers_data, answers_text
from unterbau.files.project_json import parse_project
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.progress import Cancelled, Silent
from unterbau.structure.parts import Cutter, Joint, Place
from unterbau.studies import answers as study
from unterbau.studies.answers import FELT, MODES, SHOWN, Early, answers, answers_shown, likely_answers
from unterbau.studies.compliance import softest, solve, tip_compliance

DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
EXACT = 1e-9


@pytest.fixture(scope="module")
def found() -> dict[str, object]:
    return {c.name: answers(c.machine, Place()) for c in DEMO.candidates}


@pytest.mark.parametrize("candidate", DEMO.candidates, ids=lambda c: c.name)
@pytest.mark.parametrize("place", [Place(), Place(0.1, 0.9, 0.6)])
def test_shares_sum_to_the_compliance(candidate: object, place: Place) -> None:
    likely, _ = likely_answers(candidate.machine, place)  # type: ignore[attr-defined]
    totals = likely.shares.compliance.sum(axis=(1, 2))
    assert np.abs(totals / np.diag(likely.compliance) - 1).max() < EXACT
    assert (likely.shares.compliance > -1e-15).all()


def test_compliance_is_symmetric_and_positive() -> None:
    solved = solve(MovingGantry(), Place(0.2, 0.7, 0.3), "likely")
    forces = solved.statics.loads.forces[:3]
    C = np.einsum("and,bnd->ab", forces, solved.statics.u[:3, : forces.shape[1]])
    assert np.abs(C - C.T).max() < 1e-9 * np.abs(C).max()
    direction, stiffness = softest(tip_compliance(solved))
    assert np.linalg.norm(direction) == pytest.approx(1)
    assert stiffness <= 1 / np.diag(C).max()


def test_pulling_leaves_no_load_over_for_the_feet() -> None:
    """Tool and work are pulled against each other in one point: nothing reaches the ground."""
    likely, solved = likely_answers(MovingGantry(), Place())
    assert likely.shares.compliance[:, -1].sum() < 0.02 * likely.shares.compliance.sum()
    forces = solved.statics.loads.forces[:3]
    nodes = solved.built.frame.nodes
    assert np.abs(forces[..., :3].sum(axis=1)).max() < 1e-12
    moment = forces[..., 3:].sum(axis=1) + np.cross(nodes, forces[..., :3]).sum(axis=1)
    assert np.abs(moment).max() < 1e-12


def test_a_rigid_cutter_takes_away_just_its_share() -> None:
    """The cutter is in series: its give is its cantilever's, ∫M²/EI + ∫V²/κGA along flutes and shank."""
    soft = likely_answers(MovingGantry(cutter=Cutter(0.006, 0.025)), Place())[0]
    row = soft.shares.compliance[0][soft.shares.keys.index("cutter")].sum()
    give = 0.0
    for diameter, near, far in (
        (0.8 * 0.006, 0.0, 0.021),
        (0.006, 0.021, 0.025),
    ):  # from the tip: flutes of 3.5 D, shank
        inertia, area = np.pi * diameter**4 / 64, np.pi * diameter**2 / 4
        give += (far**3 - near**3) / (3 * 600e9 * inertia) + (far - near) / (246e9 * area * 6 / 7)
    assert row == pytest.approx(give, rel=1e-6)
    assert 3 < 1e-6 / row < 4.5  # common practice, no source


def test_a_plain_bar_gives_as_the_handbook_says() -> None:
    """⌀6×25 without flutes: 7 N/µm; a cutter whose flutes are as short as can be is nearly one."""
    plain = likely_answers(MovingGantry(cutter=Cutter(0.006, 0.025, flute_length=1e-5)), Place())[0]
    assert 1e-6 / plain.shares.compliance[0][plain.shares.keys.index("cutter")].sum() == pytest.approx(7, abs=0.5)


def test_bands_are_ordered_and_believable(found: dict[str, object]) -> None:
    """Slotted: tenths; tube: 1 to 3; plate box above (common practice, no source)."""
    stiff = {name: [band.likely / 1e6 for band in a.stiffness] for name, a in found.items()}  # type: ignore[attr-defined]
    for a in found.values():
        bands: tuple[Band, ...] = (*a.stiffness, *a.nose, *(m.frequency for m in a.modes))  # type: ignore[attr-defined]
        assert all(b.low < b.likely < b.high for b in bands)
        assert all(n.likely > s.likely for n, s in zip(a.nose, a.stiffness, strict=True))  # type: ignore[attr-defined]
        assert a.softest.likely <= min(s.likely for s in a.stiffness)  # type: ignore[attr-defined]
        assert all(w.likely <= s.likely * 1.0001 for w, s in zip(a.worst, a.stiffness, strict=True))  # type: ignore[attr-defined]
    assert 0.1 < min(stiff["bolted slotted profile"]) < max(stiff["bolted slotted profile"]) < 1.1
    for name in ("steel tube, epoxied sides", "tube, epoxy granite fill"):
        assert 1 <= min(stiff[name]) < max(stiff[name][:2]) <= 3
        assert stiff[name][2] <= 5
    tube, filled = min(stiff["steel tube, epoxied sides"]), min(stiff["tube, epoxy granite fill"])
    assert min(stiff["plate box"]) > max(1.5, tube)
    assert filled > 1.1 * tube, "a fill keeps the walls from giving"


def test_better_joints_make_a_stiffer_machine() -> None:
    weak, strong = (MovingGantry(beam_joint=Joint(kind)) for kind in ("printed", "weld"))
    a, b = (np.diag(likely_answers(m, Place())[0].compliance) for m in (weak, strong))
    assert (a > b).all()


def test_a_study_stops_when_asked() -> None:
    class Impatient(Silent):
        def step(self, done: int, total: int, text: str) -> None:
            assert total == 5
            assert text
            if done == 3:
                raise Cancelled

    with pytest.raises(Cancelled):
        answers(MovingGantry(), Place(), Impatient())


def test_an_impossible_machine_is_refused_in_a_sentence() -> None:
    machine = MovingGantry()
    with pytest.raises(InputError, match="travel_x"):
        likely_answers(replace(machine, dimensions=replace(machine.dimensions, travel_x=50.0)), Place())


def test_a_shown_band_holds_its_likely_value() -> None:
    project = parse_project((files("unterbau.demo") / "organ-pipe-router.unterbau").read_text(encoding="utf-8"))
    found = answers(project.candidates[0].machine, Place())
    for one in (found.droop, found.sag, *(each.left_behind for each in found.hurry)):
        assert one.low < one.likely < one.high


def test_answers_as_data_and_text(found: dict[str, object]) -> None:
    candidate = DEMO.candidates[1]
    data = answers_data(candidate, found[candidate.name], DEMO.prices)  # type: ignore[arg-type]
    for axis in "xyz":
        path = data["load_path"][axis]
        assert sum(row["share"] for row in path) == pytest.approx(1, abs=EXACT)
        assert path[0]["link"] == "cutter"
    assert len(data["droop"]["places"]) == 5
    spread = [place["likely"] for place in data["droop"]["places"]]
    assert data["droop"]["range"]["likely"] == pytest.approx(max(spread) - min(spread))
    text = answers_text(data)
    assert "N/µm" in text
    assert f"{data['money']:.0f} EUR" in text
    assert 300 < data["money"] < 3000


def test_the_bands_of_the_stiffness_are_told_first_and_a_solution_at_hand_is_used() -> None:
    machine, told, solved = MovingGantry(), list[object](), solve(MovingGantry(), Place(), "likely")

    class Watching(Silent):
        steps = 0

        def step(self, done: int, total: int, text: str) -> None:
            self.steps += 1

        def found(self, so_far: object) -> None:
            told.append((self.steps, so_far))

    anew, whole = answers(machine, Place()), answers(machine, Place(), Watching(), solved)
    assert told == [(1, Early(whole.stiffness))]
    assert whole.stiffness == anew.stiffness
    assert whole.worst == anew.worst
    assert [one.frequency for one in whole.modes] == [one.frequency for one in anew.modes]


@pytest.mark.parametrize("shown", [1, SHOWN])
def test_the_screen_asks_for_fewer_modes_and_hears_the_same(shown: int, monkeypatch: pytest.MonkeyPatch) -> None:
    """A column mill's first modes rock it on its stand; where the tool feels none of those asked for, all are."""
    mill = ColumnMill()
    every = answers(mill, Place())
    monkeypatch.setattr(study, "SHOWN", shown)
    found = answers_shown(mill, Place(), Silent())
    felt = next(n for n, one in enumerate(every.modes) if one.at_tool >= FELT)
    assert 1 <= felt < SHOWN
    assert len(found.modes) == (SHOWN if shown > felt else MODES)
    assert found.headline is not None
    assert found.headline.moves == every.modes[felt].moves
    assert found.headline.frequency.likely == pytest.approx(every.modes[felt].frequency.likely, rel=1e-6)
    assert found.worst == every.worst
    assert [one.frequency.likely for one in found.modes] == pytest.approx(
        [one.frequency.likely for one in every.modes[: len(found.modes)]], rel=1e-6
    )
