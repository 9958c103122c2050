"""Stands under the feet: springs in series by hand, what they weigh, how they shake."""

from dataclasses import replace
from math import pi

import pytest

from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, bodies_of, lay_out, to_frame
from unterbau.mechanics.statics import total_mass
from unterbau.model.member import member_values
from unterbau.model.stand import CASTER, FOOT
from unterbau.parts_list.bill import total_mass as bill_mass
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Place, Stand
from unterbau.structure.stand import LABELS, LEGS, stand_lines
from unterbau.studies.answers import answers, likely_answers

FEET = [(0.0, 0.0, 0.0), (0.9, 0.0, 0.0), (0.0, 0.6, 0.0), (0.9, 0.6, 0.0)]


def foot_springs(stand: Stand) -> list[float]:
    """Return upright and sideways stiffness of the first foot, N/m."""
    frame = to_frame(replace(MovingGantry(), stand=stand), Place(), "likely").frame
    grounded = frame.springs.k[frame.springs.j < 0]
    assert len(grounded) == 4
    return [float(grounded[0][0]), float(grounded[0][1])]


def test_a_firm_floor_gives_the_foot_alone() -> None:
    upright, across = foot_springs(Stand("firm"))
    assert (across, upright) == FOOT["likely"]
    upright, across = foot_springs(Stand("firm", casters=True))
    assert (across, upright) == CASTER["likely"]


def test_a_bench_sways_with_what_stands_on_it() -> None:
    """k = m·(2πf)² over its feet at 10 Hz, in series with them (below it); f is common practice, no source."""
    machine = replace(MovingGantry(), stand=Stand())
    frame = to_frame(machine, Place(), "likely").frame
    k = (total_mass(frame)[0] - 4 * 0.15) * (2 * pi * 10.0) ** 2 / 4
    assert foot_springs(Stand())[1] == pytest.approx(1 / (1 / k + 1 / FOOT["likely"][0]), rel=1e-6)


@pytest.mark.parametrize("kind", ["welded", "profile"])
def test_legs_are_in_series_with_their_feet(kind: str) -> None:
    """12EI/h³ welded, 3EI/h³ bolted; EA/h."""
    stand = Stand(kind, 0.8)  # type: ignore[arg-type]
    member, factor = LEGS[stand.kind]
    v = member_values(member)
    leg = factor * v.E * min(v.Iy, v.Iz) / 0.8**3
    upright, across = foot_springs(stand)
    assert 1 / across == pytest.approx(1 / FOOT["likely"][0] + 1 / leg)
    assert 1 / upright == pytest.approx(1 / FOOT["likely"][1] + 0.8 / (v.E * v.A))
    assert factor == {"welded": 12, "profile": 3}[kind]


def test_a_block_weighs_its_concrete_and_stills_the_machine() -> None:
    """Common practice, no source: an old machine shakes its own table; 90 kg of base end that."""
    lines = stand_lines(Stand("block", 0.1), FEET)
    assert lines[1].mass == pytest.approx(2350 * 1.0 * 0.7 * 0.1)
    shaky = replace(MovingGantry(), stand=Stand("profile", 0.8))
    still = replace(MovingGantry(), stand=Stand("block", 0.1))
    lowest = [answers(machine, Place()).modes[0].frequency.likely for machine in (shaky, still)]
    assert lowest[0] < 0.8 * lowest[1]


def test_a_stand_is_off_the_path() -> None:
    """Pull and push are inside the machine: what is below the feet hardly counts."""
    one, two = (replace(MovingGantry(), stand=stand) for stand in (Stand("firm"), Stand("profile", 0.9, casters=True)))
    for axis in range(3):
        gives = [likely_answers(machine, Place())[0].compliance[axis, axis] for machine in (one, two)]
        assert gives[0] == pytest.approx(gives[1], rel=0.02)


@pytest.mark.parametrize("kind", [k for k in KINDS if k.id != "wall-axis"], ids=lambda k: k.id)
def test_every_kind_stands_on_every_stand(kind: Kind) -> None:
    for name in LABELS:
        machine = replace(kind.model(), stand=Stand(name, 0.6, casters=name == "plywood"))
        frame = to_frame(machine, Place(0.2, 0.8, 0.5), "likely").frame
        hidden = sum(bar.hidden for bar in sawn(lay_out(machine)).values())
        assert bill_mass(bill_of(machine)) + hidden == pytest.approx(total_mass(frame)[0], rel=1e-9)
        drawn = [body for body in bodies_of(machine, Place()) if body.key == "stand"]
        assert len(drawn) == {"firm": 0, "bench": 0, "plywood": 1, "block": 1}.get(name, len(drawn))
        assert name not in LEGS or len(drawn) >= 4
