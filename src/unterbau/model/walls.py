"""How much the walls of a member give: the whole cross-section, and the wall under what is fastened to it.

A member's beam keeps its cross-section rigid. What it leaves out is computed once for a section from its walls as
folded plates and put beside the beam in two shares: distortion of a closed section, which spreads far along the member
like a beam on an elastic foundation, and the dent of the wall, which stays near.

Source:
    Distortion as a beam on an elastic foundation: Vlasov, Thin-Walled Elastic Beams; Wright, Abdel-Samad and Robinson,
    BEF Analogy for Analysis of Box Girders, 1968; from memory. Derivation in docs/theory/walls.md.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from unterbau.materials.material import material
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.folded_plate import relative_flexibility
from unterbau.model.section_walls import HOLLOW, Bearing, Flat, bear, cut, distort, wall_under, walls_of
from unterbau.sections.section import section
from unterbau.structure.parts import Member

WAVES = np.geomspace(1.0, 1500.0, 30)
"""Wave numbers that are solved, rad/m; between them the flexibility is smooth."""
FINE = np.geomspace(1.0, 1500.0, 1200)
LONG = 12.0
"""Below this wave number distortion is fitted, rad/m: waves of half a metre and more."""
LOW = 4.0
"""Below this one the wall's own dent is as under an even load, rad/m."""
ALIKE = 1.3
"""Lines that give less than so much more together than apart share no dent."""
FIRM, FIRM_ROLL = 1e-14, 1e-11
"""A dent gives at least so much per length, m²/N and rad·m/(N·m): over a corner it is the noise of a difference, and
this is still thousands of times firmer than what is screwed there."""
STEEP = (9.0, 25.0)
"""Between these the dent's slope shows, rad/m: waves of a few screws."""


@dataclass(frozen=True, slots=True)
class Distortion:
    """A closed section's distortion along the member, in the measure of `turn`."""

    k: float
    """Moment per length and turn, N·m/m."""
    g: float
    """N·m²."""
    e: float
    """N·m³."""


@dataclass(frozen=True, slots=True)
class Dent:
    """The wall under a line of screws: like a beam on springs along the member."""

    moved: Flat
    """Movement of the bearing in y and z of the section for a distortion of 1, m."""
    rolled: float
    """Its rotation about the member's axis for a distortion of 1."""
    k: float
    """Off the face, beside the dent it shares with others on its face, per length, N/m²; inf where it shares all."""
    point: float
    """Movement under a force on one bearing alone, that and distortion apart, m/N."""
    k_roll: float
    """N·m per rad and m."""
    point_roll: float
    """rad/(N·m)."""
    aside: float
    """From the bearing, across the member, to where a push does not roll it, m; against the normal's turn about x."""


@dataclass(frozen=True, slots=True)
class Sunk:
    """A dent that all lines of screws on one face share."""

    lines: tuple[int, ...]
    k: float
    """Force of all together per length, N/m²."""
    g: float
    """What its slope along the member costs, N."""
    point: float
    """Movement under a force on one place of a single line alone, m/N; 0 where several share it."""
    closed: bool
    """Whether the section is closed."""


@dataclass(frozen=True, slots=True)
class Dents:
    """All lines of screws of a member together."""

    distortion: Distortion | None
    each: tuple[Dent, ...]
    sunk: tuple[Sunk, ...]
    """One for each face that bears some."""
    braced: tuple[tuple[int, int, float], ...]
    """Pairs of lines on one face, and how stiff each is against both rolling the same way, N·m per rad and m: the wall
    between them bends to an S, which is stiffer than rolling towards each other."""


@dataclass(frozen=True, slots=True)
class Give:
    """The whole give under one bearing by itself."""

    normal: float
    """m/N."""
    across: float
    """In the face, across the member, m/N."""
    roll: float
    """About the member's axis, rad/(N·m)."""
    pitch: float
    """About the axis across the member in the face, rad/(N·m)."""


