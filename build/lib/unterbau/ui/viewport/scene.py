"""Bodies as plain arrays: points, faces, ink lines, and the nodes that each point follows."""

from dataclasses import dataclass
from functools import lru_cache
from math import dist

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.model.built import Built
from unterbau.structure.bodies import Body, Prism, Ring, Sheet
from unterbau.structure.vectors import Vector, cross, dot, minus, plus, scaled
from unterbau.ui.viewport.patterns import Pattern, prism_pattern, sheet_pattern

SLICES = 12
SHORT = 0.03
"""Nothing as short as this is seen to bend, m."""
CORNER = np.cos(np.radians(28))
ROUND = np.cos(np.radians(3))
LONG = 0.05  # a side longer than this share of the outline parts two rounded corners
MIDDLE = 4


@dataclass(frozen=True, slots=True)
class Scene:
    """Everything drawn, as one mesh."""

    points: FloatArray
    """m, shape (n, 3)."""
    faces: IntArray
    """Polygons as count, then points, flat."""
    lines: IntArray
    """Ink edges as count, then points, flat."""
    owner: IntArray
    """For each face, its place in `keys`."""
    line_owner: IntArray
    """For each line, its place in `keys`."""
    keys: tuple[str, ...]
    nodes: IntArray
    """Two frame nodes that each point follows, shape (n, 2)."""
    share: FloatArray
    """Share of the first of them, shape (n,)."""
    arms: FloatArray
    """From each of the two nodes to the point, m, shape (n, 2, 3)."""

    def points_of(self, key: str) -> IntArray:
        """Return the numbers of the points of a part's lines."""
        if key not in self.keys:
            return np.zeros(0, dtype=np.intp)
        rows = self.lines.reshape(-1, 3)[self.line_owner == self.keys.index(key)]
        return np.unique(rows[:, 1:])


@dataclass
class _Collector:
    points: list[FloatArray]
    faces: list[IntArray]
    lines: list[IntArray]
    owner: list[IntArray]
    line_owner: list[IntArray]
    keys: dict[str, int]
    nodes: list[IntArray]
    share: list[FloatArray]
    count: int = 0

    def add(self, key: str, points: FloatArray, nodes: IntArray, share: FloatArray, pattern: Pattern) -> None:
        """Take up a body.

        Args:
            key: Whose it is.
            points: m, shape (n, 3).
            nodes: Frame nodes that each follows, shape (n, 2).
            share: Of the first of them, shape (n,).
            pattern: How they are joined.
        """
        number = self.keys.setdefault(key, len(self.keys))
        self.points.append(points)
        self.nodes.append(nodes)
        self.share.append(share)
        self.faces.append(pattern.faces + self.count * pattern.of_points)
        self.lines.append((pattern.lines + np.array([0, self.count, self.count])).ravel())
        self.owner.append(np.full(pattern.count, number))
        self.line_owner.append(np.full(len(pattern.lines), number))
        self.count += len(points)


def build_scene(bodies: tuple[Body, ...], built: Built) -> Scene:
    """Return the mesh of all bodies with the nodes that they follow."""
    c = _Collector([], [], [], [], [], {}, [], [])
    for body in bodies:
        if isinstance(body, Prism):
            _prism(c, body, built)
        else:
            _sheet(c, body, built)
    points, nodes = np.vstack(c.points), np.vstack(c.nodes)
    arms = points[:, None, :] - built.frame.nodes[nodes]
    return Scene(
        points, np.concatenate(c.faces), np.concatenate(c.lines), np.concatenate(c.owner), np.concatenate(c.line_owner),
        tuple(c.keys), nodes, np.concatenate(c.share), arms,
    )  # fmt: skip


def moved(scene: Scene, u: FloatArray, scale: float) -> FloatArray:
    """Return the points moved by nodal movements (n_nodes, 6), exaggerated by `scale`."""
    each = u[scene.nodes]
    movement = each[..., :3] + np.cross(each[..., 3:], scene.arms)
    share = scene.share[:, None]
    return np.asarray(scene.points + scale * (share * movement[:, 0] + (1 - share) * movement[:, 1]))


def size_of(scene: Scene) -> float:
    """Return the diagonal of the space the machine takes, m."""
    return float(np.linalg.norm(np.ptp(scene.points, axis=0)))


def largest_movement(scene: Scene, u: FloatArray) -> float:
    """Return the largest movement of any drawn point, m."""
    return float(np.linalg.norm(moved(scene, u, 1.0) - scene.points, axis=1).max())


