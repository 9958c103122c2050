"""Assemblies by themselves: what they weigh, where they stand, what they hold."""

import itertools
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.machine.laid import laying, modelled
from unterbau.errors import InputError
from unterbau.machine.assemblies.bed import bed, bolt_down, screw_places, work_on
from unterbau.machine.assemblies.head import beam_seat, slide
from unterbau.machine.assemblies.pieces import beam, fasten, four_feet, lay_plate, point, round_bar
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.fixed_bridge import FixedBridge
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.machine import KINDS, Machine, kind_of, lay_out, moving_masses, to_frame
from unterbau.mechanics.plate_spec import lines
from unterbau.model.laid_plate import _edges, _onto
from unterbau.model.modelled import Model
from unterbau.model.to_frame import put_in
from unterbau.model.work import stand_work
from unterbau.structure.carrier import carrier
from unterbau.structure.lines import lines_of
from unterbau.structure.lines import moving_masses as masses_moved
from unterbau.structure.looks import looks
from unterbau.structure.motion import Ware
from unterbau.structure.parts import Joint, Member, Place, Plate, Stand
from unterbau.structure.structure import Turned
from unterbau.structure.vectors import cross, plus
from unterbau.studies.answers import answers, likely_answers
from unterbau.studies.explain import explain

Y, Z = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


def stiffness(machine: Machine, axis: int) -> float:
    return float(1e-6 / likely_answers(machine, Place())[0].compliance[axis, axis])


def test_a_member_has_nodes_where_they_are_wanted() -> None:
    lay = laying(RaisedSides())
    bar = beam(lay, "gantry_beam", lay.machine.gantry_beam, "b", (0.0, 0.0, 0.0), (2.0, 0.0, 0.0), at=(0.5, 1.37))
    model = modelled(lay)
    nodes = model.bars["b"].chain.nodes
    xs = [model.frame.places[n][0] for n in nodes]
    assert len(xs) >= 7
    assert xs == sorted(xs)
    assert {0.0, 0.5, 1.37, 2.0} <= set(xs)
    assert bar.length == 2.0
    assert bar.along == (1.0, 0.0, 0.0)
    assert model.node(lay.near(bar, (1.3, 1.0, 0.0))) == nodes[xs.index(1.37)]


def test_equal_lines_add_up_and_are_moved_by_what_moves_them() -> None:
    lay = laying(RaisedSides())
    ware = Ware("side", "tube", 2.0, ("bar:steel",))
    lay.add(ware)
    with lay.moved_by("XZ"):
        lay.add(replace(ware, carrier=lay.carrier))
        with lay.moved_by("xy"):
            lay.add(replace(ware, text="bar", carrier=lay.carrier))
    found = lay.so_far()
    assert [(item.count, item.mass) for item in lines_of(found)] == [(2, 4.0), (1, 2.0)]
    assert masses_moved(found) == {"X": 4.0, "Y": 2.0, "Z": 2.0}


def test_a_carrier_moves_a_piece_with_its_axes_or_against_them() -> None:
    assert carrier("Xz").moved((1.0, 2.0, 3.0), (0.1, 0.2, 0.3)) == pytest.approx((1.1, 2.0, 2.7))
    assert carrier("Xz").axes == "XZ"
    assert carrier("").moved((1.0, 2.0, 3.0), (0.1, 0.2, 0.3)) == (1.0, 2.0, 3.0)


def test_vectors() -> None:
    assert plus((1, 2, 3), (1, 0, -1), 2.0) == (3, 2, 1)
    assert cross((1, 0, 0), (0, 1, 0)) == (0, 0, 1)


def test_the_work_on_a_bed_moves_as_the_bed_does() -> None:
    """A rigid movement of all crossings, turned ones too, is the work's own, in the middle and at the edge."""
    move, turn = np.array([1e-3, -2e-3, 3e-3]), np.array([4e-3, -5e-3, 6e-3])
    for place in ((0.123, -0.077), (0.3, 0.2), (-0.29, 0.0)):
        for height in (0.02, 0.3):
            lay = laying(RaisedSides())
            plate = bed(lay, "bed", lay.machine.bed, "bed", (-0.3, 0.3), (-0.2, 0.2), 0.0)
            work_on(lay, plate, *place)
            tip = point(lay, "tip", (*place, height))
            assert lay.work is not None
            model = Model(replace(lay.so_far(), tip=tip, work=lay.work), Place())
            put_in(model, model.structure.steps)
            stand_work(model)
            work = model.work
            assert work is not None
            at = np.array([model.frame.places[n] for n in work.nodes]) - np.array(work.place)
            crossings = np.hstack([move + np.cross(turn, at), np.tile(turn, (len(at), 1))])
            assert np.einsum("nab,nb->a", work.share, crossings) == pytest.approx([*move, *turn], abs=1e-12)
            assert lines_of(model.structure)[0].mass == pytest.approx(680 * 0.018 * 0.6 * 0.4)


