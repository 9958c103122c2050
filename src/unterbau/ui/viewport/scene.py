"""Bodies as plain arrays: points, faces, ink lines, and the nodes that each point follows."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray, axes_from
from unterbau.model.built import Built
from unterbau.structure.bodies import Body, Prism, Sheet

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
    faces: list[int]
    lines: list[int]
    owner: list[int]
    line_owner: list[int]
    keys: dict[str, int]
    nodes: list[IntArray]
    share: list[FloatArray]
    count: int = 0

    def add(self, key: str, points: FloatArray, nodes: IntArray, share: FloatArray) -> int:
        first = self.count
        self.points.append(points)
        self.nodes.append(nodes)
        self.share.append(share)
        self.count += len(points)
        self.keys.setdefault(key, len(self.keys))
        return first

    def face(self, key: str, corners: list[int]) -> None:
        self.faces += [len(corners), *corners]
        self.owner.append(self.keys[key])

    def line(self, key: str, a: int, b: int) -> None:
        self.lines += [2, a, b]
        self.line_owner.append(self.keys[key])


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
        points, np.array(c.faces), np.array(c.lines), np.array(c.owner), np.array(c.line_owner), tuple(c.keys), nodes,
        np.concatenate(c.share), arms,
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
    start, end = np.array(body.start), np.array(body.end)
    axes = axes_from((end - start)[None], np.array(body.up)[None])[0]
    chain = built.chains[body.chain]
    slices = SLICES if len(chain) > 2 and np.linalg.norm(end - start) > SHORT else 1
    steps = np.linspace(0.0, 1.0, slices + 1)
    loops = []
    for ring in body.rings[: 2 if _same_count(body) else 1]:
        flat = np.array(ring)
        across = flat[:, :1] * axes[1] + flat[:, 1:] * axes[2]
        points = (start + steps[:, None, None] * (end - start) + across).reshape(-1, 3)
        axis_points = np.repeat(start + steps[:, None] * (end - start), len(ring), axis=0)
        nodes, share = _follow(axis_points, chain, built)
        first = c.add(body.key, points, nodes, share)
        loops.append((first, len(ring)))
        _walls(c, body.key, first, len(ring), slices)
        _edges(c, body.key, flat, first, slices)
    _caps(c, body.key, loops, slices)


def _same_count(body: Prism) -> bool:
    return len(body.rings) == 2 and len(body.rings[0]) == len(body.rings[1])


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


def _walls(c: _Collector, key: str, first: int, n: int, slices: int) -> None:
    for s in range(slices):
        a, b = first + s * n, first + (s + 1) * n
        for k in range(n):
            k2 = (k + 1) % n
            c.face(key, [a + k, a + k2, b + k2, b + k])


def _edges(c: _Collector, key: str, flat: FloatArray, first: int, slices: int) -> None:
    n = len(flat)
    inked = set(corners(flat))
    for k in range(n):
        k2 = (k + 1) % n
        c.line(key, first + k, first + k2)
        c.line(key, first + slices * n + k, first + slices * n + k2)
        if k in inked:
            for s in range(slices):
                c.line(key, first + s * n + k, first + (s + 1) * n + k)


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


def _caps(c: _Collector, key: str, loops: list[tuple[int, int]], slices: int) -> None:
    for end in (0, slices):
        if len(loops) == 1:
            first, n = loops[0]
            c.face(key, [first + end * n + k for k in range(n)])
            continue
        (outer, n), (inner, _) = loops
        for k in range(n):
            k2 = (k + 1) % n
            # The inside runs the other way round, from the same corner.
            i, i2 = (n - k) % n, (n - k2) % n
            c.face(key, [outer + end * n + k, outer + end * n + k2, inner + end * n + i2, inner + end * n + i])


def _sheet(c: _Collector, body: Sheet, built: Built) -> None:
    nx, ny = len(body.xs), len(body.ys)
    grid = [(i, j) for j in range(ny) for i in range(nx)]
    nodes = np.array([[built.chains[f"{body.name} {i},{j}"][0]] * 2 for i, j in grid])
    share = np.ones(len(grid))
    first = {}
    for level in (body.low, body.high):
        points = np.array([body.place(body.xs[i], body.ys[j], level) for i, j in grid])
        first[level] = c.add(body.key, points, nodes, share)
    for j in range(ny - 1):
        for i in range(nx - 1):
            corner = [j * nx + i, j * nx + i + 1, (j + 1) * nx + i + 1, (j + 1) * nx + i]
            for start in first.values():
                c.face(body.key, [start + k for k in corner])
    rim = [*range(nx), *(j * nx + nx - 1 for j in range(1, ny)), *(ny * nx - 1 - i for i in range(1, nx))]
    rim += [j * nx for j in range(ny - 2, 0, -1)]
    low, high = first[body.low], first[body.high]
    for a, b in zip(rim, [*rim[1:], rim[0]], strict=True):
        c.face(body.key, [low + a, low + b, high + b, high + a])
        c.line(body.key, low + a, low + b)
        c.line(body.key, high + a, high + b)
    for corner_node in (0, nx - 1, nx * ny - 1, nx * (ny - 1)):
        c.line(body.key, low + corner_node, high + corner_node)
