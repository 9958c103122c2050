"""Quadratic bricks on a rectilinear grid, and their flexibility at pads, by calculix-ccx. Millimetres, N, MPa."""

import itertools
import subprocess
from collections.abc import Sequence
from dataclasses import dataclass, field
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
CORNERS = ((0, 0, 0), (2, 0, 0), (2, 2, 0), (0, 2, 0), (0, 0, 2), (2, 0, 2), (2, 2, 2), (0, 2, 2))
EDGES = (
    (1, 0, 0), (2, 1, 0), (1, 2, 0), (0, 1, 0), (1, 0, 2), (2, 1, 2), (1, 2, 2), (0, 1, 2),
    (0, 0, 1), (2, 0, 1), (2, 2, 1), (0, 2, 1),
)  # fmt: skip
SAME = 1e-6
Span = tuple[float, float]


@dataclass(frozen=True)
class Box:
    """A block of one material; boxes of one body, and of bodies that touch, share their nodes."""

    x: Span
    y: Span
    z: Span
    E: float
    nu: float = 0.3
    screwed: str = ""
    """Name of a body that touches others within its screws' patches only."""


@dataclass(frozen=True)
class Screws:
    """Where a body is tied to what it lies on."""

    body: str
    patches: tuple[tuple[Span, Span, Span], ...]
    """Ranges of x, y, z; one of them is a plane."""


@dataclass(frozen=True)
class Pad:
    """A part of a surface that is loaded and watched, `axis` its normal."""

    x: Span
    y: Span
    z: Span

    @property
    def spans(self) -> tuple[Span, Span, Span]:
        """Ranges of x, y, z."""
        return self.x, self.y, self.z

    @property
    def axis(self) -> int:
        """Direction of its normal."""
        return next(n for n, (low, high) in enumerate(self.spans) if abs(high - low) < SAME)

    @property
    def middle(self) -> Floats:
        """Its centre."""
        return np.array([(low + high) / 2 for low, high in self.spans])