def test_a_bed_is_screwed_down_every_so_far() -> None:
    lay = laying(RaisedSides())
    plate = bed(lay, "bed", lay.machine.bed, "bed", (-0.3, 0.3), (-0.2, 0.2), 0.0)
    places = screw_places(0.28)
    assert max(b - a for a, b in itertools.pairwise(places)) < 0.2
    assert 12 * len(screw_places(3.0, 12)) <= 216
    member = beam(
        lay,
        "cross_member",
        lay.machine.cross_member,
        "m",
        (-0.28, 0.1, -0.05),
        (0.28, 0.1, -0.05),
        at=tuple(x + 0.28 for x in places),
    )
    bolt_down(lay, "bed_fixing", lay.machine.bed_fixing, plate, member, places)
    model = modelled(lay)
    assert len(model.sheets["bed"].held) == len(places)
    model.sheets["bed"].finish()
    frame = model.frame.build()
    joints = frame.springs.group == frame.groups.index("bed_fixing")
    assert frame.nodes[frame.springs.j[joints], 0] == pytest.approx(list(places))


def test_a_plate_is_held_once_at_one_place_and_its_patches_keep_apart() -> None:
    lay = laying(RaisedSides())
    plate = lay_plate(lay, "wall", lay.machine.wall, "wall", (0.3, -0.5, 0.05), (0.3, 0.5, 0.05), 0.1, (1.0, 0.0, 0.0))
    model = modelled(lay)
    first = model.node(plate.hold((0.3, 0.0, 0.0), (0.02, 0.02)))
    assert model.node(plate.hold((0.35, 0.002, -0.1), (0.01, 0.03))) == first
    assert model.node(plate.hold((0.3, 0.03, 0.0), (0.02, 0.02))) != first
    assert model.frame.places[first] == (0.3, 0.0, 0.0)
    model.sheets["wall"].finish()
    a, b = model.frame.plates[0].spec.patches
    assert a.x + a.half_x < b.x - b.half_x
    assert lines_of(model.structure)[0].mass == pytest.approx(2660 * 0.02 * 0.1 * 1.0)


def test_a_round_bar_goes_on_from_a_node() -> None:
    lay = laying(Lathe())
    first = point(lay, "first", (0.0, 0.0, 0.0))
    round_bar(lay, "cutter", lay.machine.cutter, "bit", (0.0, 0.0, 0.0), (0.0, 0.02, 0.0), (), first)
    model = modelled(lay)
    nodes = model.bars["bit"].chain.nodes
    assert nodes[0] == model.points["first"]
    assert model.frame.places[nodes[-1]] == (0.0, 0.02, 0.0)


def test_ends_are_fastened_to_the_nearest_node() -> None:
    lay = laying(RaisedSides())
    post = lay_plate(lay, "side", lay.machine.side, "post", (1.0, 0.0, 0.0), (1.0, 0.0, 0.5), 0.2, (1.0, 0.0, 0.0))
    laid = beam(lay, "gantry_beam", lay.machine.gantry_beam, "b", (0.0, 0.0, 0.4), (1.0, 0.0, 0.4))
    fasten(lay, "beam_joint", lay.machine.beam_joint, laid, True, post)
    frame = modelled(lay).frame.build()
    assert frame.nodes[frame.springs.i[-1]].tolist() == [1.0, 0.0, 0.4]
    assert frame.nodes[frame.springs.j[-1]] == pytest.approx([1.0, 0.0, 0.4])
    assert looks(lay.so_far(), Place())[-1].key == "beam_joint"


