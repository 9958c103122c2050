"""Pieces of the kit by themselves: what they weigh, where they stand, what they hold."""

import itertools
from dataclasses import replace

import numpy as np
import pytest

from unterbau.errors import InputError
from unterbau.machine.bill import Line
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.fixed_bridge import FixedBridge
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.kit.bed import bed, bolt_down, screw_places, work_on
from unterbau.machine.kit.head import beam_seat, slide
from unterbau.machine.kit.kit import Kit
from unterbau.machine.kit.members import beam, fasten, four_feet
from unterbau.machine.kit.plates import lay_plate
from unterbau.machine.kit.rounds import round_bar
from unterbau.machine.machine import Machine, kind_of, moving_masses, to_frame
from unterbau.structure.parts import Joint, Member, Place, Plate, Stand
from unterbau.structure.vectors import cross, plus
from unterbau.studies.answers import answers, likely_answers
from unterbau.studies.explain import explain

Y, Z = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


def kit(machine: Machine | None = None) -> Kit:
    return Kit(machine or RaisedSides(), Place())


def stiffness(machine: Machine, axis: int) -> float:
    return float(1e-6 / likely_answers(machine, Place())[0].compliance[axis, axis])


def test_a_member_has_nodes_where_they_are_wanted() -> None:
    one = kit()
    laid = beam(one, "gantry_beam", "b", (0.0, 0.0, 0.0), (2.0, 0.0, 0.0), at=(0.5, 1.37))
    xs = [one.frame.places[n][0] for n in laid.chain.nodes]
    assert len(xs) >= 7
    assert xs == sorted(xs)
    assert {0.0, 0.5, 1.37, 2.0} <= set(xs)
    assert laid.length == 2.0
    assert laid.along == (1.0, 0.0, 0.0)
    assert one.near(laid, (1.3, 1.0, 0.0)) == laid.chain.nodes[xs.index(1.37)]


def test_equal_lines_add_up_and_are_moved_by_what_moves_them() -> None:
    one = kit()
    line = Line("x", "tube", 1, 0.5, 2.0, ("bar:steel",))
    one.buy(line)
    with one.moved_by("XZ"):
        one.buy(line)
        with one.moved_by("Y"):
            one.buy(replace(line, length=0.6))
    assert [(item.count, item.mass) for item in one.lines] == [(2, 4.0), (1, 2.0)]
    assert one.moving == {"X": 2.0, "Y": 2.0, "Z": 2.0}


def test_vectors() -> None:
    assert plus((1, 2, 3), (1, 0, -1), 2.0) == (3, 2, 1)
    assert cross((1, 0, 0), (0, 1, 0)) == (0, 0, 1)


def test_the_work_on_a_bed_moves_as_the_bed_does() -> None:
    """A rigid movement of all crossings, turned ones too, is the work's own, in the middle and at the edge."""
    one = kit()
    plate = bed(one, "bed", "bed", (-0.3, 0.3), (-0.2, 0.2), 0.0)
    move, turn = np.array([1e-3, -2e-3, 3e-3]), np.array([4e-3, -5e-3, 6e-3])
    for place in ((0.123, -0.077), (0.3, 0.2), (-0.29, 0.0)):
        for height in (0.02, 0.3):
            one.tip = one.frame.node("tip", (*place, height))
            work_on(one, plate, *place)
            assert one.standing is not None
            work = one.standing()
            at = np.array([one.frame.places[n] for n in work.nodes]) - np.array(work.place)
            crossings = np.hstack([move + np.cross(turn, at), np.tile(turn, (len(at), 1))])
            assert np.einsum("nab,nb->a", work.share, crossings) == pytest.approx([*move, *turn], abs=1e-12)
    assert one.lines[0].mass == pytest.approx(680 * 0.018 * 0.6 * 0.4)


def test_a_bed_is_screwed_down_every_so_far() -> None:
    one = kit()
    plate = bed(one, "bed", "bed", (-0.3, 0.3), (-0.2, 0.2), 0.0)
    places = screw_places(0.28)
    assert max(b - a for a, b in itertools.pairwise(places)) < 0.2
    member = beam(one, "cross_member", "m", (-0.28, 0.1, -0.05), (0.28, 0.1, -0.05), at=tuple(x + 0.28 for x in places))
    bolt_down(one, "bed_fixing", plate, member, places)
    assert len(plate.plate.held) == len(places)
    plate.plate.finish()
    frame = one.frame.build()
    joints = frame.springs.group == frame.groups.index("bed_fixing")
    assert frame.nodes[frame.springs.j[joints], 0] == pytest.approx(list(places))


