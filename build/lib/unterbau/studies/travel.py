"""The whole travel at once: stiffness and droop at every place from one factorisation."""

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from unterbau.band import Level
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, lay_out, to_frame
from unterbau.mechanics import beam
from unterbau.mechanics.arrays import FloatArray, IntArray, axes_from, cross_matrices
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.frame import Beams
from unterbau.mechanics.moving_contacts import Contact, Joined, Swept
from unterbau.mechanics.moving_points import InnerFlexibility, Point
from unterbau.mechanics.substructures import cut
from unterbau.model.built import Built
from unterbau.model.footprint import HALF, footprint
from unterbau.model.frame_builder import Chain
from unterbau.structure.parts import Place
from unterbau.studies.loads import GRAVITY
from unterbau.studies.motions import AXES, Motions, motions_of

MIDDLE = Place(0.5, 0.5, 0.0)
"""Where a machine is put up, if nobody says otherwise."""


class Travel:
    """A machine that is asked for many places: put up once; how what moves goes is looked at elsewhere."""

    def __init__(self, machine: Machine, at: Place = MIDDLE) -> None:
        """Put the machine up.

        Args:
            machine: The machine.
            at: Where, best where it is put up already; the answers do not hang on it.

        Raises:
            InputError: The machine cannot be built.
        """
        self._machine, self._at = machine, at
        self._built = to_frame(machine, at, "likely")
        self._way = lay_out(machine).way
        self._motions = motions_of(machine, at)
        self.on_plate = self._built.ground is None or self._built.ground.chain is None
        """Whether the work stands on a plate, not in a chuck."""

    def over_work(self, places: FloatArray) -> FloatArray:
        """Return the tool from the first node of what carries the work, m, shape (n, 3)."""
        return self._motions.over.at(self._gone(places))

    def _gone(self, places: FloatArray) -> FloatArray:
        """Return how far each axis has gone at places, m, (n, 3): beyond the end of short work a carriage stays."""
        found = np.zeros(places.shape)
        for axis, name in enumerate(AXES):
            shares, which = np.unique(places[:, axis], return_inverse=True)
            ways = [self._way(replace(self._at, **{name: share}))[axis] for share in shares.tolist()]
            found[:, axis] = np.array(ways)[which.ravel()]
        return found

    def answers(self, places: FloatArray, level: Level = "likely") -> Swept:
        """Return tool against work at places of the travel, each 0 to 1 along x, y, z.

        Args:
            places: Shape (n, 3).
            level: Of its joints.

        Raises:
            InputError: The machine cannot be solved, with the reason.
        """
        return self.cut_for(places, level)(np.arange(len(places)))

    def cut_for(self, places: FloatArray, level: Level = "likely") -> Callable[[IntArray], Swept]:
        """Return what answers for some of a number of places, by their rows; the frame is cut once for all of them.

        Raises:
            InputError: The machine cannot be solved, with the reason.
        """
        first = self._built if level == "likely" else to_frame(self._machine, self._at, level)
        try:
            every = _AtPlaces(first, self._motions, self._gone(places), level)
        except (MechanismError, ConditionError) as error:
            raise InputError("machine", str(error)) from None
        return every.answers


Ridden = tuple[FloatArray, IntArray, IntArray]


