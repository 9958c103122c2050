"""Members of several profiles: slip against the γ-method and Newmark, twist open and closed, warping held."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.machine.laid import laying, modelled
from unterbau.band import LEVELS, AtLevels, Level
from unterbau.errors import InputError
from unterbau.machine.assemblies.pieces import beam
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.mechanics.frame import Frame, Loads
from unterbau.mechanics.statics import solve_statics, total_mass
from unterbau.model import built_up as tied
from unterbau.model.member import member_values, warped
from unterbau.sections.built_up import LAYOUTS, SHIPPED, build, effective_torsion, whole
from unterbau.sections.properties import SectionProperties
from unterbau.sections.section import section, shipped_built_up
from unterbau.structure.parts import Member, Place
from unterbau.structure.weights import bar_mass
from unterbau.studies.answers import likely_answers

E, A, INERTIA, R = 70e9, 968e-6, 14.74e-8, 0.04
TWO = "stack2-of-tslot-40H-1x1"


def laid(member: Member, length: float, pieces: int, level: Level = "low") -> Frame:
    lay = laying(replace(MovingGantry(), gantry_beam=member))
    beam(lay, "gantry_beam", lay.machine.gantry_beam, "b", (0.0, 0.0, 0.0), (length, 0.0, 0.0), pieces=pieces)
    return modelled(lay).frame.build(level)


def held(frame: Frame, node: int, directions: list[int]) -> None:
    frame.fixed[node, directions] = True


def stiff_screws(monkeypatch: pytest.MonkeyPatch, K: float) -> None:
    monkeypatch.setattr(tied, "slip", lambda level: (K, 1e12))


def mid_deflection(monkeypatch: pytest.MonkeyPatch, K: float, clamped: bool = False) -> float:
    """Return the sag of two stacked profiles, 1 m, 500 N in the middle, screws every 100 mm."""
    stiff_screws(monkeypatch, K)
    frame = laid(Member(TWO, "aluminium-6060", pitch=0.1), 1.0, 32)
    ends = [n for n, place in enumerate(frame.nodes) if place[0] in (0.0, 1.0)]
    main = [0, 32]
    if clamped:
        for node in ends:
            held(frame, node, [0, 1, 2, 3, 4, 5]) if "seam" not in frame.node_names[node] else None
    else:
        for node in main:
            held(frame, node, [1, 2, 3])
        held(frame, 0, [0])
    forces = np.zeros((1, len(frame.nodes), 6))
    forces[0, 16, 2] = -500.0
    u = solve_statics(frame, Loads(forces, np.zeros((1, 3)))).u
    return float(-u[0, 16, 2])


def newmark(K: float, s: float, length: float) -> float:
    """Return mid sag under a mid load by Newmark's sine series, simply supported."""
    EI0, B = 2 * E * INERTIA, E * A / 2
    total = 0.0
    for n in range(1, 400, 2):
        EI = EI0 + B * R**2 / (1 + math.pi**2 * n**2 * B * s / (K * length**2))
        total += 2 * 500.0 * length**3 / (EI * (n * math.pi) ** 4)
    return total


def shear_sag(length: float) -> float:
    """Return what shear adds: F·L/4GA of both profiles."""
    p = section("tslot-40H-1x1").properties
    return 500.0 * length / (4 * 26.9e9 * 2 * p.Asz)


def test_worked_example_of_the_gamma_method() -> None:
    """EN 1995-1-1 annex B worked by hand: EIef 4.092e10 N·mm², 37 % of the possible gain."""
    K, s, length = 20e6, 0.1, 1.0
    gamma = 1 / (1 + math.pi**2 * E * A * s / (K * length**2))
    a2 = gamma * E * A * R / (gamma * E * A + E * A)
    EI = 2 * E * INERTIA + gamma * E * A * (R - a2) ** 2 + E * A * a2**2
    assert gamma == pytest.approx(0.2302, abs=1e-4)
    assert pytest.approx(4.092e10, rel=1e-3) == EI * 1e6
    assert 500 * length**3 / (48 * EI) * 1e3 == pytest.approx(0.2545, abs=2e-4)


@pytest.mark.parametrize("K", [2e6, 20e6, 200e6])
def test_parallel_beams_slip_as_newmark_says(monkeypatch: pytest.MonkeyPatch, K: float) -> None:
    """Series by hand for 20 kN/mm: .2572 mm; shear of the profiles is added."""
    expected = newmark(K, 0.1, 1.0)
    if K == 20e6:
        assert expected * 1e3 == pytest.approx(0.2572, abs=2e-4)
    assert mid_deflection(monkeypatch, K) == pytest.approx(expected + shear_sag(1.0), rel=0.015)


