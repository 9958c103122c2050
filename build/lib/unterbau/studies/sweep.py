"""A thousand sections tried in one place: the machine is solved once, each section is a small update.

Source:
    Woodbury's identity on the member's own strains: with P the strains by the pulls and Q those by strains' loads,
    C = C₀ − P·ΔS·(1 + Q·ΔS)⁻¹·Pᵀ, exact for any change of a member's stiffness while the geometry stays.
"""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.errors import InputError
from unterbau.machine.alternatives import every_section
from unterbau.machine.machine import Machine, part
from unterbau.materials.material import material
from unterbau.mechanics import assembly, beam
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.frame import BY_STRAIN, DISTORTION, WALL, Beams
from unterbau.mechanics.statics import energies
from unterbau.model.member import BeamValues, member_values
from unterbau.model.walls import has_walls
from unterbau.sections.built_up import OF
from unterbau.sections.families import families
from unterbau.sections.section import section
from unterbau.structure.parts import Member, Place
from unterbau.studies.compliance import Solved, solve, tip_compliance
from unterbau.studies.loads import TIP

CHUNK = 128
AT_ITS_WEIGHT = 1.05
ABOUT = 1.01
"""So much softer counts as equal."""
STIFFNESS = ("E", "G", "A", "Iy", "Iz", "Iyz", "J", "Asy", "Asz", "ys", "zs")


@dataclass(frozen=True, slots=True)
class Swept:
    """What other sections would do in a member's place, at its present geometry."""

    compliance: FloatArray
    """Tool against work, m/N, shape (n, 3, 3)."""
    mass: FloatArray
    """Per metre, kg/m, shape (n,)."""


def sweep_sections(
    machine: Machine, key: str, place: Place, values: list[BeamValues], solved: Solved | None = None
) -> Swept:
    """Return the tip's compliance with other values in a member's place, joints likely.

    Args:
        machine: The machine.
        key: A member of it that is one profile.
        place: Where the head stands.
        values: What is tried.
        solved: The machine as it is, if it is solved already.

    Raises:
        InputError: The part is not a member, or of several profiles.
    """
    chosen = part(machine, key)
    if not isinstance(chosen, Member) or section(chosen.section).pieces:
        raise InputError(key, "expected a member of one profile")
    now = solved or solve(machine, place, "likely")
    system, frame = now.statics.system, now.statics.system.elements.frame
    rows = np.flatnonzero((frame.beams.group == frame.groups.index(key)) & (frame.beams.cause == BY_STRAIN))
    elements = system.elements.beams
    strains = _strain_columns(frame.beams, elements, rows, 6 * len(frame.nodes))
    u = assembly.solve(system, strains)
    pulls = now.statics.u[TIP].reshape(3, -1)
    P, Q = pulls @ strains, u.T @ strains
    before = tip_compliance(now)
    own = frame.beams.take(rows)
    present = elements.S[rows]
    found = np.empty((len(values), 3, 3))
    for start in range(0, len(values), CHUNK):
        some = values[start : start + CHUNK]
        change = _stiffness(own, elements.length[rows], some) - present
        found[start : start + CHUNK] = before - _update(P, Q, change)
    return Swept((found + found.transpose(0, 2, 1)) / 2, np.array([one.mass_per_metre for one in values]))


def _strain_columns(beams: Beams, elements: beam.BeamElements, rows: IntArray, size: int) -> FloatArray:
    """Return the nodal loads that go with a unit of each strain of the member's beams, (size, 6·n)."""
    found = np.zeros((size, 6 * len(rows)), order="F")
    for n, row in enumerate(rows.tolist()):
        dofs = np.concatenate([6 * beams.i[row] + np.arange(6), 6 * beams.j[row] + np.arange(6)])
        found[dofs, 6 * n : 6 * n + 6] += elements.G[row].T
    return found


def _stiffness(own: Beams, length: FloatArray, values: list[BeamValues]) -> FloatArray:
    """Return S of each beam for each candidate, shape (n_candidates, n_beams, 6, 6)."""
    n, m = len(values), len(length)
    every = own.take(np.tile(np.arange(m), n))
    columns = {name: np.repeat([getattr(one, name) for one in values], m) for name in STIFFNESS}
    changed = replace(every, **columns)
    lengths = np.tile(length, n)
    F = beam.flexibility_powers(changed, lengths).sum(axis=1)
    return np.asarray(np.linalg.inv(F)).reshape(n, m, 6, 6)


def _update(P: FloatArray, Q: FloatArray, change: FloatArray) -> FloatArray:
    """Return P·ΔS·(1 + Q·ΔS)⁻¹·Pᵀ for each candidate, ΔS block by block, shape (n, 3, 3)."""
    n, m = change.shape[:2]
    size = 6 * m
    left, whole = (
        (one.reshape(len(one), m, 6).transpose(1, 0, 2) @ change).transpose(0, 2, 1, 3).reshape(n, len(one), size)
        for one in (P, Q)
    )
    whole += np.eye(size)
    return np.asarray(left @ np.linalg.solve(whole, np.broadcast_to(P.T, (n, size, 3))))


def best_of_catalogue(machine: Machine, key: str, place: Place) -> tuple[Member, ...]:
    """Return what of the whole catalogue is stiffest in a member's place at its weight, along x, y, z, and lightest.

    The lightest is the one that is as stiff as now along every axis. The head's place and what the member carries stay
    where they are, so each of these is still to be put up and solved by itself.

    Raises:
        InputError: The part is not a member, or of several profiles.
    """
    now = part(machine, key)
    if not isinstance(now, Member):
        raise InputError(key, "expected a member")
    tried = every_section(now)
    solved = solve(machine, place, "likely")
    found = sweep_sections(machine, key, place, [member_values(one) for one in tried], solved)
    give, before = np.diagonal(found.compliance, axis1=1, axis2=2), np.diag(tip_compliance(solved))
    group = solved.built.frame.groups.index(key)
    of_walls = 2 * energies(solved.statics)[TIP][:, group, [DISTORTION, WALL]].sum(axis=1)
    own = _softness(now)
    if own > 0.0:
        ratio = np.array([_softness(one) for one in tried]) / own
        give = give + of_walls * (ratio[:, None] - 1.0)
    weight = member_values(now).mass_per_metre
    best = []
    allowed = found.mass <= AT_ITS_WEIGHT * weight
    for axis in range(3):
        row = int(np.where(allowed, give[:, axis], np.inf).argmin())
        if allowed[row] and give[row, axis] < before[axis]:
            best.append(tried[row])
    as_stiff: BoolArray = np.all(give <= before * ABOUT, axis=1)
    row = int(np.where(as_stiff, found.mass, np.inf).argmin())
    if as_stiff[row] and found.mass[row] < weight:
        best.append(tried[row])
    return tuple(dict.fromkeys(best))


def _softness(member: Member) -> float:
    """Return about how soft a member's walls are, for comparison; 0 where none gives.

    Walls bend across: between the square of width over thickness for a push at one place, and its cube along a line.
    """
    if not has_walls(member):
        return 0.0
    shape = section(member.section)
    thickness = shape.properties.A / (2 * (shape.height + shape.width))
    return float((max(shape.height, shape.width) / thickness) ** 2.5 / material(member.material).E)


def catalogue(material_name: str) -> list[tuple[str, BeamValues]]:
    """Return every section of one profile in a material, by name."""
    names = [name for family in families() for name in family if OF not in name]
    return [(name, member_values(Member(name, material_name))) for name in names]
