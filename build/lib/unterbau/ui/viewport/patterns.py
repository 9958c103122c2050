"""How the points of a drawn body are joined to faces and ink lines: the same for all bodies of as many points."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from unterbau.mechanics.arrays import IntArray


@dataclass(frozen=True, slots=True)
class Pattern:
    """Faces and lines of a body, its points counted from 0."""

    faces: IntArray
    """Polygons as count, then points, flat."""
    of_points: IntArray
    """1 where that is a point, 0 where it is a count."""
    count: int
    """Of the faces."""
    lines: IntArray
    """2, then two points, shape (n, 3)."""


def _pattern(faces: list[list[int]], lines: list[tuple[int, int]]) -> Pattern:
    flat = [number for face in faces for number in (len(face), *face)]
    points = [mark for face in faces for mark in (0, *(1 for _ in face))]
    rows = np.array([(2, a, b) for a, b in lines], dtype=np.intp).reshape(-1, 3)
    return Pattern(np.array(flat, dtype=np.intp), np.array(points, dtype=np.intp), len(faces), rows)


@lru_cache(maxsize=256)
def prism_pattern(n: int, slices: int, inked: tuple[tuple[int, ...], ...]) -> Pattern:
    """Return the pattern of a ring of n points drawn along a line, the inside of a tube behind it.

    Args:
        n: Points of each ring.
        slices: Pieces along the line.
        inked: For each ring its points that carry an ink line.
    """
    faces: list[list[int]] = []
    lines: list[tuple[int, int]] = []
    each = n * (slices + 1)
    for ring, marked in enumerate(inked):
        first = ring * each
        for s in range(slices):
            a, b = first + s * n, first + (s + 1) * n
            faces += [[a + k, a + (k + 1) % n, b + (k + 1) % n, b + k] for k in range(n)]
        for k in range(n):
            lines += [(first + end + k, first + end + (k + 1) % n) for end in (0, slices * n)]
            if k in marked:
                lines += [(first + s * n + k, first + (s + 1) * n + k) for s in range(slices)]
    for end in (0, slices * n):
        if len(inked) == 1:
            faces.append([end + k for k in range(n)])
            continue
        for k in range(n):  # the inside runs the other way round, from the same corner
            i, i2 = (n - k) % n, (n - k - 1) % n
            faces.append([end + k, end + (k + 1) % n, each + end + i2, each + end + i])
    return _pattern(faces, lines)


@lru_cache(maxsize=64)
def sheet_pattern(nx: int, ny: int) -> Pattern:
    """Return the pattern of a plate of nx by ny points, its underside's first, then its top's."""
    above = nx * ny
    cells = [(j * nx + i, j * nx + i + 1, (j + 1) * nx + i + 1, (j + 1) * nx + i) for j in range(ny - 1)
             for i in range(nx - 1)]  # fmt: skip
    faces = [[start + k for k in cell] for cell in cells for start in (0, above)]
    rim = [*range(nx), *(j * nx + nx - 1 for j in range(1, ny)), *(ny * nx - 1 - i for i in range(1, nx))]
    rim += [j * nx for j in range(ny - 2, 0, -1)]
    lines: list[tuple[int, int]] = []
    for a, b in zip(rim, [*rim[1:], rim[0]], strict=True):
        faces.append([a, b, above + b, above + a])
        lines += [(a, b), (above + a, above + b)]
    lines += [(corner, above + corner) for corner in (0, nx - 1, nx * ny - 1, nx * (ny - 1))]
    return _pattern(faces, lines)
