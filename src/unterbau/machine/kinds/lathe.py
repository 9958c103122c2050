"""Lathe: two tubes as a bed, headstock, tailstock or none, carriage with cross slide; the loop runs through the work.

X lies along the spindle, zero at the chuck's face; Y is the cross slide, zero at the spindle's axis, the
tool in front; Z up from the bed's surface. Pulls are feed force (X), passive force (Y), cutting force (Z).
"""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import RIGID, Face
from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.motion import carriage, drive, rail
from unterbau.machine.assemblies.pieces import beam, fasten, foot, join, lay_plate, point, round_bar
from unterbau.machine.assemblies.rims import rim
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import CLAMPS, FRAME_JOINTS, STAND_LINK, Link, More, Related, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.model.spindle import SPINDLE_ZETA, spindle_springs
from unterbau.strict import STRICT
from unterbau.structure.bodies import Prism, round_ring
from unterbau.structure.carrier import carrier
from unterbau.structure.join import Springs, Weight
from unterbau.structure.keys import Key
from unterbau.structure.layout import Layout
from unterbau.structure.motion import Ware
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Place, Plate, Sizes, Spindle, Stand
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import NUT, Spot
from unterbau.structure.structure import LAID_OUT, Work
from unterbau.structure.vectors import Vector, X, Y, Z
from unterbau.structure.weights import member_size

CHUCK = 0.06
TAIL = 0.08
POST = 0.03  # half the depth of the tool post
BEHIND = 0.03
BEFORE = 0.02  # of the bed: its screw runs so far in front of the front tube and below its surface
BEARING = (0.02, 0.03)  # half the patch that a bearing seat keeps rigid
FIRST, LAST = 0.01, 0.002  # of the tool, from the chuck and from the work's end


@dataclass(frozen=True, slots=True)
class LatheSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.25
    travel_y: float = 0.08
    centre_height: float = 0.13
    """Spindle's axis over the bed."""
    bed_spacing: float = 0.16
    """Between the middles of the bed's tubes."""
    bearing_spacing: float = 0.14
    x_stance: float = 0.13
    y_stance: float = 0.09
    y_rail_spacing: float = 0.08
    tool_ahead: float = 0.055
    """Tool before the carriage's middle, towards the chuck."""
    cross_ties: int = 3
    tailstock: int = 1
    """One, or none: the work then stands in the chuck alone."""
    stop: float = 0.006


