"""Plates on sheets: dissections go back together, nothing overlaps (shapely), bounds by area, grain, hand sums."""

import itertools
import json
import random

import pytest
from shapely.geometry import box

from tests.cli.test_shop import DEMO
from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import lay_out
from unterbau.shop.pieces import pieces_of
from unterbau.shop.sheet_plan import Board, Sheet, SheetPlan, sheet_plan
from unterbau.shop.sheets import sheet_plans

SHEET = Sheet(2.0, 1.0)


def check(plan: SheetPlan, boards: tuple[Board, ...], gap: float, border: float) -> None:
    """Every plate as often as wanted, inside its border, a gap from every other."""
    for row in plan.sheets:
        shapes = [box(one.x, one.y, one.x + one.length, one.y + one.width) for one in row]
        inside = box(border, border, plan.sheet.length - border, plan.sheet.width - border).buffer(1e-6)
        assert all(inside.contains(shape) for shape in shapes)
        for a, b in itertools.combinations(shapes, 2):
            if gap:
                assert a.distance(b) >= gap - 2e-5
            else:
                assert a.intersection(b).area < 1e-7
    for board in boards:
        laid = [one for row in plan.sheets for one in row if one.name == board.name]
        assert len(laid) == board.count
        for one in laid:
            size = sorted((one.length, one.width))
            assert size == pytest.approx(sorted((board.length, board.width)), abs=2e-5)
            assert board.turns or not one.turned
    assert plan.least <= len(plan.sheets)


def dissected(seed: int) -> tuple[Board, ...]:
    draw = random.Random(seed)
    parts = [(2000, 1000)]
    while len(parts) < draw.randint(3, 12):
        wide, tall = parts.pop(max(range(len(parts)), key=lambda k: parts[k][0] * parts[k][1] * draw.random()))
        if wide > tall:
            at = draw.randint(wide // 5, 4 * wide // 5)
            parts += [(at, tall), (wide - at, tall)]
        else:
            at = draw.randint(tall // 5, 4 * tall // 5)
            parts += [(wide, at), (wide, tall - at)]
    draw.shuffle(parts)
    return tuple(Board(str(n), a / 1e3, b / 1e3, 1) for n, (a, b) in enumerate(parts))


@pytest.mark.parametrize("seed", range(12))
def test_a_sheet_cut_at_random_goes_back_onto_one(seed: int) -> None:
    boards = dissected(seed)
    plan = sheet_plan(boards, SHEET)
    check(plan, boards, 0.0, 0.0)
    assert len(plan.sheets) == 1
    assert plan.used == pytest.approx(1.0)
    assert plan.proven


@pytest.mark.parametrize("seed", range(6))
def test_plates_at_random_lie_apart_and_near_the_bound(seed: int) -> None:
    draw = random.Random(seed)
    boards = tuple(
        Board(str(n), draw.randint(10, 70) / 1e2, draw.randint(8, 50) / 1e2, draw.randint(1, 4), draw.random() < 0.7)
        for n in range(9)
    )
    plan = sheet_plan(boards, SHEET, 0.005, 0.01)
    check(plan, boards, 0.005, 0.01)
    assert len(plan.sheets) <= plan.least + 1


def test_bounds_by_hand() -> None:
    """Four plates of 900 × 450 fill 2000 × 1000 but for a strip; of 600 × 600 three fit, a fourth needs a sheet."""
    four = (Board("a", 0.9, 0.45, 4),)
    assert len(sheet_plan(four, SHEET, 0.005, 0.01).sheets) == 1
    squares = (Board("b", 0.6, 0.6, 4),)
    plan = sheet_plan(squares, SHEET)
    assert len(plan.sheets) == 2
    grain = sheet_plan((Board("c", 0.9, 1.5, 1, True),), SHEET)
    assert grain.sheets[0][0].turned
    with pytest.raises(InputError, match="larger than a sheet"):
        sheet_plan((Board("c", 0.9, 1.5, 1, False),), SHEET)
    with pytest.raises(InputError, match="larger than a sheet"):
        sheet_plan((Board("d", 2.0, 1.0, 1),), SHEET, 0.0, 0.001)


def test_plates_of_a_machine_by_thickness_and_material() -> None:
    pieces = pieces_of(lay_out(MovingGantry()))
    plans = sheet_plans(pieces, lambda *_: None, 0.005, 0.01)
    wanted = {(round(one.thickness, 6), one.material) for one in pieces if one.sort == "plate"}
    assert {(round(one.thickness, 6), one.material) for one in plans} == wanted
    for one in plans:
        assert one.plan is not None
        boards = tuple(Board(p.label, p.length, p.width, p.count, one.material != "birch-ply") for p in one.pieces)
        check(one.plan, boards, 0.005, 0.01)


def test_the_command_says_the_same(capsys: pytest.CaptureFixture[str]) -> None:
    assert run(["sheet-plan", DEMO, "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    assert data["sheets"] == sum(row["sheets"] for row in data["stocks"]) > 0
    assert run(["sheet-plan", DEMO, "--sheet", "1500x3000"]) == 0
    assert "1500 × 3000" in capsys.readouterr().out
    assert run(["sheet-plan", DEMO, "--sheet", "large"]) == 2
    assert run(["sheet-plan", DEMO, "--sheet", "100x100"]) == 2
    assert "larger than a sheet" in capsys.readouterr().err
