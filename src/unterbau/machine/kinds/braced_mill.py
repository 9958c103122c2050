"""Moving-head mill on two posts, braced backwards and across by a lattice: the cure for a column that sways."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.mill import head_heights, mill_dimension_lines, mill_head
from unterbau.machine.assemblies.pieces import beam, fasten, four_feet
from unterbau.machine.assemblies.table import (
    TABLE_LINKS,
    TABLE_RELATED,
    TABLE_SIZES,
    check_clear_of_column,
    cross_table,
    saddle_reach,
    table_height,
)
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import CLAMPS, FRAME_JOINTS, STAND_LINK, Link, Related, SizeField
from unterbau.machine.kinds.column_mill import HEAD
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand
from unterbau.structure.piece import Bar
from unterbau.structure.vectors import Vector, X, Y, Z
from unterbau.structure.weights import member_size

LEAST_REACH = 0.04  # of braces, m


@dataclass(frozen=True, slots=True)
class BracedSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.22
    travel_y: float = 0.12
    travel_z: float = 0.16
    lowest_tip: float = 0.03
    throat: float = 0.2
    table_length: float = 0.47
    table_width: float = 0.15
    x_stance: float = 0.16
    y_stance: float = 0.12
    rail_spacing: float = 0.16
    z_stance: float = 0.16
    z_rail_spacing: float = 0.18
    """Also between the posts."""
    brace_reach: float = 0.16
    """From the posts back to the feet of the braces; 0 leaves the braces out."""
    clamp_height: float = 0.05
    stop: float = 0.008


@hashed_once
@dataclass(frozen=True, slots=True)
class BracedMill(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["braced-mill"] = "braced-mill"
    dimensions: BracedSizes = field(default_factory=BracedSizes)
    base: Member = field(default_factory=lambda: Member("box-100x240x10", "steel-s235"))
    post: Member = field(default_factory=lambda: Member("shs-60x60x4", "steel-s235"))
    post_joint: Joint = field(default_factory=lambda: Joint("flange"))
    brace: Member = field(default_factory=lambda: Member("flat-40x10", "steel-s235"))
    brace_joint: Joint = field(default_factory=lambda: Joint("bolted-plate"))
    tie: Member = field(default_factory=lambda: Member("shs-60x60x4", "steel-s235"))
    tie_joint: Joint = field(default_factory=lambda: Joint("weld"))
    z_guides: Guide = field(default_factory=lambda: Guide("20", "medium"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    z_motor: Motor = field(default_factory=Motor)
    head_plate: Plate = field(default_factory=lambda: Plate(0.025, "steel-s235"))
    arm_joint: Joint = field(default_factory=lambda: Joint("weld"))
    head_arm: Member = field(default_factory=lambda: Member("rhs-120x80x5", "steel-s235"))
    mount_joint: Joint = field(default_factory=lambda: Joint("weld"))
    mount_plate: Plate = field(default_factory=lambda: Plate(0.02, "steel-s235"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(default_factory=lambda: Spindle(mass=6.0, diameter=0.08, length=0.22, radial=40e6))
    cutter: Cutter = field(default_factory=lambda: Cutter(0.008, 0.025))
    collet: Joint = field(default_factory=lambda: Joint("collet-large"))
    y_guides: Guide = field(default_factory=lambda: Guide("15", "medium"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    y_motor: Motor = field(default_factory=Motor)
    saddle: Plate = field(default_factory=lambda: Plate(0.025, "steel-s235"))
    x_guides: Guide = field(default_factory=lambda: Guide("15", "medium"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_motor: Motor = field(default_factory=Motor)
    table: Plate = field(default_factory=lambda: Plate(0.025, "steel-s235"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[BracedMill]) -> None:
    """Put up a machine of this kind."""
    m, d = lay.machine, lay.machine.dimensions
    check_clear_of_column(lay)
    seat = -table_height(lay)
    height, wide = member_size(m.base)
    if wide < d.z_rail_spacing:
        most = f"expected at most {wide * 1e3:.0f} mm, the width of the base"
        raise InputError("dimensions.z_rail_spacing", most)
    deep = member_size(m.post)[0]
    post_y, front = d.throat + deep / 2, -saddle_reach(lay)
    if 0.0 < d.brace_reach < LEAST_REACH:
        raise InputError("dimensions.brace_reach", f"expected 0, or {LEAST_REACH * 1e3:.0f} mm and more")
    behind = post_y + (d.brace_reach or deep / 2)
    z = seat - height / 2
    base = beam(
        lay,
        "base",
        m.base,
        "base",
        (0.0, front, z),
        (0.0, behind + 0.02, z),
        Z,
        (post_y - front, behind - front, -front),
        8,
        carries=True,
    )
    four_feet(lay, base)
    top = head_heights(lay)[1]
    posts = []
    for side, name in ((-1, "left post"), (1, "right post")):
        x = side * d.z_rail_spacing / 2
        post = beam(
            lay, "post", m.post, name, (x, post_y, seat), (x, post_y, top), Y, ((top - seat) * 0.5,), 8, carries=True
        )
        fasten(lay, "post_joint", m.post_joint, post, False, base)
        posts.append(post)
    _lattice(lay, (posts[0], posts[1]), base, behind, seat, top)
    mill_head(lay, (posts[0], posts[1]), d.throat, top)
    cross_table(lay, base, seat)
    mill_dimension_lines(lay, d.throat, seat - height)
    if d.brace_reach:
        lay.size("brace_reach", "braces", "side", (post_y, seat - height), (behind, seat - height), -1)


def _lattice(
    lay: Layout[BracedMill], posts: tuple[Bar, Bar], base: Bar, behind: float, seat: float, top: float
) -> None:
    """Brace the posts backwards to the base, and across between them."""
    half, y = posts[1].start[0], posts[0].start[1]
    inner = half - posts[0].width / 2
    tie = beam(lay, "tie", lay.machine.tie, "top tie", (-inner, y, top), (inner, y, top), Z, pieces=4)
    fasten(lay, "tie_joint", lay.machine.tie_joint, tie, False, posts[0])
    fasten(lay, "tie_joint", lay.machine.tie_joint, tie, True, posts[1])
    if not lay.machine.dimensions.brace_reach:
        return
    for post, side, name in ((posts[0], -1, "left brace"), (posts[1], 1, "right brace")):
        _brace(lay, name, (side * half, y, top), (side * half, behind, seat), post, base, X)
    middle = (seat + top) / 2
    for low, high, number in ((seat, middle, 1), (middle, top, 2)):
        _brace(lay, f"cross {number}", (-half, y, low), (half, y, high), posts[0], posts[1], Y)
        _brace(lay, f"cross {number} back", (half, y, low), (-half, y, high), posts[1], posts[0], Y)


def _brace(lay: Layout[BracedMill], name: str, start: Vector, end: Vector, first: Bar, last: Bar, face: Vector) -> None:
    laid = beam(lay, "brace", lay.machine.brace, name, start, end, face, pieces=4)
    fasten(lay, "brace_joint", lay.machine.brace_joint, laid, False, first)
    fasten(lay, "brace_joint", lay.machine.brace_joint, laid, True, last)


_NEARER = (Related("throat", 0.9, "posts nearer the spindle"), Related("brace_reach", 1.3, "braces further back"))
KIND = laid_kind(
    BracedMill, "braced-mill", "moving-head mill on braced posts",
    "stiff from small sections; a way to save an old stand", "many joints; the lattice is in the way behind",
    (
        *HEAD,
        Link("post", "posts", "part", "carry the Z rails"),
        Link("post_joint", "post feet", "joint", "posts to base"),
        Link("brace", "braces", "part", "backwards to the base, and across between the posts"),
        Link("brace_joint", "brace ends", "joint", "braces to posts and base"),
        Link("tie", "top tie", "part", "between the posts' tops"),
        Link("tie_joint", "tie ends", "joint", "tie to posts"),
        Link("base", "base", "part", "under table and posts"),
        *TABLE_LINKS,
        STAND_LINK,
    ),
    (*TABLE_SIZES, SizeField("brace_reach", "posts to brace feet, 0 = no braces", 0.0, 1.0)), put_up,
    ends={"post": "post_joint", "brace": "brace_joint", "tie": "tie_joint", "head_arm": "arm_joint",
          "mount_plate": "mount_joint", "spindle": "spindle_mount"},
    fitting={"spindle_mount": CLAMPS, **dict.fromkeys(
        ("brace_joint", "arm_joint", "mount_joint"), FRAME_JOINTS),
        **dict.fromkeys(("post_joint", "tie_joint"), (*FRAME_JOINTS, "cap"))},
    related={**TABLE_RELATED, **dict.fromkeys(
        ("post", "post_joint", "brace", "brace_joint", "tie", "tie_joint"), _NEARER)},
    carrying=("post", "base"),
    ribbed=("head_plate",),
)  # fmt: skip
