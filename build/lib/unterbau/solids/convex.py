"""Convex bodies, and how far two of them reach into each other."""

from dataclasses import dataclass

import numpy as np

from unterbau.structure.vectors import Vector

Floats = np.ndarray[tuple[int, ...], np.dtype[np.float64]]
BoolArray = np.ndarray[tuple[int, ...], np.dtype[np.bool_]]
PARALLEL = 1e-9


@dataclass(frozen=True, slots=True)
class Convex:
    """A prism: two rings of corners, and the directions that could part it from another."""

    corners: Floats
    """Both ends, one after the other, shape (2n, 3)."""
    normals: Floats
    """Of its faces, one of each opposite pair, shape (m, 3)."""
    edges: Floats
    """Directions of its edges, shape (k, 3)."""

    @property
    def volume(self) -> float:
        """Of the closed body, m³."""
        n = len(self.corners) // 2
        first, last = self.corners[:n], self.corners[n:]
        faces = [first[::-1], last]
        faces += [np.array([first[k], first[(k + 1) % n], last[(k + 1) % n], last[k]]) for k in range(n)]
        total = 0.0
        for face in faces:
            for k in range(1, len(face) - 1):
                total += float(np.dot(face[0], np.cross(face[k], face[k + 1]))) / 6
        return abs(total)


def shifted(body: Convex, by: Vector) -> Convex:
    """Return a body moved as it is."""
    return Convex(body.corners + np.array(by), body.normals, body.edges)


def convex(first: list[Vector], last: list[Vector]) -> Convex:
    """Return a body from the corners of its two ends, in the same order."""
    a, b = np.array(first), np.array(last)
    along, around = b - a, np.roll(a, -1, axis=0) - a
    sides = np.cross(around, along)
    caps = [_normal(a), _normal(b)]
    normals = _distinct(np.vstack([sides, caps]))
    return Convex(np.vstack([a, b]), normals, _distinct(np.vstack([around, along, np.roll(b, -1, axis=0) - b])))


def _normal(ring: Floats) -> Floats:
    """Return twice the area of a flat ring as a vector."""
    return np.asarray(np.cross(ring, np.roll(ring, -1, axis=0)).sum(axis=0))


def _distinct(vectors: Floats) -> Floats:
    """Return directions of unit length, each once."""
    size = np.sqrt((vectors * vectors).sum(axis=1))
    some = size >= 1e-12
    unit = vectors[some] / size[some, None]
    alike = np.abs(np.abs(unit @ unit.T) - 1.0) <= PARALLEL
    found: list[int] = []
    left = np.ones(len(unit), dtype=bool)
    for number in range(len(unit)):
        if left[number]:
            found.append(number)
            left &= ~alike[number]
    return np.asarray(unit[found])


def depth(a: Convex, b: Convex) -> float:
    """Return how far two bodies reach into each other, m; negative where they are that far apart along some direction.

    Source:
        Separating axes of convex polyhedra: normals of both, and cross products of their edges.
    """
    for one, other in ((a, b), (b, a)):
        low = min(_reach(one, other, one.normals))
        if low < 0.0:
            return low
    crossed = np.cross(a.edges[:, None, :], b.edges[None, :, :]).reshape(-1, 3)
    size = np.linalg.norm(crossed, axis=1)
    axes = np.vstack([a.normals, b.normals, crossed[size > 1e-6] / size[size > 1e-6, None]])
    return float(min(_reach(a, b, axes)))


def _reach(a: Convex, b: Convex, axes: Floats) -> list[float]:
    along_a, along_b = a.corners @ axes.T, b.corners @ axes.T
    first = along_a.max(axis=0) - along_b.min(axis=0)
    second = along_b.max(axis=0) - along_a.min(axis=0)
    found: list[float] = np.minimum(first, second).tolist()
    return found