def test_clamped_at_both_ends_half_the_length_counts(monkeypatch: pytest.MonkeyPatch) -> None:
    """γ-method with l → .5 l, checked to half a per cent by series (calculated by hand)."""
    K, s, length = 20e6, 0.1, 1.0
    EI = 2 * E * INERTIA + E * A / 2 * R**2 / (1 + math.pi**2 * (E * A / 2) * s / (K * (length / 2) ** 2))
    expected = 500 * length**3 / (192 * EI) + shear_sag(length)
    assert mid_deflection(monkeypatch, K, clamped=True) == pytest.approx(expected, rel=0.03)


def test_without_and_with_endless_screws_it_is_two_beams_and_one(monkeypatch: pytest.MonkeyPatch) -> None:
    loose, tight = mid_deflection(monkeypatch, 1.0), mid_deflection(monkeypatch, 1e13)
    assert loose == pytest.approx(500 / (48 * 2 * E * INERTIA) + shear_sag(1.0), rel=5e-3)
    assert tight == pytest.approx(500 / (48 * (2 * E * INERTIA + E * A * R**2 / 2)) + shear_sag(1.0), rel=0.02)


PLAIN = ((0, 0), (40, 0), (40, 4), (4, 4), (4, 76), (40, 76), (40, 80), (0, 80))


def test_box_and_i_of_three_channels_in_twist() -> None:
    """J of the slotted C: box 145, I 27.7 cm⁴, meshed independently beforehand."""
    box, eye = (section(f"{layout}-of-cprofile-40x80").properties.J * 1e8 for layout in ("box3", "i3"))
    assert box == pytest.approx(145, rel=0.02)
    assert eye == pytest.approx(27.7, rel=0.02)


@pytest.mark.parametrize(("layout", "J"), [("i3", 1.88), ("box3", 216.0)])
def test_plain_channels_meshed(layout: str, J: float) -> None:
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    from unterbau.sections.built_up import placed
    from unterbau.sections.outline import integrate, polygon
    from unterbau.sections.solved import solve_polygon

    o = integrate((polygon(list(PLAIN)),))
    p = SectionProperties(o.A, o.Iy, o.Iz, o.Iyz, 0.0, 0.0, 0.0)
    pieces, _ = build(LAYOUTS[layout], p, (-o.y, 40 - o.y, -o.z, 80 - o.z))
    rings = [Polygon(placed([(y - o.y, z - o.z) for y, z in PLAIN], one)).buffer(0.02, join_style=2) for one in pieces]
    found = solve_polygon("x", "x", unary_union(rings).buffer(-0.02, join_style=2).simplify(0.005))
    assert pytest.approx(J, rel=0.005) == found.J * 1e8
    assert found.Iy * 1e12 == pytest.approx(whole(pieces)[1], rel=1e-4)
    assert found.Iz * 1e12 == pytest.approx(whole(pieces)[2], rel=1e-4)


def test_warping_constant_of_an_i_section() -> None:
    """Iw = Iz·(h − tf)²/4 for equal flanges, Vlasov; three flats as an I."""
    p = section("i3-of-flat-80x10").properties
    flange = 0.01 * 0.08**3 / 12
    assert p.Iw == pytest.approx(2 * flange * (0.09 / 2) ** 2, rel=0.03)
    assert pytest.approx(3 * 0.08 * 0.01**3 / 3, rel=0.06) == p.J
    assert abs(p.ys) < 1e-5


@given(st.floats(1e-10, 1e-6), st.floats(1e-12, 1e-8), st.floats(0.2, 3.0))
def test_held_warping_is_vlasovs_differential_equation(J: float, Iw: float, length: float) -> None:
    """EIw·φ''' − GJ·φ' = −T with φ' = 0 at both ends, by finite differences over the length."""
    G, Em = 26.9e9, 70e9
    n = 400
    x = np.linspace(0, length, n + 1)
    h = x[1]
    main = np.full(n + 1, G * J + 2 * Em * Iw / h**2)
    side = np.full(n, -Em * Iw / h**2)
    M = np.diag(main) + np.diag(side, 1) + np.diag(side, -1)
    M[0], M[-1] = 0, 0
    M[0, 0] = M[-1, -1] = 1.0
    right = np.full(n + 1, 1.0)
    right[0] = right[-1] = 0.0
    rate = np.linalg.solve(M, right)
    angle = float(np.sum((rate[1:] + rate[:-1]) / 2) * h)
    assert length / (G * angle) == pytest.approx(effective_torsion(J, Iw, G, Em, length), rel=0.02)


