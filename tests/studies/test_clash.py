"""What collides: convex sums against dense sampling, travel lost by hand, a bracket in the way found and cured."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.machine.changes.change import Weight
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, lay_out
from unterbau.progress import Cancelled
from unterbau.solids.convex import Convex, convex, depth
from unterbau.solids.overlaps import meant, overlaps
from unterbau.solids.solids import Solid, solids
from unterbau.solids.swept import meeting
from unterbau.structure.carrier import STILL
from unterbau.structure.footing import Footing
from unterbau.structure.parts import Hung, Place
from unterbau.structure.screws import screws_of
from unterbau.structure.vectors import Vector
from unterbau.studies.access import access, cylinder, reach_words
from unterbau.studies.clash import clashes, cures_of, grouped, where_words

LOW, HIGH = np.array([-0.5, -0.4, 0.0]), np.array([0.5, 0.4, 0.3])
ZERO: Vector = (0.0, 0.0, 0.0)
STANDING = (ZERO, ZERO, ZERO)
coordinate = st.floats(-1.0, 1.0)


def prism(middle: Vector, size: Vector, angle: float = 0.0, lean: float = 0.0) -> Convex:
    c, s = np.cos(angle), np.sin(angle)
    ring = [(c * p - s * q, s * p + c * q) for p, q in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
    (x, y, z), (a, b, h) = middle, size
    return convex(
        [(x + a * p, y + b * q, z - h) for p, q in ring], [(x + a * p + lean, y + b * q, z + h) for p, q in ring]
    )


def solid(body: Convex, ways: tuple[Vector, Vector, Vector] = STANDING) -> Solid:
    return Solid("", "", "", body, STILL, True, ways=ways)


@settings(max_examples=60)
@given(coordinate, coordinate, coordinate, st.floats(0.0, 3.0), st.floats(-0.2, 0.2), st.sampled_from("XYZ"))
def test_a_meeting_is_what_steps_through_the_travel_find(
    x: float, y: float, z: float, angle: float, lean: float, still: str
) -> None:
    """Against the depth at 11 × 11 × 7 places: met somewhere there is met; never met there is at most barely met."""
    ways = tuple((float(a == "X"), float(a == "Y"), float(a == "Z")) if a != still else ZERO for a in "XYZ")
    moved = solid(prism((0.0, 0.0, 0.0), (0.12, 0.1, 0.15), angle, lean), (ways[0], ways[1], ways[2]))
    other = solid(prism((x, y, z), (0.2, 0.1, 0.1), 0.3))
    found = meeting(moved, other, LOW, HIGH, 1e-4)
    steps = np.stack(np.meshgrid(*[np.linspace(a, b, n) for a, b, n in zip(LOW, HIGH, (11, 11, 7), strict=True)]))
    deepest, met = -1.0, []
    for at in steps.reshape(3, -1).T[::3]:
        off = np.array(ways).T @ at
        deep = depth(Convex(moved.body.corners + off, moved.body.normals, moved.body.edges), other.body)
        deepest = max(deepest, deep)
        if deep > 1e-4:
            met.append(at)
    if found is None:
        assert deepest <= 1e-4
        return
    assert met or deepest > -0.09  # a step is at most 0.1 wide
    for at in met:
        for axis in range(3):
            if found.moving[axis]:
                assert found.low[axis] - 1e-6 <= at[axis] <= found.high[axis] + 1e-6
    off = np.array(ways).T @ np.array(found.at)
    here = depth(Convex(moved.body.corners + off, moved.body.normals, moved.body.edges), other.body)
    assert here >= -1e-7


def test_travel_lost_by_hand() -> None:
    """A box 0.2 long that goes 1.0 along X past another: faces meet where their middles are half of both apart."""
    moved = solid(prism(ZERO, (0.1, 0.1, 0.1)), ((1.0, 0.0, 0.0), ZERO, ZERO))
    found = meeting(moved, solid(prism((0.35, 0.15, 0.0), (0.05, 0.1, 0.1))), LOW, HIGH, 1e-4)
    assert found is not None
    assert found.low[0] == pytest.approx(0.35 - 0.15)
    assert found.high[0] == pytest.approx(0.5)
    assert found.depth == pytest.approx(0.05)
    assert found.moving == (True, False, False)
    beside = solid(prism((0.35, 0.2, 0.0), (0.05, 0.1, 0.1)))
    assert meeting(moved, beside, LOW, HIGH, 1e-4) is None


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_what_overlaps_anywhere_is_among_the_clashes(kind: Kind) -> None:
    """Against the overlaps at single places."""
    machine = kind.model()
    structure = lay_out(machine)
    found = clashes(machine)
    pairs = {frozenset((one.first, one.second)) for one in found.found}
    for x in (0.0, 0.5, 1.0):
        for y, z in ((0.0, 0.0), (1.0, 0.6), (0.3, 1.0)):
            for pair in overlaps(structure, Place(x, y, z)):
                assert pair.meant or frozenset((pair.first, pair.second)) in pairs
    for one in found.found:
        bodies = {body.name: body for body in solids(structure, one.place)}
        assert depth(bodies[one.first].body, bodies[one.second].body) > -1e-6
        assert meant(bodies[one.first], bodies[one.second]) is None
    if kind.id != "lathe":
        assert not found.found


def test_a_bracket_in_the_way_is_found_and_gone_when_it_is_moved() -> None:
    """A bracket on the gantry beam's front stands before the X plate's blocks; on its back nothing is hit."""
    router = MovingGantry()
    bracket = Weight("weight_1", Footing("gantry beam", "front", 0.75, 0.3), "bracket", Hung(0.2, 0.02, 0.04, 0.02))
    found = clashes(replace(router, changes=(bracket,)))
    assert found.found
    assert all("bracket 1" in (one.first, one.second) for one in found.found)
    worst = found.found[0]
    assert worst.moving[0]
    cures = cures_of(worst, replace(router, changes=(bracket,)))
    assert cures[0].startswith("move the bracket 1 by ")
    assert cures[1].startswith("stop X ")
    assert where_words(worst).startswith("where X ")
    behind = replace(bracket, at=Footing("gantry beam", "back", 0.75))
    assert not clashes(replace(router, changes=(behind,))).found


def test_a_carriage_runs_into_the_tailstock_and_one_cure_is_told_for_all() -> None:
    """Travel lost: from where the saddle's edge meets the tailstock's to the travel's end, by the drawn sizes."""
    lathe = Lathe()
    found = clashes(lathe)
    groups = grouped(found.found)
    assert {groups[0].worst.first, groups[0].worst.second} == {"tailstock", "saddle"}
    assert len(groups[0].also) == len(found.found) - len(groups)
    worst = groups[0].worst
    bodies = {one.name: one.body.corners for one in solids(lay_out(lathe), Place(0.5, 0.5, 0.0))}
    gap = bodies["tailstock"][:, 0].min() - bodies["saddle"][:, 0].max()
    travel = lathe.dimensions.travel_x
    assert worst.low[0] == pytest.approx(travel / 2 + gap, abs=1e-6)
    assert f"stop X {(travel - worst.low[0]) * 1e3:g} mm before its end" in cures_of(worst, lathe)[0]
    alone = replace(lathe, dimensions=replace(lathe.dimensions, tailstock=0))
    assert all("tailstock" not in (one.first, one.second) for one in clashes(alone).found)


