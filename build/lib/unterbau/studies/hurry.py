"""Hurry: how far the tool is left behind while an axis speeds up or brakes."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.band import Band
from unterbau.machine.machine import Machine, links, moving_masses, travel
from unterbau.mechanics import assembly, statics
from unterbau.mechanics.arrays import BoolArray, FloatArray
from unterbau.mechanics.connected import connected
from unterbau.mechanics.frame import Frame, Loads
from unterbau.structure.parts import Place
from unterbau.studies.bands import components, ends_of, pieces
from unterbau.studies.compliance import Solved, solve
from unterbau.studies.loads import TIP, pull

AXES = ("x", "y", "z")


@dataclass(frozen=True, slots=True)
class Hurry:
    """One axis while it speeds up."""

    axis: str
    mass: float
    """Moved by it, kg."""
    left_behind: Band
    """Movement of the tool against the work for each m/s², largest direction, s²."""
    direction: tuple[float, float, float]
    """In which it is left behind, unit vector, likely."""

    def error(self, acceleration: float) -> Band:
        """Return how far the tool is off at an acceleration, m/s², m."""
        return self.left_behind.scaled(acceleration)

    def force(self, acceleration: float) -> float:
        """Return what the drive pushes with, N, friction not counted."""
        return self.mass * acceleration

    def bearable(self, error: float) -> float:
        """Return the acceleration that an error allows, likely, m/s²."""
        return error / max(self.left_behind.likely, 1e-15)


def hurry(machine: Machine, place: Place) -> tuple[Hurry, ...]:
    """Return what each axis does while it speeds up.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    solved, uncertain = solve(machine, place, "likely"), pieces(machine, place)
    moved = left_behind(machine, solved)
    drawn = [sizes(uncertain.drawn(components(solved, *pairs_of(solved, u)))) for u in moved.values()]
    ends = ends_of(np.array(drawn)) if drawn else ()
    return tuple(hurried(machine, solved, axis, u, some) for (axis, u), some in zip(moved.items(), ends, strict=True))


def hurried(machine: Machine, solved: Solved, axis: str, u: FloatArray, ends: FloatArray) -> Hurry:
    """Return what an axis does while it speeds up.

    Args:
        machine: The machine.
        solved: The same, solved.
        axis: Which.
        u: What is left behind, as of `left_behind`.
        ends: Of what is drawn of its `sizes`, m.
    """
    moved = np.einsum("and,nd->a", pull(solved.built, solved.built.tip), u[: len(solved.built.frame.nodes)])
    size = float(np.linalg.norm(moved))
    x, y, z = (moved / max(size, 1e-30)).tolist()
    mass = moving_masses(machine)[axis.upper()]
    low, high = ends.tolist()
    return Hurry(axis, mass, Band(low, size, high), (x, y, z))


def pairs_of(solved: Solved, u: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return the pairs of movements whose components tell how what is left behind scatters."""
    return solved.statics.u[TIP], np.repeat(u[None], 3, axis=0)


def sizes(drawn: FloatArray) -> FloatArray:
    """Return how far the tool is left behind, from sums drawn of the components of `pairs_of`, (3, n) to (n,)."""
    return np.asarray(np.linalg.norm(drawn, axis=0))


def has_drive(machine: Machine, axis: str) -> bool:
    """Return whether an axis is driven."""
    return any(one.key == f"{axis}_drive" for one in links(machine))


def moved_nodes(frame: Frame, axis: str) -> BoolArray:
    """Return which nodes an axis moves: what hangs on the rest by its guides and drive alone."""
    names = {f"{axis}_guides", f"{axis}_drive"}
    groups = np.array([name in names for name in frame.groups])
    label = connected(frame, ~groups[frame.springs.group], ~groups[frame.seats.group])
    grounded = np.unique(label[frame.springs.i[frame.springs.j < 0]])
    return np.asarray(~np.isin(label, grounded))


def left_behind(machine: Machine, solved: Solved) -> dict[str, FloatArray]:
    """Return the movements of all nodes for 1 m/s² along each driven axis, m and rad, (n_nodes of the split frame, 6).

    Source:
        d'Alembert: the moved parts are loaded by minus mass times acceleration.
    """
    along = travel(machine)
    axes = {axis: number for number, axis in enumerate(AXES) if along[number] and has_drive(machine, axis)}
    if not axes:
        return {}
    right = np.stack([_inertia(solved, axis, number) for axis, number in axes.items()])
    u = assembly.solve(solved.statics.system, right.reshape(len(axes), -1).T).T.reshape(right.shape)
    return dict(zip(axes, u, strict=True))


def _inertia(solved: Solved, axis: str, number: int) -> FloatArray:
    """Return the loads of what an axis moves for 1 m/s² along it, N and N·m, shape (n_nodes of the split frame, 6)."""
    built, system = solved.built, solved.statics.system
    frame = system.elements.frame
    moved = np.zeros(len(frame.nodes), dtype=bool)
    moved[: len(built.frame.nodes)] = moved_nodes(built.frame, axis)
    interior = np.arange(len(built.frame.nodes), len(frame.nodes))
    for beams in (frame.beams.i, frame.beams.j):
        other = frame.beams.j if beams is frame.beams.i else frame.beams.i
        inside = np.isin(beams, interior)
        moved[beams[inside]] |= moved[other[inside]]
    light = replace(
        frame,
        beams=replace(frame.beams, rho=frame.beams.rho * moved[frame.beams.i]),
        masses=replace(frame.masses, m=frame.masses.m * moved[frame.masses.node]),
    )
    whole = replace(system.elements.split, frame=light)
    plates = tuple(one for one in system.elements.plates if moved[one.plate.patches[0]])
    carried = replace(system, elements=replace(system.elements, split=whole, plates=plates))
    n = len(built.frame.nodes)
    back = np.zeros((1, 3))
    back[0, number] = -1.0
    return np.asarray(statics.nodal_loads(carried, Loads(np.zeros((1, n, 6)), back))[0])