def _prism(c: _Collector, body: Prism, built: Built) -> None:
    chain = built.chains[body.chain]
    slices = SLICES if len(chain) > 2 and dist(body.start, body.end) > SHORT else 1
    start, end = np.array(body.start), np.array(body.end)
    line = start + _steps(slices) * (end - start)
    nodes, share = _follow(line, chain, built)
    axes = np.array(_across(body.start, body.end, body.up))
    rings = tuple(_inked(ring) for ring in body.rings[: 2 if _same_count(body) else 1])
    points = np.concatenate([(line[:, None] + flat @ axes).reshape(-1, 3) for flat, _ in rings])
    along = np.concatenate([np.repeat(np.arange(slices + 1), len(flat)) for flat, _ in rings])
    pattern = prism_pattern(len(rings[0][0]), slices, tuple(inked for _, inked in rings))
    c.add(body.key, points, nodes[along], share[along], pattern)


def _across(start: Vector, end: Vector, up: Vector) -> tuple[Vector, Vector]:
    """Return the y and z of a body along a line, its z on the side of up."""
    x = minus(end, start)
    x = scaled(x, 1.0 / dot(x, x) ** 0.5)
    z = plus(up, x, -dot(up, x))
    z = scaled(z, 1.0 / dot(z, z) ** 0.5)
    return cross(z, x), z


def _same_count(body: Prism) -> bool:
    return len(body.rings) == 2 and len(body.rings[0]) == len(body.rings[1])


@lru_cache(maxsize=8)
def _steps(slices: int) -> FloatArray:
    return np.linspace(0.0, 1.0, slices + 1)[:, None]


@lru_cache(maxsize=512)
def _inked(ring: Ring) -> tuple[FloatArray, tuple[int, ...]]:
    """Return a ring as an array, and its vertices that carry an ink line."""
    flat = np.array(ring)
    return flat, tuple(corners(flat))


def _follow(points: FloatArray, chain: tuple[int, ...], built: Built) -> tuple[IntArray, FloatArray]:
    """Return the two neighbours along a chain and the first one's share, by place along it."""
    if len(chain) == 1:
        return np.full((len(points), 2), chain[0]), np.ones(len(points))
    places = built.frame.nodes[list(chain)]
    along = places[-1] - places[0]
    along = along / np.linalg.norm(along)
    stops = (places - places[0]) @ along
    at = np.clip((points - places[0]) @ along, stops[0], stops[-1])
    left = np.clip(np.searchsorted(stops, at, side="right") - 1, 0, len(chain) - 2)
    share = 1 - (at - stops[left]) / (stops[left + 1] - stops[left])
    numbers = np.array(chain)
    return np.stack([numbers[left], numbers[left + 1]], axis=1), share


def corners(flat: FloatArray) -> list[int]:
    """Return the vertices of a ring that carry an ink line: sharp ones, and the middle of rounded ones."""
    n = len(flat)
    sides = np.roll(flat, -1, axis=0) - flat
    sides = sides / np.maximum(np.linalg.norm(sides, axis=1, keepdims=True), 1e-12)
    cosine = np.sum(sides * np.roll(sides, 1, axis=0), axis=1)
    sharp = [k for k in range(n) if cosine[k] < CORNER]
    bends = {k for k in range(n) if CORNER <= cosine[k] <= ROUND}
    lengths = np.linalg.norm(np.roll(flat, -1, axis=0) - flat, axis=1)
    longest = lengths > LONG * lengths.sum()
    if not longest.any():
        return sharp
    run: list[int] = []
    for step in range(2 * n):
        k = step % n
        if k in bends:
            run.append(k)
        if run and (k not in bends or longest[k]):
            if len(run) >= MIDDLE:
                sharp.append(run[len(run) // 2])
            run = []
    return sorted(set(sharp))


def _sheet(c: _Collector, body: Sheet, built: Built) -> None:
    nx, ny = len(body.xs), len(body.ys)
    grid = [(i, j) for j in range(ny) for i in range(nx)]
    nodes = np.array([[built.chains[f"{body.name} {i},{j}"][0]] * 2 for i, j in grid])
    points = np.array([body.place(body.xs[i], body.ys[j], level) for level in (body.low, body.high) for i, j in grid])
    c.add(body.key, points, np.vstack([nodes, nodes]), np.ones(len(points)), sheet_pattern(nx, ny))
