"""The solid cases as this program's members, and a rigid carriage on blocks to compare at the tool's tip."""

import numpy as np
from numpy.typing import NDArray

from tests.validation.solid.cases import STANCE, TALL, Case
from unterbau.catalogue.guides import block
from unterbau.machine.assemblies.motion import rail
from unterbau.machine.assemblies.pieces import beam
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import solve_statics
from unterbau.model.modelled import Model
from unterbau.model.to_frame import finish, put_in
from unterbau.sections.section import section
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Guide, Member, Place
from unterbau.structure.vectors import Vector, X, Z

Floats = NDArray[np.float64]
MM = 1e-3
STIFF = (1e13, 1e13, 1e13, 1e11, 1e11, 1e11)
RIGID = (float("inf"),) * 6
TIP = np.array([0.0, -0.13, -0.15])
"""From the middle between the blocks' seats, m."""
DRIVE = 23e6


def member(one: Case) -> Member:
    """Return a case's member."""
    name = f"upn-{one.height:g}" if one.channel else f"box-{one.height:g}x{one.depth:g}x{one.wall:g}"
    fill = "epoxy-granite-10" if one.filled else None
    return Member(name, "steel-s235", fill, diaphragms=one.diaphragms * MM)


def pads(one: Case) -> list[Vector]:
    """Return where the blocks meet their rails, m; the origin is the middle of the section."""
    h, b, middle = one.height / 2, one.depth / 2, one.length / 2
    found: list[Vector] = []
    for face, at in one.rails:
        for side in (-1, 1):
            x = (middle + side * STANCE / 2) * MM
            found.append((x, -(b + TALL) * MM, at * MM) if face == "front" else (x, at * MM, (h + TALL) * MM))
    return found


def flexibility(one: Case, walls: bool = True) -> Floats:
    """Return movements of the pads by loads on them as the program's own frame gives them, (6n, 6n), m, rad, N, N·m.

    Without walls rails weigh only, and the cross-section is rigid.
    """
    part = member(one)
    lay = Layout(part)
    L, h, b = one.length * MM, one.height / 2 * MM, one.depth / 2 * MM
    middle = -b - min(y for y, _ in section(part.section).loops[0])
    laid = beam(lay, "gantry_beam", part, "beam", (0.0, middle, 0.0), (L, middle, 0.0), Z, (), 8, carries=True)
    for face, at in one.rails:
        start = (0.0, -b, at * MM) if face == "front" else (0.0, at * MM, h)
        up = (0.0, -1.0, 0.0) if face == "front" else Z
        if walls:
            rail(lay, "x_guides", Guide("20"), laid, start, (L, *start[1:]), up)
    model = Model(lay.so_far(), Place())
    put_in(model, model.structure.steps)
    model.held_ends |= {("beam", False), ("beam", True)}
    finish(model)
    chain = model.bars["beam"].chain
    for end in (chain.nodes[0], chain.nodes[-1]):
        model.frame.spring("end", end, -1, RIGID, X, Z, 0.0)
    nodes = []
    for n, place in enumerate(pads(one)):
        node = model.frame.node(f"pad {n}", place)
        under = model.rails[n // 2][2] if model.rails else chain
        model.frame.seat("pad", node, under, STIFF, X, Z, 0.0)
        nodes.append(node)
    frame = model.frame.build("high" if one.channel else "likely")
    m = 6 * len(nodes)
    forces = np.zeros((m, len(frame.nodes), 6))
    for n, node in enumerate(nodes):
        forces[6 * n + np.arange(6), node, np.arange(6)] = 1.0
    found = solve_statics(frame, Loads(forces, np.zeros((m, 3)))).u
    return np.asarray(found[:, nodes].reshape(m, m))


def in_metres(F: Floats) -> Floats:
    """Return a flexibility in mm, rad, N, N·mm as one in m, rad, N, N·m."""
    unit = np.tile([1.0] * 3 + [1e3] * 3, len(F) // 6)
    return np.asarray(F * MM * unit[:, None] * unit)


def tip(one: Case, F: Floats, stiff: bool = False) -> Floats:
    """Return the tip's compliance along y and z, m/N, of a rigid carriage on blocks on a member of a flexibility."""
    size = block("20")
    k = np.array(size.springs("likely", "light"))[[1, 2, 3, 4, 5]] * (1e6 if stiff else 1.0)
    places = np.array(pads(one))
    n = len(places)
    kept = np.array([6 * p + d for p in range(n) for d in (1, 2, 3, 4, 5)])
    K = np.linalg.inv(F[np.ix_(kept, kept)] + np.diag(np.tile(1 / k, n)))
    middle = np.array([one.length / 2 * MM, places[:, 1].mean(), places[:, 2].mean()])
    T = np.concatenate([_rigid(place - middle)[[1, 2, 3, 4, 5]] for place in places])
    whole = T.T @ K @ T
    whole[0, 0] += DRIVE
    at = _rigid(TIP)
    return np.asarray(np.diag(at @ np.linalg.solve(whole, at.T))[1:3])


def _rigid(r: Floats) -> Floats:
    """Return the movement of a point at r by that of a body."""
    x, y, z = r
    found = np.eye(6)
    found[:3, 3:] = np.array([[0, z, -y], [-z, 0, x], [y, -x, 0]])
    return found
