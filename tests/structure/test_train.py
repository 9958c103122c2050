"""What drives are bought of: sizes that hold the torque, places on the axis, masses where they hang, one price."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.catalogue.drives import drives
from unterbau.catalogue.prices import shipped_prices
from unterbau.catalogue.train import motor_size, train
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, lay_out, moving_masses, to_frame
from unterbau.mechanics.statics import total_mass
from unterbau.parts_list.bill import priced
from unterbau.solids.overlaps import overlaps
from unterbau.solids.solids import solids
from unterbau.structure.lines import lines_of
from unterbau.structure.motion import DriveTrain
from unterbau.structure.parts import Drive, Motor, Place
from unterbau.structure.train import train_parts
from unterbau.structure.vectors import dot, minus

ENDS = (Place(), Place(0.0, 0.0, 0.0), Place(1.0, 1.0, 1.0))


def trains(machine: object) -> list[DriveTrain]:
    return [one for one in lay_out(machine).flat if isinstance(one, DriveTrain)]  # type: ignore[arg-type]


def test_a_motor_holds_what_is_asked_and_the_next_smaller_does_not() -> None:
    for kind in ("stepper", "closed-loop", "servo"):
        size = motor_size(kind, 2.0)
        assert size.torque >= 2.0
        assert motor_size(kind, size.torque).body == size.body
        assert motor_size(kind, size.torque * 1.01).body.mass > size.body.mass
    assert motor_size("stepper", 1e3).body.mass > motor_size("stepper", 20.0).body.mass


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.model().kind)
def test_all_parts_stand_on_their_axis_and_none_in_anothers_way(kind: Kind) -> None:
    machine = kind.model()
    structure = lay_out(machine)
    for one in trains(machine):
        parts = train_parts(one, structure)
        assert len({part.name for part in parts}) == len(parts)
        assert sum(part.sort == "motor" for part in parts) == train(one.drive.kind).motors
        screw = parts[0]
        for part in parts:
            if part.sort in ("nut", "bearing", "coupling"):
                off = minus(part.start, screw.start)
                along = dot(off, one.along)
                assert np.hypot(*np.array(off)[np.abs(np.array(one.along)) < 0.5]) < 0.012
                assert -0.1 < abs(along) < one.length + 0.1
    if machine.kind != "lathe":  # its carriage meets the tailstock at the end of its travel: told as a clash
        for place in ENDS:
            found = [one for one in overlaps(structure, place) if one.meant is None]
            assert not [one for one in found if any(word in one.first + one.second for word in ("motor", "bearing "))]


def test_a_rack_moves_its_motor_and_a_belts_motor_stands() -> None:
    machine = replace(MovingGantry(), y_drive=Drive("rack-1-geared", count=2))
    moved = moving_masses(machine)["Y"] - moving_masses(replace(machine, y_drive=Drive("belt-15-glass", 2)))["Y"]
    both = 2 * (1.1 + 0.55 + 0.06 - 0.05)
    assert moved == pytest.approx(both, abs=1e-9)
    bodies = [one for place in (0.0, 1.0) for one in solids(lay_out(machine), Place(0.5, place, 0.0))]
    low, high = (one.body.corners[:, 1].mean() for one in bodies if one.name == "y_drive motor 1")
    assert high - low == pytest.approx(machine.dimensions.travel_y, rel=1e-9)


def test_crossed_belts_have_a_motor_at_two_corners() -> None:
    machine = replace(LightTable(), x_drive=Drive("belt-15-crossed"), y_drive=Drive("belt-15-crossed"))
    motors = [part for one in trains(machine) for part in train_parts(one, lay_out(machine)) if part.sort == "motor"]
    places = {tuple(np.round(part.start, 6)) for part in motors if part.at == "corner"}
    assert len(places) == 2


def test_a_stronger_motor_weighs_more_in_list_and_frame_and_the_set_is_priced_once() -> None:
    machine = MovingGantry()
    strong = replace(machine, x_motor=Motor("stepper", 4.5))
    frames = [total_mass(to_frame(one, Place(), "likely").frame)[0] for one in (machine, strong)]
    lists = [sum(line.mass for line in lines_of(lay_out(one))) for one in (machine, strong)]
    assert frames[1] - frames[0] == pytest.approx(lists[1] - lists[0])
    assert lists[1] - lists[0] == pytest.approx(2.3 - 1.1)
    items = [one for one in priced(lines_of(lay_out(machine)), shipped_prices()) if one.part.startswith("x_")]
    assert all(one.priced for one in items)
    dear = [one for one in items if one.money and "drive" in one.part]
    assert [one.price for one in dear] == ["drive:ballscrew-16"]
    assert any(one.text.startswith("stepper 56") for one in bill_of(machine))


def test_every_drive_says_what_it_is_bought_of() -> None:
    for name, kind in drives().items():
        parts = train(name).parts
        wanted = {"fixed", "floating", "nut", "coupling"} if kind.nut and "pinion" not in parts else set()
        assert wanted <= set(parts)
        assert all(one.mass > 0.0 and one.across > 0.0 and one.length > 0.0 for one in parts.values())
