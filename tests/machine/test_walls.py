"""Walls that give, against closed forms of strips and frames; what cures them; how they stand in a frame."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.machine.alternatives import alternatives
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bill_of
from unterbau.mechanics.folded_plate import Strips, Y, Z, relative_flexibility
from unterbau.mechanics.frame import CAUSES, DISTORTION, WALL
from unterbau.mechanics.statics import total_mass
from unterbau.model.section_walls import Bearing
from unterbau.model.walls import WAVES, dents, give, has_walls
from unterbau.structure.parts import Guide, Joint, Member, Place
from unterbau.studies.answers import likely_answers
from unterbau.studies.explain import explain

E, NU = 210e9, 0.3
G = E / 2 / (1 + NU)
TUBE = Member("box-100x100x4", "steel-s235")


def square(side: float, t: float, cut: int = 8) -> Strips:
    """Return a square tube by its middle line, corners not solid."""
    line = np.linspace(-side / 2, side / 2, cut + 1)
    h = side / 2
    ring = [(-h, z) for z in line[:-1]] + [(y, h) for y in line[:-1]]
    ring += [(h, -z) for z in line[:-1]] + [(-y, -h) for y in line[:-1]]
    n = len(ring)
    return Strips(np.array(ring), tuple((i, (i + 1) % n) for i in range(n)), (t,) * n, (1.0,) * n, E, G, NU)


def test_a_square_tube_distorts_as_a_frame_and_its_walls_bend() -> None:
    """Racked frame: 48·D/b a metre and turn of a face; four walls bending in their planes: E·t·b⁵/12 (by hand)."""
    b, t = 0.1, 0.003
    strips = square(b, t)
    loads = np.zeros((4 * len(strips.lines), 1))
    for n, (y, z) in enumerate(strips.lines):
        if abs(abs(y) - b / 2) < 1e-9 and abs(abs(z) - b / 2) < 1e-9:
            loads[4 * n + Y, 0] -= np.sign(z) / (4 * b)
            loads[4 * n + Z, 0] -= np.sign(y) / (4 * b)
    waves = np.array([1.0, 6.0])
    k = 1 / relative_flexibility(strips, waves, loads)[:, 0, 0]
    D = E * t**3 / 12 / (1 - NU**2)
    assert k[0] == pytest.approx(48 * D / b, rel=0.02)
    assert (k[1] - k[0]) / (6.0**4 - 1) == pytest.approx(E * t * b**5 / 12, rel=0.15)


def test_a_wall_under_a_line_is_a_clamped_strip_or_softer() -> None:
    """192·E·I/b³ a metre where both edges are clamped, 48·E·I/b³ pinned; a tube's corners turn a little."""
    wall, t = 0.095, 0.005
    member = Member("box-100x100x5", "steel-s235")
    found = dents(member, (Bearing(0.0, 0.05, (0.0, 1.0), 0.001, 0.001),)).sunk[0]
    EI = E * t**3 / 12 / (1 - NU**2)
    assert 48 * EI / wall**3 < found.k < 192 * EI / (wall - t) ** 3
    wide = dents(member, (Bearing(0.0, 0.05, (0.0, 1.0), 0.03, 0.03),)).sunk[0]
    assert wide.k > found.k


def test_thickness_counts_with_its_cube_and_more_bearing_helps() -> None:
    thin, thick = (give(Member(f"box-100x100x{t}", "steel-s235"), Bearing(0.0, 0.05, (0.0, 1.0), 0.02, 0.02))
                   for t in (3, 6))  # fmt: skip
    assert thin is not None
    assert thick is not None
    assert 6 < thin.normal / thick.normal < 10  # about the cube; thin walls spread a push less than their width
    longer = give(Member("box-100x100x3", "steel-s235"), Bearing(0.0, 0.05, (0.0, 1.0), 0.02, 0.08))
    assert longer is not None
    assert longer.normal < thin.normal
    assert longer.pitch < thin.pitch


def test_off_the_walls_nothing_gives() -> None:
    assert give(TUBE, Bearing(0.0, 0.2, (1.0, 0.0), 0.02, 0.02)) is None
    assert not has_walls(replace(TUBE, fill="epoxy-granite-10"))
    assert has_walls(replace(TUBE, fill="sand"))
    assert not has_walls(Member("tslot-40L-2x2", "aluminium-6060"))
    assert not has_walls(Member("rod-40", "steel-s235"))
    assert WAVES[0] > 0.0