def has_walls(member: Member) -> bool:
    """Return whether a member's walls can give: thin, and not held by a bonded fill."""
    filled = member.fill is not None and not member.loose and material(member.fill).kind != "loose"
    return not filled and not section(member.section).pieces and walls_of(member) is not None


def takes_screws(member: Member) -> bool:
    """Return whether rails are screwed to a wall of a member, so that they bend with it."""
    return not section(member.section).pieces and walls_of(member) is not None


def bears_on_wall(member: Member, at: Bearing) -> bool:
    """Return whether a wall lies under a bearing."""
    walls = walls_of(member)
    return walls is not None and wall_under(walls, at) is not None


@lru_cache(maxsize=512)
def dents(member: Member, bearings: tuple[Bearing, ...]) -> Dents:
    """Return the give of lines of screws on a member's walls; a wall lies under each."""
    F = _flexibility(member, bearings)
    n = len(bearings)
    distortion, share = None, np.zeros(3 * n)
    local = F[:, : 3 * n, : 3 * n]
    if _closed(member):
        own, across = F[:, -1, -1], F[:, : 3 * n, -1]
        local = local - across[:, :, None] * across[:, None, :] / own[:, None, None]
        low = WAVES < LONG
        distortion, share = _fitted(own[low]), (across[low] / own[low, None]).mean(axis=0)
    even = np.median(local[WAVES < LOW], axis=0)
    aside = np.array([even[i, 2 * n + i] / even[2 * n + i, 2 * n + i] for i in range(n)])
    shift = np.hstack([np.eye(n), np.zeros((n, n)), -np.diag(aside)])
    own_k, own_point, sunk = _shared(shift @ local @ shift.T, bearings, _closed(member))
    rolls, braced = _rolling(local[:, 2 * n :, 2 * n :], bearings)
    each = []
    for i, at in enumerate(bearings):
        ny, nz = at.normal
        off, along, turned = share[i], share[n + i], share[2 * n + i]
        moved = (float(off * ny - along * nz), float(off * nz + along * ny))
        stiff = 1 / float(np.median(rolls[i][WAVES < LOW]))
        each.append(Dent(moved, float(turned), own_k[i], own_point[i], stiff, _point(rolls[i], at), float(aside[i])))
    return Dents(distortion, tuple(each), sunk, braced)


def _rolling(
    C: FloatArray, bearings: tuple[Bearing, ...]
) -> tuple[list[FloatArray], tuple[tuple[int, int, float], ...]]:
    """Return each line's flexibility in rolling, towards a neighbour on its face if it has one, and what braces it."""
    n = len(bearings)
    rolls = [np.maximum(C[:, i, i], FIRM_ROLL) for i in range(n)]
    braced = []
    for normal in dict.fromkeys(one.normal for one in bearings):
        rows = [i for i in range(n) if bearings[i].normal == normal]
        if len(rows) != 2:
            continue
        i, j = rows
        mean = (C[:, i, i] + C[:, j, j]) / 2
        facing, alike = (np.maximum(mean + side * C[:, i, j], FIRM_ROLL) for side in (-1, 1))
        low = WAVES < LOW
        together = 1 / float(np.median(alike[low]))
        if together > 1 / float(np.median(facing[low])):
            rolls[i] = rolls[j] = facing
            braced.append((i, j, together))
    return rolls, tuple(braced)


