"""Meshed sections, solved once and shipped; `unterbau section --rebuild` makes them anew."""

import dataclasses
import json
from collections.abc import Iterator
from functools import lru_cache
from importlib.resources import files
from typing import Any

from unterbau.sections import meshed, slotted
from unterbau.sections.outline import Outline, integrate
from unterbau.sections.outline import polygon as loop
from unterbau.sections.properties import SectionProperties

COUNTS = ((1, 1), (1, 2), (1, 3), (1, 4), (2, 2))
FILE = "meshed.json"


def names() -> Iterator[tuple[str, slotted.Series, list[slotted.Cell]]]:
    """Yield name, series and modules of every shipped profile."""
    for name, series in slotted.SERIES.items():
        for columns, rows in COUNTS:
            yield f"tslot-{name}-{columns}x{rows}", series, slotted.grid(columns, rows)
    yield "cprofile-40x80", slotted.SERIES["20"], slotted.C_PROFILE


@lru_cache(maxsize=1)
def _stored() -> dict[str, dict[str, Any]]:
    text = (files("unterbau.sections") / FILE).read_text(encoding="utf-8")
    stored: dict[str, dict[str, Any]] = json.loads(text)
    return stored


def known() -> tuple[str, ...]:
    """Return the names in the cache."""
    return tuple(_stored())


def stored_properties(name: str) -> SectionProperties:
    """Return the stored properties of a profile; KeyError where there are none."""
    return SectionProperties(**_stored()[name]["properties"])


def stored_outline(name: str) -> Outline:
    """Return the stored outline about the centroid, m."""
    rings = _stored()[name]["outline_mm"]
    return tuple(loop([(y / 1e3, z / 1e3) for y, z in ring]) for ring in rings)


def solve_one(name: str) -> dict[str, Any]:
    """Return properties and outline of one profile, as stored."""
    series, cells = next((s, c) for n, s, c in names() if n == name)
    shape = slotted.polygon(series, cells)
    rings = [list(shape.exterior.coords)[:-1], *(list(hole.coords)[:-1] for hole in shape.interiors)]
    oriented = [_oriented(ring, inside=bool(index)) for index, ring in enumerate(rings)]
    flat = integrate(tuple(loop(ring) for ring in oriented))
    centred = [[(round(y - flat.y, 4), round(z - flat.z, 4)) for y, z in ring] for ring in oriented]
    return {"properties": dataclasses.asdict(meshed.solve(shape, mesh=1500)), "outline_mm": centred}


def _oriented(ring: list[tuple[float, float]], inside: bool) -> list[tuple[float, float]]:
    twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True))
    return ring[::-1] if (twice > 0) == inside else ring


def rebuild() -> str:
    """Solve every profile anew on all cores and return the file's text."""
    from concurrent.futures import ProcessPoolExecutor

    every = [name for name, _, _ in names()]
    with ProcessPoolExecutor() as pool:
        solved = dict(zip(every, pool.map(solve_one, every), strict=True))
    return json.dumps(solved, indent=None, separators=(",", ":")).replace('},"', '},\n"') + "\n"
