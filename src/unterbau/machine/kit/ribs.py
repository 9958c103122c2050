"""Ribs: strips that stand upright on a plate, welded or bonded along their foot."""

from functools import partial
from math import ceil

from unterbau.catalogue.joints import RIGID
from unterbau.machine.bill import Line
from unterbau.machine.kit.kit import Kit
from unterbau.machine.kit.plates import LaidPlate, lay_sheet
from unterbau.structure.parts import Plate
from unterbau.structure.vectors import Vector, plus

PITCH = 0.05
"""Between the places where a rib's foot and its plate are held together, m."""
OF_PITCH = 0.12
"""Half of each such place, of the pitch: points slip, long ones stiffen; with this a ribbed strip bends as a tee."""


def rib(kit: Kit, plate: LaidPlate, face: Vector, across: bool = False) -> None:
    """Put a plate's ribs on one of its faces, evenly from edge to edge.

    The rib's middle plane reaches to the middle plane of the plate, as usual for shells; what overlaps stiffens
    twice, about as much as a weld's fillets would, and weighs once.

    Args:
        kit: The machine.
        plate: In its place.
        face: Normal of the face that they stand on.
        across: They run across the plate instead of along it.
    """
    part: Plate = getattr(kit.machine, plate.key)
    if not part.ribs:
        return
    length, room = (plate.width, plate.length) if across else (plate.length, plate.width)
    edge = part.rib_thickness / 2
    for number in range(part.ribs):
        aside = room / 2 if part.ribs == 1 else edge + (room - 2 * edge) * number / (part.ribs - 1)
        ends = [plate.at(aside, s) if across else plate.at(s, aside) for s in (0.0, length)]
        deep = part.rib_height + plate.height / 2
        middle = [plus(place, face, deep / 2) for place in ends]
        normal = plate.along if across else plate.across
        name = f"{plate.name} rib {number + 1}"
        laid = lay_sheet(kit, plate.key, name, middle[0], middle[1], (part.rib_thickness, deep), normal, plate.base)
        laid.weighs = part.rib_height / deep
        plate.late.append(partial(_weld, plate, laid, ends[0], length, across))
        mass = plate.base.rho * part.rib_height * part.rib_thickness * length
        text = f"rib {part.rib_thickness * 1e3:g}×{part.rib_height * 1e3:g}, {plate.base.label}"
        kit.buy(Line(plate.key, text, 1, length, mass, (f"plate:{plate.base.id}", f"plate:{plate.base.kind}")))


def _weld(plate: LaidPlate, laid: LaidPlate, start: Vector, length: float, across: bool) -> None:
    count = max(2, ceil(length / PITCH))
    pitch = length / count
    along = OF_PITCH * pitch
    frame = plate.kit.frame
    for number in range(count):
        place, half = plus(start, laid.along, pitch * (number + 0.5)), laid.height / 2
        node, room = plate.under(place, (half, along) if across else (along, half))
        if node is None:
            free = room * along
            laid.share(plate.hold(place, (half, free) if across else (free, half)), (free, 0.0))
            continue
        foot = frame.node(f"{laid.name} foot {number + 1}", place)
        laid.share(foot, (along, 0.0))
        frame.spring(plate.key, foot, node, (RIGID,) * 6, laid.along, laid.up, 0.0)
