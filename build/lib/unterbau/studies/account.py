"""Why is it this? How each number of the readout came about: parts, assumptions, sources."""

from dataclasses import dataclass

from unterbau.band import Band
from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.machine.facts import facts
from unterbau.machine.item_words import item_words, whose
from unterbau.machine.machine import Machine, bill_of, links, part
from unterbau.parts_list.bill import Item
from unterbau.structure.parts import Place
from unterbau.studies.answers import CORNERS, Answers, LikelyAnswers
from unterbau.studies.missed import may_miss
from unterbau.studies.places import place_words
from unterbau.studies.shares import REST
from unterbau.studies.spread import Spread
from unterbau.units import (
    Units,
    force_text,
    in_units,
    mass_text,
    movement_text,
    number_text,
    stiffness_text,
    told,
)

QUANTITIES = {
    "x": "stiffness along X", "y": "stiffness along Y", "z": "stiffness along Z", "droop": "droop",
    "shake": "lowest frequency that the tool feels", "hurry": "braking", "mass": "mass", "money": "money",
}  # fmt: skip
AXES = ("x", "y", "z")
TOLD = 7
"""Links that are listed; the rest is one row."""
PULL = 100.0
"""N."""
SAMPLED = ("x", "y", "z", "droop", "shake")
DRAWN = (
    "The band is 5 % to 95 % of some thousand draws of every joint, guide, drive and material on its own, each moving "
    "the answer by its share; forces are taken not to shift. Soft draws weigh more: the likely value lies above the "
    "middle."
)
LINEAR = "Everything is linear: no play, no slip, small movements. Welds are rigid."
PUSH = (
    "The tool is pulled and the work is pushed back with the same force at the tool's height, over a square of the bed "
    "100 mm wide, or as wide as the work is tall."
)


@dataclass(frozen=True, slots=True)
class Account:
    """How a number came about."""

    quantity: str
    title: str
    lines: tuple[str, ...]
    """What it is, in sentences."""
    rows: tuple[tuple[str, str], ...]
    """What it is made of."""
    assumptions: tuple[str, ...]
    sources: tuple[str, ...]
    sampled: bool
    """Whether its spread can be drawn by samples."""


def account(
    quantity: str, machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, book: PriceBook,
    units: Units = "mm", spread: Spread | None = None,
) -> Account:  # fmt: skip
    """Return how a number of the readout came about.

    Args:
        quantity: One of `QUANTITIES`.
        machine: The machine.
        place: Where the head stands.
        likely: Its first answers.
        full: Its bands, when they are there.
        book: Prices.
        units: For lengths.
        spread: Samples, when they were drawn.
    """
    build = {"droop": _droop, "shake": _shake, "hurry": _hurry, "mass": _mass, "money": _money}.get(quantity)
    if build is not None:
        found = build(machine, place, likely, full, book, units)
    else:
        found = _stiffness(quantity, machine, place, likely, full, units)
    if spread is None or not found.sampled:
        return found
    return _with_samples(found, machine, spread, units)


def _stiffness(
    quantity: str, machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, units: Units
) -> Account:
    axis = AXES.index(quantity)
    give = float(likely.compliance[axis, axis])
    pull = force_text(PULL, units)
    table = likely.shares.compliance[axis].sum(axis=1)
    labels = {one.key: one.label for one in links(machine)} | {REST: "feet and the rest"}
    order = sorted(zip(likely.shares.keys, table.tolist(), strict=True), key=lambda row: -row[1])
    rows = [(labels[key], f"{_moves(share, units)} per {pull}, {share / give:.0%}") for key, share in order[:TOLD]]
    rest = sum(share for _, share in order[TOLD:])
    rows.append(("all other links", f"{_moves(rest, units)} per {pull}, {rest / give:.0%}"))
    lines = [
        (
            f"{pull} moves the tool {_moves(give, units)} here ({place_words(place)}); {pull} ÷ that is "
            f"{stiffness_text(1 / give, units)}, likely."
        ),
        "The rows are each link's part of the movement: twice its strain energy for the same pull. They sum exactly.",
    ]
    if full is not None:
        lines.append(_band_line(full.stiffness[axis], *in_units(1e-6, "N/µm", units)))
    sources = _sources(machine, [key for key, _ in order[:4] if key != REST], units)
    assumed = (PUSH, LINEAR, DRAWN, may_miss(machine))
    return Account(quantity, QUANTITIES[quantity], tuple(lines), tuple(rows), assumed, sources, True)


