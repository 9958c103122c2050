"""Bars and rods as chains of beams."""

from unterbau.band import AtLevels
from unterbau.model.built_up import tie_profiles
from unterbau.model.frame_builder import merged, subdivided
from unterbau.model.member import BeamValues, first_profile, member_values, round_values, tied_by_screws, warped
from unterbau.model.modelled import Laid, Model
from unterbau.model.walled import end_plates, screw_stops
from unterbau.model.walls import takes_screws
from unterbau.structure.piece import Bar, Rod
from unterbau.structure.vectors import Z, dot, minus, plus


def stops_of(bar: Bar) -> list[float]:
    """Return where a bar has nodes, m from its start."""
    stops, length = bar.stops, bar.length
    if bar.carries and takes_screws(bar.part):
        stops = (*stops, *screw_stops(length))
    inside = [stop for stop in stops if 1e-3 < stop < length - 1e-3]
    found = subdivided(merged([0.0, *inside, length]), bar.fineness)
    found[-1] = length
    return found


def lay_bar(bar: Bar, model: Model) -> None:
    """Lay a bar, with nodes at its stops and, where it carries rails, at their screws."""
    part, length = bar.part, bar.length
    start, end = model.moved(bar.start, bar.carrier), model.moved(bar.end, bar.carrier)
    screwed = tied_by_screws(part)
    values: BeamValues | AtLevels[BeamValues]
    values = first_profile(part) if screwed else warped(part, member_values(part), length, bar.carries)
    along = bar.along
    nodes = [model.frame.node(f"{bar.name} {n + 1}", plus(start, along, stop)) for n, stop in enumerate(stops_of(bar))]
    chain = model.frame.chain(bar.key, nodes, values, bar.up)
    model.chains[bar.name] = chain.nodes
    laid = Laid(bar.key, bar.name, chain, start, end, bar.up, bar.height, bar.width, part)
    model.bars[bar.name] = laid
    if screwed:
        tie_profiles(model, part, laid)
    end_plates(model, laid)


def lay_rod(rod: Rod, model: Model) -> None:
    """Lay a round bar that sticks out from start to end, perhaps from a node that is there."""
    values = round_values(rod.diameter, rod.material)
    start, end = model.moved(rod.start, rod.carrier), model.moved(rod.end, rod.carrier)
    frame, along, work = model.frame, rod.along, model.structure.work
    stops = list(rod.stops)
    if work.on == rod.name:
        stops.append(dot(minus(model.moved(work.place, work.carrier), start), along))
    stops = subdivided(merged([0.0, *stops, rod.length]), rod.fineness)
    first = frame.node(f"{rod.name} 1", start) if rod.root is None else model.node(rod.root)
    inner = [frame.node(f"{rod.name} {n + 2}", plus(start, along, stop)) for n, stop in enumerate(stops[1:-1])]
    chain = frame.chain(rod.key, [first, *inner, frame.node(f"{rod.name} end", end)], values, Z)
    model.chains[rod.name] = chain.nodes
    size = rod.diameter
    model.bars[rod.name] = Laid(rod.key, rod.name, chain, start, end, Z, size, size, None)
