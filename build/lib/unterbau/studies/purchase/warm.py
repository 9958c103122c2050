"""A warm day: how far heat moves the tool against the work, and bows what carries rails."""

from dataclasses import dataclass

import numpy as np

from unterbau.brief.brief import Brief
from unterbau.brief.targets import SHARES
from unterbau.machine.machine import Machine, lay_out, part_at
from unterbau.materials.material import material
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.thermal import Heat, warmed
from unterbau.structure.parts import Cutter, Member, Place, Plate
from unterbau.structure.piece import Bar
from unterbau.studies.compliance import Solved, solve
from unterbau.studies.purchase.check import Check, Verdict, judged
from unterbau.studies.purchase.wanted import about
from unterbau.units import Units, movement_text, told

WARMER = 10.0
"""K: a shop from a cool morning to a warm afternoon; practice."""
SIDES = (("all of it", -1), ("one side in the sun, left to right", 0), ("one side in the sun, front to back", 1))
"""Words, and the axis along which it grows from 0 to 10 K; none where all is warmer."""
STEEL = 12e-6
WATCH = 0.5


@dataclass(frozen=True, slots=True)
class Warm:
    """One kind of heat on one machine."""

    words: str
    moved: tuple[float, float, float]
    """Tool against work, m."""
    bow: float
    """Largest of all members with rails, its middle against its ends, m."""
    bowed: str
    """That member."""


def expansions(machine: Machine, solved: Solved) -> tuple[FloatArray, FloatArray, float]:
    """Return the expansion of each beam and plate of the split frame, and the machine's mean by mass, 1/K."""
    frame = solved.statics.system.elements.frame
    own = np.array([_of_part(machine, name) for name in frame.groups])
    beams, plates = frame.beams, np.array([own[plate.group] for plate in frame.plates])
    length = np.linalg.norm(frame.nodes[beams.j] - frame.nodes[beams.i], axis=1)
    mass = beams.rho * beams.A * length
    of_beams = own[beams.group]
    placed = np.array([one.mass for one in solved.statics.system.elements.plates])
    total = mass.sum() + placed.sum()
    mean = float((mass @ of_beams + placed @ plates) / total) if total else STEEL
    return of_beams, plates, mean


def _of_part(machine: Machine, key: str) -> float:
    part = part_at(machine, key)
    if isinstance(part, Member | Plate | Cutter):
        return material(part.material).alpha
    return STEEL


def warm_days(machine: Machine, place: Place) -> tuple[Warm, ...]:
    """Return what 10 K do, on all of a machine and from one side to the other.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    solved = solve(machine, place, "likely")
    frame = solved.statics.system.elements.frame
    low, high = frame.nodes.min(axis=0), frame.nodes.max(axis=0)
    middle = (low + high) / 2
    heats = []
    for _, axis in SIDES:
        slope = np.zeros(3)
        if axis >= 0:
            slope[axis] = WARMER / max(float(high[axis] - low[axis]), 1e-3)
        heats.append(Heat(WARMER if axis < 0 else WARMER / 2, slope, middle))
    u = warmed(solved.statics, *expansions(machine, solved), tuple(heats))
    found = []
    for (words, _), moved in zip(SIDES, u, strict=True):
        away = [float(np.sum(solved.statics.loads.forces[axis] * moved[: len(solved.built.frame.nodes)]))
                for axis in range(3)]  # fmt: skip
        name, bow = _bow(machine, solved, moved)
        found.append(Warm(words, (away[0], away[1], away[2]), bow, name))
    return tuple(found)


def _bow(machine: Machine, solved: Solved, u: FloatArray) -> tuple[str, float]:
    """Return the member with rails that bows most, and how far."""
    worst, most = "", 0.0
    for piece in lay_out(machine).pieces.values():
        chain = solved.built.chains.get(piece.name, ())
        if not isinstance(piece, Bar) or not piece.carries or len(chain) < 3:
            continue
        places = solved.built.frame.nodes[list(chain)]
        moved = u[list(chain), :3]
        share = np.linalg.norm(places - places[0], axis=1) / np.linalg.norm(places[-1] - places[0])
        off = moved - (moved[0] + share[:, None] * (moved[-1] - moved[0]))
        along = (places[-1] - places[0]) / np.linalg.norm(places[-1] - places[0])
        across = off - np.outer(off @ along, along)
        bow = float(np.linalg.norm(across, axis=1).max())
        if bow > most:
            worst, most = piece.name, bow
    return worst, most


def warm_checks(machine: Machine, brief: Brief, units: Units) -> list[Check]:
    """Return how far a warm day moves the tool, against the part of the brief's accuracy that flex may take."""
    bears = SHARES[brief.finish] * brief.accuracy
    found = []
    ten = told(WARMER, "K", units)
    for one in warm_days(machine, Place()):
        size = float(np.linalg.norm(one.moved))
        share = size / bears if bears else np.nan
        moved = ", ".join(
            f"{axis} {movement_text(abs(value), units)}" for axis, value in zip("XYZ", one.moved, strict=True)
        )
        bow = f"; the {one.bowed} bows {movement_text(one.bow, units)}" if one.bowed else ""
        found.append(Check(
            "", f"warm day, {one.words}", f"{ten} warmer, {one.words}: the tool moves against the work by {moved}{bow}",
            f"growth of every part by its own α in the frame, feet sliding; {movement_text(size, units)} of "
            f"{movement_text(bears, units)} that the work bears",
            about(share), _verdict(share), "" if share <= WATCH else
            "set the tool again when it is warm; shade the machine; beams and rails of one metal, rails on faces that "
            "balance each other",
            "initial strain in the frame; Timoshenko's bimetal strip agrees; expansion of materials from memory",
        ))  # fmt: skip
    return found


def _verdict(share: float) -> Verdict:
    """A warm day is never more than watched: one can wait, and set the tool again."""
    verdict = judged(share, WATCH)
    return "watch" if verdict == "fail" else verdict