@hashed_once
@dataclass(frozen=True, slots=True)
class Lathe(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["lathe"] = "lathe"
    dimensions: LatheSizes = field(default_factory=LatheSizes)
    cutter: Cutter = field(default_factory=lambda: Cutter(0.012, 0.02, "steel-drawn"))
    tool_post: Member = field(default_factory=lambda: Member("flat-60x60", "steel-s235"))
    post_joint: Joint = field(default_factory=lambda: Joint("flange"))
    cross_slide: Plate = field(default_factory=lambda: Plate(0.02, "steel-s235"))
    y_guides: Guide = field(default_factory=lambda: Guide("15", "medium"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    y_motor: Motor = field(default_factory=Motor)
    saddle: Plate = field(default_factory=lambda: Plate(0.025, "steel-s235"))
    x_guides: Guide = field(default_factory=lambda: Guide("20", "medium"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_motor: Motor = field(default_factory=Motor)
    bed_tube: Member = field(default_factory=lambda: Member("shs-80x80x5", "steel-s235", "epoxy-granite-10"))
    tie: Member = field(default_factory=lambda: Member("shs-60x60x4", "steel-s235"))
    tie_joint: Joint = field(default_factory=lambda: Joint("weld"))
    headstock: Plate = field(default_factory=lambda: Plate(0.03, "steel-s235"))
    headstock_joint: Joint = field(default_factory=lambda: Joint("flange"))
    spindle: Spindle = field(
        default_factory=lambda: Spindle(mass=4.0, diameter=0.1, length=0.06, radial=150e6, axial=80e6, tilt=40e3)
    )
    shaft: Member = field(default_factory=lambda: Member("rod-40", "steel-drawn"))
    chuck: Joint = field(default_factory=lambda: Joint("flange"))
    work: Cutter = field(default_factory=lambda: Cutter(0.035, 0.27, "aluminium-6082"))
    tailstock: Plate = field(default_factory=lambda: Plate(0.03, "steel-s235"))
    centre: Joint = field(default_factory=lambda: Joint("clamp"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[Lathe]) -> None:
    """Put up a machine of this kind."""
    d = lay.machine.dimensions
    tool: Vector = (_tool_x(lay.machine, LAID_OUT), -LAID_OUT.y * d.travel_y, d.centre_height)
    tubes = _bed(lay)
    _headstock(lay, tubes, tool)
    _carriage(lay, tubes, tool)
    bottom = -member_size(lay.machine.bed_tube)[0]
    lay.size("travel_x", "travel X", "front", (0.01, bottom), (0.01 + d.travel_x, bottom), -1)
    lay.size("centre_height", "centre", "front", (-CHUCK, 0.0), (-CHUCK, d.centre_height), -1)
    rear = -CHUCK - d.bearing_spacing
    lay.size("bearing_spacing", "bearings", "front", (-CHUCK, d.centre_height), (rear, d.centre_height), 2)
    lay.size_across("x_stance", "X blocks", "front", (tool[0] + d.tool_ahead, bottom), d.x_stance, -2, "X")
    lay.size("tool_ahead", "tool ahead", "front", (tool[0], 0.0), (tool[0] + d.tool_ahead, 0.0), -1, moves="X")
    lay.size("travel_y", "travel Y", "side", (0.0, d.centre_height), (-d.travel_y, d.centre_height), 2)
    lay.size_across("bed_spacing", "bed tubes", "side", (0.0, bottom), d.bed_spacing, -1)


def _bed(lay: Layout[Lathe]) -> tuple[Bar, Bar]:
    m, d = lay.machine, lay.machine.dimensions
    height, width = member_size(m.bed_tube)
    left = -CHUCK - d.bearing_spacing - BEHIND
    half = d.x_stance / 2 + block(m.x_guides.block).length / 2 + d.stop
    right = max(d.travel_x + FIRST + d.tool_ahead + half, _tail_x(lay) + BEHIND)
    places = (-CHUCK, -CHUCK - d.bearing_spacing, _tail_x(lay))
    n = d.cross_ties
    rows = [left + 0.04 + (right - left - 0.08) * k / (n - 1) for k in range(n)]
    tubes = []
    for side, name in ((-1, "front tube"), (1, "back tube")):
        y, z = side * d.bed_spacing / 2, -height / 2
        stops = tuple(x - left for x in (*places, *rows))
        laid = beam(lay, "bed_tube", m.bed_tube, name, (left, y, z), (right, y, z), Z, stops, 8, carries=True)
        for node in (laid.first, laid.last):
            foot(lay, laid, node)
        tubes.append(laid)
    inner = d.bed_spacing / 2 - width / 2
    for number, x in enumerate(rows, 1):
        tie = beam(lay, "tie", m.tie, f"tie {number}", (x, -inner, -height / 2), (x, inner, -height / 2), Z, pieces=4)
        fasten(lay, "tie_joint", m.tie_joint, tie, False, tubes[0])
        fasten(lay, "tie_joint", m.tie_joint, tie, True, tubes[1])
    return tubes[0], tubes[1]


def _tool_x(machine: Lathe, place: Place) -> float:
    """Return where the tool stands along the work; beyond the work's end there is nothing to cut."""
    far: float = min(place.x * machine.dimensions.travel_x + FIRST, machine.work.stick_out - LAST)
    return max(far, LAST)


def _way(machine: Lathe, place: Place) -> Vector:
    off = _tool_x(machine, place) - _tool_x(machine, LAID_OUT)
    return (off, (place.y - LAID_OUT.y) * machine.dimensions.travel_y, 0.0)


def _tail_x(lay: Layout[Lathe]) -> float:
    return float(lay.machine.work.stick_out + TAIL / 2)


def _upright(lay: Layout[Lathe], key: Key, plate: Plate, name: str, x: float, tubes: tuple[Bar, Bar]) -> Spot:
    """Stand a plate across the bed, from its surface to the spindle's axis; return where its bearing sits."""
    m, d = lay.machine, lay.machine.dimensions
    wide = d.bed_spacing + tubes[0].width
    laid = lay_plate(lay, key, plate, name, (x, 0.0, 0.0), (x, 0.0, d.centre_height), wide, X)
    for tube in tubes:
        place = (x, tube.start[1], 0.0)
        held = laid.hold(place, laid.half_of(Y, tube.width, 0.02))
        join(
            lay,
            "headstock_joint",
            m.headstock_joint,
            held,
            lay.near(tube, place),
            Face(plate.thickness, tube.width),
            Z,
            X,
        )
    return laid.hold(laid.end, BEARING)


def _headstock(lay: Layout[Lathe], tubes: tuple[Bar, Bar], tool: Vector) -> None:
    m, d = lay.machine, lay.machine.dimensions
    s, z = m.spindle, d.centre_height
    front, rear = -CHUCK, -CHUCK - d.bearing_spacing
    shaft = beam(lay, "shaft", m.shaft, "shaft", (rear, 0.0, z), (0.0, 0.0, z), Z, (front - rear,), 6)
    for name, x, axial in (("front bearing", front, s.axial), ("rear bearing", rear, 0.0)):
        bearing = _upright(lay, "headstock", m.headstock, f"headstock, {name}", x, tubes)
        k = spindle_springs((axial, s.radial, s.radial, 0.0, s.tilt / 2, s.tilt / 2))
        node = lay.near(shaft, (x, 0.0, z))
        lay.add(Springs("spindle", node, bearing, k, X, Z, SPINDLE_ZETA))
    # The motor's belt holds the spindle from turning; how stiffly does not matter to bending.
    lay.add(Springs("spindle", shaft.first, tubes[0].first, (0.0, 0.0, 0.0, 5e3, 0.0, 0.0), X, Z, 0.05))
    lay.add(Weight(shaft.last, s.mass, (-CHUCK / 2, 0.0, 0.0)))
    look = Prism("spindle", "shaft", (-s.length, 0.0, z), (0.0, 0.0, z), Z, (round_ring(s.diameter),))
    lay.add(Ware("spindle", "bearings and chuck", s.mass, ("spindle",), look))
    work = round_bar(lay, "work", m.work, "work", (0.0, 0.0, z), (m.work.stick_out, 0.0, z), ())
    join(lay, "chuck", m.chuck, work.first, shaft.last, Face(m.work.diameter, m.work.diameter))
    if d.tailstock:
        tail = _upright(lay, "tailstock", m.tailstock, "tailstock", _tail_x(lay), tubes)
        join(lay, "centre", m.centre, work.last, tail, Face(0.02, 0.02), reach=TAIL / 2)
    lay.work = Work("work", (tool[0], 0.0, z), carrier("X"))


def _carriage(lay: Layout[Lathe], tubes: tuple[Bar, Bar], tool: Vector) -> None:
    m, d = lay.machine, lay.machine.dimensions
    x_block, y_block = block(m.x_guides.block), block(m.y_guides.block)
    (x, tip_y, z), at = tool, tool[0] + d.tool_ahead
    saddle_z = x_block.height + m.saddle.thickness / 2
    slide_seat = saddle_z + m.saddle.thickness / 2
    slide_z = slide_seat + y_block.height + m.cross_slide.thickness / 2
    low = slide_z + m.cross_slide.thickness / 2
    if z - low < 0.01:
        expected = f"expected at least {(low + 0.01) * 1e3:.0f} mm over this carriage"
        raise InputError("dimensions.centre_height", expected)
    post_y = tip_y - m.cutter.stick_out - POST
    reach = d.y_stance / 2 + y_block.length / 2 + d.stop
    saddle = _saddle(lay, tubes, at, reach)
    with lay.moved_by("Xy"):
        ends = ((at, post_y - reach, slide_z), (at, post_y + reach, slide_z))
        wide = d.y_rail_spacing + y_block.width + 2 * rim(y_block, m.cross_slide.material)
        slide = lay_plate(lay, "cross_slide", m.cross_slide, "cross slide", *ends, wide, Z)
        across = [
            (saddle, (at + side * d.y_rail_spacing / 2, post_y + end * d.y_stance / 2, slide_seat))
            for side in (-1, 1) for end in (-1, 1)
        ]  # fmt: skip
        carriage(lay, "y_guides", m.y_guides, slide, across, Y, Z)
        _tool(lay, slide, (x, post_y, low), tool)
    with lay.moved_by("X"):
        nut = lay.near(slide, (at, post_y, slide_z), NUT)
        drive(
            lay,
            "y_drive",
            m.y_drive,
            ("y_motor", m.y_motor),
            nut,
            lay.near(saddle, saddle.start, NUT),
            Y,
            saddle.length,
            saddle,
            (-d.travel_y / 2, d.travel_y / 2),
            (0.0, 0.0, -m.cross_slide.thickness / 2 - y_block.height / 2),
        )


def _saddle(lay: Layout[Lathe], tubes: tuple[Bar, Bar], at: float, reach: float) -> PlatePiece:
    """Lay the saddle on the bed's rails, with the rails of the cross slide, and the screw that moves it."""
    m, d = lay.machine, lay.machine.dimensions
    x_block, y_block = block(m.x_guides.block), block(m.y_guides.block)
    saddle_z = x_block.height + m.saddle.thickness / 2
    slide_seat = saddle_z + m.saddle.thickness / 2
    first = -d.travel_y - m.cutter.stick_out - POST - reach
    last = max(-m.cutter.stick_out - POST + reach, d.bed_spacing / 2 + tubes[1].width / 2)
    clear = -CHUCK + m.headstock.thickness / 2 + 0.001
    for tube in tubes:
        ends = ((clear, tube.start[1], 0.0), (tube.end[0], tube.start[1], 0.0))
        rail(lay, "x_guides", m.x_guides, tube, *ends, Z)
    with lay.moved_by("X"):
        wide = max(d.x_stance + x_block.length, d.y_rail_spacing + y_block.width)
        saddle = lay_plate(lay, "saddle", m.saddle, "saddle", (at, first, saddle_z), (at, last, saddle_z), wide, Z)
        seats = [(tube, (at + end * d.x_stance / 2, tube.start[1], 0.0)) for tube in tubes for end in (-1, 1)]
        carriage(lay, "x_guides", m.x_guides, saddle, seats, X, Z)
        for side in (-1, 1):
            beside = at + side * d.y_rail_spacing / 2
            rail(lay, "y_guides", m.y_guides, saddle, (beside, first, slide_seat), (beside, last, slide_seat), Z)
    drive(
        lay,
        "x_drive",
        m.x_drive,
        ("x_motor", m.x_motor),
        lay.near(saddle, (at, 0.0, saddle_z), NUT),
        tubes[0].last,
        X,
        0.0,
        tubes[0],
        (-d.travel_x / 2, d.travel_x / 2),
        (0.0, tubes[0].start[1] - tubes[0].width / 2 - BEFORE, -saddle_z - BEFORE),
    )
    return saddle


def _tool(lay: Layout[Lathe], slide: PlatePiece, foot_place: Vector, tool: Vector) -> None:
    m = lay.machine
    x, post_y, low = foot_place
    post = beam(lay, "tool_post", m.tool_post, "tool post", (x, post_y, low), (x, post_y, tool[2]), Y, pieces=3)
    fasten(lay, "post_joint", m.post_joint, post, False, slide)
    nose = point(lay, "tool holder", (x, tool[1] - m.cutter.stick_out, tool[2]))
    lay.add(Springs("tool_post", nose, post.last, (RIGID,) * 6, X, Z))
    bit = round_bar(lay, "cutter", m.cutter, "cutter", nose.place, tool, (), nose)
    lay.nose, lay.tip = nose, bit.last


KIND = laid_kind(
    Lathe, "lathe", "lathe with a bed of two tubes",
    "round parts; a short loop through the work", "thin work bends away: tailstock, or short ends",
    (
        Link("cutter", "tool bit", "part", "in the tool post"),
        Link("tool_post", "tool post", "part", "on the cross slide"),
        Link("post_joint", "post foot", "joint", "tool post to cross slide"),
        Link("cross_slide", "cross slide", "part", "to and from the work"),
        Link("y_guides", "Y guides", "guide", "cross slide to saddle"),
        Link("y_drive", "Y drive", "drive", "moves the cross slide"),
        Link("y_motor", "Y motor", "drive", "holds the Y drive still"),
        Link("saddle", "saddle", "part", "along the bed"),
        Link("x_guides", "X guides", "guide", "saddle to bed"),
        Link("x_drive", "X drive", "drive", "moves the saddle"),
        Link("x_motor", "X motor", "drive", "holds the X drive still"),
        Link("bed_tube", "bed tubes", "part", "from headstock to tailstock"),
        Link("tie_joint", "tie ends", "joint", "ties to bed tubes"),
        Link("tie", "ties", "part", "between the bed tubes"),
        Link("headstock_joint", "stock feet", "joint", "headstock and tailstock to bed"),
        Link("headstock", "headstock", "part", "carries the bearings"),
        Link("spindle", "bearings", "part", "front and rear, with the chuck"),
        Link("shaft", "spindle shaft", "part", "from the rear bearing to the chuck"),
        Link("chuck", "chuck jaws", "joint", "work to spindle"),
        Link("tailstock", "tailstock", "part", "holds the work's end"),
        Link("centre", "centre", "joint", "work to tailstock"),
        Link("work", "work", "part", "in the chuck"),
        STAND_LINK,
    ),
    (
        SizeField("travel_x", "travel X, along the spindle", 0.05, 3.0),
        SizeField("travel_y", "travel Y, across", 0.02, 0.6),
        SizeField("centre_height", "bed to spindle axis", 0.05, 0.6),
        SizeField("bed_spacing", "between the bed tubes", 0.06, 1.0),
        SizeField("bearing_spacing", "between the bearings", 0.04, 1.0),
        SizeField("x_stance", "stance of X blocks", 0.04, 1.0),
        SizeField("y_stance", "stance of Y blocks", 0.04, 0.6),
        SizeField("y_rail_spacing", "between Y rails", 0.03, 0.6),
        SizeField("tool_ahead", "tool before the carriage's middle", 0.0, 0.5),
        SizeField("cross_ties", "ties", 2, 12, count=True),
        SizeField("tailstock", "tailstock, 1 or none", 0, 1, count=True),
        SizeField("stop", "way left at each end", 0.0, 0.2),
    ),
    put_up,
    ends={"tool_post": "post_joint", "headstock": "headstock_joint", "tie": "tie_joint", "work": "chuck"},
    fitting={"post_joint": FRAME_JOINTS, "headstock_joint": FRAME_JOINTS, "tie_joint": FRAME_JOINTS,
             "chuck": ("flange", "clamp"), "centre": CLAMPS},
    related={
        "headstock": (Related("centre_height", 0.85, "spindle lower over the bed"),),
        "tool_post": (Related("centre_height", 0.85, "spindle lower over the bed"),),
        "shaft": (Related("bearing_spacing", 1.3, "bearings further apart"),),
        "spindle": (Related("bearing_spacing", 1.3, "bearings further apart"),),
        "x_guides": (Related("x_stance", 1.3, "X blocks further apart"),
                     Related("bed_spacing", 1.2, "bed tubes further apart")),
        "y_guides": (Related("y_stance", 1.3, "Y blocks further apart"),),
        "bed_tube": (Related("bed_spacing", 1.2, "bed tubes further apart"),),
    },
    more=More("cross_ties", "tie", ("tie", "tie_joint", "bed_tube")),
    carrying=("bed_tube",),
    way=_way,
)  # fmt: skip
