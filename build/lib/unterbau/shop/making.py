"""Who makes a piece: oneself, a printer, somebody else; and what of it matters to the machine."""

from dataclasses import dataclass
from typing import Literal, get_args

from unterbau.errors import InputError
from unterbau.materials.material import material
from unterbau.shop.pieces import ShopPiece
from unterbau.strict import STRICT
from unterbau.structure.join import BasePlateJoin, EndJoin, Join
from unterbau.structure.motion import Blocks, Rail, SpindleUnit
from unterbau.structure.structure import Step, Structure
from unterbau.units import Units, tolerance_text

How = Literal["make", "buy", "print", "have made"]
HOWS: tuple[How, ...] = get_args(How)
THICK = 0.012
"""Metal plates from this on are not cut at home, m; common practice, no source."""
MOST = 2000
ROUGH, HOLES, ALIKE = 0.5e-3, 0.2e-3, 0.1e-3
"""Of lengths that nothing hangs on, of holes to one another, of equal pieces, m; common practice, no source."""
SQUARE_END = 0.1e-3
"""Out of square over the width of an end that is bolted flat, m; common practice, no source."""


@dataclass(frozen=True, slots=True)
class MadeBy:
    """Who makes a piece of a candidate."""

    __pydantic_config__ = STRICT

    candidate: str
    piece: str
    """Name of the first of those that are equal."""
    how: How


@dataclass(frozen=True, slots=True)
class Need:
    """What has to be true of a piece."""

    words: str
    within: float
    """m."""
    why: str


def usual_how(piece: ShopPiece, tools: tuple[str, ...]) -> How:
    """Return who usually makes a piece, given the tools and favours of the brief."""
    kind = material(piece.material).kind
    if piece.sort in ("round", "extruded"):
        return "buy"
    if piece.sort == "plate" and kind == "plastic" and "printer" in tools:
        return "print"
    outside = "machining-firm" in tools or "sheet-firm" in tools
    if piece.sort == "plate" and kind not in ("timber", "plastic") and (outside or piece.thickness >= THICK):
        return "have made"
    return "make"


def ways_of(piece: ShopPiece) -> tuple[How, ...]:
    """Return who could make a piece: a printer makes plates, no bars."""
    return tuple(one for one in HOWS if one != "print" or piece.sort == "plate")


def how_of(piece: ShopPiece, candidate: str, told: tuple[MadeBy, ...], tools: tuple[str, ...]) -> How:
    """Return who makes a piece: as told, or as usual; what was told of a plate that has become a bar may not do."""
    for one in told:
        if one.candidate == candidate and one.piece in piece.names and one.how in ways_of(piece):
            return one.how
    return usual_how(piece, tools)


def with_how(told: tuple[MadeBy, ...], candidate: str, piece: ShopPiece, how: How) -> tuple[MadeBy, ...]:
    """Return what was told, with a piece made by somebody else."""
    rest = tuple(one for one in told if one.candidate != candidate or one.piece not in piece.names)
    return (*rest, MadeBy(candidate, piece.names[0], how))


def check_made(told: tuple[MadeBy, ...]) -> None:
    """Check who makes what.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(told) > MOST:
        raise InputError("made", f"expected at most {MOST}, got {len(told)}")
    seen = set()
    for index, one in enumerate(told):
        if (one.candidate, one.piece) in seen:
            raise InputError(f"made[{index}]", f'"{one.piece}" is told twice')
        seen.add((one.candidate, one.piece))


def needs_of(structure: Structure, bears: dict[str, float]) -> dict[str, tuple[Need, ...]]:
    """Return what has to be true of each piece, by its name.

    Args:
        structure: The machine.
        bears: How far the rails of each guide may be off one another before blocks bind, m, by its link.
    """
    found: dict[str, dict[str, Need]] = {}
    for step in structure.flat:
        asked = _asked(step, bears)
        if asked is not None:
            rows, need = found.setdefault(asked[0], {}), asked[1]
            if need.words not in rows or need.within < rows[need.words].within:
                rows[need.words] = need
    return {name: tuple(rows.values()) for name, rows in found.items()}


def _asked(step: Step, bears: dict[str, float]) -> tuple[str, Need] | None:
    """Return which piece a step asks something of, and what."""
    match step:
        case Rail() if step.key in bears:
            words = f"seats of the {_axis(step.key)} rails flat and in one line"
            return step.host, Need(words, bears[step.key], "more loads the blocks beyond a tenth of their rating")
        case Blocks() if step.key in bears:
            words = f"pads of the {_axis(step.key)} blocks in one plane"
            return step.plate, Need(words, bears[step.key], "more twists the carriage and binds its blocks")
        case EndJoin() if step.joint.kind != "weld":
            words = "ends that are bolted, square over their width"
            return step.bar, Need(words, SQUARE_END, "an end askew pulls its neighbour askew")
        case BasePlateJoin():
            why = "bolts draw a bent plate down and the part with it"
            return step.plate.name, Need("face to its neighbour flat after welding", SQUARE_END, why)
        case Join() if step.wall is not None:
            return step.a.piece, Need("face that bears on its neighbour flat", SQUARE_END, "it rocks on its bolts else")
        case SpindleUnit():
            return step.plate, Need(
                "face under the spindle clamp parallel to the pads", SQUARE_END, "tram takes up the rest"
            )
        case _:
            return None


def _axis(key: str) -> str:
    return key.removesuffix("_guides").upper()


def needs_of_piece(piece: ShopPiece, needs: dict[str, tuple[Need, ...]]) -> tuple[Need, ...]:
    """Return what has to be true of a piece, the strictest for all that are equal."""
    found: dict[str, Need] = {}
    for name in piece.names:
        for one in needs.get(name, ()):
            if one.words not in found or one.within < found[one.words].within:
                found[one.words] = one
    return tuple(sorted(found.values(), key=lambda one: one.within))


def does_not_matter(piece: ShopPiece, needs: tuple[Need, ...], units: Units = "mm") -> str:
    """Return what need not be true of a piece, in words."""
    rough, holes, alike = (tolerance_text(value, units) for value in (ROUGH, HOLES, ALIKE))
    if piece.sort == "plate":
        edges = f"edges as cut will do, length and width within {rough}"
        return f"{edges}; holes within {holes} of one another" if piece.holes else edges
    if any("square" in one.words for one in needs):
        return f"length within {rough}, equal pieces equal within {alike}; outside as it comes"
    return f"length within {rough}; ends as sawn; outside as it comes"
