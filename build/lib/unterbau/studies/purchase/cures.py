"""A cure that can be done at once: the next size or kind of the part with which a check comes out well."""

from collections.abc import Iterator
from dataclasses import replace

from unterbau.brief.brief import Brief
from unterbau.catalogue.drives import motors
from unterbau.errors import InputError
from unterbau.machine.alternatives import Alternative
from unterbau.machine.machine import Machine, link, part_at
from unterbau.machine.stepping import step
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Drive, Guide, Joint, Motor, Part
from unterbau.studies.purchase.check import WORST, Check
from unterbau.studies.purchase.checks import Group, checks
from unterbau.units import Units

SIZES = 4
"""That are tried, one after the other."""
OF: dict[type, tuple[Group, ...]] = {
    Drive: ("screws",), Motor: ("motors",), Guide: ("guides", "rails"), Joint: ("bolts",)
}  # fmt: skip
"""Which checks a part's change can turn."""


def cure_of(
    machine: Machine, brief: Brief, check: Check, units: Units = "mm", progress: Progress | None = None
) -> Alternative | None:
    """Return the smallest change of a check's part that lets it pass, or else betters its verdict; None without one.

    Raises:
        InputError: The machine cannot be built.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    part = part_at(machine, check.key) if check.key else None
    groups = next((found for sort, found in OF.items() if isinstance(part, sort)), None)
    if part is None or groups is None or check.verdict == "pass":
        return None
    better: Alternative | None = None
    for number, (words, changed) in enumerate(_tried(part)):
        report.step(number, SIZES, words)
        one = Alternative(f"{link(machine, check.key).label}: {words}", ((check.key, changed),))
        try:
            found = checks(one.applied(machine), brief, units, only=groups)
        except InputError:
            continue
        now = next((other for other in found if (other.key, other.name) == (check.key, check.name)), None)
        if now is None or now.verdict == "unknown":
            continue
        if now.verdict == "pass":
            return one
        if better is None and WORST.index(now.verdict) > WORST.index(check.verdict):
            better = one
    return better


def _tried(part: Part) -> Iterator[tuple[str, Part]]:
    if isinstance(part, Motor):
        for kind in motors().values():
            if kind.id != part.kind:
                yield kind.label, Motor(kind.id, part.torque, part.on)  # type: ignore[arg-type]
        if part.torque:
            for times in (1.5, 2.0):
                yield f"{times:g} times the torque", Motor(part.kind, round(part.torque * times, 3), part.on)
        return
    if isinstance(part, Drive) and part.ends != "fixed":
        yield "both ends fixed", replace(part, ends="fixed")
    larger: Part | None = part
    for number in range(1, SIZES + 1):
        larger = step(larger, up=True) if larger is not None else None
        if larger is None:
            return
        yield f"{number} size{'s' if number > 1 else ''} larger", larger
