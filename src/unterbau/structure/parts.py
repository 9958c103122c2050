"""What a machine is made of, as the person chooses it. SI units."""

from dataclasses import dataclass
from typing import Literal

from unterbau.catalogue.joints import BOLTS, BoltGroup, OwnValues
from unterbau.sections.solved import SectionRef, section_name
from unterbau.strict import STRICT


@dataclass(frozen=True, slots=True)
class Member:
    """A beam-like part."""

    __pydantic_config__ = STRICT

    section: SectionRef
    material: str
    fill: str | None = None
    """Material bonded into the closed hollow, or nothing."""
    turned: bool = False
    """Turned by a quarter, lying instead of upright."""
    loose: bool = False
    """The fill only lies in the hollow: its weight and damping count, its stiffness does not."""
    seam: Literal["screws", "bonded", "welded"] = "screws"
    """How the profiles of a built-up section are tied along their length."""
    pitch: float = 0.1
    """Between the screws of a seam, m."""
    capped: bool = False
    """Plates welded or bonded into both ends of a hollow section keep it in shape there."""
    diaphragms: float = 0.0
    """Between plates welded or bonded inside a hollow section, m; 0 where there are none."""
    backing: float = 0.0
    """Thickness of a strip bonded to the wall under each rail, m; 0 where there is none."""

    @property
    def section_name(self) -> str:
        """Name of the section, whether standard or the builder's own."""
        return section_name(self.section)


@dataclass(frozen=True, slots=True)
class Plate:
    """A flat part."""

    __pydantic_config__ = STRICT

    thickness: float
    material: str
    ribs: int = 0
    """Upright strips of the same material, welded or bonded on."""
    rib_height: float = 0.04
    rib_thickness: float = 0.01
    under: str | None = None
    """Material of a layer that is glued under it, if there is one."""
    under_thickness: float = 0.0
    """Of the thickness, how much that layer is, m."""
    sealed: bool = False
    """Whether timber is sealed on all faces and edges."""
    strips: int = 0
    """So many extruded plates with T-slots side by side, across what carries them; 0 for one plain plate."""


@dataclass(frozen=True, slots=True)
class Joint:
    """How two parts are joined: so many pieces of a kind at each face."""

    __pydantic_config__ = STRICT

    kind: str
    """A kind of the catalogue, or `own` with values of one's own."""
    count: int = 1
    own: OwnValues | None = None
    bolts: BoltGroup | None = None
    """For a joint computed from its bolts."""
    across: int = 0
    """Pieces side by side; 0 as usual."""
    edge: float = 0.0
    """From the outer pieces to the edge of the face, m; 0 as usual."""
    play: float = 0.0
    """Clearance of a cap around a round post before it holds, across, m."""
    gussets: int = 0
    """Triangular plates of the part's own material in each corner, welded or bonded in."""
    gusset_leg: float = 0.08
    """Along both parts, m."""
    gusset_thickness: float = 0.008

    @property
    def group(self) -> BoltGroup:
        """The bolts of a joint that is computed from them; customary ones where none are given."""
        return self.bolts or BoltGroup()

    @property
    def overhang(self) -> float:
        """How far a base plate reaches out beyond the part, m; what it stands on is made to reach as far."""
        return self.group.overhang if self.kind == BOLTS else 0.0


Mount = Literal["front", "front-edges", "top-front", "top-bottom"]


@dataclass(frozen=True, slots=True)
class Guide:
    """Block size and preload of the two rails of an axis, two blocks a rail."""

    __pydantic_config__ = STRICT

    block: str
    preload: Literal["light", "medium"] = "light"
    blocks: int = 2
    """On each rail, evenly over the stance."""
    mount: Mount = "front"
    """Faces of a gantry beam that its two rails lie on."""


ScrewEnds = Literal["floating", "free", "held", "fixed"]


@dataclass(frozen=True, slots=True)
class Drive:
    """What moves an axis."""

    __pydantic_config__ = STRICT

    kind: str
    count: int = 1
    free: bool = False
    """Motor off: only friction holds the axis."""
    offset: float = 0.0
    """Of nut and screw across the axis from between the guides, m; off centre it racks."""
    ends: ScrewEnds = "floating"
    """How a screw is held: its first end fixed and the far one in a floating bearing or free, both ends only held, or
    both fixed."""


