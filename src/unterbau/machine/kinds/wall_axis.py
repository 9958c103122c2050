"""A long axis on a wall: a beam on backing panels and anchors, a carriage with an arm, a drop axis at its end."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import Face
from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.head import FORWARD, SPINDLE_LINKS, slide, z_slide
from unterbau.machine.assemblies.motion import carriage, drive, rail
from unterbau.machine.assemblies.pieces import beam, collar, fasten, join, lay_plate, point, rib
from unterbau.machine.assemblies.rims import rim
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import CLAMPS, FRAME_JOINTS, Link, Related, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.join import Springs
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import NUT
from unterbau.structure.stand import REST
from unterbau.structure.structure import Work
from unterbau.structure.vectors import X, Y, Z
from unterbau.structure.weights import member_size

FLOOR = 1e9  # N/m and N·m/rad: what the work stands on is taken as firm

ARM = 0.02
"""Least length of an arm between its plates, m."""


@dataclass(frozen=True, slots=True)
class WallSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 3.0
    travel_z: float = 0.4
    arm_reach: float = 0.5
    """Beam's front face to the spindle's axis."""
    beam_height: float = 0.62
    """Work surface to the beam's axis."""
    anchor_spacing: float = 0.8
    lowest_tip: float = 0.02
    x_stance: float = 0.25
    z_stance: float = 0.1
    z_rail_spacing: float = 0.06
    spindle_overhang: float = 0.045
    clamp_height: float = 0.04
    stop: float = 0.02