class _AtPlaces:
    """Points, contacts and substructures of one machine for given places."""

    def __init__(self, built: Built, motions: Motions, places: FloatArray, level: Level) -> None:
        """Cut the frame.

        Args:
            built: The machine as put up.
            motions: How what moves goes with the axes.
            places: How far these have gone, m, shape (n, 3).
            level: Of what is uncertain.
        """
        self._built, self._motions, self._places, self._level = built, motions, places, level
        frame = built.frame
        self._still = np.zeros(len(places), dtype=np.intp)
        self._ridden = dict[tuple[Chain, bytes], Ridden]()
        self._elements = beam.build(frame.nodes, frame.beams)
        moving = np.zeros(len(frame.springs), dtype=bool)
        moving[[s.row for s in built.slides if not s.inside]] = True
        moving[[drive.spring for drive in built.drives]] = True
        self._crossings = self._under_work()
        touched = np.array(sorted(self._touched()), dtype=np.intp)
        self._parts, of, place = cut(frame, moving, touched, np.array(GRAVITY))
        self._of = dict(zip(touched.tolist(), of.tolist(), strict=True))
        self._place = dict(zip(touched.tolist(), place.tolist(), strict=True))
        inner = HostBeams(frame.beams, self._elements)
        tool, work = self._fixed(built.tip), self._on_work()
        self.answers = Joined(self._parts, self._contacts(), tool, work, motions.arms.at(places), inner).answers

    def _contacts(self) -> list[Contact]:
        built, frame = self._built, self._built.frame
        contacts = []
        slides = self._motions.slides
        at = slides.at(self._places)
        tables = [frame.seats if slide.inside else frame.springs for slide in built.slides]
        nodes = [int((frame.seats.node if one.inside else frame.springs.i)[one.row]) for one in built.slides]
        seconds = self._on_chains([
            (slide.chain, at[:, number], frame.nodes[nodes[number]], float(slides.start[number]))
            for number, slide in enumerate(built.slides)
        ])  # fmt: skip
        for slide, rows, node, second in zip(built.slides, tables, nodes, seconds, strict=True):
            axes, flexibility = _axes(rows.x[slide.row], rows.up[slide.row]), _inverse(rows.k[slide.row])
            contacts.append(Contact(self._fixed(node), second, axes, flexibility[None], self._still))
        distances = self._motions.drives.at(self._places)
        for number, drive in enumerate(built.drives):
            s = frame.springs
            i, j = int(s.i[drive.spring]), int(s.j[drive.spring])
            different, which = np.unique(distances[:, number], return_inverse=True)
            flexibility = np.full((len(different), 6), np.inf)
            flexibility[:, 0] = [1 / drive.stiffness(self._level, d) for d in different.tolist()]
            second, axes = self._fixed(j, frame.nodes[i] - frame.nodes[j]), _axes(s.x[drive.spring], s.up[drive.spring])
            contacts.append(Contact(self._fixed(i), second, axes, flexibility, which.ravel()))
        return contacts

    def _touched(self) -> set[int]:
        built, frame = self._built, self._built.frame
        found = {built.tip}
        at = self._motions.slides.at(self._places)
        for number, slide in enumerate(built.slides):
            rows = frame.seats.node if slide.inside else frame.springs.i
            found |= {int(rows[slide.row]), *self._under(slide.chain, at[:, number])}
        for drive in built.drives:
            found |= {int(frame.springs.i[drive.spring]), int(frame.springs.j[drive.spring])}
        if built.ground is not None and built.ground.chain is not None:
            return found | self._under(built.ground.chain, self._motions.work.at(self._places)[:, 0])
        return found | set(self._crossings[0].ravel().tolist())

    def _under(self, chain: Chain, at: FloatArray) -> set[int]:
        """Return the nodes at the ends of the pieces of a chain that carry what stands at `at` along it."""
        nodes, piece = np.array(chain.nodes), self._pieces(chain, at)[2]
        return {*nodes[piece].tolist(), *nodes[piece + 1].tolist()}

    def _pieces(self, chain: Chain, at: FloatArray) -> Ridden:
        """Return the different places along a chain, which of them each is, and the piece that carries each of them."""
        asked = (chain, at.tobytes())
        if asked not in self._ridden:
            stops = self._stops(chain)[0]
            values, position = np.unique(np.round(at, 9), return_inverse=True)
            held = np.clip(values, stops[0], stops[-1])
            piece = np.clip(np.searchsorted(stops, held, side="right") - 1, 0, len(stops) - 2)
            self._ridden[asked] = values, position.ravel(), piece
        return self._ridden[asked]

    def _stops(self, chain: Chain) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Return how far along a chain's axis each of its beams begins, and the last ends; its direction and start."""
        frame, beams = self._built.frame, np.array(chain.beams)
        b = frame.beams
        last = frame.nodes[b.j[beams[-1]]] + b.offset_j[beams[-1]]
        axis = np.vstack([frame.nodes[b.i[beams]] + b.offset_i[beams], last])
        line = (axis[-1] - axis[0]) / np.linalg.norm(axis[-1] - axis[0])
        return np.asarray((axis - axis[0]) @ line), np.asarray(line), np.asarray(axis[0])

    def _under_work(self) -> tuple[IntArray, FloatArray, IntArray]:
        """Return the nodes that carry the work, its movement by theirs in each position, which each place has."""
        built, ground = self._built, self._built.ground
        if ground is None or ground.chain is not None:
            return built.work.nodes[None], built.work.share[None], self._still
        height = np.maximum(self._motions.arms.at(self._places)[:, 2:], 2 * HALF)  # lower ones stand alike
        at = np.asarray(np.round(np.hstack([self._motions.work.at(self._places), height]), 9), dtype=np.float64)
        values, position = np.unique(at, axis=0, return_inverse=True)
        corner = np.array([ground.columns[0], ground.rows[0]])
        i, j, share = footprint(ground.columns, ground.rows, values[:, :2] + corner, values[:, 2])
        return np.array(ground.nodes)[j * len(ground.columns) + i], share, position.ravel()

    def _fixed(self, node: int, arm: FloatArray | None = None) -> Point:
        """Return a point rigidly on a node."""
        share = _arm(np.zeros((1, 3)) if arm is None else arm[None])
        return Point(
            self._of[node], self._still, np.array([[self._place[node]]]),
            share[:, None], np.array([-1]), np.zeros(1), np.eye(6)[None], np.zeros((1, 6)),
        )  # fmt: skip

    def _on_work(self) -> Point:
        ground = self._built.ground
        if ground is not None and ground.chain is not None:
            at = self._motions.work.at(self._places)[:, 0]
            place = np.array(self._built.work.place)
            return self._on_chains([(ground.chain, at, place, float(self._motions.work.start[0]))])[0]
        nodes, shares, position = self._crossings
        n = len(nodes)
        where = np.empty(int(nodes.max()) + 1, dtype=np.intp)
        for node in np.unique(nodes).tolist():
            where[node] = self._place[node]
        return Point(
            self._of[int(nodes[0, 0])], position, where[nodes], shares, np.full(n, -1), np.zeros(n),
            np.tile(np.eye(6), (n, 1, 1)), np.zeros((n, 6)),
        )  # fmt: skip

    def _on_chains(self, riders: list[tuple[Chain, FloatArray, FloatArray, float]]) -> list[Point]:
        """Return the points of chains that carry what stands along them.

        Args:
            riders: The chain, where each stands along it, m, shape (n_places,), its place in the frame as built, and
                where that is along the chain.
        """
        frame, rides = self._built.frame, []
        for chain, at, place, start in riders:
            stops, line, axis = self._stops(chain)
            values, position, piece = self._pieces(chain, at)
            held = np.clip(values, stops[0], stops[-1])
            reach = place - axis - start * line + (values - held)[:, None] * line
            rides.append((chain.nodes, position, piece, np.array(chain.beams)[piece], held - stops[piece], reach))
        if not rides:
            return []
        host, station, reach = (np.concatenate([ride[column] for ride in rides]) for column in (3, 4, 5))
        arm = _arm(reach)
        N, sunk = _inside(frame.beams, self._elements, host, station)
        share = np.stack([arm @ N[:, :, :6], arm @ N[:, :, 6:]], axis=1)
        sinking = (arm @ sunk[:, :, None])[:, :, 0]
        found, start = [], 0
        for nodes, position, piece, *_ in rides:
            some = slice(start, start + len(piece))
            start += len(piece)
            ends = np.array([[self._place[nodes[p]], self._place[nodes[p + 1]]] for p in piece.tolist()])
            of = self._of[nodes[int(piece[0])]]
            found.append(
                Point(of, position, ends, share[some], host[some], station[some], arm[some], sinking[some])
            )  # fmt: skip
        return found


