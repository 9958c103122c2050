"""A cast base under a machine's feet: a slab with ribs on its underside, as its mould makes it."""

from dataclasses import replace

from unterbau.catalogue.joints import RIGID
from unterbau.errors import InputError
from unterbau.machine.assemblies.pieces import crossed, rib
from unterbau.materials.material import material
from unterbau.structure.join import Foot, RibJoin, Springs
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Plate, Stand
from unterbau.structure.piece import PlatePiece
from unterbau.structure.spot import Spot
from unterbau.structure.stand import BASE, KEY, SOLE, extent
from unterbau.structure.vectors import Z

PAD = 0.02
"""Under each foot of the machine, to level it by: heads of screws have room there; common practice, no source, m."""
GRID = (6, 6)
"""Fields in which a base is drawn bending."""
DOWN = (0.0, 0.0, -1.0)
PLACES, LEAST_PLACES = 36, 4
"""Where all ribs of one way are held together, and each at the least: many get a coarser mesh, not a longer wait."""
TIED = (0.3, 0.8)
"""Where ribs that cross are held as one, shares of their height down from the slab."""


def stand_on_base(lay: Layout[object], stand: Stand) -> None:
    """Lay a base under the feet that a machine has so far, bolt these to it, and stand it on feet of its own.

    Raises:
        InputError: Its ribs leave no room between them.
    """
    feet = lay.so_far().feet
    if not feet:
        return
    places = [place for _, place in feet]
    wide, deep = extent(places, stand.beyond)
    if stand.ribs and stand.ribs * stand.rib_thickness > 0.8 * min(wide, deep):
        most = 0.8 * min(wide, deep) / stand.ribs
        raise InputError("stand.rib_thickness", f"expected at most {most * 1e3:.0f} mm: no room is left between ribs")
    x, y = ((min(p[n] for p in places) + max(p[n] for p in places)) / 2 for n in (0, 1))
    top = min(p[2] for p in places) - PAD
    middle = top - stand.thickness / 2
    ends = (x, y - deep / 2, middle), (x, y + deep / 2, middle)
    text = f"cast slab {stand.thickness * 1e3:g} mm, {material(stand.material).label}"
    lines = ([deep * n / GRID[0] for n in range(GRID[0] + 1)], [wide * n / GRID[1] for n in range(GRID[1] + 1)])
    plate = replace(crossed(KEY, BASE, ends, (stand.thickness, wide), Z, stand.material, text, lines), cast=True)
    lay.begin_with(plate, lambda step: replace(step, base=BASE) if isinstance(step, Foot) else step)
    _ribs(lay, stand, plate)
    depth = stand.thickness / 2 + (stand.rib_height if stand.ribs else 0.0)
    for side in (-1, 1):
        for end in (-1, 1):
            place = (x + side * (wide / 2 - SOLE), y + end * (deep / 2 - SOLE), middle)
            lay.add(Foot(f"foot of the base {lay.number('base foot')}", Spot(BASE, place, (SOLE, SOLE)), depth))


def _ribs(lay: Layout[object], stand: Stand, plate: PlatePiece) -> None:
    """Cast ribs along and across on the underside; where they cross they are one, and weigh once."""
    if not stand.ribs:
        return
    part = Plate(stand.thickness, stand.material, stand.ribs, stand.rib_height, stand.rib_thickness)
    before = len(lay.so_far().steps)
    for across in (False, True):
        rib(lay, part, plate, DOWN, across)
    laid = [step for step in lay.so_far().steps[before:] if isinstance(step, RibJoin)]
    along, over = laid[: stand.ribs], laid[stand.ribs :]
    for number, one in enumerate(laid, 1):
        long, tall = one.rib.size
        if one.across:
            long -= stand.ribs * stand.rib_thickness
        named = replace(one.rib, name=f"{plate.name} rib {number}", cast=True, made=(long, tall))
        lay.change(one, replace(one, rib=named, places=max(LEAST_PLACES, PLACES // stand.ribs)))
    for n, first in enumerate(along, 1):
        for k, second in enumerate(over, stand.ribs + 1):
            for share in TIED:
                down = plate.start[2] - stand.thickness / 2 - share * stand.rib_height
                a, b = (Spot(f"{plate.name} rib {one}", (first.foot[0], second.foot[1], down)) for one in (n, k))
                lay.add(Springs(KEY, a, b, (RIGID,) * 6))
