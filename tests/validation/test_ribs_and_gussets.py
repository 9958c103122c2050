"""Ribs against a tee beam, gussets against scikit-fem 12.0, base plates against a plate strip."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from tests.machine.laid import laying, modelled
from tests.validation.test_plates import NU, STEEL, solved
from unterbau.catalogue.joints import RIGID, BoltGroup
from unterbau.errors import InputError
from unterbau.machine.assemblies.pieces import lay_plate, rib
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.fixed_bridge import FixedBridge
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, bill_of, plate_widths
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.plate import condensed
from unterbau.mechanics.plate_spec import Patch, PlateSpec
from unterbau.mechanics.statics import solve_statics
from unterbau.structure.parts import Joint, Member, Place, Plate
from unterbau.studies.answers import likely_answers

X, Y, Z = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


def sag_on_two_ends(part: Plate, length: float, width: float) -> float:
    """Return how far the middle of a plate sinks under 1 N, m, both its ends free to turn."""
    lay = laying(replace(MovingGantry(), side=part))
    plate = lay_plate(lay, "side", lay.machine.side, "strip", (0.0, 0.0, 0.0), (length, 0.0, 0.0), width, Z)
    rib(lay, part, plate, (0.0, 0.0, -1.0))
    model = modelled(lay)
    first, middle, last = (model.node(plate.hold((x, 0.0, 0.0), (0.001, width / 2))) for x in (0.0, length / 2, length))
    model.frame.spring("ends", first, -1, (RIGID, RIGID, RIGID, RIGID, 0.0, RIGID), X, Z, 0.0)
    model.frame.spring("ends", last, -1, (0.0, RIGID, RIGID, 0.0, 0.0, 0.0), X, Z, 0.0)
    for one in model.plates:
        one.finish()
    frame = model.frame.build()
    forces = np.zeros((1, len(frame.nodes), 6))
    forces[0, middle, 2] = -1.0
    return float(-solve_statics(frame, Loads(forces, np.zeros((1, 3)))).u[0, middle, 2])


@pytest.mark.parametrize(("tall", "thick"), [(0.03, 0.006), (0.05, 0.01)])
def test_a_ribbed_strip_bends_as_a_tee(tall: float, thick: float) -> None:
    """Parallel axes, and shear in the rib (Timoshenko): PL³/48EI + PL/(4·G·A of the rib)."""
    E, G, length, wide, t = 210e9, 80.77e9, 0.8, 0.06, 0.008
    deep = tall + t / 2  # the rib's shell reaches to the plate's middle
    areas, middles = np.array([wide * t, thick * deep]), np.array([0.0, -deep / 2])
    centre = (areas @ middles) / areas.sum()
    second = (wide * t**3 + thick * deep**3) / 12 + areas @ (middles - centre) ** 2
    beam = length**3 / (48 * E * second) + length / (4 * G * thick * deep)
    part = Plate(t, "steel-s235", ribs=1, rib_height=tall, rib_thickness=thick)
    assert sag_on_two_ends(part, length, wide) == pytest.approx(beam, rel=0.04)
    bare = sag_on_two_ends(replace(part, ribs=0), length, wide)
    assert bare == pytest.approx(length**3 / (4 * E * wide * t**3), rel=0.03)
    assert bare > 9 * beam


def test_a_gusset_against_triangles_of_scikit_fem() -> None:
    """A right triangle clamped on one leg and pushed on the end of the other: plane stress, quadratic triangles."""
    skfem = pytest.importorskip("skfem")
    from skfem.helpers import ddot, eye, sym_grad, trace

    leg, t, n = 0.1, 0.008, 24
    corners = np.array([[0.0, leg, 0.0], [0.0, 0.0, leg]])
    mesh = skfem.MeshTri(corners, np.array([[0], [1], [2]])).refined(6)
    basis = skfem.Basis(mesh, skfem.ElementVector(skfem.ElementTriP2()))

    def energy(u: Any, v: Any, _: Any) -> Any:
        strain = sym_grad(u)
        stress = STEEL.E / (1 - NU**2) * ((1 - NU) * strain + NU * eye(trace(strain), 2))
        return t * ddot(stress, sym_grad(v))

    K = skfem.asm(skfem.BilinearForm(energy), basis)
    pushed = basis.get_dofs(lambda x: (np.abs(x[1]) < 1e-9) & (x[0] > 0.5 * leg - 1e-9) & (x[0] < 0.75 * leg + 1e-9))
    clamped = basis.get_dofs(lambda x: np.abs(x[0]) < 1e-9).all()
    down = pushed.all(["u^2"])
    prescribed = np.zeros(K.shape[0])
    prescribed[down] = 1.0
    held = np.union1d(clamped, pushed.all())
    free = np.setdiff1d(np.arange(K.shape[0]), held)
    u = prescribed.copy()
    from scipy.sparse.linalg import spsolve

    u[free] = spsolve(K[free][:, free].tocsc(), -K[free] @ prescribed)
    other = float(u @ (K @ u))  # force for a movement of 1 m, held from turning and sliding

    stops = tuple(np.linspace(0, leg, n + 1).tolist())
    patches = (Patch(0.0, leg / 2, 0.0, leg / 2), Patch(0.625 * leg, 0.0, 0.125 * leg, 0.0))
    gusset = condensed(PlateSpec(stops, stops, t, STEEL, patches, (), True))
    assert float(gusset.K[7, 7]) == pytest.approx(other, rel=0.025)  # 1 % at twice the lines, 0.4 % at four times
    whole = condensed(PlateSpec(stops, stops, t, STEEL, patches, ()))
    assert whole.K[7, 7] > 1.05 * gusset.K[7, 7]
    assert gusset.mass == pytest.approx(STEEL.rho * t * leg**2 / 2)
    assert gusset.weight[1::6, 1].sum() == pytest.approx(gusset.mass)


def test_a_base_plate_beyond_the_part_bends_between_its_bolts() -> None:
    """Thin and far out it is softer than the bolts alone; thick it is as stiff, or stiffer for the wider stance."""

    def lift(thickness: float, overhang: float) -> float:
        bolts = BoltGroup("M12", 2, 2, thickness, overhang=overhang)
        wide = Member("box-120x340x15", "iron-gjl-250")
        machine = replace(ColumnMill(), base=wide, column_joint=Joint("bolts", bolts=bolts))
        return float(likely_answers(machine, Place())[0].compliance[2, 2])

    flush = lift(0.04, 0.0)
    thin, middle, thick = (lift(t, 0.08) for t in (0.008, 0.01, 0.04))
    assert thick < flush  # the bolts stand further apart, and the base below is pressed over more of its wall
    assert 1.25**2 < (thin - thick) / (middle - thick) < 1.25**3  # bending 1/t³, shear 1/t, bolts none


def test_strip_of_a_base_plate_by_hand() -> None:
    """Half a strip, clamped under the part and lifted at its bolts: k = E'·b·t³/(4·a³) + shear."""
    wide, a, t = 0.1, 0.08, 0.01
    xs, ys = tuple(np.linspace(0, a, 17).tolist()), tuple(np.linspace(0, wide, 11).tolist())
    ends = (Patch(0.0, wide / 2, 0.0, wide / 2), Patch(a, wide / 2, 0.0, wide / 2))
    plate = condensed(PlateSpec(xs, ys, t, PlateMaterialNoNu, ends, ()))
    load = np.zeros(12)
    load[8] = 1.0
    u = solved(plate, list(range(6)), load)
    E, G = PlateMaterialNoNu.E, PlateMaterialNoNu.G
    assert u[8] == pytest.approx(4 * a**3 / (E * wide * t**3) + a / (5 / 6 * G * wide * t), rel=0.005)