def test_a_search_for_clashes_can_be_stopped() -> None:
    class Stop:
        def step(self, done: int, total: int, what: str) -> None:
            raise Cancelled

        def found(self, what: object) -> None:
            pass

    with pytest.raises(Cancelled):
        clashes(MovingGantry(), Stop())


def test_rail_screws_are_reached_where_no_block_stands_and_a_saddles_from_below_never() -> None:
    groups = {one.of: one for one in access(KINDS[3].model())}
    rail = next(one for name, one in groups.items() if name.startswith("y_guides rail"))
    assert rail.sometimes > 0
    assert rail.place is not None
    below = groups["saddle on y guides"]
    assert below.never == 16
    assert "table" in below.hidden_by
    assert "never: put in before" in reach_words(below)


def test_the_room_before_a_screw_is_as_long_and_wide_as_told() -> None:
    structure = lay_out(MovingGantry())
    screw = next(one for one in screws_of(structure) if one.of == "bed")
    room = cylinder(screw)
    size = room.corners.max(axis=0) - room.corners.min(axis=0)
    assert size[2] == pytest.approx(0.08)
    assert size[0] == pytest.approx(2 * 0.013, rel=0.09)  # an octagon in a circle of two heads of M8


def test_what_makes_no_machine_makes_no_clash() -> None:
    router = MovingGantry()
    with pytest.raises(InputError):
        clashes(replace(router, dimensions=replace(router.dimensions, travel_x=-1.0)))
