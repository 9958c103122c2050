"""A frame document solved by openseespy, element by element, without any of our solver."""

import itertools

import numpy as np
import openseespy.opensees as ops

from unterbau.files.frame_document import FrameDocument, Plate

NEAR = 1e-6
Crossings = dict[tuple[int, int], int]
RIGID = 1e13
"""Stands for a rigid direction, N/m: far above every other stiffness, far below what rounding bears."""


class OpenSeesFrame:
    """The document's model in openseespy; springs act at node i's place by a rigid link from j."""

    def __init__(self, document: FrameDocument, pieces: int = 1) -> None:
        self.document = document
        self.pieces = pieces
        self.tag = {node.id: n + 1 for n, node in enumerate(document.nodes)}
        self.place = {node.id: np.array(node.xyz) for node in document.nodes}
        self.next_node = len(self.tag) + 1
        self.next_element = 1
        ops.wipe()
        ops.model("basic", "-ndm", 3, "-ndf", 6)
        for node in document.nodes:
            ops.node(self.tag[node.id], *map(float, node.xyz))
        for support in document.supports:
            ops.fix(self.tag[support.node], *map(int, support.fixed))
        self.weights: list[tuple[int, float, np.ndarray]] = []
        self.bodies: list[tuple[int, float]] = []
        self.turning: dict[int, np.ndarray] = {}
        self.found: list[np.ndarray] | None = None
        self._plates()
        self._beams()
        self._springs()
        self._masses()

    def _extra_node(self, place: np.ndarray) -> int:
        ops.node(self.next_node, *map(float, place))
        self.next_node += 1
        return self.next_node - 1

    def _carried(self, node: str, offset: tuple[float, float, float]) -> int:
        """Return the node itself, or one on a rigid link (its own `-jntOffset` is not rigid)."""
        if not any(offset):
            return self.tag[node]
        other = self._extra_node(self.place[node] + offset)
        ops.rigidLink("beam", self.tag[node], other)
        return other

    def _beams(self) -> None:
        materials = {m.id: m for m in self.document.materials}
        sections = {s.id: s for s in self.document.sections}
        for number, beam in enumerate(self.document.beams, 1):
            m, s = materials[beam.material], sections[beam.section]
            ends = [self._carried(beam.i, beam.offset_i), self._carried(beam.j, beam.offset_j)]
            start = self.place[beam.i] + beam.offset_i
            span = self.place[beam.j] + beam.offset_j - start
            inner = [self._extra_node(start + span * k / self.pieces) for k in range(1, self.pieces)]
            chain = [ends[0], *inner, ends[1]]
            for k, (a, b) in enumerate(itertools.pairwise(chain)):
                transformation = number * 100 + k
                ops.geomTransf("Linear", transformation, *beam.up)
                common = (m.E, m.G, s.A, s.J, s.Iy, s.Iz)
                density = ("-mass", m.rho * s.A, "-cMass")
                if s.Asy and s.Asz:
                    ops.element(
                        "ElasticTimoshenkoBeam", self.next_element, a, b, *common, s.Asy, s.Asz, transformation,
                        *density,
                    )  # fmt: skip
                else:
                    E, G, A, J, Iy, Iz = common
                    ops.element(
                        "elasticBeamColumn", self.next_element, a, b, A, E, G, J, Iy, Iz, transformation, *density
                    )  # fmt: skip
                self.weights.append((self.next_element, m.rho * s.A, _axes(span, np.array(beam.up))))
                self.next_element += 1
                self._add_turning(a, b, span, m.rho * (s.Iy + s.Iz - s.J))
        for node, inertia in self.turning.items():
            ops.mass(node, 0.0, 0.0, 0.0, *inertia)

    def _add_turning(self, a: int, b: int, span: np.ndarray, missing: float) -> None:
        """Add the inertia about the beam's axis that openseespy takes from J instead of Iy + Iz.

        Its nodal masses are diagonal, so only beams along a global axis are served.
        """
        length = np.linalg.norm(span)
        along = np.abs(span) / length
        if along.max() > 1 - 1e-9:
            for node in (a, b):
                share = along * missing * length / self.pieces / 2
                self.turning[node] = self.turning.get(node, np.zeros(3)) + share

    def _plates(self) -> None:
        """Mesh every plate with its own four-node shells on the same lines; patches by rigid links."""
        materials = {m.id: m for m in self.document.materials}
        for number, plate in enumerate(self.document.plates, 1):
            m = materials[plate.material]
            # A section takes E and ν; G follows from them there.
            ops.section("ElasticMembranePlateSection", 5000 + number, m.E, plate.nu, plate.thickness, m.rho)
            x, up = np.array(plate.x), np.array(plate.up)
            y, corner = np.cross(up, x), np.array(plate.origin)
            tags = self._plate_nodes(plate, x, y, corner)
            for i, j in itertools.product(range(len(plate.xs) - 1), range(len(plate.ys) - 1)):
                four = (tags[i, j], tags[i + 1, j], tags[i + 1, j + 1], tags[i, j + 1])
                ops.element("ShellMITC4", self.next_element, *four, 5000 + number)
                self.next_element += 1
                area = (plate.xs[i + 1] - plate.xs[i]) * (plate.ys[j + 1] - plate.ys[j])
                self.bodies += [(tag, m.rho * plate.thickness * area / 4) for tag in four]

    def _plate_nodes(self, plate: Plate, x: np.ndarray, y: np.ndarray, corner: np.ndarray) -> Crossings:
        tags: Crossings = {}
        points = {(point.x, point.y): self.tag[point.node] for point in plate.points}
        for i, j in itertools.product(range(len(plate.xs)), range(len(plate.ys))):
            a, b = plate.xs[i], plate.ys[j]
            here = [t for (px, py), t in points.items() if abs(px - a) < NEAR and abs(py - b) < NEAR]
            tags[i, j] = here[0] if here else self._extra_node(corner + a * x + b * y)
            for patch in plate.patches:
                if abs(patch.x - a) < patch.half_x + NEAR and abs(patch.y - b) < patch.half_y + NEAR:
                    ops.rigidLink("beam", self.tag[patch.node], tags[i, j])
                    break
        return tags

    def _springs(self) -> None:
        material = 1
        for spring in self.document.springs:
            i = self.tag[spring.i]
            other = self._extra_node(self.place[spring.i])
            if spring.j is None:
                ops.fix(other, 1, 1, 1, 1, 1, 1)
            else:
                ops.rigidLink("beam", self.tag[spring.j], other)
            tags = []
            for number, k in enumerate(spring.k):
                stiff = k if k is not None else RIGID if number < 3 else RIGID / 100
                ops.uniaxialMaterial("Elastic", material, max(stiff, 1e-6))
                tags.append(material)
                material += 1
            y = np.cross(np.array(spring.up), np.array(spring.x))
            ops.element(
                "zeroLength", self.next_element, other, i, "-mat", *tags, "-dir", 1, 2, 3, 4, 5, 6,
                "-orient", *spring.x, *y,
            )  # fmt: skip
            self.next_element += 1

    def _masses(self) -> None:
        for mass in self.document.masses:
            node = self._extra_node(self.place[mass.node] + mass.offset)
            ops.rigidLink("beam", self.tag[mass.node], node)
            self.bodies.append((node, mass.m))
            ops.mass(node, mass.m, mass.m, mass.m, *mass.inertia)

    def displacements(self, case: int) -> np.ndarray:
        """Movements of the document's nodes under a case."""
        if self.found is None:
            self.found = self._solve_cases()
        return self.found[case]

    def _solve_cases(self) -> list[np.ndarray]:
        """Solve every case with one factorisation: each acts alone at a time of its own."""
        steps = len(self.document.cases)
        for number, case in enumerate(self.document.cases, 1):
            acts = [1.0 if step == number else 0.0 for step in range(steps + 1)]
            ops.timeSeries("Path", number, "-time", *map(float, range(steps + 1)), "-values", *acts)
            ops.pattern("Plain", number, number)
            for load in case.forces:
                ops.load(self.tag[load.node], *load.force, *load.moment)
            self._weigh(np.array(case.gravity))
        ops.constraints("Transformation")
        ops.numberer("RCM")
        ops.system("SparseGeneral")
        ops.test("NormUnbalance", 1e-8, 10)
        ops.algorithm("Linear", "-factorOnce")
        ops.integrator("LoadControl", 1.0)
        ops.analysis("Static")
        found = []
        for _ in range(steps):
            assert ops.analyze(1) == 0
            found.append(np.array([ops.nodeDisp(self.tag[node.id]) for node in self.document.nodes]))
        return found

    def _weigh(self, gravity: np.ndarray) -> None:
        if not gravity.any():
            return
        for element, per_metre, axes in self.weights:
            x, y, z = (per_metre * axes @ gravity).tolist()
            ops.eleLoad("-ele", element, "-type", "-beamUniform", y, z, x)
        for node, mass in self.bodies:
            ops.load(node, *(mass * gravity).tolist(), 0.0, 0.0, 0.0)

    def frequencies(self, count: int) -> np.ndarray:
        """Natural frequencies, Hz."""
        ops.constraints("Transformation")
        ops.numberer("RCM")
        ops.system("SparseGeneral")
        return np.asarray(np.sqrt(np.array(ops.eigen("-genBandArpack", count))) / (2 * np.pi))


def _axes(span: np.ndarray, up: np.ndarray) -> np.ndarray:
    """Local x, y, z as rows: x along the span, z on the side of `up`."""
    x = span / np.linalg.norm(span)
    z = up - (up @ x) * x
    z = z / np.linalg.norm(z)
    return np.array([x, np.cross(z, x), z])