def test_a_wide_base_stands_on_four_feet() -> None:
    lay = laying(ColumnMill())
    laid = beam(lay, "base", lay.machine.base, "base", (0.0, -0.3, 0.0), (0.0, 0.3, 0.0))
    four_feet(lay, laid)
    feet = [place for _, place in lay.so_far().feet]
    assert len(feet) == 4
    assert {round(x, 3) for x, _, _ in feet} == {-0.1, 0.1}
    firm = answers(replace(ColumnMill(), stand=Stand("firm")), Place())
    assert firm.modes[0].frequency.likely > 15


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_what_is_laid_out_once_is_right_wherever_the_head_stands(kind: Kind) -> None:
    """The tool goes from end to end of its travel against the work; nothing else of the structure is laid again."""
    machine = kind.model()
    structure = lay_out(machine)
    assert lay_out(machine) is structure
    travel = kind.travel(machine)
    low, high = (to_frame(machine, Place(x, y, z)) for x, y, z in ((0.0, 0.0, 0.0), (1.0, 1.0, 1.0)))
    ends = [b.frame.nodes[b.tip] - b.frame.nodes[b.ground.nodes[0] if b.ground and b.ground.nodes else b.work.nodes[0]]
            for b in (low, high)]  # fmt: skip
    moved = np.abs(ends[1] - ends[0])
    for axis in range(3):
        if kind.id not in ("lathe", "wall-axis"):
            assert moved[axis] == pytest.approx(travel[axis], abs=1e-9)


def test_the_slide_reaches_its_lowest_tip_and_its_blocks_stay_on_their_rails() -> None:
    machine = RaisedSides()
    d = machine.dimensions
    at = slide(machine, machine.x_plate)
    assert at.tip_z == d.lowest_tip
    for raised in (0.0, d.travel_z):
        assert at.z_plate_z[0] + raised < at.z_block_z[0]
        assert at.z_block_z[1] < at.z_plate_z[1] + raised
    assert beam_seat(machine) > at.carrier_y > at.z_plate_y


def test_a_counterweight_is_moved_but_hardly_felt_at_the_tip() -> None:
    mill = ColumnMill()
    weighted = replace(mill, dimensions=replace(mill.dimensions, counterweight=1))
    assert moving_masses(weighted)["Z"] == pytest.approx(2 * moving_masses(mill)["Z"])
    assert stiffness(weighted, 1) == pytest.approx(stiffness(mill, 1), rel=1e-4)  # the rope's hook stiffens a patch
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


@pytest.mark.parametrize("ribs", [0, 2])
def test_all_that_hangs_on_a_turned_arm_is_turned_with_it(ribs: int) -> None:
    arm = ArmMill()
    arm = replace(arm, head_plate=replace(arm.head_plate, ribs=ribs))
    aside = replace(arm, dimensions=replace(arm.dimensions, turn=20))
    straight, turned = (to_frame(machine, Place()).frame for machine in (arm, aside))
    turn = next(step for step in lay_out(aside).steps if isinstance(step, Turned))
    assert straight.node_names == turned.node_names
    moved = 0
    for before, after in zip(straight.nodes, turned.nodes, strict=True):
        there = np.array(turn.place((float(before[0]), float(before[1]), float(before[2]))))
        assert np.allclose(after, there, atol=1e-9) or np.allclose(after, before, atol=1e-9)
        moved += not np.allclose(after, before, atol=1e-9)
    assert moved > 50


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


@given(st.lists(st.tuples(st.integers(0, 2500), st.sampled_from([0, 1, 2, 10, 90])), min_size=1, max_size=8),
       st.lists(st.integers(1, 2499), max_size=3))  # fmt: skip
def test_every_patch_finds_a_line_of_the_mesh(held: list[tuple[int, int]], stops: list[int]) -> None:
    """On a grid of a tenth of a millimetre edges stand just as far apart as lines are shared."""
    rows = [(x / 1e4, half / 1e4) for x, half in held]
    mesh = lines(0.25, tuple(sorted(x / 1e4 for x in stops)), _edges(rows), 0.03)
    for x, half in rows:
        assert any(abs(line - x) < _onto(mesh, x, half) + 1e-6 for line in mesh)
    assert all(b > a for a, b in itertools.pairwise(mesh))
    assert _onto(mesh, 0.26, 0.002) >= 0.01 - 1e-9  # beyond the edge it holds the edge
