"""Who makes a piece, what of it matters, hours by hand, prints by shell and core, what is lifted."""

from dataclasses import replace

import pytest

from unterbau.machine.kind import Kind
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, lay_out
from unterbau.parts_list.bill import total_mass
from unterbau.shop.hours import Pace, hours_of
from unterbau.shop.lifting import WHOLE, Load, loads_of, who_lifts
from unterbau.shop.making import does_not_matter, how_of, needs_of, needs_of_piece, usual_how, ways_of, with_how
from unterbau.shop.pieces import pieces_of
from unterbau.shop.printed import Printing, print_of
from unterbau.structure.stand import stand_lines
from unterbau.structure.structure import Structure

ROUTER = lay_out(MovingGantry())
PIECES = pieces_of(ROUTER)
BEARS = {"x_guides": 4e-5, "y_guides": 3e-5, "z_guides": 5e-5}


def stand_mass(structure: Structure) -> float:
    if structure.stand is None:
        return 0.0
    return sum(line.mass for line in stand_lines(structure.stand, [place for _, place in structure.feet]))


def test_who_makes_a_piece_is_as_usual_or_as_told() -> None:
    by_name = {name: one for one in PIECES for name in one.names}
    assert usual_how(by_name["gantry beam"], ()) == "make"
    assert usual_how(by_name["bed"], ("sheet-firm",)) == "make"  # of timber
    assert usual_how(by_name["X plate"], ("sheet-firm",)) == "have made"
    told = with_how((), "a", by_name["X plate"], "make")
    assert how_of(by_name["X plate"], "a", told, ("sheet-firm",)) == "make"
    assert how_of(by_name["X plate"], "b", told, ("sheet-firm",)) == "have made"
    assert len(with_how(told, "a", by_name["X plate"], "buy")) == 1


def test_a_bar_is_not_printed_whatever_was_told_of_the_plate_before_it() -> None:
    """No print is told of it, so its hours and its list can be worked out."""
    beam = next(one for one in PIECES if "gantry beam" in one.names)
    plate = next(one for one in PIECES if "X plate" in one.names)
    assert "print" not in ways_of(beam)
    assert "print" in ways_of(plate)
    assert how_of(beam, "a", with_how((), "a", beam, "print"), ()) == usual_how(beam, ())


def test_what_matters_follows_from_the_machine() -> None:
    needs = needs_of(ROUTER, BEARS)
    plate = next(one for one in PIECES if "X plate" in one.names)
    found = needs_of_piece(plate, needs)
    assert [one.within for one in found] == sorted(one.within for one in found)
    assert found[0].within == pytest.approx(4e-5)
    assert "pads of the X blocks" in found[0].words
    assert "edges as cut will do" in does_not_matter(plate, found)
    assert all(one.within > 4e-5 for name in plate.names for one in needs_of(ROUTER, {}).get(name, ()))


def test_hours_by_hand() -> None:
    """Only bars are sawn here, each with one cut; holes and threads counted once each."""
    hows = {one.label: "make" if one.sort == "bar" else "have made" for one in PIECES}
    pace = Pace(cut=6, setup=0, hole=0, tapped=0, weld=0, sawn=0, milled=0, joint=0, rail=0, drive=0, fetched=30)
    found = hours_of(ROUTER, PIECES, hows, 0, frozenset(), pace, Printing())  # type: ignore[arg-type]
    bars = sum(one.count for one in PIECES if one.sort == "bar")
    others = sum(1 for one in PIECES if one.sort != "bar")
    assert found.metalwork == pytest.approx(bars * 0.1 + others * 0.5)
    assert found.other == found.metalwork
    welded = replace(MovingGantry(), beam_joint=replace(MovingGantry().beam_joint, kind="weld"))
    structure = lay_out(welded)
    tasks = hours_of(structure, PIECES, hows, 0, frozenset(), Pace(), Printing()).tasks  # type: ignore[arg-type]
    beam = structure.pieces["gantry beam"]
    metres = next(one.count for one in tasks if one.words == "welds")
    assert metres == pytest.approx(2 * 2 * (beam.height + beam.width))  # type: ignore[union-attr]


def test_a_print_is_shell_and_core() -> None:
    """30 × 30 with walls of 1.35 mm and a fifth filled is .45 as stiff as full where cells run along (data, [calc])."""
    plate = replace(next(one for one in PIECES if one.sort == "plate"), material="petg", length=1.0, width=0.03,
                    thickness=0.03, holes=())  # fmt: skip
    made = print_of(plate, Printing(walls=3, line=0.45e-3, infill=0.2, rate=1e-5))
    assert made.bending == pytest.approx(0.45, abs=0.005)
    core = (1.0 - 2 * 0.00135) * 0.0273**2
    assert made.mass == pytest.approx(1270 * (0.0009 - 0.8 * core))
    assert print_of(plate, Printing(infill=1.0)).bending == pytest.approx(1.0)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_loads_add_up_to_the_machine(kind: Kind) -> None:
    """What moves and what stands together weigh what the list weighs without its stand; the middle lies inside."""
    machine = kind.model()
    structure = lay_out(machine)
    loads = loads_of(structure)
    whole = next(one for one in loads if one.words == WHOLE)
    parts = [one for one in loads if one.words.startswith("what ")]
    assert sum(one.mass for one in parts) == pytest.approx(whole.mass, rel=1e-12)
    assert whole.mass == pytest.approx(total_mass(bill_of(machine)) - stand_mass(structure), rel=1e-9)
    assert all(0.0 <= one.mass <= whole.mass for one in loads)


def test_who_lifts() -> None:
    assert who_lifts(25.0, 25.0) == "one person"
    assert who_lifts(26.0, 25.0) == "two people"
    assert who_lifts(90.0, 25.0).startswith("hoist, or two tip")
    assert who_lifts(130.0, 25.0) == "hoist, or in parts"


def test_what_stands_narrow_and_tall_tips_with_little() -> None:
    """A box of 20 kg, 0.4 m deep and 1 m tall, its centre 0.1 m from the back: m·g·d/h by hand."""
    load = Load("it", 20.0, (0.5, 0.3, 0.5), (1.0, 0.4, 1.0))
    assert load.balance.edge == pytest.approx(0.1)
    assert load.balance.push == pytest.approx(20.0 * 9.80665 * 0.1 / 1.0)
    whole = next(one for one in loads_of(lay_out(ColumnMill())) if one.words == WHOLE)
    assert 0.0 < whole.balance.edge < min(whole.size[:2]) / 2 + 1e-9
    assert 0.0 < whole.balance.up < whole.size[2]
