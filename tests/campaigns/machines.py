"""Machines of every kind with sizes anywhere within their limits, their parts as one might try them: finite answers,
soon, or a sentence."""

import random
import time
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path
from traceback import extract_tb
from typing import Any

import numpy as np

from unterbau.catalogue.joints import BoltGroup
from unterbau.errors import UnterbauError
from unterbau.machine.alternatives import alternatives
from unterbau.machine.machine import KINDS, Machine, bill_of, lay_out, links, part_at, with_part
from unterbau.mechanics.statics import total_mass
from unterbau.parts_list.bill import total_mass as listed
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Joint, Place, Stand
from unterbau.studies.answers import likely_answers
from unterbau.studies.explain import explain
from unterbau.studies.travel import Travel

LONGEST = 5.0
"""Seconds of the processor for the likely answers of any machine."""
SAME = 1e-5
"""Relative difference between a place of the travel and a machine put up there."""
FITS = 1e-6
"""Relative difference that sums may have."""


def drawn(draw: random.Random) -> Machine:
    """Return a machine with some of its sizes anywhere within their limits."""
    kind = draw.choice(KINDS)
    machine: Machine = kind.model()
    sizes: dict[str, Any] = {}
    for one in draw.sample(kind.sizes, draw.randint(1, min(5, len(kind.sizes)))):
        if one.count:
            sizes[one.attribute] = draw.randint(int(one.low), int(one.high))
        else:
            now = getattr(machine.dimensions, one.attribute)
            ends = (one.low, one.high) if draw.random() < 0.4 else (max(one.low, now / 3), min(one.high, now * 3))
            sizes[one.attribute] = draw.uniform(*ends)
    machine = with_part(machine, "dimensions", replace(machine.dimensions, **sizes))
    if hasattr(machine, "stand") and draw.random() < 0.3:
        machine = with_part(machine, "stand", cast(draw))
    if hasattr(machine, "side_foot") and draw.random() < 0.3:
        screws = BoltGroup(draw.choice(("M4", "M6", "M8")), 1, draw.randint(1, 6), draw.uniform(0.003, 0.04))
        machine = with_part(machine, "side_foot", Joint("bolts", bolts=replace(screws, bonded=draw.random() < 0.3)))
    return machine


def altered(draw: random.Random, machine: Machine) -> Machine:
    """Return a machine with a few of its parts as one might try them, or something added, whether it can be built."""
    for _ in range(draw.randint(0, 4)):
        key = draw.choice([one.key for one in links(machine)])
        found = alternatives(machine, key) if part_at(machine, key) is not None else ()
        if found:
            machine = draw.choice(found).applied(machine)
    return machine


def cast(draw: random.Random) -> Stand:
    """Return a cast base with sizes anywhere within their limits."""
    return Stand(
        "base", thickness=draw.uniform(0.02, 0.3), ribs=draw.choice((0, 2, 3, 5, 8)), beyond=draw.uniform(0.03, 0.3),
        rib_height=draw.uniform(0.02, 0.4), rib_thickness=draw.uniform(0.01, 0.15),
    )  # fmt: skip


def wrong(machine: Machine, place: Place) -> str:
    """Return what is wrong about the answers of a machine, or nothing."""
    start = time.process_time()
    try:
        likely, solved = likely_answers(machine, place)
    except UnterbauError as error:
        return "" if "expected" in str(error) else f"refused without what was expected: {error}"
    spent = time.process_time() - start
    give = likely.compliance
    if not np.isfinite(give).all() or not (np.diag(give) > 0.0).all():
        return f"gives {np.diag(give)}"
    there = Travel(machine).answers(np.array([[place.x, place.y, place.z]])).compliance[0]
    if np.abs(there - give).max() > SAME * np.abs(give).max():
        return f"over the travel it gives {np.diag(there)}, put up there {np.diag(give)}"
    whole = likely.shares.compliance.sum(axis=(1, 2))
    if not np.allclose(whole, np.diag(give), rtol=1e-5):
        return f"shares add up to {whole / np.diag(give)}"
    if (likely.shares.compliance.sum(axis=2) < -1e-3 * np.diag(give)[:, None]).any():
        return "a share is negative"
    mass = total_mass(solved.built.frame)[0]
    hidden = sum(bar.hidden for bar in sawn(lay_out(machine)).values())
    if abs(listed(bill_of(machine)) + hidden - mass) > FITS * mass:
        return f"lists {listed(bill_of(machine)):.3f} kg, frame {mass:.3f}, hidden {hidden:.3f}"
    for key in likely.shares.keys:
        if key not in ("feet", "rest"):
            explain(machine, solved, key, 1)
    return f"took {spent:.1f} s, {len(solved.built.frame.nodes)} nodes" if spent > LONGEST else ""


def campaign(seconds: float, seed: int) -> Iterator[str]:
    """Yield what went wrong, with the machine, then how many were tried."""
    draw, tried = random.Random(seed), 0
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        machine = drawn(draw)
        try:
            machine = altered(draw, machine)
        except UnterbauError:
            continue  # with such sizes there is nothing to choose from
        place = Place(draw.random(), draw.random(), draw.random())
        tried += 1
        try:
            found = wrong(machine, place)
        except Exception as error:
            last = extract_tb(error.__traceback__)[-1]
            found = f"{type(error).__name__} in {last.name} ({Path(last.filename).name}): {str(error)[:80]}"
        if found:
            yield f"{machine.kind}: {found}; {machine}"
    yield f"tried: {tried} machines"