@dataclass
class Solid:
    """A body of bricks."""

    boxes: list[Box]
    screws: list[Screws]
    fixed: list[tuple[Span, Span, Span]]
    """Ranges of x, y, z whose nodes do not move."""
    finest: tuple[float, float, float]
    """Largest brick along x, y, z."""
    pads: list[Pad]
    lines: list[Floats] = field(init=False)
    nodes: list[Floats] = field(init=False)
    elements: list[tuple[int, list[int]]] = field(init=False)
    """Index of the box, and nodes."""

    def __post_init__(self) -> None:
        """Mesh it."""
        self.lines = [self._lines(axis) for axis in range(3)]
        self._number: dict[tuple[int, int, int, str], int] = {}
        self.nodes, self.elements = [], []
        for n, box in enumerate(self.boxes):
            ranges = [self._range(axis, span) for axis, span in enumerate((box.x, box.y, box.z))]
            for cell in itertools.product(*ranges):
                corner = tuple(2 * c for c in cell)
                names = [
                    self._node(tuple(a + b for a, b in zip(corner, off, strict=True)), box)
                    for off in (*CORNERS, *EDGES)
                ]
                self.elements.append((n, names))

    def _lines(self, axis: int) -> Floats:
        stops: list[float] = []
        for box in self.boxes:
            stops += (box.x, box.y, box.z)[axis]
        for screws in self.screws:
            for patch in screws.patches:
                stops += patch[axis]
        for pad in self.pads:
            stops += pad.spans[axis]
        merged: list[float] = []
        for stop in sorted(stops):
            if not merged or stop - merged[-1] > SAME:
                merged.append(stop)
        result = [merged[0]]
        for a, b in itertools.pairwise(merged):
            count = max(1, int(np.ceil((b - a) / self.finest[axis] - SAME)))
            result += [a + (b - a) * (k + 1) / count for k in range(count)]
        return np.array(result)

    def _range(self, axis: int, span: Span) -> range:
        line = self.lines[axis]
        low, high = (int(np.argmin(np.abs(line - end))) for end in span)
        return range(low, high)

    def _place(self, key: tuple[int, ...]) -> Floats:
        place = []
        for axis, half in enumerate(key):
            line = self.lines[axis]
            place.append(line[half // 2] if half % 2 == 0 else (line[half // 2] + line[half // 2 + 1]) / 2)
        return np.array(place)

    def _node(self, key: tuple[int, ...], box: Box) -> int:
        place = self._place(key)
        own = ""
        if box.screwed:
            tied = any(
                all(low - SAME <= p <= high + SAME for p, (low, high) in zip(place, patch, strict=True))
                for screws in self.screws if screws.body == box.screwed for patch in screws.patches
            )  # fmt: skip
            own = "" if tied else box.screwed
        name = (key[0], key[1], key[2], own)
        if name not in self._number:
            self._number[name] = len(self.nodes)
            self.nodes.append(place)
        return self._number[name]

    def pad_weights(self, pad: Pad) -> tuple[list[int], Floats, Floats]:
        """Return nodes of a pad, their share of its face, and their places from its middle."""
        axis = pad.axis
        flat = [n for n in range(3) if n != axis]
        total: dict[int, float] = {}
        moment: dict[int, Floats] = {}
        for _, names in self.elements:
            places = np.array([self.nodes[n] for n in names])
            on = [k for k in range(20) if abs(places[k, axis] - pad.spans[axis][0]) < SAME]
            if len(on) != 8:
                continue
            face = places[on]
            if not all(
                pad.spans[d][0] - SAME <= face[:, d].min() and face[:, d].max() <= pad.spans[d][1] + SAME for d in flat
            ):
                continue
            low, high = face.min(axis=0), face.max(axis=0)
            a, b = high[flat] - low[flat]
            for u, wu in zip(*np.polynomial.legendre.leggauss(3), strict=True):
                for v, wv in zip(*np.polynomial.legendre.leggauss(3), strict=True):
                    at = low.copy()
                    at[flat] += np.array([a * (u + 1) / 2, b * (v + 1) / 2])
                    for k, value in zip(on, _eight(face[:, flat], low[flat], high[flat], u, v), strict=True):
                        w = value * wu * wv * a * b / 4
                        total[names[k]] = total.get(names[k], 0.0) + w
                        moment[names[k]] = moment.get(names[k], np.zeros(3)) + w * (at - pad.middle)
        nodes = list(total)
        return nodes, np.array([total[n] for n in nodes]), np.array([moment[n] for n in nodes])

    def unit_loads(self, pad: Pad) -> tuple[list[int], Floats]:
        """Return nodes of a pad and the nodal forces (6, n, 3) of unit forces and moments about its middle."""
        nodes, share, arm = self.pad_weights(pad)
        area = share.sum()
        loads = np.zeros((6, len(nodes), 3))
        for d in range(3):
            loads[d, :, d] = share / area
        places = np.array([self.nodes[n] for n in nodes]) - pad.middle
        inertia = (arm * places).sum(axis=0)
        axis = pad.axis
        flat = [n for n in range(3) if n != axis]
        polar = inertia[flat].sum()
        for d in range(3):
            turn = np.zeros(3)
            turn[d] = 1.0
            field_ = np.cross(turn, arm)
            loads[3 + d] = field_ / (polar if d == axis else inertia[next(n for n in flat if n != d)])
        return nodes, loads

    def text(self, load_sets: list[tuple[list[int], Floats]], watched: list[int]) -> str:
        """Return the input of the solver: a step for every load."""
        rows = ["*NODE, NSET=ALL"]
        rows += [f"{n + 1},{p[0]:.9g},{p[1]:.9g},{p[2]:.9g}" for n, p in enumerate(self.nodes)]
        for box in range(len(self.boxes)):
            mine = [(e, names) for e, (b, names) in enumerate(self.elements) if b == box]
            rows.append(f"*ELEMENT, TYPE=C3D20R, ELSET=B{box}")
            for e, names in mine:
                ids = [str(e + 1), *(str(n + 1) for n in names)]
                rows += [",".join(ids[:11]) + ",", ",".join(ids[11:])]
            one = self.boxes[box]
            rows += [
                f"*MATERIAL, NAME=M{box}",
                "*ELASTIC",
                f"{one.E},{one.nu}",
                f"*SOLID SECTION, ELSET=B{box}, MATERIAL=M{box}",
            ]
        held = [n for n, p in enumerate(self.nodes) if any(_within(p, spans) for spans in self.fixed)]
        rows += ["*NSET, NSET=FIX", *(f"{n + 1}," for n in held), "*BOUNDARY", "FIX,1,3"]
        rows += ["*NSET, NSET=PADS", *(f"{n + 1}," for n in watched)]
        for nodes, forces in load_sets:
            rows += ["*STEP", "*STATIC", "*CLOAD, OP=NEW"]
            for n, f in zip(nodes, forces, strict=True):
                rows += [f"{n + 1},{d + 1},{v:.9g}" for d, v in enumerate(f) if abs(v) > 1e-15]
            rows += ["*NODE PRINT, NSET=PADS", "U", "*END STEP"]
        return "\n".join(rows) + "\n"

    def flexibility(self, folder: Path, loaded: Sequence[int], directions: Sequence[int] = (1, 2, 3, 4, 5)) -> Floats:
        """Return movements of all pads by unit loads on some, mm and rad per N and N·mm, (pads, 6, loaded, 6).

        Args:
            folder: To work in.
            loaded: Pads that are loaded.
            directions: Of the loads; others are left zero.
        """
        units = [self.unit_loads(pad) for pad in self.pads]
        watched = sorted({n for nodes, _ in units for n in nodes})
        sets = [(units[p][0], units[p][1][d]) for p in loaded for d in directions]
        (folder / "solid.inp").write_text(self.text(sets, watched), encoding="ascii")
        subprocess.run(["ccx", "solid"], cwd=folder, check=True, stdout=subprocess.DEVNULL)
        steps = read_movements(folder / "solid.dat")
        found = np.zeros((len(self.pads), 6, len(loaded), 6))
        for n, moved in enumerate(steps):
            p, d = divmod(n, len(directions))
            for q, (nodes, loads) in enumerate(units):
                u = np.array([moved[node + 1] for node in nodes])
                found[q, :, p, directions[d]] = np.einsum("dnc,nc->d", loads, u)
        return found


def _within(place: Floats, spans: tuple[Span, Span, Span]) -> bool:
    return all(low - SAME <= value <= high + SAME for value, (low, high) in zip(place, spans, strict=True))


def _eight(corners: Floats, low: Floats, high: Floats, u: float, v: float) -> list[float]:
    """Return the shape functions of an eight-node face at u, v for its nodes as they come."""
    values = []
    for place in corners:
        s, t = (2 * (place - low) / (high - low) - 1).round().tolist()
        if s and t:
            values.append((1 + s * u) * (1 + t * v) * (s * u + t * v - 1) / 4)
        elif s:
            values.append((1 + s * u) * (1 - v * v) / 2)
        else:
            values.append((1 - u * u) * (1 + t * v) / 2)
    return values


def read_movements(path: Path) -> list[dict[int, list[float]]]:
    """Return movements of the printed nodes, step by step."""
    steps: list[dict[int, list[float]]] = []
    for line in path.read_text(encoding="ascii").splitlines():
        if "displacements" in line:
            steps.append({})
        elif steps and line.strip():
            words = line.split()
            steps[-1][int(words[0])] = [float(w) for w in words[1:4]]
    return steps
