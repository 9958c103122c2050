"""Members with rails against solid finite elements of the same parts: quadratic bricks, screws every 60 mm, no beams.

The solids were solved with calculix-ccx by `tests/validation/solid/run.py`; their flexibilities at the blocks are
stored beside it. A rigid carriage on this program's own blocks is put on both, and the tip compared along y and z.
"""

import json
from pathlib import Path

import numpy as np
import pytest

from tests.validation.solid.cases import CASES, Case, case, solid
from tests.validation.solid.members import flexibility, in_metres, tip

STORED = json.loads((Path(__file__).parent / "solid" / "results.json").read_text(encoding="utf-8"))
WITHIN = 0.10
"""Of the tip."""


@pytest.mark.parametrize("one", CASES, ids=lambda one: one.name)
def test_the_tip_is_that_of_the_solid(one: Case) -> None:
    theirs = tip(one, in_metres(np.array(STORED[one.name])))
    ours = tip(one, flexibility(one))
    assert ours == pytest.approx(theirs, rel=WITHIN)


def test_a_stored_flexibility_is_symmetric_and_gives_way() -> None:
    """Maxwell and Betti; a solid that is pushed moves with the push."""
    for name, rows in STORED.items():
        F = in_metres(np.array(rows))
        size = np.sqrt(np.outer(np.diag(F), np.diag(F))) + 1e-30
        known = np.abs(F) > 0.0
        assert np.abs((F - F.T) / size)[known & known.T].max() < 2e-3, name
        assert (np.diag(F) >= 0.0).all()


def test_walls_are_what_beams_leave_out() -> None:
    """Without them the thin tube's tip would be told little more than half as soft as the solid is."""
    thin = case("thin and square")
    bare = tip(thin, flexibility(thin, walls=False))
    theirs = tip(thin, in_metres(np.array(STORED[thin.name])))
    assert (bare < 0.65 * theirs).all()


def test_the_mesh_is_that_of_the_case() -> None:
    """Nodes of a rail are its own but in its screws' patches."""
    body = solid(case("one on top"))
    places = np.array([tuple(node) for node in body.nodes])
    at_seat = places[np.abs(places[:, 2] - 60.0) < 1e-9]
    unique = np.unique(np.round(at_seat, 6), axis=0)
    assert len(at_seat) > len(unique), "the rail is tied to the wall everywhere"
    nodes, share, _ = body.pad_weights(body.pads[0])
    assert share.sum() == pytest.approx(75.0 * 20.0)
    _, loads = body.unit_loads(body.pads[0])
    arm = np.array([body.nodes[n] for n in nodes]) - body.pads[0].middle
    for d in range(3):
        assert loads[d].sum(axis=0) == pytest.approx(np.eye(3)[d], abs=1e-9)
        assert np.cross(arm, loads[3 + d]).sum(axis=0) == pytest.approx(np.eye(3)[d], abs=1e-9)
