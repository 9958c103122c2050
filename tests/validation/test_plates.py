"""Plates against handbook coefficients, beam theory, patch tests and scikit-fem 12.0."""

import itertools
from typing import Any

import numpy as np
import pytest

from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.plate import CondensedPlate, _stretching, condensed
from unterbau.mechanics.plate_element import PlateMaterial, bending, membrane
from unterbau.mechanics.plate_mesh import IN_PLANE, half_of
from unterbau.mechanics.plate_spec import Patch, PlateSpec, lines

NU = 0.3
STEEL = PlateMaterial(210e9, 210e9 / 2.6, NU, 7850.0)
UNEVEN = (0.0, 0.13, 0.31, 0.4, 0.62, 0.7)


def flexural(t: float, E: float = 210e9) -> float:
    return E * t**3 / 12 / (1 - NU**2)


def on_edges(xs: tuple[float, ...], ys: tuple[float, ...]) -> list[tuple[float, float]]:
    return [(x, y) for x in xs for y in ys if x in (0.0, xs[-1]) or y in (0.0, ys[-1])]


def solved(plate: CondensedPlate, held: list[int], load: FloatArray) -> FloatArray:
    free = np.setdiff1d(np.arange(len(plate.whole)), held)
    u = np.zeros(len(plate.whole))
    u[free] = np.linalg.solve(plate.whole[np.ix_(free, free)], load[free])
    return u


