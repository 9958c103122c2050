"""Why is this so soft? Causes, numbers, formula, source of one link's give, from its own strain energy."""

from dataclasses import dataclass

import numpy as np

from unterbau.machine.facts import facts
from unterbau.machine.machine import Machine, link, part
from unterbau.materials.material import material
from unterbau.mechanics import assembly, placed_plate
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.frame import AXIAL, BENDING, BY_STRAIN, CAUSES, DISTORTION, JOINT, WALL
from unterbau.mechanics.placed_plate import PlacedPlate
from unterbau.mechanics.statics import beam_end_forces, energies
from unterbau.model.member import member_values
from unterbau.sections.section import section
from unterbau.structure.parts import Member, Part
from unterbau.studies.compliance import Solved, tip_compliance
from unterbau.studies.loads import TIP
from unterbau.studies.push import Pushed, softest_push
from unterbau.units import Units

SMALL = 0.03
"""Causes below this share of the link's give are not told."""
IDLE = 1e-3
"""Below this share of the whole a link is off the path of the pull."""
ASIDE = "Under this pull it carries next to nothing; the wider links of the load path are where to look."
FORCE, MOMENT = "N", "N·m"
WAYS = {
    "joint": ("pulled apart", "sheared across", "sheared along", "twisted in its face", "bent open", "bent sideways"),
    "guide": ("moved along", "pushed sideways", "pulled off its rail", "rolled", "pitched", "yawed"),
    "drive": ("stretched along", "pushed aside", "pushed aside", "twisted", "bent", "bent"),
    "part": ("pushed along its axis", "pushed sideways", "pushed sideways", "turned", "tilted", "tilted"),
}
"""What the six springs of each kind of link do, in their own axes."""


@dataclass(frozen=True, slots=True)
class Reason:
    """One cause of a link's give."""

    compliance: float
    """Its part of the tool's movement per pull, m/N."""
    words: str
    formula: str
    quantity: str
    """What the link carries: N, N·m."""
    load: float
    """The largest of it under a unit pull, N or N·m per N."""
    stiffness: float
    """What resists: E·I, G·J, N·m²; G·As, E·A, N; or a spring, N/m or N·m/rad."""
    symbol: str


@dataclass(frozen=True, slots=True)
class Explanation:
    """Why a link gives as it does."""

    key: str
    label: str
    compliance: float
    """m/N."""
    total: float
    """Of the whole load path, m/N."""
    reasons: tuple[Reason, ...]
    """Largest first."""
    cure: str
    facts: tuple[str, ...]
    """Numbers, assumptions and sources of the part itself."""
    hand: Pushed | None = None
    """Where the part gives most to a push with one's hand."""

    @property
    def rigid(self) -> float:
        """Stiffness of the tool that a perfectly rigid link would leave at the least, N/m.

        Source:
            The compliance is concave in a part's flexibility (principle of least complementary
            energy, for example Washizu, Variational Methods), so its tangent bounds it.
        """
        return 1.0 / max(self.total - self.compliance, 1e-30)


def explain(machine: Machine, solved: Solved, key: str, axis: int, units: Units = "mm") -> Explanation:
    """Return why a link of the load path gives under a pull along an axis.

    Args:
        machine: The machine.
        solved: It, solved for the standard loads.
        key: Link of its load path.
        axis: 0, 1, 2 for x, y, z.
        units: For reading.
    """
    frame = solved.built.frame
    one, chosen = link(machine, key), part(machine, key)
    whole = float(tip_compliance(solved)[axis, axis])
    if key not in frame.groups:
        return Explanation(key, one.label, 0.0, whole, (), ASIDE, facts(key, chosen, units))
    group = frame.groups.index(key)
    of_group = 2 * energies(solved.statics)[TIP][axis, group]
    plates = [one for one in solved.statics.system.elements.plates if one.plate.group == group]
    of_plates = np.array([_plate_energies(one, solved, axis) for one in plates]).reshape(len(plates), len(CAUSES))
    reasons = [
        *_of_beams(solved, group, axis, dict(zip(CAUSES, (of_group - of_plates.sum(axis=0)).tolist(), strict=True))),
        *(reason for plate in plates for reason in _of_plate(plate, solved, axis)),
        *_of_springs(solved, group, axis, one.kind),
        *_of_walls(solved, group, axis, of_group),
    ]
    total = float(of_group.sum())
    if total < IDLE * whole:
        return Explanation(key, one.label, total, whole, (), ASIDE, facts(key, chosen, units))
    told = [reason for reason in reasons if reason.compliance > SMALL * total]
    told.sort(key=lambda reason: -reason.compliance)
    return Explanation(
        key, one.label, total, whole, tuple(told), _cure(chosen, one.kind, told[0]), facts(key, chosen, units),
        softest_push(solved, key) if one.kind == "part" else None,
    )  # fmt: skip


