"""Laying rails, blocks, drives."""

from collections.abc import Sequence
from dataclasses import replace

from unterbau.catalogue.drives import drive as drive_kind
from unterbau.catalogue.guides import block
from unterbau.catalogue.train import train
from unterbau.machine.assemblies.pieces import Host, Lay
from unterbau.model.walled import lies_on_wall
from unterbau.model.walls import has_walls
from unterbau.structure.blocks import spread
from unterbau.structure.keys import Key
from unterbau.structure.motion import Blocks, DriveTrain, Rail
from unterbau.structure.parts import Drive, Guide, Motor
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import Spot
from unterbau.structure.vectors import ZERO, Vector, dot, minus


def rail(lay: Lay, key: Key, guide: Guide, host: Host, start: Vector, end: Vector, up: Vector) -> None:
    """Bolt a rail on a piece; start and end lie on the seat, `up` points off it."""
    backed = (
        isinstance(host, Bar) and host.part.backing > 0.0 and not block(guide.block).free and has_walls(host.part)
        and lies_on_wall(host, guide, start, up)
    )  # fmt: skip
    name = f"{key} rail {lay.number(f'{key} rail')}"
    lay.add(Rail(key, name, guide, host.name, start, end, up, backed, lay.carrier))


def carriage(
    lay: Lay, key: Key, guide: Guide, plate: PlatePiece, seats: Sequence[tuple[Host, Vector]], along: Vector, up: Vector
) -> None:
    """Set a plate on blocks.

    Args:
        lay: The machine.
        key: The link.
        guide: What runs there.
        plate: What the blocks are bolted to.
        seats: Host of the rail, and the place on its seat, of each block.
        along: Direction of the rails.
        up: Off the seat.
    """
    all_seats = spread(tuple((host.name, seat) for host, seat in seats), along, guide.blocks)
    numbers = [lay.number(f"{key} block") for _ in all_seats]
    lay.add(Blocks(key, guide, plate.name, numbers[0], all_seats, along, up, lay.carrier))


def screw_length(chosen: Drive, nut: Spot, bearing: Spot, along: Vector, travel: tuple[float, float]) -> float:
    """Return the least length of a screw, ends and all: from its bearing to the nut where that is farthest, m."""
    kind = drive_kind(chosen.kind)
    away = dot(minus(nut.place, bearing.place), along)
    return max(abs(away + way) for way in travel) + kind.nut_length / 2 + sum(kind.ends)


def motor_width(chosen: Drive, motor: Motor) -> float:
    """Return the side of a drive's motor, m."""
    return train(chosen.kind).motor(chosen.kind, motor.kind, motor.torque).body.across


def drive(
    lay: Lay,
    key: Key,
    chosen: Drive,
    motor: tuple[Key, Motor],
    nut: Spot,
    bearing: Spot,
    along: Vector,
    length: float,
    host: Host,
    travel: tuple[float, float],
    beside: Vector = ZERO,
    aside: Vector = ZERO,
) -> None:
    """Put a screw or belt in.

    Args:
        lay: The machine.
        key: The link.
        chosen: The drive.
        motor: Its link, and itself.
        nut: Where the nut is on what is moved.
        bearing: Where the fixed bearing is.
        along: Direction of the axis.
        length: Of the screw or belt path at the least, m: it is as long as the nut's way and its ends need.
        host: What the bearing is on; the screw is drawn with it.
        travel: How far the nut goes from its bearing, as seen along the axis from where it is laid, m.
        beside: From the nut to where the screw is drawn.
        aside: From a screw's end to a motor beside it; of belts and racks, the way the motor's axis points.
    """
    crossed = drive_kind(chosen.kind).tension is not None and bool(lay.corners)
    number = lay.number(key)
    if drive_kind(chosen.kind).nut is None and length:
        length += sum(drive_kind(chosen.kind).ends)  # a belt's pulleys stand beyond what it runs along
    length = max(length, screw_length(chosen, nut, bearing, along, travel))
    train = DriveTrain(
        key, motor[0], chosen, motor[1], nut, bearing, along, length, host.name, beside, aside, number, crossed
    )
    lay.add(replace(train, carrier=lay.carrier))
