"""Rails that do not run true to one another: what they load their blocks with, and so how true they must be."""

from dataclasses import dataclass

import numpy as np

from unterbau.catalogue.guides import block
from unterbau.machine.machine import Machine, links, part
from unterbau.mechanics.arrays import IntArray
from unterbau.mechanics.misfit import put_in
from unterbau.structure.parts import Guide, Place
from unterbau.studies.compliance import Solved, solve
from unterbau.studies.purchase.check import Check, Verdict
from unterbau.studies.purchase.guides import PRELOAD
from unterbau.studies.purchase.wanted import about
from unterbau.units import Units, force_text, movement_text

OFF = 10e-6
"""That one rail is moved against the other, m."""
BEARS = 0.1
"""Of the dynamic rating that a misfit may load a block with. Makers' tables allow 20 to 25 µm for preloaded "
"rails of size
20 on firm ground, which is about twice that; from memory."""
WITHIN, CAREFUL = 20e-6, 10e-6
"""What one reaches with a gauge of two blocks, and against a machined shoulder, m; common practice, no source."""
SAME_RAIL = 0.01
"""Blocks closer than this across the rail run on one, m."""
MOST = 0.2e-3
"""Beyond it blocks are not what asks for true rails: squareness and the work do, m."""
WAYS = ((1, "apart", slice(None)), (2, "twisted", slice(1)))
"""Directions of a block across its rail, and which of a rail's blocks are off: all of them sideways, so that the rails
are too far apart; one in height, so that the four corners are not in one plane."""


@dataclass(frozen=True, slots=True)
class Misfit:
    """One guide with one rail moved."""

    key: str
    way: str
    load: float
    """On the most loaded block, N, for `OFF`."""
    rating: float
    """Dynamic, N."""

    @property
    def allowed(self) -> float:
        """How far the rail may be off, m."""
        return OFF * BEARS * self.rating / max(self.load, 1e-9)


def rails_of(solved: Solved, key: str) -> tuple[IntArray, ...]:
    """Return the springs of a guide's blocks by rail, as rows of the split frame."""
    frame = solved.statics.system.elements.frame
    if key not in frame.groups:
        return ()
    rows = np.flatnonzero(frame.springs.group == frame.groups.index(key))
    if not len(rows):
        return ()
    along = frame.springs.x[rows[0]]
    places = frame.nodes[frame.springs.i[rows]]
    across = places - np.outer(places @ along, along)
    found: list[list[int]] = []
    for n, place in enumerate(across):
        rail = next((one for one in found if np.linalg.norm(across[one[0]] - place) < SAME_RAIL), None)
        if rail is None:
            found.append([n])
        else:
            rail.append(n)
    return tuple(rows[one] for one in found)


def misfits(machine: Machine, place: Place) -> tuple[Misfit, ...]:
    """Return what each guide's blocks bear when one of its rails is 10 µm off, apart and twisted.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    solved = solve(machine, place, "likely")
    rows = []
    for one in links(machine):
        guide = part(machine, one.key)
        rating = block(guide.block).rating if isinstance(guide, Guide) else None
        rails = rails_of(solved, one.key) if rating is not None else ()
        if rating is None or len(rails) < 2:
            continue
        moved = rails[-1]
        off = np.zeros((2, len(moved), 6))
        for case, (direction, _, which) in enumerate(WAYS):
            off[case, which, direction] = OFF
        _, forces = put_in(solved.statics, moved, off)
        of_guide = np.concatenate(rails)
        for case, (_, way, _) in enumerate(WAYS):
            load = float(np.abs(forces[case, of_guide, 1:3]).sum(axis=1).max())
            rows.append(Misfit(one.key, way, load, rating[0]))
    return tuple(rows)


def rail_checks(machine: Machine, units: Units) -> list[Check]:
    """Return how true each guide's rails must run to one another, and whether one reaches that without a machine."""
    labels = {one.key: one.label for one in links(machine)}
    found = []
    for one in misfits(machine, Place()):
        share = WITHIN / one.allowed
        verdict: Verdict = "pass" if share <= 1.0 else "watch" if one.allowed >= CAREFUL else "fail"
        guide = part(machine, one.key)
        assert isinstance(guide, Guide)
        soft = "" if guide.preload == "light" else " light preload gives, and"
        found.append(Check(
            one.key, f"{labels[one.key]}, rails {one.way}",
            _asked(one, units),
            f"{movement_text(OFF, units)} {one.way} load a block with {force_text(one.load, units)}; it may have "
            f"{force_text(BEARS * one.rating, units)} of it, {BEARS:.0%} of its rating; a gauge of two blocks reaches "
            f"{movement_text(WITHIN, units)}",
            about(share), verdict, "" if verdict == "pass" else
            f"set the second rail from the first with the carriage on, fasten it last; shims;{soft} a softer "
            f"side gives",
            "initial strain in the frame, F = k·(give − misfit); the limit from memory, the gauge common "
            "practice; preload "
            f"{PRELOAD[guide.preload]:.1%} of the rating comes on top",
        ))  # fmt: skip
    return found


def _asked(one: Misfit, units: Units) -> str:
    if one.allowed > MOST:
        return f"blocks bear {movement_text(MOST, units)} and more here; square and the work's error ask for less"
    return f"true to one another within {movement_text(one.allowed, units)}, or blocks bind and wear"