PlateMaterialNoNu = replace(STEEL, G=105e9, nu=0.0)


def compliance(machine: Machine) -> Any:
    return np.diag(likely_answers(machine, Place())[0].compliance)


def test_what_is_added_stiffens_and_is_bought() -> None:
    bare = MovingGantry()
    ribbed = replace(bare, side=replace(bare.side, ribs=2), z_plate=replace(bare.z_plate, ribs=2))
    webbed = replace(bare, beam_joint=replace(bare.beam_joint, gussets=2))
    assert (compliance(ribbed) < 1.003 * compliance(bare)).all()
    assert compliance(ribbed)[0] < 0.95 * compliance(bare)[0]
    assert (compliance(webbed) < 1.003 * compliance(bare)).all()
    assert compliance(webbed)[0] < 0.95 * compliance(bare)[0]
    assert plate_widths(ribbed) == plate_widths(bare)

    def mass(machine: Machine) -> float:
        return sum(line.mass for line in bill_of(machine))

    ribs = [line for line in bill_of(ribbed) if line.text.startswith("rib ")]
    assert [line.count for line in ribs] == [4, 2]
    assert mass(ribbed) - mass(bare) == pytest.approx(sum(line.mass for line in ribs))
    gussets = [line for line in bill_of(webbed) if line.text.startswith("gusset ")]
    assert [line.count for line in gussets] == [4]
    assert gussets[0].mass == pytest.approx(4 * 7850 * 0.008 * 0.08**2 / 2, rel=0.01)


@pytest.mark.parametrize(
    ("machine", "where"),
    [
        (replace(MovingGantry(), bed=Plate(0.02, "birch-ply", ribs=2)), "bed.ribs"),
        (replace(MovingGantry(), side=Plate(0.02, "steel-s235", ribs=9)), "side.ribs"),
        (replace(MovingGantry(), side=Plate(0.02, "steel-s235", 1, 0.001)), "side.rib_height"),
        (replace(MovingGantry(), cross_joint=Joint("weld", gussets=1)), "cross_joint.gussets"),
        (replace(MovingGantry(), beam_joint=Joint("weld", gussets=1, gusset_leg=0.39)), "beam_joint.gusset_leg"),
        (replace(MovingGantry(), beam_joint=Joint("bolts", bolts=BoltGroup(overhang=0.01))), "bolts.overhang"),
        (replace(FixedBridge(), beam_joint=Joint("bolts", bolts=BoltGroup(overhang=0.2))), "bolts.overhang"),
        (replace(ColumnMill(), column_joint=Joint("bolts", bolts=BoltGroup(overhang=0.2))), "bolts.overhang"),
        (replace(MovingGantry(), beam_joint=Joint("bolts", bolts=BoltGroup(overhang=0.1, bonded=True))), "bonded"),
    ],
)  # fmt: skip
def test_what_has_no_room_is_refused(machine: Machine, where: str) -> None:
    with pytest.raises(InputError) as error:
        likely_answers(machine, Place())
    assert error.value.where.endswith(where)
