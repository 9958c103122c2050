"""Crossed belts: tension on the corners, stiffness of the long way, motors that stand."""

from dataclasses import replace

import pytest

from unterbau.band import Band
from unterbau.catalogue.drives import drive
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.machine import lengths, moving_masses
from unterbau.model.member import member_values
from unterbau.structure.parts import Drive, Joint
from unterbau.studies.belts import corner_pull

CROSSED = Drive("belt-15-crossed")
TABLE = replace(LightTable(), x_drive=CROSSED, y_drive=Drive("belt-15-crossed", 2))


def test_tension_pulls_corners_together() -> None:
    """At least what the side beam alone shortens, T·L/2EA; softer corners give more."""
    found = corner_pull(TABLE, CROSSED)
    assert found is not None
    assert found.low < found.likely < found.high
    v = member_values(TABLE.side_beam)
    assert found.likely > 100 * lengths(TABLE)["side_beam"] / (2 * v.E * v.A)
    welded = corner_pull(replace(TABLE, cross_joint=Joint("weld")), CROSSED)
    assert welded is not None
    assert welded.likely < found.likely
    assert welded.likely < 1e-3


def test_only_crossed_belts_on_a_frame_pull() -> None:
    assert corner_pull(TABLE, Drive("belt-15-glass")) is None
    assert corner_pull(Lathe(), CROSSED) is None
    assert drive("belt-15-crossed").tension == Band(50.0, 100.0, 200.0)


def test_the_long_way_is_softer_and_the_motor_stands() -> None:
    """EA·(1/L1 + 1/L2) with the belt's whole way, about four lengths."""
    plain, crossed = drive("belt-15-glass"), drive("belt-15-crossed")
    assert crossed.stiffness("likely", 0.5, 1.0) == pytest.approx(90e3 * (1 / 1.5 + 1 / 2.5))
    assert crossed.stiffness("likely", 0.5, 1.0) < plain.stiffness("likely", 0.5, 1.0)
    moved = moving_masses(TABLE)["Y"]
    assert moved < moving_masses(LightTable())["Y"] - 0.5
