"""Cast bases against solid bodies of quadratic bricks, solved by `tests/validation/solid/base.py` and stored there."""

import json
from math import inf

import pytest

from tests.validation.solid.base import BASES, LOADS, STORED, Base, dents, shells, solid

TOLD: dict[str, list[float]] = json.loads(STORED.read_text(encoding="utf-8"))


@pytest.mark.parametrize("one", BASES, ids=lambda one: one.name)
def test_a_base_gives_as_the_solid_does(one: Base) -> None:
    """Twisted by its corners, bent by its middle; pads sink into the solid besides."""
    assert shells(one) + dents(one) == pytest.approx(TOLD[one.name], rel=0.12)


def test_what_is_solved_is_in_balance_and_what_it_should_be() -> None:
    for _, shares in LOADS:
        assert sum(shares) == 0.0
    body = solid(BASES[0])
    low, high = (min(inf, *(place[2] for place in body.nodes)), max(place[2] for place in body.nodes))
    stand = BASES[0].stand
    assert (low, high) == pytest.approx((-1e3 * stand.rib_height, 1e3 * stand.thickness))
    assert TOLD["ribbed"][1] < TOLD["thin, many ribs"][1]
