"""Sections against the tables of the EN standards, from memory of the editions named.

EN 10219-2:2006 and EN 10210-2:2006 (hollow), EN 10056-1 (angles), DIN 1026-1 (UPN),
DIN 1025-5 / EN 10365 (IPE). Tables are rounded to three figures: 0.5 %, or 0.06 units.
"""

import pytest

from unterbau.sections.section import section

ROUNDED = 6e-3

HOLLOW = """
shs-40x40x3 4.21 9.32 9.32 15.8
shs-50x50x3 5.41 19.5 19.5 32.1
shs-60x60x4 8.55 43.6 43.6 72.6
shs-80x80x4 11.7 111 111 180
shs-80x80x5 14.4 131 131 218
shs-100x100x4 14.9 226 226 362
shs-100x100x5 18.4 271 271 441
shs-120x120x5 22.4 485 485 778
rhs-60x40x3 5.41 25.4 13.4 29.3
rhs-80x40x4 8.55 64.8 21.5 55.2
rhs-100x50x4 10.9 134 44.9 113
rhs-120x80x5 18.4 353 188 402
shs-100x100x5-hot 18.7 279 279 439
"""
ANGLES = """
30x30x3 1.74 1.40 2.22 .585
40x40x4 3.08 4.47 7.09 1.86
50x50x5 4.80 11.0 17.4 4.55
60x60x6 6.91 22.8 36.1 9.44
80x80x8 12.3 72.2 115 29.9
100x100x10 19.2 177 280 73.0
"""
ROLLED = """
upn-80 11.0 106 19.4 2.16 .08
upn-100 13.5 206 29.3 2.81 .08
upn-120 17.0 364 43.2 4.15 .08
upn-140 20.4 605 62.7 5.68 .08
ipe-80 7.64 80.1 8.49 .70 .045
ipe-100 10.3 171 15.9 1.20 .045
ipe-120 13.2 318 27.7 1.74 .045
ipe-140 16.4 541 44.9 2.45 .045
"""


def rows(table: str) -> list[tuple[str, list[float]]]:
    split = [line.split() for line in table.split("\n") if line]
    return [(row[0], [float(value) for value in row[1:]]) for row in split]


@pytest.mark.parametrize(("name", "expected"), rows(HOLLOW))
def test_hollow_sections(name: str, expected: list[float]) -> None:
    p = section(name).properties
    assert [p.A * 1e4, p.Iy * 1e8, p.Iz * 1e8, p.J * 1e8] == pytest.approx(expected, rel=ROUNDED)


@pytest.mark.parametrize(("size", "expected"), rows(ANGLES))
def test_angles(size: str, expected: list[float]) -> None:
    p = section(f"angle-{size}").properties
    A, inertia, strong, weak = expected
    assert [p.A * 1e4, p.Iy * 1e8] == pytest.approx([A, inertia], rel=ROUNDED)
    assert [(p.Iy - p.Iyz) * 1e8, (p.Iy + p.Iyz) * 1e8] == pytest.approx([strong, weak], rel=2 * ROUNDED)


@pytest.mark.parametrize(("name", "expected"), rows(ROLLED))
def test_rolled_sections(name: str, expected: list[float]) -> None:
    """The channel's torsion constant is 8 % off the table at most: the taper is averaged."""
    p = section(name).properties
    A, Iy, Iz, J, torsion = expected
    assert [p.A * 1e4, p.Iy * 1e8, p.Iz * 1e8] == pytest.approx([A, Iy, Iz], rel=ROUNDED)
    assert pytest.approx(J, rel=torsion) == p.J * 1e8


SLOTTED = """
20-1x1 1.74 .72 .72 .069
20-1x2 3.30 4.91 1.42 .80
30L-1x1 3.66 3.54 3.54 .32
30L-1x2 7.02 23.5 7.0 3.6
30H-1x2 8.28 27.3 7.8 5.2
40L-1x1 6.68 10.0 10.0 1.22
40L-1x2 12.4 73.5 19.7 11.3
40L-1x3 18.0 236 29.5 22
40L-1x4 23.7 542 39.2 32
40L-2x2 22.6 138 138 77
40H-1x2 18.4 106.8 29.2 21.8
40H-2x2 34.6 205 205 150
45L-1x2 12.9 96.4 26.4 15.9
45H-1x1 9.44 17.8 17.8 2.94
45H-1x2 18.0 131 35.3 25.7
"""


@pytest.mark.parametrize(("name", "expected"), rows(SLOTTED))
def test_slotted_profiles_of_the_cache(name: str, expected: list[float]) -> None:
    """Values meshed independently for the parametric geometry, two or three figures."""
    p = section(f"tslot-{name}").properties
    assert [p.A * 1e4, p.Iy * 1e8, p.Iz * 1e8, p.J * 1e8] == pytest.approx(expected, rel=2.5e-2)


def test_slotted_c_profile() -> None:
    p = section("cprofile-40x80").properties
    assert [p.A * 1e4, p.Iz * 1e8, p.Iy * 1e8, p.J * 1e8] == pytest.approx([9.53, 13.2, 65.6, 4.64], rel=5e-3)
