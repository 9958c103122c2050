"""A cast base as a solid body of quadratic bricks, and as the program's slab and ribs. Millimetres in the solid.

`python -m tests.validation.solid.base` solves the solids with calculix-ccx and stores their flexibilities; by hand.
"""

import json
import tempfile
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path

import numpy as np

from tests.validation.solid.bricks import Box, Floats, Pad, Solid
from unterbau.machine.kinds.moving_gantry import Dimensions, MovingGantry
from unterbau.machine.machine import lay_out
from unterbau.materials.material import material
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import solve_statics
from unterbau.model.modelled import Model
from unterbau.model.to_frame import finish, put_in
from unterbau.structure.join import RibJoin, Springs
from unterbau.structure.parts import Place, Stand
from unterbau.structure.piece import PlatePiece
from unterbau.structure.stand import BASE
from unterbau.structure.vectors import X, Z

STORED = Path(__file__).with_name("base.json")
PAD = 60.0
"""Side of what is loaded on top: where four feet of a machine are bolted, and in the middle."""
LOADS = (("twist", (1.0, -1.0, -1.0, 1.0, 0.0)), ("sag", (-0.25, -0.25, -0.25, -0.25, 1.0)))
"""In balance: what bears them does not count."""
BRICK = (30.0, 30.0, 30.0)


@dataclass(frozen=True)
class Base:
    """A base, and what its machine's feet are apart."""

    name: str
    stand: Stand

    @property
    def slab(self) -> PlatePiece:
        """Its slab in the machine."""
        found = lay_out(self.machine).pieces[BASE]
        assert isinstance(found, PlatePiece)
        return found

    @property
    def machine(self) -> MovingGantry:
        """A small router that stands on it."""
        return replace(MovingGantry(dimensions=Dimensions(travel_x=0.3, travel_y=0.2)), stand=self.stand)

    def pads(self, long: float, wide: float) -> tuple[tuple[float, float], ...]:
        """Return the middles of what is loaded."""
        feet = tuple((x, y) for y in (0.2 * wide, 0.8 * wide) for x in (0.2 * long, 0.8 * long))
        return (*feet, (long / 2, wide / 2))


BASES = (
    Base("ribbed", Stand("base", thickness=0.06, ribs=3, rib_height=0.1, rib_thickness=0.05)),
    Base("thin, many ribs", Stand("base", thickness=0.04, ribs=4, rib_height=0.08, rib_thickness=0.03)),
    Base("plain", Stand("base", thickness=0.08, ribs=0)),
)


def solid(one: Base) -> Solid:
    """Return a base as bricks: x along the slab, y across, z up, its underside of the slab at 0."""
    stand, slab = one.stand, one.slab
    made = material(stand.material)
    E, nu = made.E / 1e6, made.E / (2 * made.G) - 1.0
    long, wide, thick = (1e3 * size for size in (slab.length, slab.width, stand.thickness))
    boxes = [Box((0.0, long), (0.0, wide), (0.0, thick), E, nu)]
    web, tall = 1e3 * stand.rib_thickness, 1e3 * stand.rib_height if stand.ribs else 0.0
    along = [web / 2 + (wide - web) * n / (stand.ribs - 1) for n in range(stand.ribs)]
    over = [web / 2 + (long - web) * n / (stand.ribs - 1) for n in range(stand.ribs)]
    boxes += [Box((0.0, long), (y - web / 2, y + web / 2), (-tall, 0.0), E, nu) for y in along]
    for x in over:
        boxes += [
            Box((x - web / 2, x + web / 2), (low + web / 2, high - web / 2), (-tall, 0.0), E, nu)
            for low, high in pairwise(along)
        ]
    pads = [
        Pad((x - PAD / 2, x + PAD / 2), (y - PAD / 2, y + PAD / 2), (thick, thick)) for x, y in one.pads(long, wide)
    ]
    return Solid(boxes, [], [((0.0, PAD), (0.0, PAD), (-tall, -tall))], BRICK, pads)


def shells(one: Base) -> Floats:
    """Return how far each load in balance moves, by the program's slab and ribs; m/N."""
    structure, slab = lay_out(one.machine), one.slab
    own = tuple(
        step for step in structure.flat if (isinstance(step, RibJoin) and step.plate == BASE)
        or (isinstance(step, PlatePiece) and step.name == BASE) or (isinstance(step, Springs) and step.key == "stand")
    )  # fmt: skip
    model = Model(replace(structure, steps=own), Place())
    put_in(model, own)
    laid, frame = model.sheets[BASE], model.frame
    held = laid.hold(slab.at(PAD / 2e3, PAD / 2e3), (PAD / 2e3, PAD / 2e3))
    frame.spring("held", held, -1, (1e12,) * 6, Z, X, 0.0)
    half = 0.5 * PAD / 1e3
    nodes = [laid.hold(slab.at(x, y), (half, half)) for x, y in one.pads(slab.length, slab.width)]
    finish(model)
    built = frame.build("likely")
    forces = np.zeros((len(LOADS), len(built.nodes), 6))
    for n, (_, shares) in enumerate(LOADS):
        forces[n, nodes, 2] = shares
    u = solve_statics(built, Loads(forces, np.zeros((len(LOADS), 3)))).u
    return np.array([np.sum(forces[n] * u[n, : len(built.nodes)]) for n in range(len(LOADS))])


def dents(one: Base) -> Floats:
    """Return what the pads themselves sink into the solid under each load, which shells know nothing of, m/N.

    Source:
        Mean settlement of a square under even pressure on a half-space, 0.95·F·(1 − ν²)/(E·a) (Timoshenko and Goodier,
        Theory of Elasticity, from memory).
    """
    made = material(one.stand.material)
    each = 0.95 * (1.0 - (made.E / (2 * made.G) - 1.0) ** 2) / (made.E * PAD / 1e3)
    return np.array([each * sum(share**2 for share in shares) for _, shares in LOADS])


def main() -> None:
    """Solve all and store them, m/N."""
    found = {}
    for one in BASES:
        body = solid(one)
        with tempfile.TemporaryDirectory() as folder:
            F = body.flexibility(Path(folder), range(len(body.pads)), (2,))[:, 2, :, 2]
        found[one.name] = [float(f"{np.array(shares) @ F @ np.array(shares) * 1e-3:.6g}") for _, shares in LOADS]
        print(one.name, len(body.nodes), "nodes", found[one.name], (shells(one) + dents(one)) / found[one.name])  # noqa: T201
        STORED.write_text(json.dumps(found, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