@pytest.mark.parametrize("ends_warp", [True, False])
def test_a_member_twisted_in_its_middle_cannot_warp_there(ends_warp: bool) -> None:
    """Vlasov's energy of a shaft with a torque in its middle by finite differences, both ends held from turning."""
    member = Member("upn-120", "steel-s235")
    length, values, n = 0.945, member_values(member), 600
    shaft = warped(member, values, length, within=True)
    assert isinstance(shaft, AtLevels)
    stiff, warp, h = values.G * values.J, values.E * section(member.section).properties.Iw, length / n
    bent = np.zeros((n + 1, n + 1))  # of the angle, twice differentiated, at the nodes
    for k in range(1, n):
        bent[k, k - 1 : k + 2] = np.array([1.0, -2.0, 1.0]) / h**2
    if not ends_warp:
        bent[0, 1] = bent[n, n - 1] = 2 / h**2
    slope = np.diff(np.eye(n + 1), axis=0) / h
    weights = np.full(n + 1, h)
    weights[[0, -1]] = h / 2
    K = warp * bent.T @ (weights[:, None] * bent) + stiff * h * slope.T @ slope
    torque = np.zeros(n - 1)
    torque[n // 2 - 1] = 1.0
    angle = float(np.linalg.solve(K[1:-1, 1:-1], torque)[n // 2 - 1])
    found = shaft.low if ends_warp else shaft.high
    assert length / 4 / (values.G * angle) == pytest.approx(found.J, rel=0.02)


def test_an_open_member_lies_between_free_and_held_ends() -> None:
    member = Member("i3-of-cprofile-40x80", "aluminium-6060", seam="bonded")
    values = member_values(member)
    short, long = warped(member, values, 0.7), warped(member, values, 5.0)
    assert isinstance(short, AtLevels)
    assert isinstance(long, AtLevels)
    J = [short.at(level).J for level in LEVELS]
    assert J[0] < J[1] < J[2]
    assert J[0] == section(member.section).properties.J
    assert 1.5 * J[0] > long.high.J


def test_the_builders_quarrel_is_answered() -> None:
    """A 1.2 m gantry of three slotted channels: bonded, the box twists less than the I, and bends about alike."""
    gives = {}
    for layout in ("box3", "i3"):
        for seam in ("bonded", "screws"):
            member = Member(f"{layout}-of-cprofile-40x80", "aluminium-6060", seam=seam)
            machine = replace(MovingGantry(), gantry_beam=member)
            shares = likely_answers(machine, Place())[0].shares
            gives[layout, seam] = shares.compliance[1, shares.keys.index("gantry_beam")]
    twist = {key: row[2] for key, row in gives.items()}
    assert twist["box3", "bonded"] < 0.5 * twist["i3", "bonded"]
    for layout in ("box3", "i3"):
        assert gives[layout, "bonded"].sum() < gives[layout, "screws"].sum()


@pytest.mark.parametrize("name", SHIPPED)
def test_every_shipped_one_weighs_its_profiles_and_bends_by_steiner(name: str) -> None:
    one = section(name)
    A, Iy, Iz, Iyz = whole(one.pieces)
    meshed = shipped_built_up()[name].properties
    assert pytest.approx(A, rel=0.03) == meshed.A
    assert meshed.Iy == pytest.approx(Iy, rel=0.03)
    assert meshed.Iz == pytest.approx(Iz, rel=0.03)
    assert abs(meshed.Iyz - Iyz) < 0.03 * Iy
    assert bar_mass(Member(name, "aluminium-6060")) == pytest.approx(A * 2700), "the list weighs what the frame weighs"
    assert len(one.seams) >= len(one.pieces) - 1
    frame = laid(Member(name, "aluminium-6060"), 0.6, 6)
    mass, _ = total_mass(frame)
    assert mass == pytest.approx(A * 2700 * 0.6, rel=2e-3)


def test_what_is_no_built_up_section_is_said() -> None:
    for name, words in (
        ("pile2-of-upn-80", "no layout"), ("back2-of-shs-60x60x4", "takes channels"),
        ("side2-of-stack2-of-shs-60x60x4", "not built up again"), ("side2-of-shs-70x70x3", "not solved yet"),
    ):  # fmt: skip
        with pytest.raises(InputError, match=words):
            section(name)
