"""Places by name on a router, by hand."""

from dataclasses import replace

import pytest

from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import lay_out, to_frame
from unterbau.structure.parts import Guide, Place
from unterbau.structure.piece import Bar
from unterbau.structure.spots import spot
from unterbau.structure.vectors import minus, plus

STRUCTURE = lay_out(MovingGantry())


def test_a_place_on_the_front_of_a_beam() -> None:
    beam = STRUCTURE.pieces["gantry beam"]
    assert isinstance(beam, Bar)
    found = spot(STRUCTURE, "gantry beam/front@0.25")
    assert found.normal == (0.0, -1.0, 0.0)
    assert found.place == pytest.approx(plus((beam.start[0] + 0.25 * beam.length, *beam.start[1:]), (0, -1, 0), 0.04))
    top = spot(STRUCTURE, "gantry beam/top")
    assert minus(top.place, beam.start)[2] == pytest.approx(0.06)
    assert spot(STRUCTURE, "gantry beam/end").place == beam.end


def test_a_corner_of_the_bed() -> None:
    found = spot(STRUCTURE, "bed/top@0,1")
    assert found.place[2] == pytest.approx(0.0)
    assert found.normal == (0.0, 0.0, 1.0)
    other = spot(STRUCTURE, "bed/top@1,0")
    assert other.place[0] == pytest.approx(-found.place[0])
    assert other.place[1] == pytest.approx(-found.place[1])


@pytest.mark.parametrize(
    "name", ["gantry beam", "no such/top", "bed/inside", "gantry beam/left@0.5", "bed/top@1.5", "bed/top@1.2.3"]
)
def test_what_is_not_there_is_said(name: str) -> None:
    with pytest.raises(InputError) as error:
        spot(STRUCTURE, name)
    assert error.value.where == name


def test_blocks_that_would_stand_in_each_other_are_refused() -> None:
    router = MovingGantry()
    tight = replace(router, dimensions=replace(router.dimensions, y_stance=0.06), y_guides=Guide("20"))
    with pytest.raises(InputError, match="at least 75 mm, got 60 mm") as error:
        to_frame(tight, Place())
    assert error.value.where == "dimensions.y_stance"
    with pytest.raises(InputError, match="at least 225 mm"):
        to_frame(
            replace(router, y_guides=Guide("20", blocks=4), dimensions=replace(router.dimensions, y_stance=0.2)),
            Place(),
        )