def test_turned_or_mirrored_it_is_the_same_wall() -> None:
    upright = dents(
        TUBE, (Bearing(-0.05, 0.03, (-1.0, 0.0), 0.02, 0.02), Bearing(-0.05, -0.03, (-1.0, 0.0), 0.02, 0.02))
    )
    lying = dents(replace(TUBE, turned=True), (Bearing(0.03, 0.05, (0.0, 1.0), 0.02, 0.02),
                                               Bearing(-0.03, 0.05, (0.0, 1.0), 0.02, 0.02)))  # fmt: skip
    assert upright.distortion is not None
    assert lying.distortion is not None
    assert upright.distortion.k == pytest.approx(lying.distortion.k, rel=1e-6)
    for one, other in zip(upright.each, lying.each, strict=True):
        assert one.k_roll == pytest.approx(other.k_roll, rel=1e-6)
        assert abs(one.rolled) == pytest.approx(abs(other.rolled), rel=1e-6)


def stiffness(machine: MovingGantry) -> float:
    return float(1e-6 / likely_answers(machine, Place())[0].compliance[1, 1])


THIN = MovingGantry(gantry_beam=Member("rhs-120x80x3", "steel-s235"), beam_joint=Joint("weld"))


def test_every_cure_of_the_walls_is_one() -> None:
    plain = stiffness(THIN)
    for better in (
        replace(THIN.gantry_beam, fill="epoxy-granite-10"), replace(THIN.gantry_beam, diaphragms=0.1),
        replace(THIN.gantry_beam, backing=0.01), replace(THIN.gantry_beam, section="rhs-120x80x5"),
    ):  # fmt: skip
        assert stiffness(replace(THIN, gantry_beam=better)) > 1.02 * plain
    assert stiffness(replace(THIN, x_guides=Guide("15", mount="front-edges"))) > plain
    texts = {one.text for one in alternatives(THIN, "gantry_beam")}
    assert {"end plates", "plates inside every 200 mm", "strips 8 mm under the rails"} <= texts
    assert "rails over the side walls" in texts


def test_why_names_distortion_and_dents_and_shares_still_sum() -> None:
    likely, solved = likely_answers(THIN, Place())
    row = likely.shares.compliance[1][likely.shares.keys.index("gantry_beam")]
    assert row[DISTORTION] > row[CAUSES.index("bending")]
    assert row[WALL] > 0.0
    found = explain(THIN, solved, "gantry_beam", 1)
    words = [reason.words for reason in found.reasons]
    assert "its cross-section goes out of shape" in words
    assert "its wall dents under what is fastened to it" in words
    assert sum(reason.compliance for reason in found.reasons) == pytest.approx(found.compliance, rel=0.1)
    assert likely.shares.compliance[1].sum() == pytest.approx(float(likely.compliance[1, 1]), rel=1e-9)


def test_plates_inside_and_strips_are_bought_and_weigh() -> None:
    stiff = replace(THIN, gantry_beam=replace(THIN.gantry_beam, capped=True, diaphragms=0.2, backing=0.008))
    items = bill_of(stiff)
    length = next(item.length for item in items if item.part == "gantry_beam" and item.length)
    inside = [item for item in items if "inside 80×120" in item.text]
    strips = [item for item in items if "under a rail" in item.text]
    assert inside[0].count == 2 + round(length / 0.2) - 1
    assert len(strips) == 1
    assert strips[0].count == 2
    mass, _ = total_mass(likely_answers(stiff, Place())[1].built.frame)
    assert sum(item.mass for item in items) == pytest.approx(mass, rel=1e-9)


@pytest.mark.parametrize("spacing", [0.16, 0.17, 0.18, 0.18152224888529014, 0.185, 0.19])
def test_a_rail_over_the_corner_of_a_tube_finds_it_firm_not_pushing_back(spacing: float) -> None:
    """There the dent is a difference of equal numbers: never below nothing."""
    bearings = tuple(Bearing(side * spacing / 2, 0.04, (0.0, 1.0), 0.015, 0.06) for side in (-1, 1))
    found = dents(Member("box-80x220x12", "steel-s235"), bearings)
    assert all(one.k > 0.0 and one.k_roll > 0.0 and one.point >= 0.0 for one in found.each)
    assert all(one.k > 0.0 and one.g >= 0.0 for one in found.sunk)
