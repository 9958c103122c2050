"""A machine's frame with the places that matter to the answers."""

from dataclasses import dataclass

from unterbau.mechanics.frame import Frame

Vector = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class WorkPoint:
    """Where the tool's pull is pushed back: a point of the bed between some of its nodes."""

    nodes: tuple[int, ...]
    shares: tuple[float, ...]
    place: Vector


@dataclass(frozen=True, slots=True)
class Built:
    """The frame of a machine, and its ends."""

    frame: Frame
    tip: int
    nose: int
    work: WorkPoint
    chains: dict[str, tuple[int, ...]]
    """Nodes of each drawn body, in order along it."""
    corners: tuple[int, ...] = ()
    """Corners of a frame that belts can run round: front left, back left, front right, back right."""
