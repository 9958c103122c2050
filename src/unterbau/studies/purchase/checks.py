"""All checks before buying, the worst first."""

from collections.abc import Callable
from math import isfinite
from typing import Literal

from unterbau.brief.brief import Brief
from unterbau.machine.machine import Machine
from unterbau.progress import Progress, Silent
from unterbau.studies.purchase.anchors import anchor_checks
from unterbau.studies.purchase.belts import belt_checks
from unterbau.studies.purchase.bolts import bolt_checks
from unterbau.studies.purchase.check import WORST, Check
from unterbau.studies.purchase.edges import edge_checks
from unterbau.studies.purchase.guides import guide_checks
from unterbau.studies.purchase.lasting import lasting_checks
from unterbau.studies.purchase.motors import motor_checks
from unterbau.studies.purchase.rails import rail_checks
from unterbau.studies.purchase.screws import screw_checks
from unterbau.studies.purchase.tipping import tipping_checks
from unterbau.studies.purchase.wanted import wanted
from unterbau.studies.purchase.warm import warm_checks
from unterbau.units import Units

Group = Literal[
    "screws", "belts", "lasting", "motors", "feet", "rails", "anchors", "bolts", "warm day", "guides", "edges"
]


def checks(
    machine: Machine, brief: Brief, units: Units = "mm", progress: Progress | None = None,
    only: tuple[Group, ...] = (),
) -> tuple[Check, ...]:  # fmt: skip
    """Return what will do and what will not, for the brief's cuts and speeds; `only` some of it where told.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    asked = wanted(machine, brief)
    steps: list[tuple[Group, Callable[[], list[Check]]]] = [
        ("screws", lambda: [check for one in asked for check in screw_checks(one, units)]),
        ("belts", lambda: [check for one in asked for check in belt_checks(one, units)]),
        ("motors", lambda: [check for one in asked for check in motor_checks(one, units)]),
        ("feet", lambda: tipping_checks(machine, brief, units)),
        ("rails", lambda: rail_checks(machine, units)),
        ("lasting", lambda: lasting_checks(machine)),
        ("anchors", lambda: anchor_checks(machine, brief, units)),
        ("bolts", lambda: bolt_checks(machine, brief, units)),
        ("warm day", lambda: warm_checks(machine, brief, units)),
        ("guides", lambda: guide_checks(machine, brief, units)),
        ("edges", lambda: edge_checks(machine, units)),
    ]
    found: dict[tuple[str, str], Check] = {}
    for number, (words, run) in enumerate(steps):
        report.step(number, len(steps), words)
        if only and words not in only:
            continue
        for check in run():
            key = (check.key, check.name)
            if key not in found or not check.share <= found[key].share:
                found[key] = check
    return tuple(
        sorted(found.values(), key=lambda one: (WORST.index(one.verdict), -one.share if isfinite(one.share) else 0.0))
    )