def test_a_plate_is_held_once_at_one_place_and_its_patches_keep_apart() -> None:
    one = kit()
    plate = lay_plate(one, "wall", "wall", (0.3, -0.5, 0.05), (0.3, 0.5, 0.05), 0.1, (1.0, 0.0, 0.0))
    first = plate.hold((0.3, 0.0, 0.0), (0.02, 0.02))
    assert plate.hold((0.35, 0.002, -0.1), (0.01, 0.03)) == first
    other = plate.hold((0.3, 0.03, 0.0), (0.02, 0.02))
    assert other != first
    assert one.frame.places[first] == (0.3, 0.0, 0.0)
    plate.finish()
    a, b = one.frame.plates[0].spec.patches
    assert a.x + a.half_x < b.x - b.half_x
    assert one.lines[0].mass == pytest.approx(2660 * 0.02 * 0.1 * 1.0)


def test_a_round_bar_goes_on_from_a_node() -> None:
    one = kit(Lathe())
    first = one.frame.node("first", (0.0, 0.0, 0.0))
    bar = round_bar(one, "cutter", "bit", (0.0, 0.0, 0.0), (0.0, 0.02, 0.0), (), first)
    assert bar.chain.nodes[0] == first
    assert one.frame.places[bar.chain.nodes[-1]] == (0.0, 0.02, 0.0)


def test_ends_are_fastened_to_the_nearest_node() -> None:
    one = kit()
    post = lay_plate(one, "side", "post", (1.0, 0.0, 0.0), (1.0, 0.0, 0.5), 0.2, (1.0, 0.0, 0.0))
    laid = beam(one, "gantry_beam", "b", (0.0, 0.0, 0.4), (1.0, 0.0, 0.4))
    fasten(one, "beam_joint", laid, True, post)
    frame = one.frame.build()
    assert frame.nodes[frame.springs.i[-1]].tolist() == [1.0, 0.0, 0.4]
    assert frame.nodes[frame.springs.j[-1]] == pytest.approx([1.0, 0.0, 0.4])
    assert one.bodies[-1].key == "beam_joint"


def test_a_wide_base_stands_on_four_feet() -> None:
    one = kit(ColumnMill())
    laid = beam(one, "base", "base", (0.0, -0.3, 0.0), (0.0, 0.3, 0.0))
    four_feet(one, laid)
    feet = [place for name, place in zip(one.frame.names, one.frame.places, strict=True) if name.startswith("foot")]
    assert len(feet) == 4
    assert {round(x, 3) for x, _, _ in feet} == {-0.1, 0.1}
    firm = answers(replace(ColumnMill(), stand=Stand("firm")), Place())
    assert firm.modes[0].frequency.likely > 15


def test_the_slide_reaches_its_lowest_tip_and_its_blocks_stay_on_their_rails() -> None:
    machine = RaisedSides()
    d = machine.dimensions
    low, high = (slide(machine, raised, machine.x_plate) for raised in (0.0, d.travel_z))
    assert low.tip_z == d.lowest_tip
    assert high.tip_z == pytest.approx(d.lowest_tip + d.travel_z)
    for at in (low, high):
        assert at.z_plate_z[0] < at.z_block_z[0]
        assert at.z_block_z[1] < at.z_plate_z[1]
    assert low.z_block_z == high.z_block_z
    assert beam_seat(machine) > low.carrier_y > low.z_plate_y


def test_a_counterweight_is_moved_but_hardly_felt_at_the_tip() -> None:
    mill = ColumnMill()
    weighted = replace(mill, dimensions=replace(mill.dimensions, counterweight=1))
    assert moving_masses(weighted)["Z"] == pytest.approx(2 * moving_masses(mill)["Z"])
    assert stiffness(weighted, 1) == pytest.approx(stiffness(mill, 1))
    with_one, without = (answers(m, Place()).modes[0].frequency.likely for m in (weighted, mill))
    assert with_one < without


