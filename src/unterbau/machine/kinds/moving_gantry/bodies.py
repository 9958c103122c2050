"""The router as bodies to draw, in the places its frame has them."""

from unterbau.catalogue.guides import block
from unterbau.machine.bodies import Body, Prism, Ring, Sheet, Vector, box_ring, round_ring
from unterbau.machine.frame_builder import X, Y, Z
from unterbau.machine.kinds.moving_gantry.geometry import Geometry, feet_places, geometry
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.member import member_rings, member_size
from unterbau.machine.parts import Guide, Member, Place
from unterbau.machine.stand import stand_bodies


def bodies(machine: MovingGantry, place: Place) -> tuple[Body, ...]:
    """Return everything that is drawn."""
    at = geometry(machine, place)
    stand = stand_bodies(machine.stand, feet_places(machine, at), [f"foot {n}" for n in range(1, 5)])
    return (*stand, *_base(machine, at), *_gantry(machine, at), *_head(machine, at))


def _drawn(member: Member) -> tuple[Ring, ...]:
    """Return what is drawn of a member: a filled one has no hollow to look into."""
    return member_rings(member)[:1] if member.fill else member_rings(member)


def _base(m: MovingGantry, at: Geometry) -> list[Body]:
    height, _ = member_size(m.side_beam)
    z = at.side_beam_top - height / 2
    found: list[Body] = []
    for side, name in ((-1, "left side beam"), (1, "right side beam")):
        start, end = ((side * at.side_x, y, z) for y in at.side_beam_y)
        found.append(Prism("side_beam", name, start, end, Z, _drawn(m.side_beam)))
        size = block(m.y_guides.block)
        z_rail = at.side_beam_top + 0.3 * size.height
        ends = [(side * at.side_x, y, z_rail) for y in at.side_beam_y]
        found.append(Prism("y_guides", name, ends[0], ends[1], Z, (box_ring(size.rail_width, 0.6 * size.height),)))
    cross_h, _ = member_size(m.cross_member)
    half = at.cross_length / 2
    for n, y in enumerate(at.cross_y):
        z = at.side_beam_top - cross_h / 2
        found.append(
            Prism("cross_member", f"cross member {n + 1}", (-half, y, z), (half, y, z), Z, _drawn(m.cross_member))
        )
        found += _end_plates("cross_joint", f"cross member {n + 1}", half, y, z, m.cross_member)
    found.append(Sheet("bed", "bed", at.grid_x, at.grid_y, -m.bed.thickness, 0.0))
    for j, y in enumerate(at.grid_y):
        if any(abs(y - c) < 2e-3 for c in at.cross_y):
            bolts = [(x, f"bed {i},{j}") for i, x in enumerate(at.grid_x)]
            found += [
                Prism("bed_fixing", name, (x, y, 0.0), (x, y, 0.004), Y, (round_ring(0.018, 10),)) for x, name in bolts
            ]
    return found


def _end_plates(key: str, chain: str, half: float, y: float, z: float, member: Member) -> list[Body]:
    """Return a collar around each end of a member along X: where its joint is."""
    height, width = member_size(member)
    ring = (box_ring(width + 0.016, height + 0.016),)
    ends = ((-half, -half + 0.012), (half - 0.012, half))
    return [Prism(key, chain, (a, y, z), (b, y, z), Z, ring) for a, b in ends]


def _gantry(m: MovingGantry, at: Geometry) -> list[Body]:
    found: list[Body] = []
    half = at.beam_length / 2
    for side, name in ((-1, "left side"), (1, "right side")):
        x = side * at.side_x
        plate = box_ring(at.side_width, m.side.thickness)
        start, end = (x, at.side_y, at.side_foot), (x, at.side_y, at.side_top)
        found.append(Prism("side", name, start, end, X, (plate,)))
        found += _blocks(m.y_guides, "y_guides", name, Y, Z, [
            (x, at.side_y + e * m.dimensions.y_stance / 2, at.side_foot - 0.3 * block(m.y_guides.block).height)
            for e in (-1, 1)
        ])  # fmt: skip
    start, end = (-half, at.beam_y, at.beam_z), (half, at.beam_y, at.beam_z)
    found.append(Prism("gantry_beam", "gantry beam", start, end, Z, _drawn(m.gantry_beam)))
    found += _end_plates("beam_joint", "gantry beam", half, at.beam_y, at.beam_z, m.gantry_beam)
    size = block(m.x_guides.block)
    for z in at.x_rail_z:
        y = at.rail_y - 0.3 * size.height
        ring = box_ring(0.6 * size.height, size.rail_width)
        found.append(Prism("x_guides", "gantry beam", (-half, y, z), (half, y, z), Z, (ring,)))
    return found