class HostBeams(InnerFlexibility):
    """Flexibility of beams between their held ends."""

    def __init__(self, beams: Beams, elements: beam.BeamElements) -> None:
        self._beams, self._elements = beams, elements

    def between(self, host: IntArray, at: FloatArray, load_at: FloatArray) -> FloatArray:
        """Return the movement of beams' axes at stations by loads at others, global axes, (n, 6, 6)."""
        length, turn = self._elements.length[host], _both(self._elements.axes[host])
        inside = beam.held_flexibility(self._beams.take(host), length, at, load_at)
        return np.asarray(turn.transpose(0, 2, 1) @ inside @ turn)


def _inside(
    beams: Beams, elements: beam.BeamElements, host: IntArray, station: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Return end movements to those at stations, (n, 6, 12), and movements there by own weight, global axes."""
    turn = _both(elements.axes[host]).transpose(0, 2, 1)
    rows = beams.take(host)
    N = beam.interpolation(rows, elements.take(host), station)
    sunk = beam.held_sinking(rows, elements.take(host), station, np.array(GRAVITY))
    return turn @ N, (turn @ sunk[:, :, None])[:, :, 0]


def _axes(x: FloatArray, up: FloatArray) -> FloatArray:
    return np.asarray(_both(axes_from(x[None], up[None]))[0])


def _both(axes: FloatArray) -> FloatArray:
    """Return three-way axes as six-way ones, (n, 6, 6)."""
    T = np.zeros((len(axes), 6, 6))
    T[:, :3, :3] = T[:, 3:, 3:] = axes
    return T


def _arm(vectors: FloatArray) -> FloatArray:
    """Return the movement of a point at the end of rigid arms, (n, 6, 6)."""
    A = np.tile(np.eye(6), (len(vectors), 1, 1))
    A[:, :3, 3:] = -cross_matrices(vectors)
    return A


def _inverse(k: FloatArray) -> FloatArray:
    return np.asarray(np.divide(1.0, k, out=np.full(6, np.inf), where=k > 0.0))