def _droop(
    machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, book: PriceBook, units: Units
) -> Account:
    del likely, book
    rows: list[tuple[str, str]] = []
    lines = [
        (
            "By its own weight the tool sinks against the bed below it, more in one place than in another; the "
            "headline is the range over centre and corners of the travel. The lens Reach shows all of it, also less "
            "what a surfacing pass hides."
        ),
    ]
    if full is not None:
        for (x, y), sag in zip(CORNERS, full.droops[1], strict=True):
            rows.append((place_words(Place(x, y, place.z)), movement_text(sag, units)))
        low, high = (movement_text(end, units) for end in full.droop.ends)
        lines.append(f"Range {movement_text(full.droop.likely, units)}, likely; {low} to {high}.")
        alone = [movement_text(end, units) for end in (full.sag.likely, *full.sag.ends)]
        lines.append(
            f"The tool itself sinks {alone[0]} here against the feet, {alone[1]} to {alone[2]}: that is what its rails "
            "sag. Where the bed hangs on the same beams it sinks with them, and stiffer beams may show less of the one "
            "and more of the other."
        )
    mass = _heaviest(machine, units)
    return Account("droop", QUANTITIES["droop"], tuple(lines), tuple(rows), (
        "Weight of every part at its place, beams along their length, plates over their face; drives hold.",
        f"What weighs most: {mass}.", LINEAR, DRAWN,
    ), ("Densities: the material cards.",), True)  # fmt: skip


def _shake(
    machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, book: PriceBook, units: Units
) -> Account:
    del machine, likely, book, units
    rows, lines = [], [f"Natural modes with the head at {place_words(place)}; the lens Shake lets them swing."]
    if full is not None:
        felt = full.headline or full.modes[0]
        lines.append(_band_line(felt.frequency, 1.0, "Hz"))
        lines.append(
            "The headline is the first mode that makes up a tenth of the tool's give along X, Y or Z; slower ones "
            "rock the machine on its feet or stand, and the tool with the work."
        )
        for mode in full.modes:
            low, high = mode.frequency.ends
            rows.append((
                f"{mode.frequency.likely:.0f} Hz ({low:.0f} – {high:.0f})",
                f"{mode.moves}; damping {mode.zeta:.1%}, {mode.at_tool:.0%} of the tool's give",
            ))  # fmt: skip
    return Account("shake", QUANTITIES["shake"], tuple(lines), tuple(rows), (
        ("Masses as on the list of parts; damping of a mode is that of its parts and joints, weighted by the "
        "energy that strains them."), LINEAR, DRAWN,
    ), ("Loss factors: the material cards; of joints and guides: common practice, no source.",), True)  # fmt: skip


def _hurry(
    machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, book: PriceBook, units: Units
) -> Account:
    del machine, likely, book
    rows = []
    for one in full.hurry if full is not None else ():
        low, high = (movement_text(end, units) for end in one.error(1.0).ends)
        behind = movement_text(one.error(1.0).likely, units)
        rows.append((
            f"{one.axis.upper()}: {mass_text(one.mass, units)}, {force_text(one.force(1.0), units)}", (f"{behind} "
            f"({low} – {high}) at {told(1.0, 'm/s²', units)}"),
        ))  # fmt: skip
    return Account("hurry", QUANTITIES["hurry"], (
        ("While an axis speeds up or brakes, what it moves leans back by mass times acceleration, and the tool is left "
        f"behind by this much; here the head is at {place_words(place)}. It grows evenly with the acceleration."),
    ), tuple(rows), ("The drive holds, its motor by its spring; friction and play are left out.", LINEAR), (
        "d'Alembert: force is mass times acceleration on every moved part.",
    ), False)  # fmt: skip