def centre_deflection(ratio: float, clamped: bool, point: bool, n: int = 32, t: float = 0.002) -> float:
    """Return w·D/(q·a⁴), or w·D/(P·a²), of a plate 1 × ratio, edges held as a handbook holds them."""
    xs, ys = tuple(np.linspace(0, 1, n + 1).tolist()), tuple(np.linspace(0, ratio, round(n * ratio) + 1).tolist())
    edge = on_edges(xs, ys)
    middle = (xs[len(xs) // 2], ys[len(ys) // 2])
    plate = condensed(PlateSpec(xs, ys, t, STEEL, tuple(Patch(*p) for p in edge), (middle,)))
    held = []
    for k, (x, y) in enumerate(edge):
        upright, level = x in (0.0, xs[-1]), y in (0.0, ys[-1])
        turns = (3, 4) if clamped or (upright and level) else (3,) if upright else (4,)
        held += [6 * k + d for d in (0, 1, 2, 5, *turns)]
    r = 6 * len(edge)
    held += [r, r + 1, r + 5]
    load = np.zeros(len(plate.whole))
    if point:
        load[r + 2] = 1.0
    else:
        load = plate.weight[:, 2] / (STEEL.rho * t)
    return float(solved(plate, held, load)[r + 2] * flexural(t))


HANDBOOK = [
    (1.0, False, False, 0.00406), (1.5, False, False, 0.00772), (2.0, False, False, 0.01013),
    (1.0, True, False, 0.00126), (1.5, True, False, 0.00220), (2.0, True, False, 0.00254),
    (1.0, False, True, 0.0116), (1.0, True, True, 0.0056),
]  # fmt: skip


@pytest.mark.parametrize(("ratio", "clamped", "point", "value"), HANDBOOK)
def test_coefficients_of_rectangular_plates(ratio: float, clamped: bool, point: bool, value: float) -> None:
    """Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, tables 8, 35; §§ 34, 44. Three figures given."""
    assert centre_deflection(ratio, clamped, point) == pytest.approx(value, rel=0.006)


def test_the_mesh_converges_and_thin_plates_do_not_lock() -> None:
    errors = [abs(centre_deflection(1.0, False, False, n) / 0.0040624 - 1) for n in (4, 8, 16)]
    assert errors[0] > 3 * errors[1] > 9 * errors[2]
    thin = [centre_deflection(1.0, True, False, 16, t) for t in (2e-2, 2e-4, 2e-5)]
    assert thin[1] == pytest.approx(thin[2], rel=1e-6)
    assert thin[0] > thin[1]


@pytest.mark.parametrize("field", range(6))
def test_patch_test(field: int) -> None:
    """Constant strains and curvatures on an uneven mesh: edges given, what lies inside follows exactly."""
    strain = np.eye(6)[field]
    inside = list(itertools.product(UNEVEN[1:-1], UNEVEN[1:-1]))
    edge = on_edges(UNEVEN, UNEVEN)
    plate = condensed(PlateSpec(UNEVEN, UNEVEN, 0.01, STEEL, tuple(Patch(*p) for p in edge), tuple(inside)))

    def exact(x: float, y: float) -> list[float]:
        ex, ey, g, kx, ky, kxy = strain
        w = -(kx * x * x + ky * y * y + kxy * x * y) / 2
        return [ex * x + g * y / 2, ey * y + g * x / 2, w, -ky * y - kxy * x / 2, kx * x + kxy * y / 2, 0.0]

    given = np.array([exact(x, y) for x, y in edge]).ravel()
    wanted = np.array([exact(x, y) for x, y in inside]).ravel()
    assert np.abs(plate.follow @ given - wanted).max() < 1e-10


def test_rigid_movements_strain_nothing() -> None:
    a, b = np.array([0.1, 0.3]), np.array([0.2, 0.05])
    for K in (bending(a, b, 0.01, STEEL), membrane(a, b, 0.01, STEEL)):
        for one in K:
            values = np.linalg.eigvalsh(one)
            assert np.abs(values[:3]).max() < 1e-9 * values[-1]
            assert values[3] > 1e-7 * values[-1]


@pytest.mark.parametrize("in_plane", [False, True])
def test_a_narrow_plate_is_a_beam(in_plane: bool) -> None:
    """F·L³/3EI + F·L/κGA, clamped end free to contract; Timoshenko. In its own plane and across it."""
    L, b, t, F = 1.0, 0.05, 0.012, 100.0
    xs, ys = lines(L, (), [], 0.02), lines(b, (), [], b / 4)
    ends = tuple(Patch(x, b / 2, 0.0, b / 2) for x in (0.0, L))
    plate = condensed(PlateSpec(xs, ys, t, PlateMaterial(210e9, 105e9, 0.0, 7850.0), ends, ()))
    way, inertia = (1, t * b**3 / 12) if in_plane else (2, b * t**3 / 12)
    load = np.zeros(12)
    load[6 + way] = F
    u = np.linalg.solve(plate.K[6:, 6:], load[6:])
    assert u[way] == pytest.approx(F * L**3 / (3 * 210e9 * inertia) + F * L / (5 / 6 * 105e9 * b * t), rel=2e-3)


def test_its_weight_and_its_mass() -> None:
    """Loads on patches and points sum to the weight and its moment; rigid movements feel the whole mass."""
    points = tuple(itertools.product((0.1, 0.25, 0.4), (0.1, 0.2)))
    xs, ys = lines(0.5, tuple(x for x, _ in points), [], 0.05), lines(0.3, tuple(y for _, y in points), [], 0.05)
    patches = (Patch(0.05, 0.05, 0.01, 0.01), Patch(0.45, 0.05), Patch(0.05, 0.25), Patch(0.45, 0.25, 0.02, 0.01))
    xs = lines(0.5, xs, [0.04, 0.06, 0.45, 0.43, 0.47], 0.05)
    ys = lines(0.3, ys, [0.04, 0.06, 0.25, 0.24, 0.26], 0.05)
    plate = condensed(PlateSpec(xs, ys, 0.02, STEEL, patches, points))
    m = 7850 * 0.02 * 0.5 * 0.3
    assert plate.mass == pytest.approx(m)
    f = plate.weight[:, 2].reshape(-1, 6)
    at = np.array([(p.x, p.y) for p in patches] + list(points))
    assert f[:, 2].sum() == pytest.approx(m)
    assert (at[:, 1] * f[:, 2] + f[:, 3]).sum() == pytest.approx(m * 0.15)
    assert (-at[:, 0] * f[:, 2] + f[:, 4]).sum() == pytest.approx(-m * 0.25)
    for way in range(3):
        rigid = np.zeros(24)
        rigid[way::6] = 1.0
        assert rigid @ plate.M @ rigid == pytest.approx(m)


def test_points_under_load_and_weight_are_those_of_the_whole_mesh() -> None:
    """The same plate with the points as patches too: nothing is condensed away there."""
    xs = ys = lines(0.4, (0.1, 0.2, 0.3), [], 0.05)
    corners = tuple(Patch(x, y) for x in (0.0, 0.4) for y in (0.0, 0.4))
    few = condensed(PlateSpec(xs, ys, 0.01, STEEL, corners, ((0.2, 0.2), (0.1, 0.3))))
    all_held = condensed(PlateSpec(xs, ys, 0.01, STEEL, (*corners, Patch(0.2, 0.2), Patch(0.1, 0.3)), ()))
    assert np.abs(few.whole - all_held.K).max() < 1e-8 * np.abs(few.whole).max()
    assert np.abs(few.weight - all_held.weight).max() < 1e-9


def test_a_plate_on_its_corners_against_scikit_fem() -> None:
    """Morley's thin plate of scikit-fem on a fine mesh, even load, held at four corners: centre and edge."""
    import skfem
    from skfem import Basis, ElementTriMorley, MeshTri, asm, condense, solve
    from skfem.helpers import dd, ddot, eye, trace
    from skfem.models.poisson import unit_load

    mesh = MeshTri.init_sqsymmetric().refined(5)
    basis = Basis(mesh, ElementTriMorley())

    def moment(curvature: Any) -> Any:
        return (1 - NU) * curvature + NU * eye(trace(curvature), 2)

    def energy(u: Any, v: Any, _: Any) -> Any:
        return ddot(moment(dd(u)), dd(v))

    K, f = asm(skfem.BilinearForm(energy), basis), asm(unit_load, basis)
    at = {
        (x, y): basis.nodal_dofs[0, int(np.argmin(np.hypot(mesh.p[0] - x, mesh.p[1] - y)))]
        for x, y in ((0, 0), (1, 0), (0, 1), (1, 1), (0.5, 0.5), (0.5, 0.0))
    }
    corners = np.array([at[c] for c in ((0, 0), (1, 0), (0, 1), (1, 1))])
    w = solve(*condense(K, f, D=corners))

    xs = tuple(np.linspace(0, 1, 33).tolist())
    t = 0.002
    held = tuple(Patch(x, y) for x in (0.0, 1.0) for y in (0.0, 1.0))
    plate = condensed(PlateSpec(xs, xs, t, STEEL, held, ((0.5, 0.5), (0.5, 0.0))))
    fixed = [6 * k + d for k in range(4) for d in (0, 1, 2, 5)]
    fixed += [24 + 6 * k + d for k in range(2) for d in (0, 1, 5)]
    u = solved(plate, fixed, plate.weight[:, 2] / (STEEL.rho * t)) * flexural(t)
    assert u[26] == pytest.approx(float(w[at[0.5, 0.5]]), rel=0.005)
    assert u[32] == pytest.approx(float(w[at[0.5, 0.0]]), rel=0.005)


def test_a_mesh_that_misses_what_it_holds_is_refused() -> None:
    xs = lines(0.4, (), [], 0.1)
    with pytest.raises(ValueError, match="covers no crossing"):
        condensed(PlateSpec(xs, xs, 0.01, STEEL, (Patch(0.05, 0.05), Patch(0.3, 0.3), Patch(0.1, 0.3)), ()))
    with pytest.raises(ValueError, match="no crossing"):
        condensed(PlateSpec(xs, xs, 0.01, STEEL, (Patch(0.0, 0.0), Patch(0.3, 0.3)), ((0.05, 0.1),)))


def test_edges_that_nearly_meet_share_a_line() -> None:
    """Slivers of a hundredth of a millimetre would spoil the sums; what is looked at stays where it is."""
    found = lines(0.4, (0.1,), [0.10001, 0.2, 0.20015, 0.39999], 0.5)
    assert found == (0.0, 0.1, 0.2, 0.4)


@pytest.mark.parametrize(("t", "made"), [(0.008, STEEL), (0.03, PlateMaterial(70e9, 26.9e9, 0.3, 2700.0))])
def test_a_membrane_of_one_is_that_of_all(t: float, made: PlateMaterial) -> None:
    """Kept for a thickness and an E of one, and multiplied: the same as meshed with its own."""
    xs = tuple(float(x) for x in np.linspace(0.0, 0.3, 7))
    held = tuple(Patch(x, y, 0.02, 0.02) for x in (0.05, 0.25) for y in (0.05, 0.25))
    spec = PlateSpec(xs, xs, t, made, held, ((0.15, 0.15), (0.3, 0.15)))
    kept, own = _stretching(spec), half_of(spec, IN_PLANE).condensed()
    for name in ("K", "follow", "inner", "sag", "total"):
        told, wanted = getattr(kept, name), getattr(own, name)
        assert told == pytest.approx(wanted, rel=1e-9, abs=1e-9 * float(np.abs(wanted).max())), name
    rows = (6 * np.arange(4)[:, None] + np.array(IN_PLANE)).ravel()
    assert condensed(spec).M[np.ix_(rows, rows)] == pytest.approx(half_of(spec, IN_PLANE).mass(), rel=1e-9, abs=1e-9)
