"""What every part of the frame's construction shares."""

from dataclasses import dataclass

from unterbau.band import Level
from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import Face
from unterbau.machine.frame_builder import Chain, FrameBuilder, Vector, X, Z
from unterbau.machine.joining import joint_kind
from unterbau.machine.kinds.moving_gantry.geometry import Geometry
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.parts import Drive, Guide, Joint


@dataclass(frozen=True, slots=True)
class Building:
    """The machine, its places, the level of joints, and the frame so far."""

    machine: MovingGantry
    at: Geometry
    level: Level
    frame: FrameBuilder

    def join(self, group: str, i: int, j: int, chosen: Joint, face: Face, normal: Vector = X, up: Vector = Z) -> None:
        """Join two nodes at node i's place."""
        kind = joint_kind(chosen)
        self.frame.spring(group, i, j, kind.springs(self.level, chosen.count, face), normal, up, kind.zeta)

    def block(self, group: str, node: int, rail: Chain, guide: Guide, along: Vector, up: Vector) -> None:
        """Seat a guide block on its rail; `up` points away from the rail's seat."""
        size = block(guide.block)
        self.frame.seat(group, node, rail, size.springs(self.level, guide.preload), along, up, size.zeta)

    def drive(
        self, group: str, nut: int, bearing: int, chosen: Drive, along: Vector, distance: float, length: float
    ) -> None:
        """Hold a nut along its screw."""
        kind = drive(chosen.kind)
        k = (kind.stiffness(self.level, distance, length), 0.0, 0.0, 0.0, 0.0, 0.0)
        up = Z if along != Z else X
        self.frame.spring(group, nut, bearing, k, along, up, kind.zeta)
