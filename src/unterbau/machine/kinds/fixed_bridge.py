"""Router with a fixed bridge over a moving table."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import RIGID, Face
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.bed import Bed, bed, work_on
from unterbau.machine.assemblies.gantry import GantryPlaces, bridge_beam, gantry_dimension_lines, gantry_places
from unterbau.machine.assemblies.head import HEAD_ENDS, HEAD_FITTING, HEAD_LINKS, HEAD_RELATED, HEAD_SIZES, head_on_beam
from unterbau.machine.assemblies.ladder import CROSS_MEMBERS
from unterbau.machine.assemblies.motion import carriage, drive, rail
from unterbau.machine.assemblies.pieces import beam, fasten, foot, join, lay_plate, point, rib
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import FRAME_JOINTS, STAND_LINK, Link, More, Related, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.join import Springs
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand
from unterbau.structure.piece import Bar
from unterbau.structure.spot import NUT
from unterbau.structure.vectors import X, Y, Z
from unterbau.structure.weights import member_size

MARGIN = 0.04


@dataclass(frozen=True, slots=True)
class BridgeSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.4
    travel_y: float = 0.4
    travel_z: float = 0.12
    clearance: float = 0.14
    lowest_tip: float = 0.01
    x_stance: float = 0.18
    y_stance: float = 0.26
    """Between the table's blocks, along the rails."""
    rail_spacing: float = 0.3
    """Between the table's rails."""
    side_width: float = 0.2
    z_stance: float = 0.12
    z_rail_spacing: float = 0.1
    spindle_overhang: float = 0.065
    clamp_height: float = 0.05
    cross_members: int = 3
    stop: float = 0.01


