"""Travel, height, room, lifting, money and tools against the brief."""

from dataclasses import replace

import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.prices import shipped_prices
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, travel
from unterbau.studies.budget import Budget, budget, heaviest, outside, shop_limits, travel_chains

ROUTER = MovingGantry()
OPEN = Brief(lift=0.0)


def found(brief: Brief) -> Budget:
    return budget(ROUTER, brief, shipped_prices())


def conflicts(brief: Brief) -> list[str]:
    return [one.words for one in found(brief).conflicts]


def test_an_open_brief_has_no_conflicts() -> None:
    assert found(OPEN).findings == ()


def test_travel_short_by_what_it_is_short() -> None:
    assert conflicts(replace(OPEN, work_x=0.65, work_y=0.5)) == []
    short = found(replace(OPEN, work_x=0.7)).conflicts
    assert [one.key for one in short] == ["dimensions.travel_x"]
    assert "50 mm short" in short[0].words
    text = budget(ROUTER, replace(OPEN, work_x=0.7), shipped_prices(), "inch").conflicts[0].words
    assert "1.969 in short" in text


def test_heights_under_the_beam_and_over_the_work() -> None:
    """Beam at 180 mm, tip from 10 to 170 mm: 150 mm of work leaves 20 mm of stroke."""
    fits = found(replace(OPEN, work_z=0.15))
    assert fits.conflicts == ()
    assert any("20 mm of Z stroke left" in one.words for one in fits.findings)
    keys = [one.key for one in found(replace(OPEN, work_z=0.19)).conflicts]
    assert keys == ["dimensions.clearance", "dimensions.travel_z"]
    longer = found(replace(OPEN, work_z=0.15, tool_length=0.06)).conflicts
    assert [one.key for one in longer] == ["dimensions.travel_z"]


def test_room_door_lifting_money() -> None:
    length, depth, height = outside(ROUTER)
    assert length > ROUTER.dimensions.travel_x
    assert conflicts(replace(OPEN, space_x=length, space_y=depth, space_z=height)) == []
    assert len(conflicts(replace(OPEN, space_x=length - 0.01, space_y=depth - 0.01))) == 2
    middle = sorted(outside(ROUTER, carried=True))[1]
    assert conflicts(replace(OPEN, door=middle + 0.001)) == []
    assert "come apart" in conflicts(replace(OPEN, door=middle - 0.001))[0]
    piece = heaviest(ROUTER)
    each = piece.mass / piece.count
    assert all(each >= item.mass / max(1, item.count) for item in bill_of(ROUTER))
    assert conflicts(replace(OPEN, lift=each + 0.1)) == []
    assert "two people or a hoist" in conflicts(replace(OPEN, lift=each - 0.1))[0]
    assert "EUR of 100" in conflicts(replace(OPEN, money=100.0))[0]


def test_what_a_shop_cannot_do_is_marked() -> None:
    assert shop_limits(ROUTER, OPEN) == {}
    plates = shop_limits(ROUTER, replace(OPEN, tools=("drill-press",)))
    assert set(plates) == {"side", "x_plate", "z_plate"}
    assert "no firm to cut it" in plates["side"]
    assert shop_limits(ROUTER, replace(OPEN, tools=("sheet-firm",))) == {}
    heavy = shop_limits(ROUTER, replace(OPEN, lift=10.0))
    assert "gantry_beam" in heavy


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
def test_travel_is_rail_less_stance_block_and_stops(kind: Kind) -> None:
    """As they come, no kind has a block that leaves its rail."""
    chains = travel_chains(kind.model())
    assert chains
    for chain in chains:
        assert chain.spare > -5e-4, chain
        assert "travel" in chain.words("mm")
    machine = kind.model()
    shorter = replace(machine.dimensions, stop=0.0)
    assert travel_chains(replace(machine, dimensions=shorter))[0].spare >= chains[0].spare - 1e-9


def test_a_table_too_short_for_its_travel_is_found() -> None:
    mill = ColumnMill()
    short = replace(mill, dimensions=replace(mill.dimensions, table_length=0.45))
    conflicts = budget(short, OPEN, shipped_prices()).conflicts
    assert [one.key for one in conflicts] == ["dimensions.table_length"]
    assert "travel 250 mm is wanted, 91 mm more than there is" in conflicts[0].words


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
def test_every_kind_is_budgeted(kind: Kind) -> None:
    machine = kind.model()
    brief = Brief(work_x=5.0, work_y=5.0, work_z=2.0, space_x=0.1, door=0.1, lift=1.0, money=1.0, tools=("lathe",))
    answered = budget(machine, brief, shipped_prices())
    assert len(answered.conflicts) >= 4
    assert answered.travel == travel(machine)
    keys = {link.key for link in kind.links} | {f"dimensions.{s.attribute}" for s in kind.sizes}
    for one in answered.conflicts:
        assert one.key in keys or one.key in ("", "dimensions")
    assert all(0.05 < size < 6 for size in answered.outside)


def test_heights_as_a_sum() -> None:
    """Nose from 35 to 195 mm, tool 60, work 100: 195 − 60 − 100 = 35 mm of stroke."""
    words = found(replace(OPEN, work_z=0.1, tool_length=0.06)).heights
    assert words == (
        "Z: plate to nose 35 mm to 195 mm, less tool 60 mm, less work with vice 100 mm: "
        "35 mm of 160 mm stroke usable; overhang 65 mm"
    )


def test_the_heaviest_piece_is_told_with_what_one_person_lifts() -> None:
    brief = replace(OPEN, lift=35.0)
    for units, words in (("mm", "one person lifts 35 kg"), ("inch", "one person lifts 77 lb")):
        found = budget(ColumnMill(), brief, shipped_prices(), units).findings  # type: ignore[arg-type]
        assert any(words in one.words for one in found)
