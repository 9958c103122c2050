"""Where bars are sawn: at the faces of what stands at their ends, not at the ends of their axes."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from unterbau.structure.join import BasePlateJoin, EndJoin
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Vector, cross, dot, minus, plus, scaled
from unterbau.structure.weights import bar_mass, fill_mass

SQUARE = 0.999
"""Of the cosine between a bar's axis and its cut: less is a mitre."""
BESIDE = 0.3
"""Below this cosine a bar lies along the face at its end, and is sawn square."""


@dataclass(frozen=True, slots=True)
class Cut:
    """How a bar ends."""

    trim: float
    """From the end of its axis back to the cut, m."""
    normal: Vector
    """Off the cut, out of the bar."""
    against: str = ""
    """The piece that it stands against, if there is one."""


@dataclass(frozen=True, slots=True)
class Sawn:
    """A bar as it is sawn."""

    bar: Bar
    first: Cut
    last: Cut

    @property
    def length(self) -> float:
        """Along its axis from cut to cut, m."""
        return self.bar.length - self.first.trim - self.last.trim

    @property
    def start(self) -> Vector:
        """Where the first cut crosses the axis."""
        return plus(self.bar.start, self.bar.along, self.first.trim)

    @property
    def end(self) -> Vector:
        """Where the last cut crosses the axis."""
        return plus(self.bar.end, self.bar.along, -self.last.trim)

    @property
    def hidden(self) -> float:
        """Mass of what its axis reaches into its neighbours, which the frame counts with the bar, kg."""
        return (bar_mass(self.bar.part) + fill_mass(self.bar.part)) * (self.first.trim + self.last.trim)


@lru_cache(maxsize=64)
def sawn(structure: Structure) -> Mapping[str, Sawn]:
    """Return all bars as they are sawn, by name."""
    cuts: dict[tuple[str, bool], Cut] = {}
    for step in structure.flat:
        if not isinstance(step, EndJoin | BasePlateJoin):
            continue
        bar = structure.pieces[step.bar]
        host = step.standing if isinstance(step, BasePlateJoin) else structure.pieces[step.host]
        if isinstance(bar, Bar) and isinstance(host, Bar | PlatePiece):
            cuts[bar.name, step.last] = _cut(bar, step.last, host)
    found = {}
    for piece in structure.pieces.values():
        if isinstance(piece, Bar):
            first = cuts.get((piece.name, False)) or Cut(0.0, scaled(piece.along, -1.0))
            found[piece.name] = Sawn(piece, first, cuts.get((piece.name, True)) or Cut(0.0, piece.along))
    return found


def _cut(bar: Bar, last: bool, host: Bar | PlatePiece) -> Cut:
    """Return the cut at an end of a bar, at the face of its neighbour that it runs into."""
    out = bar.along if last else scaled(bar.along, -1.0)
    end = bar.end if last else bar.start
    if isinstance(host, PlatePiece):
        faces = [(host.up, host.height / 2)]
    else:
        faces = [(host.up, host.height / 2), (cross(host.up, host.along), host.width / 2)]
    normal, half = max(faces, key=lambda face: abs(dot(face[0], out)))
    into = dot(normal, out)
    if abs(into) < BESIDE:
        return Cut(0.0, out, host.name)
    normal = normal if into > 0.0 else scaled(normal, -1.0)
    # The face nearer to the bar lies half the neighbour's depth before its middle.
    before = -dot(minus(end, host.start), normal)
    trim = (half - before) / abs(into)
    return Cut(max(trim, 0.0), normal, host.name)


def is_square(bar: Bar, cut: Cut) -> bool:
    """Return whether a cut is square to its bar."""
    return abs(dot(cut.normal, bar.along)) > SQUARE