@dataclass(frozen=True, slots=True)
class Motor:
    """What holds a drive's screw, belt or pinion still."""

    __pydantic_config__ = STRICT

    kind: Literal["stepper", "closed-loop", "servo"] = "stepper"
    torque: float = 0.0
    """Holding torque, N·m; 0 as is usual for the drive."""
    on: float = 0.0
    """How long it may run before it has to rest, s; 0 without end."""


@dataclass(frozen=True, slots=True)
class Spindle:
    """A spindle as a rigid body on its bearings."""

    __pydantic_config__ = STRICT

    mass: float = 2.6
    diameter: float = 0.065
    length: float = 0.2
    """From nose to top."""
    radial: float = 25e6
    """Likely stiffness at the nose, sideways, N/m."""
    axial: float = 20e6
    tilt: float = 20e3
    """N·m/rad."""
    power: float = 1500.0
    """At the cut, W."""
    torque: float = 0.0
    """The most it gives at any speed, N·m; 0 where power alone limits it."""


FLUTED, FLUTES = 0.8, 3.5
"""A bar as stiff as a fluted one, and the usual length of flutes, in diameters; from memory."""


@dataclass(frozen=True, slots=True)
class Cutter:
    """The tool in the spindle; or round work in a chuck, which has neither flutes nor shank."""

    __pydantic_config__ = STRICT

    diameter: float = 6e-3
    stick_out: float = 0.025
    material: str = "carbide"
    flute_length: float = 0.0
    """m; 0 as usual, three and a half diameters."""
    shank: float = 0.0
    """Diameter, m; 0 where it is that of the cutter."""

    @property
    def fluted(self) -> float:
        """Length of the flutes that stick out, m."""
        return min(self.flute_length or FLUTES * self.diameter, self.stick_out)


StandKind = Literal["firm", "bench", "welded", "profile", "plywood", "block", "base"]


@dataclass(frozen=True, slots=True)
class Stand:
    """What the feet stand on."""

    __pydantic_config__ = STRICT

    kind: StandKind = "bench"
    height: float = 0.7
    """Of legs, box or block."""
    casters: bool = False
    """Locked casters instead of levelling feet."""
    material: str = "epoxy-granite-10"
    """Of a cast base."""
    thickness: float = 0.06
    """Of its slab, m."""
    ribs: int = 3
    """So many along it and as many across, on its underside; 0 for a plain slab."""
    rib_height: float = 0.1
    """Below the slab, m."""
    rib_thickness: float = 0.05
    beyond: float = 0.05
    """How far a cast base reaches beyond the machine's feet on all sides, m."""


@dataclass(frozen=True, slots=True)
class Hung:
    """A body that is hung on a machine: a vice, a motor, a drag chain, a box."""

    __pydantic_config__ = STRICT

    mass: float = 2.0
    length: float = 0.1
    """Along X, m."""
    depth: float = 0.1
    """Along Y."""
    height: float = 0.1

    @property
    def size(self) -> tuple[float, float, float]:
        """Along X, Y, Z, m."""
        return (self.length, self.depth, self.height)


@dataclass(frozen=True, slots=True)
class DragChain:
    """A drag chain with what lies in it."""

    __pydantic_config__ = STRICT

    width: float = 0.03
    """Outside, m."""
    height: float = 0.023
    """Of its links, m."""
    radius: float = 0.038
    """Of its bend, at the middle of the links, m."""
    per_metre: float = 1.1
    """With cables and hoses, kg/m."""


@dataclass(frozen=True, slots=True)
class Place:
    """Where the head stands: 0 to 1 along each axis; z = 0 is lowest."""

    x: float = 0.5
    y: float = 0.5
    z: float = 0.0


@dataclass(frozen=True, slots=True)
class Sizes:
    """The sizes of a machine that one decides on; each kind of machine has its own."""


Part = Member | Plate | Joint | Guide | Drive | Motor | Spindle | Cutter | Stand | Hung | DragChain | Sizes
