"""Pieces as closed bodies: volumes by hand, masses by volume, nothing inside another but what is meant."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.machine.kind import Kind
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.machine import KINDS, lay_out
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.solids.convex import convex, depth
from unterbau.solids.overlaps import overlaps
from unterbau.solids.solids import Solid, solids
from unterbau.structure.ends import sawn
from unterbau.structure.join import GussetJoin
from unterbau.structure.lines import step_mass
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar, PlatePiece, Rod
from unterbau.structure.vectors import Vector

each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)


def box(low: Vector, high: Vector) -> Solid:
    ring = [(low[0], low[1]), (high[0], low[1]), (high[0], high[1]), (low[0], high[1])]
    body = convex([(x, y, low[2]) for x, y in ring], [(x, y, high[2]) for x, y in ring])
    return Solid("", "", "", body, None, True)  # type: ignore[arg-type]


def test_boxes_reach_into_each_other_as_far_as_they_do() -> None:
    a = box((0.0, 0.0, 0.0), (1.0, 1.0, 1.0)).body
    assert a.volume == pytest.approx(1.0)
    assert depth(a, box((0.9, 0.2, 0.2), (2.0, 0.8, 0.8)).body) == pytest.approx(0.1)
    assert depth(a, box((1.0, 0.0, 0.0), (2.0, 1.0, 1.0)).body) == pytest.approx(0.0, abs=1e-12)
    assert depth(a, box((1.3, 0.0, 0.0), (2.0, 1.0, 1.0)).body) == pytest.approx(-0.3)


@given(st.floats(-1.2, 1.2), st.floats(-1.2, 1.2), st.floats(-1.2, 1.2), st.floats(0.0, 6.28))
def test_a_turned_box_is_apart_where_no_point_is_in_both(x: float, y: float, z: float, angle: float) -> None:
    """Against points of a fine grid: a point in both bodies means they reach into each other."""
    c, s = np.cos(angle), np.sin(angle)
    ring = [(x + c * p - s * q, y + s * p + c * q) for p, q in ((-0.3, -0.2), (0.3, -0.2), (0.3, 0.2), (-0.3, 0.2))]
    turned = convex([(p, q, z - 0.25) for p, q in ring], [(p, q, z + 0.25) for p, q in ring])
    still = box((-0.5, -0.5, -0.5), (0.5, 0.5, 0.5)).body
    grid = np.stack(np.meshgrid(*[np.linspace(-0.999, 0.999, 9)] * 3, indexing="ij"), axis=-1).reshape(-1, 3)
    local = grid * np.array([0.3, 0.2, 0.25])
    inside = np.stack(
        [x + c * local[:, 0] - s * local[:, 1], y + s * local[:, 0] + c * local[:, 1], z + local[:, 2]], 1
    )
    if (np.abs(inside) < 0.5 - 1e-9).all(axis=1).any():
        assert depth(turned, still) > 0.0
    if depth(turned, still) < -1e-9:
        assert not (np.abs(inside) < 0.5).all(axis=1).any()


@each_kind
def test_bodies_weigh_what_the_list_says(kind: Kind) -> None:
    """Density times the closed body, less the hollow of bars; arcs as chords."""
    structure = lay_out(kind.model())
    bodies = {one.name: one for one in solids(structure, Place())}
    for step in structure.flat:
        name = step.plate.name if isinstance(step, GussetJoin) else getattr(step, "name", "")
        if isinstance(step, PlatePiece):
            expected = material(step.material).rho * bodies[step.name].body.volume
        elif isinstance(step, GussetJoin):
            expected = material(step.plate.material).rho * bodies[step.plate.name].body.volume
        elif isinstance(step, Rod):
            expected = material(step.material).rho * bodies[step.name].body.volume * np.pi / (8 * np.sin(np.pi / 8))
        elif isinstance(step, Bar) and step.part.section_name.startswith(("rhs", "shs", "box")) and not step.part.fill:
            shape, cut = section(step.part.section), sawn(structure)[step.name]
            outside = bodies[step.name].body.volume / cut.length
            walls = outside - shape.cavity.A  # type: ignore[union-attr]
            assert walls == pytest.approx(shape.properties.A, rel=0.06), step.name  # corners are round
            continue
        else:
            continue
        assert step_mass(structure, step) == pytest.approx(expected, rel=2e-3), name


@each_kind
def test_no_piece_is_inside_another_but_where_it_is_meant(kind: Kind) -> None:
    for one in overlaps(lay_out(kind.model()), Place()):
        assert one.meant is not None, one


def test_crossing_braces_are_laps() -> None:
    found = [one for one in overlaps(lay_out(BracedMill()), Place()) if one.meant == "lap"]
    assert len(found) == 2
    assert [one.depth for one in found] == pytest.approx([0.04, 0.04], abs=1e-3)


@each_kind
def test_bodies_move_with_their_carriers(kind: Kind) -> None:
    structure = lay_out(kind.model())
    low, high = (solids(structure, Place(*place)) for place in ((0.2, 0.3, 0.1), (0.9, 0.6, 0.8)))
    way = np.subtract(structure.way(Place(0.9, 0.6, 0.8)), structure.way(Place(0.2, 0.3, 0.1)))
    moved = 0
    for a, b in zip(low, high, strict=True):
        expected = np.array([a.carrier.x, a.carrier.y, a.carrier.z]) * way
        assert b.body.corners - a.body.corners == pytest.approx(np.tile(expected, (len(a.body.corners), 1)), abs=1e-12)
        moved += bool(a.carrier.axes)
    assert moved > 4
