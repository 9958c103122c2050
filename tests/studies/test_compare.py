"""Where the flex went: exact sums; the table as CSV; what a cut means."""

import csv
import io
from importlib.resources import files

import pytest

from unterbau.catalogue.cuts import cut
from unterbau.files.figures_csv import figures_text
from unterbau.files.project_json import parse_project
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers, likely_answers
from unterbau.studies.compare import figures, flow
from unterbau.studies.cutting import moved_by

DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))


@pytest.mark.parametrize("axis", [0, 1, 2])
def test_changes_sum_to_the_change_of_the_whole(axis: int) -> None:
    rows = [(c.machine, likely_answers(c.machine, Place())[0]) for c in DEMO.candidates]
    for one in rows:
        for other in rows:
            found = flow(one, other, axis)
            before, after = (likely.compliance[axis, axis] for _, likely in (one, other))
            assert sum(f.before for f in found) == pytest.approx(before, rel=1e-9)
            assert sum(f.after for f in found) == pytest.approx(after, rel=1e-9)
            assert sum(f.change for f in found) == pytest.approx(after - before, rel=1e-6, abs=1e-9 * before)
            assert found[-1].label == "rest"


def test_the_table_as_csv() -> None:
    rows = [figures(c.name, c.machine, answers(c.machine, Place()), DEMO.prices) for c in DEMO.candidates[:2]]
    table = list(csv.DictReader(io.StringIO(figures_text(rows, "EUR"))))
    assert [row["candidate"] for row in table] == [c.name for c in DEMO.candidates[:2]]
    for row, shown in zip(table, rows, strict=True):
        for n, axis in enumerate("XYZ"):
            band = shown.answers.stiffness[n]
            assert float(row[f"stiffness {axis} N/µm, low"]) == pytest.approx(band.low * 1e-6, rel=1e-4)
            assert float(row[f"stiffness {axis} N/µm, high"]) == pytest.approx(band.high * 1e-6, rel=1e-4)
        assert float(row["money EUR"]) == pytest.approx(shown.cost.money, abs=0.005)
        assert row["prices"] == "partly invented"


def test_a_cut_moves_the_tool_by_its_force() -> None:
    found = moved_by(cut("hardwood"), 0.8e-6)
    assert found.likely == pytest.approx(28e-6)
    assert found.high == pytest.approx(1.4 * 28e-6)