def _item(machine: Machine, item: Item, units: Units) -> str:
    return f"{whose(machine, item)}: {item_words(item, units)}"


def _mass(
    machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, book: PriceBook, units: Units
) -> Account:
    del place, full
    items = sorted(bill_of(machine, book), key=lambda item: -item.mass)
    rows = [(_item(machine, item, units), mass_text(item.mass, units, 2)) for item in items if item.mass > 0.0]
    moved = ", ".join(f"{axis} moves {mass_text(mass, units)}" for axis, mass in likely.moving.items() if mass)
    return Account("mass", QUANTITIES["mass"], (f"{mass_text(likely.mass, units)} in all; {moved}.",), tuple(rows), (
        "Volumes as modelled: holes, screws and cables are left out; no band.",
    ), ("Densities: the material cards; blocks, rails, screws, motors: from memory.",), False)  # fmt: skip


def _money(
    machine: Machine, place: Place, likely: LikelyAnswers, full: Answers | None, book: PriceBook, units: Units
) -> Account:
    del place, likely, full
    items = sorted(bill_of(machine, book), key=lambda item: -item.money)
    rows = [
        (_item(machine, item, units), money_text(item.money, book) if item.priced else "no price")
        for item in items
    ]  # fmt: skip
    total = money_text(sum(item.money for item in items), book)
    return Account("money", QUANTITIES["money"], (f"{total} by the price book of {book.date}.",), tuple(rows), (
        "Offcuts are not counted; no band.",
    ), ("The project's price book; where it says invented, the figures are.",), False)  # fmt: skip


def _with_samples(found: Account, machine: Machine, spread: Spread, units: Units) -> Account:
    name = {"shake": "mode"}.get(found.quantity, found.quantity)
    band = spread.band(name)
    labels = {one.key: one.label for one in links(machine)}
    most = ", ".join(f"{labels.get(key, 'the feet')} {share:.0%}" for key, share in spread.most(name) if share > 0.02)
    if name == "droop":
        low, middle, high = (movement_text(value, units) for value in (band.low, band.likely, band.high))
        text = f"{low} to {high}, middle {middle}"
    else:
        scale, unit = (1.0, "Hz") if name == "mode" else in_units(1e-6, "N/µm", units)
        text = f"{number_text(band.low * scale)} to {number_text(band.high * scale)} {unit}, middle "
        text += number_text(band.likely * scale)
    lines = (
        *found.lines,
        (
            f"{len(spread.values)} samples, every joint, guide, drive and material drawn on its own: nine tenths lie "
            f"from {text}{' (the sinking at this place)' if name == 'droop' else ''}."
        ),
        f"The spread hangs most on: {most or 'nothing alone'} (squared rank correlation). Find out about these first.",
    )
    return Account(found.quantity, found.title, lines, found.rows, found.assumptions, found.sources, found.sampled)


def _band_line(band: Band, scale: float, unit: str) -> str:
    low, high = band.ends
    return (
        f"{number_text(band.likely * scale)} {unit} likely; {number_text(low * scale)} to {number_text(high * scale)} "
        "in nine of ten."
    )


def _moves(compliance: float, units: Units) -> str:
    """Return the movement under the pull, to three digits."""
    moved = compliance * PULL
    return f"{moved * 1e6:.3g} µm" if units == "mm" else f"{moved / 25.4e-6:.3g} thou"


def _heaviest(machine: Machine, units: Units) -> str:
    by_part: dict[str, float] = {}
    for item in bill_of(machine):
        by_part[item.part] = by_part.get(item.part, 0.0) + item.mass
    labels = {one.key: one.label for one in links(machine)}
    top = sorted(by_part, key=lambda key: -by_part[key])[:3]
    return ", ".join(f"{labels.get(key, key)} {mass_text(by_part[key], units)}" for key in top)


def _sources(machine: Machine, keys: list[str], units: Units) -> tuple[str, ...]:
    labels = {one.key: one.label for one in links(machine)}
    return tuple(f"{labels[key]}: {facts(key, part(machine, key), units)[-1]}" for key in keys)