@hashed_once
@dataclass(frozen=True, slots=True)
class FixedBridge(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["fixed-bridge-router"] = "fixed-bridge-router"
    dimensions: BridgeSizes = field(default_factory=BridgeSizes)
    base_beam: Member = field(default_factory=lambda: Member("rhs-100x50x4", "steel-s235"))
    cross_member: Member = field(default_factory=lambda: Member("rhs-100x50x4", "steel-s235"))
    cross_joint: Joint = field(default_factory=lambda: Joint("weld"))
    bridge_foot: Member = field(default_factory=lambda: Member("rhs-120x80x5", "steel-s235"))
    foot_joint: Joint = field(default_factory=lambda: Joint("weld"))
    table: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    y_guides: Guide = field(default_factory=lambda: Guide("20"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    y_motor: Motor = field(default_factory=Motor)
    side: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    side_joint: Joint = field(default_factory=lambda: Joint("flange"))
    beam_joint: Joint = field(default_factory=lambda: Joint("flange"))
    gantry_beam: Member = field(default_factory=lambda: Member("box-160x120x10", "steel-s235"))
    x_guides: Guide = field(default_factory=lambda: Guide("20"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_motor: Motor = field(default_factory=Motor)
    x_plate: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    z_guides: Guide = field(default_factory=lambda: Guide("20"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    z_motor: Motor = field(default_factory=Motor)
    z_plate: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(default_factory=Spindle)
    cutter: Cutter = field(default_factory=Cutter)
    collet: Joint = field(default_factory=lambda: Joint("collet"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[FixedBridge]) -> None:
    """Put up a machine of this kind; the table moves, the bridge stands."""
    m, d = lay.machine, lay.machine.dimensions
    at = gantry_places(lay)
    y_block = block(m.y_guides.block)
    seat = -m.table.thickness - y_block.height
    reach = d.travel_y / 2 + d.y_stance / 2 + y_block.length / 2 + d.stop
    rails, bottom = _base(lay, at, seat, reach)
    _table(lay, rails, seat, reach)
    high = at.beam_z + member_size(m.gantry_beam)[0] / 2 + m.beam_joint.overhang
    foot_h = member_size(m.bridge_foot)[0]
    low = bottom - foot_h / 2
    across = beam(lay, "bridge_foot", m.bridge_foot, "bridge foot", (-at.side_x + m.side.thickness / 2, at.beam_y, low),
                  (at.side_x - m.side.thickness / 2, at.beam_y, low), Z,
                  tuple(at.side_x - m.side.thickness / 2 + s * d.rail_spacing / 2 for s in (-1, 1)))  # fmt: skip
    sides = []
    for side, name in ((-1, "left side"), (1, "right side")):
        place = (side * at.side_x, at.beam_y)
        plate = lay_plate(lay, "side", m.side, name, (*place, low - foot_h / 2), (*place, high), d.side_width, X)
        rib(lay, m.side, plate, (float(side), 0.0, 0.0))
        fasten(lay, "side_joint", m.side_joint, across, side > 0, plate)
        foot(lay, across, across.first if side < 0 else across.last)
        sides.append(plate)
    for line in rails:
        _stand(lay, line, at.beam_y, across)
    laid = bridge_beam(lay, at, 0.0, (sides[0], sides[1]))
    head_on_beam(lay, laid, at.rails, carried="")
    gantry_dimension_lines(lay, at, low, with_head=False)


def _base(lay: Layout[FixedBridge], at: GantryPlaces, seat: float, reach: float) -> tuple[tuple[Bar, Bar], float]:
    """Lay the two beams under the rails and the cross members between them."""
    m, d = lay.machine, lay.machine.dimensions
    height, width = member_size(m.base_beam)
    back = max(reach, at.beam_y + 0.06)
    rows = [-reach + width / 2 + (reach + back - width) * k / (d.cross_members - 1) for k in range(d.cross_members)]
    lines = []
    for side, name in ((-1, "left base beam"), (1, "right base beam")):
        x, z = side * d.rail_spacing / 2, seat - height / 2
        stops = tuple(y + reach for y in (*rows, at.beam_y))
        laid = beam(lay, "base_beam", m.base_beam, name, (x, -reach, z), (x, back, z), Z, stops, 8, carries=True)
        for node in (laid.first, laid.last):
            foot(lay, laid, node)
        lines.append(laid)
    half = d.rail_spacing / 2 - width / 2
    z = seat - member_size(m.cross_member)[0] / 2
    for number, y in enumerate(rows, 1):
        laid = beam(lay, "cross_member", m.cross_member, f"cross member {number}", (-half, y, z), (half, y, z))
        fasten(lay, "cross_joint", m.cross_joint, laid, False, lines[0])
        fasten(lay, "cross_joint", m.cross_joint, laid, True, lines[1])
    return (lines[0], lines[1]), seat - height


def _stand(lay: Layout[FixedBridge], line: Bar, y: float, across: Bar) -> None:
    """Fasten a base beam on the bridge's foot below it."""
    x, _, z = line.start
    under = lay.near(across, (x, y, across.start[2]))
    seat = point(lay, f"{line.name} on the foot", (x, y, z - line.height / 2))
    lay.add(Springs("base_beam", seat, lay.near(line, (x, y, z)), (RIGID,) * 6, Z, X))
    join(lay, "foot_joint", lay.machine.foot_joint, seat, under, Face(line.width, across.width), Z, X)


def _table(lay: Layout[FixedBridge], rails: tuple[Bar, Bar], seat: float, reach: float) -> Bed:
    m, d = lay.machine, lay.machine.dimensions
    y = 0.0
    half_x = max(d.travel_x / 2 + MARGIN, d.rail_spacing / 2 + block(m.y_guides.block).width / 2)
    half_y = max(d.travel_y / 2 + MARGIN, d.y_stance / 2 + block(m.y_guides.block).length / 2)
    for line in rails:
        rail(lay, "y_guides", m.y_guides, line, (line.start[0], -reach, seat), (line.start[0], reach, seat), Z)
    with lay.moved_by("y"):
        plate = bed(lay, "table", m.table, "table", (-half_x, half_x), (y - half_y, y + half_y), 0.0)
        seats = [(line, (line.start[0], y + end * d.y_stance / 2, seat)) for line in rails for end in (-1, 1)]
        carriage(lay, "y_guides", m.y_guides, plate.plate, seats, Y, Z)
    nut = lay.near(plate.plate, (m.y_drive.offset, y, plate.middle), NUT)
    drive(
        lay,
        "y_drive",
        m.y_drive,
        ("y_motor", m.y_motor),
        nut,
        rails[0].last,
        Y,
        2 * reach,
        rails[0],
        (-d.travel_y / 2, d.travel_y / 2),
        (0.0, 0.0, -(m.table.thickness + block(m.y_guides.block).height) / 2),
    )
    work_on(lay, plate, 0.0, 0.0, "X")
    return plate


KIND = laid_kind(
    FixedBridge, "fixed-bridge-router", "router, fixed bridge and moving table",
    "stiff bridge that never moves; good for metal", "twice the table's travel in floor space; heavy work must move",
    (
        *HEAD_LINKS,
        Link("side", "bridge sides", "part", "carry the gantry beam"),
        Link("side_joint", "side feet", "joint", "bridge sides to bridge foot"),
        Link("bridge_foot", "bridge foot", "part", "under the base, from side to side"),
        Link("foot_joint", "foot joints", "joint", "base beams on the bridge foot"),
        Link("base_beam", "base beams", "part", "under the table's rails"),
        Link("cross_joint", "base corners", "joint", "cross members to base beams"),
        Link("cross_member", "cross members", "part", "between the base beams"),
        Link("y_guides", "Y guides", "guide", "table to base beams"),
        Link("y_drive", "Y drive", "drive", "moves the table"),
        Link("y_motor", "Y motor", "drive", "holds the Y drive still"),
        Link("table", "table", "part", "carries the work"),
        STAND_LINK,
    ),
    (
        *HEAD_SIZES,
        SizeField("rail_spacing", "between the table's rails", 0.06, 3.0),
        SizeField("side_width", "bridge sides, width", 0.04, 1.0), CROSS_MEMBERS,
    ), put_up,
    ends={**HEAD_ENDS, "side": "side_joint", "cross_member": "cross_joint", "base_beam": "foot_joint",
          "bridge_foot": "side_joint"},
    fitting={**HEAD_FITTING, "side_joint": FRAME_JOINTS, "cross_joint": FRAME_JOINTS, "foot_joint": FRAME_JOINTS},
    related={**HEAD_RELATED, "side": (Related("side_width", 1.3, "wider bridge sides"), *HEAD_RELATED["beam_joint"]),
             "y_guides": (Related("rail_spacing", 1.2, "table rails further apart"),
                          Related("y_stance", 1.3, "table blocks further apart")),
             "table": (Related("rail_spacing", 1.2, "table rails further apart"),)},
    more=More("cross_members", "cross member", ("cross_member", "cross_joint", "base_beam")),
    carrying=("gantry_beam", "base_beam"),
    faces=("x_guides", "gantry_beam"),
    ribbed=("side", "z_plate"),
    gusseted=("beam_joint",),
)  # fmt: skip
