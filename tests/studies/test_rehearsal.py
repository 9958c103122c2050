"""A rehearsed machine: its instruments say what is hidden, within what they can; learning finds the loose joint."""

import numpy as np
import pytest

from unterbau.errors import InputError
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import listed_mass
from unterbau.shop.build.tests import Test
from unterbau.shop.measure.push import push_test
from unterbau.shop.measure.reading_words import HINTS, read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.shop.measure.tap import tap_test
from unterbau.structure.parts import Place
from unterbau.studies.compliance import tip_compliance
from unterbau.studies.learning.learn import learn
from unterbau.studies.learning.springs import ScaledSprings
from unterbau.studies.rehearsal.instruments import EDGE, SPAN, Rehearsal

DIAL = Instrument()


@pytest.fixture(scope="module")
def stands() -> Rehearsal:
    return Rehearsal(MovingGantry(), 3)


def test_every_bench_reads_what_is_hidden(stands: Rehearsal) -> None:
    hidden = stands.hidden
    wanted = {
        "parallel": hidden.apart, "crossed strings": hidden.twisted / 2, "square reversed": hidden.square * SPAN,
        "column": hidden.leant[0] * SPAN, "both ways": hidden.backlash, "arm": hidden.leant[1] * 0.15,
        "diagonals": hidden.square * 1.25 * EDGE, "level": hidden.twisted, "straightness": abs(hidden.bent),
    }  # fmt: skip
    for bench in HINTS:
        found = read_bench(bench, stands.bench(bench), 20e-6, DIAL).value
        if bench in wanted:
            assert abs(found.value - wanted[bench]) < max(2 * found.uncertainty, 6e-6), bench
    lean = read_bench("tram", stands.bench("tram"), 20e-6, DIAL).value
    assert lean.value == pytest.approx(max(abs(one) for one in hidden.leant) * 0.2, abs=6e-6)
    with pytest.raises(InputError, match="no readings"):
        stands.bench("weather")


def test_a_push_reads_the_true_give_and_the_hidden_play(stands: Rehearsal) -> None:
    true = tip_compliance(ScaledSprings(MovingGantry()).solved(Place(), np.array(stands.hidden.theta)))
    for number, axis in enumerate("XYZ"):
        found = push_test(*stands.push(axis))
        assert found.stiffness == pytest.approx(1 / true[number, number], rel=0.08)
        assert found.hysteresis > 0.0
    assert stands.weigh().value == pytest.approx(listed_mass(MovingGantry()) * stands.hidden.weighs, abs=0.1)
    assert stands.temperature().value == pytest.approx(21.0, abs=1.0)


def test_a_tap_rings_with_the_modes_of_the_machine_that_stands(stands: Rehearsal) -> None:
    model = ScaledSprings(MovingGantry())
    logs, _ = model.modes(model.solved(Place(), np.array(stands.hidden.theta)))
    heard = [one.frequency for one in tap_test(*stands.tap()).peaks]
    for wanted in np.exp(logs[:2]):
        assert min(abs(one / wanted - 1.0) for one in heard) < 0.02, "two closer than they are wide ring as one"


def read_at_the_desk(stands: Rehearsal) -> tuple[Test, ...]:
    found = []
    for place in (Place(), Place(0.0, 0.0, 0.0), Place(1.0, 1.0, 0.0)):
        for axis in ("X", "Y", "Z"):
            value = push_test(*stands.push(axis, place)).stiffness
            found.append(Test("a", "push", value, 0.03, axis, place.x, place.y, place.z))
    heard = max(tap_test(*stands.tap()).peaks, key=lambda one: one.height)
    return (*found, Test("a", "tap", heard.frequency, 0.01))


def test_learning_names_the_joint_that_was_left_loose() -> None:
    machine = ColumnMill()
    stands = Rehearsal(machine, 4)
    found = learn(machine, read_at_the_desk(stands))
    named = {key for group in found.loose for key in group} | {key for key, _ in found.suspected}
    assert stands.hidden.loose in named
    assert stands.hidden.words(machine)


def test_the_same_seed_hides_the_same(stands: Rehearsal) -> None:
    assert Rehearsal(MovingGantry(), 3).hidden == stands.hidden
    assert Rehearsal(MovingGantry(), 4).hidden != stands.hidden
