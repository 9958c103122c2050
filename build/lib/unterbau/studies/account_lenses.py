"""Why is it this? The cut in the load path, the depth that does not chatter, the weakest place of the travel."""

import numpy as np

from unterbau.catalogue.cuts import Cut
from unterbau.machine.machine import Machine, links
from unterbau.mechanics.milling import specific_force
from unterbau.studies.account import AXES, LINEAR, PUSH, Account
from unterbau.studies.cutting import bearable, moved_by, tool_limits
from unterbau.studies.places import place_words
from unterbau.studies.reach import Reach
from unterbau.studies.shake import Shakes
from unterbau.studies.stability import Limit
from unterbau.units import Units, force_text, forces_text, length_text, movement_text, stiffness_text, told

LENSES = {"cut": "the customary cut", "chatter": "depth that does not chatter", "reach": "weakest place of the travel"}


def cut_account(machine: Machine, cut: Cut, axis: int, compliance: float, error: float, units: Units) -> Account:
    """Return how the movement under a cut, and the depth that an error allows, came about.

    Args:
        machine: Whose tool and spindle may end the cut.
        cut: The cut.
        axis: Along which the tool is pulled.
        compliance: Along it, likely, m/N.
        error: Allowed, m.
        units: For lengths.
    """
    e, force, borne = cut.engagement, cut.force, bearable(cut, compliance, error, tool_limits(machine, cut))
    moves = moved_by(cut, compliance)
    specific = specific_force(e.kc11, e.mc, e.chip)
    low, high = (movement_text(one, units) for one in moves.ends)
    lines = (
        (
            f"{cut.label}, {cut.tool}: a chip of {length_text(e.chip, units)} takes "
            f"{told(specific / 1e6, 'N/mm²', units, 3)} "
            f"(kc1.1 {told(e.kc11 / 1e6, 'N/mm²', units, 3)}, growing to thin chips by the power {e.mc:g}); "
            f"summed over the teeth that are "
            f"in the cut, the largest force within a turn is {force_text(force.likely, units)}, "
            f"{forces_text(force.low, force.high, units)}."
        ),
        (
            f"Over {stiffness_text(1 / compliance, units)} along {AXES[axis].upper()}: the tool moves "
            f"{movement_text(moves.likely, units)}, {low} to {high}."
        ),
        (
            f"The other way round: {movement_text(error, units)} is the frame's share of the brief's error; "
            f"the depth of {length_text(borne.depth, units)} that this machine takes ends by {borne.ends_by}."
        ),
    )
    rows = [
        ("customary depth", length_text(e.depth, units)),
        ("force along the cut, averaged", force_text(cut.mean, units)),
        ("force at that depth", forces_text(borne.force.low, borne.force.high, units)),
    ]
    if borne.chip_rate:
        rows.append(("chips at that depth", f"{borne.chip_rate * 6e7:.1f} cm³/min"))
    return Account("cut", LENSES["cut"], lines, tuple(rows), (
        "The force pulls along the axis chosen above, sharp tool; a blunt one pulls up to twice as hard.", LINEAR,
    ), (cut.source,), False)  # fmt: skip


def chatter_account(machine: Machine, shakes: Shakes, found: Limit | None, cut: Cut, units: Units) -> Account | None:
    """Return how the depth that does not chatter came about; None where the tool does not turn."""
    if found is None:
        return None
    worst = found.likely
    under, over = (length_text(value, units) for value in found.floor.ends)
    labels = {one.key: one.label for one in links(machine)}
    near = sorted(shakes.likely.swings, key=lambda swing: abs(swing.frequency - worst.frequency))[:3]
    rows = [
        (
            f"{swing.frequency:.0f} Hz: {swing.moves}, most give in {labels.get(swing.strains, 'the feet')}",
            f"damped {swing.zeta:.1%}",
        )
        for swing in near
    ]  # fmt: skip
    lines = (
        (
            "A tooth that meets the waves of the one before it shakes the tool on. How it does hangs on the phase "
            "between them, so on frequency and turning speed: lobes of stable depth, and a floor under all of them."
        ),
        (
            f"Here the force grows with the chip's cross-section by {told(worst.cutting / 1e6, 'N/mm²', units, 3)} "
            f"(the specific force times 1 − mc). {_at_own_speed(found, units)} "
            f"At no speed does it chatter below {length_text(worst.floor, units)}, {under} "
            f"to {over}."
        ),
        f"Of the modes told in words, {'nearest to that frequency' if worst.frequency else 'the lowest'}:",
    )
    return Account("chatter", LENSES["chatter"], lines, tuple(rows), (
        ("Damping is the weakest figure in it, and a tap on the built machine tells. Below a quarter of immersion "
        "period-doubling lobes come besides, which are not covered."), LINEAR,
    ), (
        ("Receptance: modes by strain-energy damping with a static rest; limit depth: zero-order solution, Altintas "
        "and Budak 1995, from memory; checked against the delay equation in time."), cut.source,
    ), False)  # fmt: skip


def _at_own_speed(found: Limit, units: Units) -> str:
    worst = found.likely
    turning = f"At {worst.turns * 60:.0f} turns a minute"
    low, high = (length_text(value, units) if np.isfinite(value) else "no limit" for value in found.depth.ends)
    if np.isinf(worst.depth):
        lowest = f"; {low} in the softest of ten machines drawn" if np.isfinite(found.depth.ends[0]) else ""
        return f"{turning} no wave fits between two teeth at which the cut would shake itself on, likely{lowest}."
    return (
        f"{turning} the limit is {length_text(worst.depth, units)}, likely, {low} to {high} in nine of ten machines "
        f"drawn, feeding at {worst.feed:.0f}° from X {'with' if worst.climbing else 'against'} the tool's turning, at "
        f"{worst.frequency:.0f} Hz."
    )


def reach_account(reach: Reach, axis: int, units: Units) -> Account:
    """Return how the weakest place came about: the softest, the stiffest, the middle, along each axis."""
    place, stiffness = reach.weakest(axis)
    stiff = reach.stiffness
    nx, ny, nz = reach.counts
    rows = []
    for way, name in enumerate(AXES):
        worst, best = reach.weakest(way), int(np.argmax(stiff[:, way]))
        rows.append((f"along {name.upper()}, softest", f"{stiffness_text(worst[1], units)}: {place_words(worst[0])}"))
        most = f"{stiffness_text(float(stiff[best, way]), units)}: {place_words(reach.place(best))}"
        rows.append((f"along {name.upper()}, stiffest", most))
    rows.append(("droop, range", movement_text(reach.sag(), units)))
    rows.append(("droop, range on a bed it has surfaced", movement_text(reach.sag(surfaced=True), units)))
    lines = (
        (
            f"{nx} × {ny} × {nz} places of the travel were solved, likely; along {AXES[axis].upper()} the tool is "
            f"softest at {place_words(place)}, {stiffness_text(stiffness, units)}. The target is judged there."
        ),
        "All places share one factorisation: only the blocks and drives stand elsewhere. It is exact at every place.",
    )
    return Account("reach", LENSES["reach"], lines, tuple(rows), (PUSH, LINEAR), (
        "Static substructures joined at the moving contacts; checked against each place solved alone.",
    ), False)  # fmt: skip