def _shared(
    C: FloatArray, bearings: tuple[Bearing, ...], closed: bool
) -> tuple[list[float], list[float], tuple[Sunk, ...]]:
    """Return k and point give of each line by itself, and the dents that the lines of a face share.

    Two lines that are pushed against each other give less than two that are pushed together: what each gives against
    the other is its own, the rest is shared.
    """
    n = len(bearings)
    own_k, own_point, sunk = [float("inf")] * n, [0.0] * n, []
    for normal in dict.fromkeys(one.normal for one in bearings):
        rows = [i for i in range(n) if bearings[i].normal == normal]
        together = np.maximum(C[:, rows][:, :, rows].sum(axis=(1, 2)) / len(rows), FIRM)
        if len(rows) == 1:
            (k, g), at = _sloped(together), bearings[rows[0]]
            sunk.append(Sunk(tuple(rows), k, g, _point(together, at), closed))
            continue
        every = np.maximum(np.trace(C[:, rows][:, :, rows], axis1=1, axis2=2), len(rows) * FIRM)
        apart = np.maximum((every - together) / (len(rows) - 1), FIRM)
        shares = float(np.median((together / apart)[WAVES < LOW])) > ALIKE
        own = apart if shares else every / len(rows)
        for i in rows:
            own_k[i], own_point[i] = 1 / float(np.median(own[WAVES < LOW])), _point(own, bearings[i])
        k, g = _sloped(np.maximum((together - apart) / len(rows), FIRM)) if shares else (float("inf"), 0.0)
        sunk.append(Sunk(tuple(rows), k, g, 0.0, closed))
    return own_k, own_point, tuple(sunk)


def _sloped(f: FloatArray) -> Flat:
    """Return k and g of a flexibility 1/(k + g·κ²), as long as waves are longer than a few screws."""
    steep = (STEEP[0] < WAVES) & (STEEP[1] > WAVES)
    k = 1 / float(np.median(f[WAVES < LOW]))
    return k, max(float(np.median((1 / f[steep] - k) / WAVES[steep] ** 2)), 0.0)


@lru_cache(maxsize=512)
def give(member: Member, at: Bearing) -> Give | None:
    """Return the whole give under one bearing; None where no wall lies under it."""
    if not bears_on_wall(member, at):
        return None
    F = _flexibility(member, (at,))
    return Give(_point(F[:, 0, 0], at), _point(F[:, 1, 1], at), _point(F[:, 2, 2], at), _point(F[:, 0, 0], at, True))


def _point(f: FloatArray, at: Bearing, pitch: bool = False) -> float:
    """Return the movement, or pitch, of one bearing under a unit force or moment: (1/π)∫ f(κ)·s(κ)² dκ."""
    values = np.exp(np.interp(np.log(FINE), np.log(WAVES), np.log(np.maximum(f, 1e-24))))
    half = FINE * at.length / 2
    if not pitch:
        spread = np.cos(half) if at.edges else np.sinc(half / np.pi)
    elif at.edges:
        spread = 2 * np.sin(half) / at.length
    else:
        spread = 24 / at.length**3 * (np.sin(half) / FINE**2 - at.length / 2 * np.cos(half) / FINE)
    first = values[0] * spread[0] ** 2 * FINE[0]
    return float((np.trapezoid(values * spread**2, FINE) + first) / np.pi)


def _fitted(f: FloatArray) -> Distortion:
    waves = WAVES[WAVES < LONG]
    powers = np.stack([np.ones(len(waves)), waves**2, waves**4], axis=1)
    k, g, e = np.linalg.lstsq(powers * f[:, None], np.ones(len(waves)), rcond=None)[0].tolist()
    return Distortion(k, max(g, 0.0), max(e, 0.0))


def _closed(member: Member) -> bool:
    return member.section_name.startswith(HOLLOW)


def _flexibility(member: Member, bearings: tuple[Bearing, ...]) -> FloatArray:
    """Return the flexibility of n bearings off the face, across it, rolled, and of a closed section distorted.

    Bearings hold the wall straight under them. Shape (k, 3n + 1, 3n + 1).
    """
    walls = walls_of(member)
    assert walls is not None
    under = [wall_under(walls, at) for at in bearings]
    strips, places = cut(walls, under, bearings, material(member.material))
    n = len(bearings)
    loads = np.zeros((4 * len(strips.lines), 3 * n + 1))
    for i, (at, wall, place) in enumerate(zip(bearings, under, places, strict=True)):
        assert wall is not None
        bear(loads[:, i::n][:, :3], walls[wall], at, place)
    if _closed(member):
        distort(loads, strips, walls)
    return relative_flexibility(strips, WAVES, loads)