def _of_beams(solved: Solved, group: int, axis: int, by_cause: dict[str, float]) -> list[Reason]:
    elements = solved.statics.system.elements
    beams = elements.frame.beams
    rows = np.flatnonzero((beams.group == group) & (beams.cause == BY_STRAIN))
    if not len(rows):
        return []
    ends = np.abs(beam_end_forces(solved.statics, TIP.start + axis)[rows])
    largest = ends.max(axis=(0, 1))
    b = beams.take(rows)
    moment = int(np.argmax(ends[:, :, 4:].sum(axis=(0, 1))))
    EI = float(np.max(b.E * (b.Iy if moment == 0 else b.Iz)))
    across = int(np.argmax(ends[:, :, 1:3].sum(axis=(0, 1))))
    area = float(np.max(b.Asy if across == 0 else b.Asz))
    return [
        Reason(by_cause["bending"], "it bends", "give = ∫ M² dx / (E·I·F²)", MOMENT, float(largest[4 + moment]),
               EI, "E·I"),
        Reason(by_cause["torsion"], "it twists", "give = ∫ T² dx / (G·J·F²)", MOMENT, float(largest[3]),
               float(np.max(b.G * b.J)), "G·J"),
        Reason(by_cause["shear"], "it shears", "give = ∫ V² dx / (G·As·F²)", FORCE, float(largest[1 + across]),
               float(np.max(b.G)) * area, "G·As"),
        Reason(by_cause["axial"], "it stretches", "give = ∫ N² dx / (E·A·F²)", FORCE, float(largest[0]),
               float(np.max(b.E * b.A)), "E·A"),
    ]  # fmt: skip


def _plate_energies(plate: PlacedPlate, solved: Solved, axis: int) -> FloatArray:
    """Return twice a plate's energy by cause."""
    u, f = (one[TIP.start + axis].reshape(-1, 1) for one in (solved.statics.u, solved.statics.f))
    stretch, bend = placed_plate.energies(plate, u, f)
    row = np.zeros(len(CAUSES))
    row[AXIAL], row[BENDING] = 2 * stretch[0], 2 * bend[0]
    return row


def _of_plate(plate: PlacedPlate, solved: Solved, axis: int) -> list[Reason]:
    row = _plate_energies(plate, solved, axis)
    forces = placed_plate.forces(plate, solved.statics.u[TIP.start + axis].ravel()).reshape(-1, 2, 3)
    largest = float(np.linalg.norm(forces[:, 0], axis=1).max())
    spec = plate.plate.spec
    m = spec.material
    return [
        Reason(row[BENDING], "it bends across its face", "give = 2·∫ (energy of bending and shear) dA / F²; shell "
               "elements", FORCE, largest, m.E * spec.thickness**3 / 12 / (1 - m.nu**2), "D"),
        Reason(row[AXIAL], "it is strained in its own plane", "give = 2·∫ (energy of the membrane) dA / F²; shell "
               "elements", FORCE, largest, m.E * spec.thickness, "E·t"),
    ]  # fmt: skip


def _of_springs(solved: Solved, group: int, axis: int, kind: str) -> list[Reason]:
    elements = solved.statics.system.elements
    springs = elements.frame.springs
    rows = np.flatnonzero((springs.group == group) & (springs.cause == JOINT))
    if not len(rows):
        return []
    movement = assembly.pair_movements(solved.statics.u[TIP.start + axis], springs.i, springs.j)[rows]
    stretch: FloatArray = (elements.springs.G[rows] @ movement[:, :, None])[:, :, 0]
    k = elements.springs.k[rows]
    give = (k * stretch**2).sum(axis=0)
    carried = np.abs(k * stretch).max(axis=0)
    ways = WAYS[kind]
    return [
        Reason(
            float(give[way]), f"it is {ways[way]}", "give = Σ P² / (k·F²)" if way < 3 else "give = Σ M² / (k·F²)",
            FORCE if way < 3 else MOMENT, float(carried[way]), float(k[:, way].max()), "k",
        )
        for way in range(6)
        if give[way] > 0.0
    ]  # fmt: skip


