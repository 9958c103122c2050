"""Cast bases: a ribbed slab against a beam by hand, its mass against its mould's, and the mould that comes of it."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.errors import InputError
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.machine import Machine, bill_of, bodies_of, lay_out
from unterbau.materials.material import material
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import solve_statics
from unterbau.model.modelled import Model
from unterbau.model.to_frame import finish, put_in
from unterbau.shop.hours import Pace, hours_of
from unterbau.shop.pieces import pieces_of
from unterbau.shop.pour.base_mould import mould_of, stand_of
from unterbau.shop.pour.mould import Mould, check_mould
from unterbau.shop.printed import Printing
from unterbau.structure.bodies import Prism
from unterbau.structure.join import Foot, RibJoin, Springs
from unterbau.structure.parts import Place, Stand
from unterbau.structure.piece import PlatePiece
from unterbau.structure.stand import BASE
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import X, Z
from unterbau.structure.weights import screw_mass
from unterbau.studies.answers import likely_answers

LONG = replace(Lathe(), stand=Stand("base", thickness=0.05, ribs=3, rib_height=0.08, rib_thickness=0.03))
ROUTER = replace(MovingGantry(), stand=Stand("base"))


def slab_of(structure: Structure) -> PlatePiece:
    found = structure.pieces[BASE]
    assert isinstance(found, PlatePiece)
    return found


def bent(machine: Machine, across: bool) -> float:
    """Return how far a base by itself sags in its middle under a newton spread over a line, m.

    It lies on lines of supports at both ends of its length, or at both its sides.
    """
    structure, count = lay_out(machine), 5
    slab = slab_of(structure)
    own = tuple(
        step for step in structure.flat if (isinstance(step, RibJoin) and step.plate == BASE) or step is slab
        or (isinstance(step, Springs) and step.key == "stand")
    )  # fmt: skip
    model = Model(replace(structure, steps=own), Place())
    put_in(model, own)
    laid = model.sheets[BASE]
    long, wide = (slab.width, slab.length) if across else (slab.length, slab.width)

    def line(at: float) -> list[int]:
        places = [(at, wide * (n + 0.5) / count) for n in range(count)]
        return [laid.hold(slab.at(*(place[::-1] if across else place)), (0.005, 0.005)) for place in places]

    for node in (*line(0.0), *line(long)):
        model.frame.spring("ends", node, -1, (1e12, 1e2, 1e2, 1.0, 1.0, 1.0), Z, X, 0.0)
    loaded = line(long / 2)
    finish(model)
    frame = model.frame.build("likely")
    forces = np.zeros((1, len(frame.nodes), 6))
    forces[0, loaded, 2] = 1.0 / count
    return float(solve_statics(frame, Loads(forces, np.zeros((1, 3)))).u[0, loaded, 2].mean())


@pytest.mark.parametrize("across", [False, True])
@pytest.mark.parametrize("ribs", [0, 3])
def test_a_base_bends_as_a_tee_of_its_slab_and_ribs(ribs: int, across: bool) -> None:
    """F·L³/(48·E·I) and F·L/(4·G·A), of 5/6 of the slab or of the webs.

    Ribs along stand farther apart than the span is long: less of the slab goes with them than the sum counts.
    """
    stand = replace(LONG.stand, ribs=ribs)
    slab, base = slab_of(lay_out(LONG)), material(stand.material)
    long, wide = (slab.width, slab.length) if across else (slab.length, slab.width)
    thick, tall, web = stand.thickness, stand.rib_height, ribs * stand.rib_thickness
    parts = ((wide * thick, 0.0, thick**2 / 12), (web * tall, -(thick + tall) / 2, tall**2 / 12))
    area = sum(a for a, _, _ in parts)
    middle = sum(a * z for a, z, _ in parts) / area
    inertia = sum(a * (own + (z - middle) ** 2) for a, z, own in parts)
    sheared = web * (tall + thick) if ribs else 5 / 6 * wide * thick
    by_hand = long**3 / (48 * base.E * inertia) + long / (4 * base.G * sheared)
    assert bent(replace(LONG, stand=stand), across) == pytest.approx(by_hand, rel=0.15)


def test_it_weighs_what_its_mould_takes_and_the_mould_makes_it_again() -> None:
    stand, structure = ROUTER.stand, lay_out(ROUTER)
    mould = mould_of(structure, Mould())
    assert mould is not None
    check_mould(mould)
    assert len(mould.pockets) == (stand.ribs - 1) ** 2
    assert len(mould.inserts) == len([one for one in structure.flat if isinstance(one, Foot) and one.base]) == 4
    bushes = sum(np.pi * one.diameter**2 / 4 * one.depth for one in mould.inserts)
    cast = sum(line.mass for line in bill_of(ROUTER) if line.part == "stand" and "bolt" not in line.text)
    assert cast == pytest.approx(material(stand.material).rho * (mould.volume + bushes), rel=1e-9)
    again = stand_of(mould, stand.material, stand)
    assert again.ribs == stand.ribs
    for name in ("thickness", "rib_height", "rib_thickness"):
        assert getattr(again, name) == pytest.approx(getattr(stand, name))


def test_it_is_poured_not_cut_or_welded() -> None:
    assert not any("cast base" in name for one in pieces_of(lay_out(ROUTER)) for name in one.names)
    hours = [
        {task.words: task.count for task in hours_of(lay_out(one), (), {}, 0, frozenset(), Pace(), Printing()).tasks}
        for one in (ROUTER, replace(ROUTER, stand=Stand("firm")))
    ]
    assert hours[0].get("welds") == hours[1].get("welds")
    assert mould_of(lay_out(MovingGantry()), Mould()) is None
    drawn = {body.chain for body in bodies_of(ROUTER, Place()) if body.key == "stand" and isinstance(body, Prism)}
    assert not drawn, "only the slab and its ribs are seen, no box under them"


@pytest.mark.parametrize(
    ("stand", "where"),
    [
        (Stand("base", ribs=1), "stand.ribs"),
        (Stand("base", ribs=8, rib_thickness=0.2), "stand.rib_thickness"),
        (Stand("base", thickness=0.001), "stand.thickness"),
    ],
)
def test_what_cannot_be_cast_is_refused_with_its_place(stand: Stand, where: str) -> None:
    with pytest.raises(InputError) as caught:
        lay_out(replace(MovingGantry(), stand=stand))
    assert caught.value.where == where


def test_what_hangs_on_a_wall_has_none() -> None:
    assert BASE not in lay_out(WallAxis()).pieces


def test_a_plain_base_of_concrete_is_the_cast_block() -> None:
    """Two ways of saying the same: the block counts as firm and heavy, the base is a slab on feet of its own."""
    block = replace(MovingGantry(), stand=Stand("block", 0.12))
    base = replace(MovingGantry(), stand=Stand("base", material="concrete-c30", thickness=0.12, ribs=0))
    masses = [sum(line.mass for line in bill_of(one) if line.part == "stand") for one in (block, base)]
    assert masses[1] - masses[0] == pytest.approx(4 * screw_mass("M10"))
    gives = [np.diag(likely_answers(one, Place())[0].compliance) for one in (block, base)]
    assert gives[1] == pytest.approx(gives[0], rel=0.015)
