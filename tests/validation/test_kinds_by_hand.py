"""Single parts of each kind of machine by hand: Castigliano's theorem on a straight part, ∫ M²/EI + V²/GA.

The give of a part under a pull is twice its strain energy for 1 N. Where a part carries a load that
statics alone gives, its share is a textbook integral (Timoshenko, Strength of Materials).
"""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.machine import KINDS, Machine, to_frame
from unterbau.model.member import member_values, round_values
from unterbau.structure.parts import Member, Place
from unterbau.studies.answers import likely_answers

X, Y, Z = range(3)


def give(machine: Machine, key: str, axis: int, place: Place | None = None) -> float:
    """Return a link's give under a pull, m/N."""
    shares = likely_answers(machine, place or Place())[0].shares
    return float(shares.compliance[axis][shares.keys.index(key)].sum())


@pytest.mark.parametrize("place", [0.2, 0.5, 0.9])
@pytest.mark.parametrize("axis", [Y, Z])
def test_work_in_the_chuck_alone_is_a_cantilever(axis: int, place: float) -> None:
    """F·a³/3EI + F·a/κGA, the tool at the spindle's axis."""
    machine = replace(Lathe(), dimensions=replace(Lathe().dimensions, tailstock=0))
    work = machine.work
    a = place * machine.dimensions.travel_x + 0.01
    v = round_values(work.diameter, work.material)
    by_hand = a**3 / (3 * v.E * v.Iy) + a / (v.G * v.Asy)
    assert give(machine, "work", axis, Place(place, 0.0)) == pytest.approx(by_hand, rel=1e-6)


def test_the_wall_arm_hangs_like_a_cantilever() -> None:
    """Pulled up at the tool, distance L2 from its end: (L1³ − L2³)/3EI + (L1 − L2)/κGA."""
    machine = WallAxis()
    built = to_frame(machine, Place(), "likely")
    nodes = built.frame.nodes[list(built.chains["arm"])]
    far, near = float(nodes[0][1]), float(nodes[-1][1])
    v = member_values(machine.arm)
    by_hand = (far**3 - near**3) / (3 * v.E * v.Iy) + (far - near) / (v.G * v.Asz)
    assert give(machine, "arm", Z) == pytest.approx(by_hand, rel=1e-6)


def test_arm_and_column_of_the_arm_mill() -> None:
    """Pulled up at the tool: the arm as above; the column bent by the same moment all along, and stretched."""
    machine = ArmMill()
    built = to_frame(machine, Place(), "likely")
    arm, column = (built.frame.nodes[list(built.chains[name])] for name in ("arm", "column"))
    far, near = float(arm[0][1]), float(arm[-1][1])
    v = member_values(machine.arm)
    by_hand = (far**3 - near**3) / (3 * v.E * v.Iy) + (far - near) / (v.G * v.Asz)
    assert give(machine, "arm", Z) == pytest.approx(by_hand, rel=1e-6)
    height = machine.dimensions.arm_height - float(column[0][2])
    v = member_values(machine.column)
    by_hand = far**2 * height / (v.E * v.Iy) + height / (v.E * v.A)
    assert give(machine, "column", Z) == pytest.approx(by_hand, rel=1e-6)


def test_a_light_bridge_lies_between_pinned_and_clamped() -> None:
    """Pulled up in the middle: F·L³/48EI pinned, /192EI clamped, and the twist by the head's overhang left out."""
    machine = LightTable()
    built = to_frame(machine, Place(), "likely")
    length = float(np.ptp(built.frame.nodes[list(built.chains["gantry beam"])][:, 0]))
    v = member_values(machine.gantry_beam)
    shares = likely_answers(machine, Place())[0].shares
    bent = float(shares.compliance[Z][shares.keys.index("gantry_beam")][3])
    assert length**3 / (192 * v.E * v.Iy) < bent < length**3 / (48 * v.E * v.Iy) * 1.2


def test_a_heavier_carriage_sags_the_wall_axis_more_between_anchors() -> None:
    """Common practice, no source: anchors closer together, less droop; a stiffer beam, less again."""
    machine = WallAxis()
    closer = replace(machine, dimensions=replace(machine.dimensions, anchor_spacing=0.4))
    stiffer = replace(closer, wall_beam=Member("rhs-160x80x5", "steel-s235"))
    assert give(machine, "wall_beam", Z) > give(closer, "wall_beam", Z)
    assert give(closer, "wall_beam", Z) > give(stiffer, "wall_beam", Z)


CLASSES = {
    "moving-gantry-router": (0.3, 5), "raised-side-router": (0.2, 5), "fixed-bridge-router": (1, 10),
    "column-mill": (3.5, 30), "arm-mill": (0.9, 10), "braced-mill": (2.5, 30), "lathe": (6, 40),
    "light-table": (0.03, 0.5), "slab-router": (1, 10), "wall-axis": (0.01, 0.1),
}  # fmt: skip
"""Likely N/µm in the softest axis, common practice, no source: wood routers 0.5 to 5, metal routers 3 to 10,
hobby steel mills 10 to 30, lathes 10 to 40, light processes 0.1 to 0.5. The demo machines lie at the lower
end or below: joints, guides and walls hold most of the movement, a fluted ⌀6 cutter in its collet alone gives
3 N/µm. The wall axis
carries a camera on a long arm and needs none of it; half of the lathe's give is its long thin work."""


@pytest.mark.parametrize("kind", CLASSES)
def test_every_kind_lies_in_the_range_of_its_class(kind: str) -> None:
    machine = next(one for one in KINDS if one.id == kind).model()
    softest = 1e-6 / likely_answers(machine, Place())[0].compliance.diagonal().max()
    low, high = CLASSES[kind]
    assert low <= softest <= high
