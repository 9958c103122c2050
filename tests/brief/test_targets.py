"""What follows from a brief: forces by the worked table, stiffness by force over error."""

from dataclasses import replace
from typing import Any

import pytest

from unterbau.brief.brief import TOOLS, Brief, check_brief
from unterbau.brief.targets import targets
from unterbau.catalogue.cuts import cuts
from unterbau.errors import InputError

WORKED = {
    "softwood": 30, "hardwood-light": 13, "hardwood": 35, "mdf": 42, "acrylic": 42, "aluminium-light": 88.6,
    "aluminium": 133, "brass": 28, "steel-light": 61.4, "steel": 207, "stainless": 243,
    "turn-aluminium": 62.2, "turn-aluminium-heavy": 253, "turn-steel-light": 29.6, "turn-steel": 132,
    "turn-steel-heavy": 553,
}  # fmt: skip
"""Peak force, N: kc = kc1.1·h^-mc (Kienzle), summed over the teeth in the cut; kc1.1 and mc from memory."""


@pytest.mark.parametrize("name", WORKED)
def test_forces_are_those_of_the_worked_table(name: str) -> None:
    found = targets(Brief(cuts=(name,)))
    assert found.force.likely == WORKED[name]
    assert found.force.low == pytest.approx(0.6 * WORKED[name])
    assert found.force.high == pytest.approx(1.4 * WORKED[name])
    assert cuts()[name].label in found.force_words


def test_the_hardest_cut_counts_and_half_the_error_is_the_frames() -> None:
    found = targets(Brief(cuts=("hardwood-light", "brass", "aluminium"), accuracy=5e-5))
    assert found.force.likely == 133
    assert found.stiffness[0] == pytest.approx(133 / 25e-6)
    assert found.stiffness[2] == pytest.approx(found.stiffness[0] / 3)
    assert "133 N ÷ 25 µm" in found.stiffness_words
    assert "thou" in targets(Brief(), "inch").stiffness_words
    assert found.usual.label == "aluminium router"


def test_too_much_asked_is_said() -> None:
    found = targets(Brief(cuts=("steel",), accuracy=5e-6))
    assert "More is asked" in found.picky_words
    assert found.picky
    assert "More is asked" not in targets(Brief()).picky_words


def test_light_processes_load_by_their_own_mass() -> None:
    """2 kg at 5 m/s²: 10 N; worked example, and m·a."""
    found = targets(Brief(process="laser", acceleration=5.0))
    assert found.force.likely == pytest.approx(10.0)
    assert not found.picky
    assert "Not picky" in found.picky_words
    assert found.mode > 20
    knife = targets(Brief(process="knife", acceleration=2.0))
    assert knife.force.low < knife.force.likely < knife.force.high
    carried = targets(Brief(process="carrying", payload=3.0, acceleration=2.0))
    assert carried.force.likely == pytest.approx(6.0)


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"accuracy": 0.0}, "accuracy"), ({"accuracy": 0.1}, "accuracy"), ({"work_x": -1.0}, "work_x"),
        ({"cuts": ("cheese",)}, "cuts"), ({"tools": ("magic",)}, "tools"), ({"lift": 1e9}, "lift"),
        ({"last_machine": "x" * 3000}, "last_machine"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused(change: dict[str, Any], where: str) -> None:
    with pytest.raises(InputError) as error:
        check_brief(replace(Brief(), **change))
    assert error.value.where == where


def test_an_open_brief_is_answered() -> None:
    check_brief(Brief(cuts=()))
    assert targets(Brief(cuts=())).force.likely == WORKED["hardwood"]
    check_brief(Brief(tools=tuple(TOOLS)))


def test_a_finer_finish_leaves_the_frame_a_smaller_share_of_the_error() -> None:
    needed = [targets(Brief(finish=name)).stiffness[0] for name in ("open", "rough", "smooth", "fine")]
    assert needed[0] == needed[1] < needed[2] < needed[3]
    assert needed[3] == pytest.approx(35 / 25e-6)
    assert "a quarter of the error" in targets(Brief(finish="fine")).stiffness_words


def test_the_feed_that_matters() -> None:
    """Hardwood, ⌀8, 2 teeth, 0.15 mm, 16,000 turns: 4.8 m/min; v²/2s over 5 mm is 0.64 m/s²."""
    words = targets(Brief(cuts=("hardwood", "steel"))).speed_words
    assert "4.8 m/min" in words
    assert "0.64 m/s²" in words
    assert "Acceleration matters" in targets(Brief(process="laser")).speed_words


def test_turning_loads_by_feed_passive_and_cutting_force() -> None:
    """Fc = kc·ap·f, Ff about 0.4 and Fp about 0.35 of it; from memory."""
    found = targets(Brief(cuts=("turn-steel",), accuracy=2e-5))
    assert found.stiffness == pytest.approx((0.4 * 132 / 1e-5, 0.35 * 132 / 1e-5, 132 / 1e-5))
    assert found.usual.label == "lathe"
    assert "passive force along Y" in found.stiffness_words