@hashed_once
@dataclass(frozen=True, slots=True)
class WallAxis(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["wall-axis"] = "wall-axis"
    dimensions: WallSizes = field(default_factory=WallSizes)
    panel: Plate = field(default_factory=lambda: Plate(0.018, "birch-ply"))
    anchor: Joint = field(default_factory=lambda: Joint("bolt", 4))
    panel_joint: Joint = field(default_factory=lambda: Joint("bracket", 2))
    wall_beam: Member = field(default_factory=lambda: Member("tslot-40L-1x3", "aluminium-6060"))
    x_guides: Guide = field(default_factory=lambda: Guide("15"))
    x_drive: Drive = field(default_factory=lambda: Drive("belt-15-glass"))
    x_motor: Motor = field(default_factory=Motor)
    x_plate: Plate = field(default_factory=lambda: Plate(0.012, "aluminium-5083"))
    arm_joint: Joint = field(default_factory=lambda: Joint("flange"))
    arm: Member = field(default_factory=lambda: Member("rhs-80x40x4", "aluminium-6082"))
    arm_end: Joint = field(default_factory=lambda: Joint("flange"))
    head_plate: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    z_guides: Guide = field(default_factory=lambda: Guide("15"))
    z_drive: Drive = field(default_factory=lambda: Drive("belt-15-glass"))
    z_motor: Motor = field(default_factory=Motor)
    z_plate: Plate = field(default_factory=lambda: Plate(0.015, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(
        default_factory=lambda: Spindle(mass=1.2, diameter=0.05, length=0.1, radial=10e6, axial=10e6, tilt=2e3)
    )
    cutter: Cutter = field(default_factory=lambda: Cutter(0.01, 0.03, "aluminium-6082"))
    collet: Joint = field(default_factory=lambda: Joint("collet"))
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[WallAxis]) -> None:
    """Put up a machine of this kind."""
    m, d = lay.machine, lay.machine.dimensions
    at = slide(m, m.head_plate)
    lowest = slide(m, m.head_plate)
    arm_h = member_size(m.arm)[0]
    if d.beam_height - arm_h / 2 < lowest.z_block_z[0] - 0.05:
        expected = f"expected at least {(lowest.z_block_z[0] - 0.05 + arm_h / 2) * 1e3:.0f} mm over this drop axis"
        raise InputError("dimensions.beam_height", expected)
    x = 0.0
    host = _beam(lay)
    plate = _carriage(lay, host, x)
    with lay.moved_by("X"):
        z = d.beam_height
        short = ARM + (m.x_plate.thickness + m.head_plate.thickness) / 2 - (plate.start[1] - at.carrier_y)
        if short > 0.0:
            expected = (
                f"expected at least {(d.arm_reach + short) * 1e3:.0f} mm, so that {ARM * 1e3:g} mm of arm are left"
            )
            raise InputError("dimensions.arm_reach", expected)
        arm = beam(lay, "arm", m.arm, "arm", (x, plate.start[1], z), (x, at.carrier_y, z), Z, pieces=5)
        fasten(lay, "arm_joint", m.arm_joint, arm, False, plate)
        low, high = at.z_block_z[0] - 0.03, max(at.z_block_z[1] + 0.03, z + arm_h / 2)
        wide = d.z_rail_spacing + 0.04
        ends = ((x, at.carrier_y, low), (x, at.carrier_y, high))
        head = lay_plate(lay, "head_plate", m.head_plate, "head plate", *ends, wide, Y)
        rib(lay, m.head_plate, head, Y)
        fasten(lay, "arm_end", m.arm_end, arm, True, head)
    z_slide(lay, head, at, "X")
    with lay.moved_by("X"):
        floor = point(lay, "under the work", (x, 0.0, 0.0))
        lay.add(Springs(REST, floor, None, (FLOOR,) * 6, X, Z, 0.02))
    lay.work = Work(floor.piece, floor.place)
    over = host.start[2] + host.height / 2
    lay.size_across("travel_x", "travel X", "front", (0.0, 0.0), d.travel_x, -1)
    lay.size_across("x_stance", "X blocks", "front", (x, over), d.x_stance, 1, "X")
    lay.size_across("z_rail_spacing", "Z rails", "front", (x, at.z_plate_z[1]), d.z_rail_spacing, 2, "XZ")
    lay.size("arm_reach", "arm", "side", (d.arm_reach, over), (0.0, over), 2)
    lay.size("beam_height", "beam", "side", (d.arm_reach, 0.0), (d.arm_reach, d.beam_height), 2)
    ahead = -m.spindle.diameter / 2
    lay.size("lowest_tip", "tip, lowest", "side", (ahead, 0.0), (ahead, d.lowest_tip), -1)
    lay.size("clamp_height", "nose to clamp", "side", (ahead, at.nose_z), (ahead, at.clamp_z), -2, moves="Z")
    foot = lowest.nose_z
    lay.size("travel_z", "travel Z", "side", (ahead, foot), (ahead, foot + d.travel_z), -3)


def _beam(lay: Layout[WallAxis]) -> Bar:
    """Lay beam and panel, and anchor the panel to the wall every so far."""
    m, d = lay.machine, lay.machine.dimensions
    height, width = member_size(m.wall_beam)
    half = d.travel_x / 2 + d.x_stance / 2 + block(m.x_guides.block).length / 2 + d.stop
    count = max(2, round(2 * (half - 0.05) / d.anchor_spacing) + 1)
    places = [-half + 0.05 + (2 * half - 0.1) * k / (count - 1) for k in range(count)]
    stops = tuple(x + half for x in places)
    y, z = d.arm_reach + width / 2, d.beam_height
    laid = beam(lay, "wall_beam", m.wall_beam, "wall beam", (-half, y, z), (half, y, z), Z, stops, 8, carries=True)
    back = d.arm_reach + width + m.panel.thickness / 2
    tall = height + 0.1
    panel = lay_plate(lay, "panel", m.panel, "panel", (-half, back, z), (half, back, z), tall, Y)
    for x in places:
        node = lay.near(laid, (x, y, z))
        held = panel.hold((x, back, z), panel.half_of(Z, height, 0.08))
        join(lay, "panel_joint", m.panel_joint, node, held, Face(height, 0.08), Y, Z)
        join(lay, "anchor", m.anchor, held, None, Face(tall, 0.1), Y, Z)
    for last in (False, True):
        collar(lay, "panel_joint", laid, last)
    for last in (False, True):
        collar(lay, "anchor", panel, last)
    for side in (-1, 1):
        level = z + side * max(height - block(m.x_guides.block).width, 0.6 * height) / 2
        rail(lay, "x_guides", m.x_guides, laid, (-half, d.arm_reach, level), (half, d.arm_reach, level), FORWARD)
    return laid


def _carriage(lay: Layout[WallAxis], host: Bar, x: float) -> PlatePiece:
    m, d = lay.machine, lay.machine.dimensions
    size = block(m.x_guides.block)
    spacing = max(host.height - size.width, 0.6 * host.height)
    y, z = d.arm_reach - size.height - m.x_plate.thickness / 2, d.beam_height
    half = spacing / 2 + size.width / 2 + rim(size, m.x_plate.material)
    with lay.moved_by("X"):
        wide = d.x_stance + size.length
        plate = lay_plate(lay, "x_plate", m.x_plate, "X plate", (x, y, z - half), (x, y, z + half), wide, Y)
        seats = [
            (host, (x + side * d.x_stance / 2, d.arm_reach, z + level * spacing / 2))
            for level in (-1, 1) for side in (-1, 1)
        ]  # fmt: skip
        carriage(lay, "x_guides", m.x_guides, plate, seats, X, FORWARD)
    drive(
        lay,
        "x_drive",
        m.x_drive,
        ("x_motor", m.x_motor),
        lay.near(plate, (x, y, z), NUT),
        host.first,
        X,
        host.length,
        host,
        (-d.travel_x / 2, d.travel_x / 2),
        (0.0, m.x_plate.thickness / 2 + size.height / 2, 0.0),
    )
    return plate


_ANCHORS = Related("anchor_spacing", 0.7, "anchors closer together")
_SHORTER = Related("arm_reach", 0.8, "shorter arm")
KIND = laid_kind(
    WallAxis, "wall-axis", "long axis on a wall",
    "metres of travel, the floor stays free", "the arm hangs and sways: light loads",
    (
        *SPINDLE_LINKS,
        Link("spindle_mount", "clamp", "joint", "what is carried to Z plate"),
        Link("z_plate", "Z plate", "part", "the drop axis"),
        Link("z_guides", "Z guides", "guide", "Z plate to head plate"),
        Link("z_drive", "Z drive", "drive", "holds the drop axis"),
        Link("z_motor", "Z motor", "drive", "holds the Z drive still"),
        Link("head_plate", "head plate", "part", "at the front of the arm"),
        Link("arm_end", "arm front", "joint", "head plate to arm"),
        Link("arm", "arm", "part", "from the carriage forward"),
        Link("arm_joint", "arm foot", "joint", "arm to X plate"),
        Link("x_plate", "X plate", "part", "runs along the beam"),
        Link("x_guides", "X guides", "guide", "X plate to beam"),
        Link("x_drive", "X drive", "drive", "along the beam"),
        Link("x_motor", "X motor", "drive", "holds the X drive still"),
        Link("wall_beam", "wall beam", "part", "along the wall"),
        Link("panel_joint", "beam to panel", "joint", "at each anchor"),
        Link("panel", "backing panel", "part", "between beam and wall"),
        Link("anchor", "wall anchors", "joint", "panel to wall; anchors and wall: a licensed person decides"),
    ),
    (
        SizeField("travel_x", "travel X", 0.2, 12.0),
        SizeField("travel_z", "travel Z, drop", 0.02, 2.0),
        SizeField("arm_reach", "beam to spindle axis", 0.15, 2.0),
        SizeField("beam_height", "work surface to beam", 0.1, 3.0),
        SizeField("anchor_spacing", "between wall anchors", 0.1, 3.0),
        SizeField("lowest_tip", "tool tip over work surface, lowest", 0.0, 0.5),
        SizeField("x_stance", "stance of X blocks", 0.04, 1.5),
        SizeField("z_stance", "stance of Z blocks", 0.03, 1.0),
        SizeField("z_rail_spacing", "between Z rails", 0.03, 0.6),
        SizeField("spindle_overhang", "spindle axis to Z plate", 0.02, 0.4),
        SizeField("clamp_height", "nose to clamp", 0.02, 0.4),
        SizeField("stop", "way left at each end", 0.0, 0.2),
    ),
    put_up,
    ends={"arm": "arm_joint", "wall_beam": "panel_joint", "panel": "anchor", "spindle": "spindle_mount"},
    fitting={"anchor": ("bolt", "wood-screw"), "panel_joint": FRAME_JOINTS, "arm_joint": FRAME_JOINTS,
             "arm_end": FRAME_JOINTS, "spindle_mount": CLAMPS},
    related={"wall_beam": (_ANCHORS,), "anchor": (_ANCHORS,), "panel": (_ANCHORS,), "panel_joint": (_ANCHORS,),
             "arm": (_SHORTER,), "arm_joint": (_SHORTER,),
             "x_guides": (Related("x_stance", 1.3, "X blocks further apart"), _SHORTER),
             "x_plate": (_SHORTER,)},
    carrying=("wall_beam",),
    ribbed=("z_plate", "head_plate"),
)  # fmt: skip