def _of_walls(solved: Solved, group: int, axis: int, of_group: FloatArray) -> list[Reason]:
    """Return what the distortion of a member's section and the dents of its walls give."""
    elements = solved.statics.system.elements
    springs = elements.frame.springs
    found = []
    for cause, words, symbol, ways in (
        (DISTORTION, "its cross-section goes out of shape", "k of the section", slice(3, 6)),
        (WALL, "its wall dents under what is fastened to it", "k of the wall", slice(0, 3)),
    ):
        rows = np.flatnonzero((springs.group == group) & (springs.cause == cause))
        if not len(rows) or of_group[cause] <= 0.0:
            continue
        movement = assembly.pair_movements(solved.statics.u[TIP.start + axis], springs.i, springs.j)[rows]
        stretch = (elements.springs.G[rows] @ movement[:, :, None])[:, :, 0]
        carried = np.abs(elements.springs.k[rows] * stretch)[:, ways]
        row = int(np.argmax(carried.max(axis=1)))
        way = int(np.argmax(carried[row])) + int(ways.start)
        quantity = MOMENT if cause == DISTORTION else FORCE
        found.append(
            Reason(float(of_group[cause]), words, "give = 2·(energy of its walls as folded plates) / F²", quantity,
                   float(carried.max()), float(elements.springs.k[rows[row], way]), symbol)
        )  # fmt: skip
    return found


def _cure(chosen: Part, kind: str, reason: Reason) -> str:
    """Return in a sentence what helps against the first cause."""
    twists, bends = reason.symbol == "G·J", reason.symbol in ("E·I", "D")
    if isinstance(chosen, Member) and twists:
        return _against_twist(chosen)
    if reason.symbol == "k of the section":
        return (
            "A bonded fill, or plates inside and at the ends, keep the section in shape; thickness of the wall counts "
            "with its cube, a taller box makes it worse."
        )
    if reason.symbol == "k of the wall":
        return (
            "Rails over the side walls, a strip bonded under the rail or a bonded fill; thickness of the wall counts "
            "with more than its square."
        )
    if isinstance(chosen, Member) and bends:
        return "Height counts most: E·I grows with its square at the same weight, and with the cube for a solid bar."
    if reason.symbol == "E·t":
        return "In its own plane width counts with its square or more, thickness only evenly; or a shorter reach."
    if bends:
        return "Thickness counts with its cube; a shorter reach counts with its square or more."
    if kind == "joint":
        return "More pieces further apart, or a bonded face: bending stiffness grows with the square of their distance."
    if kind == "guide":
        return (
            "Moments are carried by the distance of the blocks, with its square; forces by their size and preload."
            if reason.quantity == FORCE
            else "Single blocks are soft against tilting; set them further apart so that they push instead."
        )
    if kind == "drive":
        return "A thicker screw, a preloaded nut and angular bearings; near the fixed bearing it is stiffest."
    return "A stiffer part here, or a shorter lever from the tool to it."


def _against_twist(member: Member) -> str:
    """Compare with a closed tube of the same outside and weight.

    Source:
        Bredt: J = 4·Am²·t/s of a thin closed tube.
    """
    shape, values = section(member.section), member_values(member)
    wall = shape.properties.A / (2 * (shape.height + shape.width))
    side, height = shape.width - wall, shape.height - wall
    closed = 4 * (side * height) ** 2 * wall / (2 * (side + height))
    ratio = closed * material(member.material).G / (values.J * values.G)
    if ratio > 1.5:
        return (
            f"The section is open, or nearly: a closed tube of the same outside and weight is {ratio:.0f} times"
            " stiffer in twist. Close it."
        )
    return "The area that the wall encloses counts, with its square: a wider or deeper tube, not a thicker wall."