def _head(m: MovingGantry, at: Geometry) -> list[Body]:
    x, found = at.head_x, list[Body]()
    low, high = at.x_plate_z
    ring = box_ring(at.x_plate_width, m.x_plate.thickness)
    found.append(Prism("x_plate", "X plate", (x, at.x_plate_y, low), (x, at.x_plate_y, high), Y, (ring,)))
    size, d = block(m.x_guides.block), m.dimensions
    found += _blocks(m.x_guides, "x_guides", "X plate", X, (0.0, -1.0, 0.0), [
        (x + s * d.x_stance / 2, at.rail_y - 0.65 * size.height, z) for s in (-1, 1) for z in at.x_rail_z
    ])  # fmt: skip
    low, high = at.z_plate_z
    ring = box_ring(at.z_plate_width, m.z_plate.thickness)
    found.append(Prism("z_plate", "Z plate", (x, at.z_plate_y, low), (x, at.z_plate_y, high), Y, (ring,)))
    size = block(m.z_guides.block)
    back = at.z_plate_y + m.z_plate.thickness / 2
    for s in (-1, 1):
        rail = box_ring(size.rail_width, 0.6 * size.height)
        xr, yr = x + s * d.z_rail_spacing / 2, back + 0.3 * size.height
        found.append(Prism("z_guides", "Z plate", (xr, yr, low), (xr, yr, high), Y, (rail,)))
    found += _blocks(m.z_guides, "z_guides", "X plate", Z, Y, [
        (x + s * d.z_rail_spacing / 2, back + 0.65 * size.height, z) for s in (-1, 1) for z in at.z_block_z
    ])  # fmt: skip
    return [*found, *_spindle(m, at)]


def _spindle(m: MovingGantry, at: Geometry) -> list[Body]:
    x, y, s, c = at.head_x, at.head_y, m.spindle, m.cutter
    depth = at.z_plate_y - m.z_plate.thickness / 2 - y
    middle = y + depth / 2
    wide = s.diameter + 0.016
    clamp = (box_ring(wide, depth + 0.004),)
    body: list[Body] = [
        Prism(
            "spindle_mount",
            "Z plate",
            (x, middle, at.clamp_z - 0.025),
            (x, middle, at.clamp_z + 0.025),
            Y,
            clamp,
        ),
        Prism(
            "spindle",
            "spindle",
            (x, y, at.nose_z),
            (x, y, at.nose_z + s.length),
            Y,
            (round_ring(s.diameter),),
        ),
        Prism(
            "spindle",
            "spindle",
            (x, y, at.nose_z - 0.012),
            (x, y, at.nose_z),
            Y,
            (round_ring(0.4 * s.diameter),),
        ),
    ]
    tip: Vector = (x, y, at.tip_z)
    end: Vector = (x, y, at.nose_z - 0.012)
    if end[2] - tip[2] > 1e-4:
        body.append(Prism("cutter", "cutter", tip, end, Y, (round_ring(max(c.diameter, 0.003), 10),)))
    return body


def _blocks(guide: Guide, key: str, chain: str, along: Vector, up: Vector, places: list[Vector]) -> list[Body]:
    size = block(guide.block)
    ring = box_ring(size.width, 0.7 * size.height)
    half = size.length / 2
    return [
        Prism(
            key, chain,
            (p[0] - half * along[0], p[1] - half * along[1], p[2] - half * along[2]),
            (p[0] + half * along[0], p[1] + half * along[1], p[2] + half * along[2]),
            up, (ring,),
        )
        for p in places
    ]  # fmt: skip