def test_braces_cure_the_sway_of_posts() -> None:
    """Common practice, no source: posts sway until braced diagonally."""
    braced = BracedMill()
    loose = replace(braced, brace=Member("flat-5x5", "aluminium-6060"), brace_joint=Joint("printed"))
    for axis in (0, 1):
        shares = [likely_answers(m, Place())[0].shares for m in (braced, loose)]
        posts = [float(s.compliance[axis][s.keys.index("post")].sum()) for s in shares]
        assert posts[0] < 0.9 * posts[1]
        assert stiffness(braced, axis) > stiffness(loose, axis)


def test_a_tailstock_holds_long_work() -> None:
    lathe = Lathe()
    alone = replace(lathe, dimensions=replace(lathe.dimensions, tailstock=0))
    assert stiffness(lathe, 2) > 3 * stiffness(alone, 2)
    _, solved = likely_answers(alone, Place())
    found = explain(alone, solved, "tailstock", 2)
    assert found.compliance == 0.0
    assert found.reasons == ()


def test_an_arm_turned_aside_is_the_same_arm() -> None:
    """Turned about the column, its own give under an upright pull stays; the tool leaves the table in the end."""
    arm = ArmMill()
    aside = replace(arm, dimensions=replace(arm.dimensions, turn=20))
    straight, turned = (to_frame(machine, Place()) for machine in (arm, aside))
    column = straight.frame.nodes[straight.chains["column"][0]]
    radii = [np.linalg.norm((b.frame.nodes[b.tip] - column)[:2]) for b in (straight, turned)]
    assert radii[0] == pytest.approx(radii[1])
    assert turned.frame.nodes[turned.tip][0] == pytest.approx(radii[0] * np.sin(np.radians(20)))
    for key in ("arm", "z_plate", "head_plate", "column"):
        gives = []
        for machine in (arm, aside):
            shares = likely_answers(machine, Place())[0].shares
            gives.append(float(shares.compliance[2][shares.keys.index(key)].sum()))
        assert gives[0] == pytest.approx(gives[1], rel=1e-6), key
    assert turned.work.place[:2] == pytest.approx(turned.frame.nodes[turned.tip][:2])
    with pytest.raises(InputError, match="tool leaves the table") as error:
        to_frame(replace(arm, dimensions=replace(arm.dimensions, turn=70)), Place())
    assert error.value.where == "dimensions.turn"


def test_what_stands_in_the_way_is_refused_with_its_size() -> None:
    mill, arm, lathe, raised, axis = ColumnMill(), ArmMill(), Lathe(), RaisedSides(), WallAxis()
    cases: list[tuple[Machine, str]] = [
        (replace(mill, dimensions=replace(mill.dimensions, throat=0.1)), "dimensions.throat"),
        (replace(arm, dimensions=replace(arm.dimensions, arm_height=0.06)), "dimensions.arm_height"),
        (replace(lathe, dimensions=replace(lathe.dimensions, centre_height=0.06)), "dimensions.centre_height"),
        (replace(raised, dimensions=replace(raised.dimensions, wall_height=0.16)), "dimensions.wall_height"),
        (replace(axis, dimensions=replace(axis.dimensions, beam_height=0.2)), "dimensions.beam_height"),
        (replace(BracedMill(), base=Member("box-100x120x10", "steel-s235")), "dimensions.z_rail_spacing"),
    ]
    for machine, where in cases:
        with pytest.raises(InputError, match=r"expected at (least|most)") as error:
            to_frame(machine, Place())
        assert error.value.where == where
        assert "mm" in error.value.problem


def test_a_thick_slab_is_no_fault_but_a_thick_plate_is() -> None:
    bridge = FixedBridge()
    with pytest.raises(InputError, match="2 to 120 mm") as error:
        to_frame(replace(bridge, table=Plate(0.2, "aluminium-5083")), Place())
    assert error.value.where == "table.thickness"


def test_kinds_say_what_they_are_good_at() -> None:
    kinds = {kind_of(machine).id for machine in (ColumnMill(), ArmMill(), Lathe())}
    assert kinds == {"column-mill", "arm-mill", "lathe"}
    assert kind_of(Lathe()).words("centre_height") == "bed to spindle axis"
    assert kind_of(Lathe()).limits("tailstock") == (0, 1)
