"""What moves a piece: along which of the machine's axes, and which way."""

from dataclasses import dataclass

from unterbau.structure.vectors import Vector

AXES = "XYZ"


@dataclass(frozen=True, slots=True)
class Carrier:
    """How far a piece goes along X, Y and Z per metre that its axis goes: 1, −1 the other way, 0 not at all."""

    x: int = 0
    y: int = 0
    z: int = 0

    @property
    def axes(self) -> str:
        """The axes that move it."""
        return "".join(name for name, way in zip(AXES, (self.x, self.y, self.z), strict=True) if way)

    def moved(self, place: Vector, way: Vector) -> Vector:
        """Return a place of the piece when its axes have gone so far from where the machine is laid out, m."""
        return (place[0] + self.x * way[0], place[1] + self.y * way[1], place[2] + self.z * way[2])


STILL = Carrier()


def carrier(axes: str) -> Carrier:
    """Return the carrier of axes; in small letters the piece goes against them, as a table does under the tool."""
    ways = dict.fromkeys(AXES, 0)
    for letter in axes:
        ways[letter.upper()] = 1 if letter.isupper() else -1
    return Carrier(ways["X"], ways["Y"], ways["Z"])
