"""Anchors in a wall or floor: what each of them bears; whether that holds, others decide."""

from math import hypot, nan

import numpy as np

from unterbau.brief.brief import Brief
from unterbau.catalogue.joints import BOLTS, Face, pattern, usual_across
from unterbau.catalogue.screws import screw_size
from unterbau.machine.machine import Machine, lay_out, link
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.statics import spring_loads
from unterbau.model.joining import joint_kind
from unterbau.structure.join import Join
from unterbau.structure.parts import Joint, Place
from unterbau.structure.screws import EDGE
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP, WEIGHT
from unterbau.studies.purchase.check import Check
from unterbau.studies.purchase.wanted import cutting_force
from unterbau.units import Units, force_text

PLACES = (Place(0.0, 0.5, 0.0), Place(0.5, 0.5, 0.0), Place(1.0, 0.5, 0.0))


def shared(load: FloatArray, chosen: Joint, face: Face) -> tuple[float, float]:
    """Return the largest pull and the largest shear on one anchor of a group, N.

    Args:
        load: Force and moment on the group, its first axis off the face, N and N·m, shape (6,).
        chosen: The joint.
        face: That it sits on.

    Source:
        A rigid plate on equal anchors: N/n + M·r/Σr², and the same across for a twist; hand sum of bolt groups.
    """
    group, bolted = chosen.group, chosen.kind == BOLTS
    count = group.across * group.along if bolted else chosen.count
    across = group.across if bolted else chosen.across or usual_across(count)
    edge = group.edge or EDGE * screw_size(group.size).d if bolted else chosen.edge or joint_kind(chosen).edge
    places = np.array(pattern(count, face, across, edge))
    places = places - places.mean(axis=0)
    y, z = places.T
    polar, over_y, over_z = (float(v) for v in ((y**2 + z**2).sum(), (y**2).sum(), (z**2).sum()))
    pull = load[0] / count + (load[4] * z / over_z if over_z else 0.0) - (load[5] * y / over_y if over_y else 0.0)
    turn = load[3] / polar if polar else 0.0
    shear = [hypot(load[1] / count - turn * b, load[2] / count + turn * a) for a, b in places.tolist()]
    return float(np.abs(pull).max()), max(shear)


def anchor_checks(machine: Machine, brief: Brief, units: Units) -> list[Check]:
    """Return what each anchor of a machine that hangs on a wall or is bolted down bears; nothing of others."""
    joins = [one for one in lay_out(machine).flat if isinstance(one, Join) and one.b is None]
    by_key = {one.key: one for one in joins}
    force = cutting_force(brief).likely
    found = []
    for key, one in by_key.items():
        pull, shear, count = 0.0, 0.0, 0
        for place in PLACES:
            statics = solve(machine, place, "likely").statics
            frame = statics.system.elements.frame
            if key not in frame.groups:
                continue
            rows = np.flatnonzero(frame.springs.group == frame.groups.index(key))
            loads, count = spring_loads(statics), len(rows)
            for along in loads[TIP][:, rows]:
                for way in (-force, force):
                    for load in loads[WEIGHT][rows] + way * along:
                        each = shared(load, one.joint, one.face)
                        pull, shear = max(pull, each[0]), max(shear, each[1])
        if count:
            found.append(Check(
                key, f"{link(machine, key).label}, each",
                f"up to {force_text(pull, units)} of pull and {force_text(shear, units)} across on one anchor",
                f"the most loaded of {count} places, head at three places of X, weight and {force_text(force, units)} "
                "of cut either way along each axis; N/n + M·r/Σr² on the pattern",
                nan, "unknown", "what wall and anchor bear is not known here: a licensed person decides; local codes",
                "bolt group by hand sum; loads from the frame",
            ))  # fmt: skip
    return found
