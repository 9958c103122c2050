"""Bolted joints by their geometry against worked figures (calculated by hand; values of contact from memory)."""

import pytest

from unterbau.mechanics.bolt_group import (
    Bolt,
    BoltStiffness,
    bolt_stiffness,
    clamped_stiffness,
    cone,
    contact_stiffness,
    gaps_at,
    group_stiffness,
    lip_stiffness,
    preload,
    slips_at,
)

MICRON_PER_ROOT_MPA = 1e-6 / 1e3
"""c of 1 µm/√MPa in m/√Pa."""
ALU, SHEAR = 70e9, 26.9e9
SLOTS = {"20": (11.5, 6, 1.8, 10, 113), "30L": (16.5, 8, 2, 14, 70), "30H": (16, 8, 2.5, 14, 143),
         "40": (20, 8, 4.5, 16, 285), "45": (20, 10, 4.5, 20, 465)}  # fmt: skip


@pytest.mark.parametrize("series", SLOTS)
def test_slot_lips(series: str) -> None:
    """k = 2/(4a³/(E·b·tl³) + 1.2a/(G·b·tl)), pair of lips, N/µm."""
    wide, slot, lip, nut, expected = SLOTS[series]
    k = lip_stiffness(wide * 1e-3, slot * 1e-3, lip * 1e-3, nut * 1e-3, ALU, SHEAR)
    assert k * 1e-6 == pytest.approx(expected, rel=0.02)


def test_preload_by_torque() -> None:
    """8.8 at its ceiling, µ 0.12, 90 % of Rp (VDI 2230): 18.6 kN at 25 N·m for M8, K 0.168."""
    assert preload(25.0, 8e-3, 0.168) == pytest.approx(18.6e3, rel=0.01)
    assert preload(14.0, 8e-3) == pytest.approx(8750.0)


def test_contact_law() -> None:
    """δ = c·√p: at c 2 µm and 16 MPa the slope is 2·4/2 = 4 MPa/µm, a good machined face 10¹² N/m³ and more."""
    assert contact_stiffness(2 * MICRON_PER_ROOT_MPA, 16e6) == pytest.approx(4e12)


def test_clamped_parts_by_shigley() -> None:
    """km for M8 in steel, grip 20 mm: .5774·π·E·d / (2·ln(5·(.5774·l + .5·d)/(.5774·l + 2.5·d)))."""
    assert clamped_stiffness(210e9, 8e-3, 20e-3) * 1e-6 == pytest.approx(1690, rel=0.002)


def machined(c: float) -> Bolt:
    return Bolt(8e-3, 18.6e3, 10e-3, 210e9, c * MICRON_PER_ROOT_MPA, 0.5)


def test_a_machined_flange_lies_in_its_customary_range() -> None:
    """100×100×10, 4 M8: 1000 to 15 000 N/µm, 500 to 10 000 kN·m/rad; common practice, no source."""
    corners = [(y, z) for y in (-0.035, 0.035) for z in (-0.035, 0.035)]
    for c in (1.0, 3.0):
        k = group_stiffness(corners, machined(c))
        assert 1000e6 < k[0] < 15000e6
        assert 500e3 < k[4] < 20000e3
        assert k[4] == pytest.approx(k[5])


def test_bolts_in_a_row_turn_by_their_distance() -> None:
    """Gusset, two bolts 40 apart with 60 N/µm each: 2·60·20² = 48 kN·m/rad, two halves in series 24."""
    bolt = machined(1.0)
    one = bolt_stiffness(bolt)
    wide = cone(bolt)[0]
    k = group_stiffness([(0.0, -0.02), (0.0, 0.02)], bolt)
    assert k[3] == pytest.approx(one.shear * (2 * 0.02**2 + 2 * wide**2 / 8))
    assert pytest.approx(48e3) == 2 * 60e6 * 0.02**2


def test_a_slot_nut_is_softer_than_a_tapped_hole_and_a_leg_softer_still() -> None:
    """Corner bracket of the 40 series, each bolt 10 to 100 N/µm; common practice, no source."""
    solid = Bolt(8e-3, 8.75e3, 6e-3, ALU, 10 * MICRON_PER_ROOT_MPA, 0.5)
    nut = Bolt(8e-3, 8.75e3, 6e-3, ALU, 10 * MICRON_PER_ROOT_MPA, 0.5, lips=285e6)
    leg = Bolt(8e-3, 8.75e3, 6e-3, ALU, 10 * MICRON_PER_ROOT_MPA, 0.5, lips=285e6, leg=0.02, leg_width=0.04)
    a, b, c = (bolt_stiffness(one) for one in (solid, nut, leg))
    assert a.normal > b.normal > c.normal
    assert 10e6 < c.normal < 100e6
    # 3EI/e of an unribbed leg 40×6, e 20: 7.6 kN·m/rad; as a force at the bolt 3EI/e³.
    assert pytest.approx(7.6e3, rel=0.01) == 3 * ALU * 0.04 * 0.006**3 / 12 / 0.02
    assert isinstance(a, BoltStiffness)


def test_stiffness_grows_with_the_root_of_preload_and_limits_with_preload() -> None:
    soft = Bolt(8e-3, 5e3, 0.3, 210e9, 100 * MICRON_PER_ROOT_MPA, 0.5)
    hard = Bolt(8e-3, 20e3, 0.3, 210e9, 100 * MICRON_PER_ROOT_MPA, 0.5)
    assert bolt_stiffness(hard).shear == pytest.approx(2 * bolt_stiffness(soft).shear)
    assert slips_at(hard, 4) == pytest.approx(0.2 * 20e3 * 4)
    assert gaps_at(hard, 4, 0.1) == pytest.approx(4 * 20e3 * 0.1 / 6)
