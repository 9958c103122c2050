"""A pour of a candidate, all of it: what is filled, mix, cure, form, what holds, what it gains."""

from dataclasses import dataclass, replace

from unterbau.catalogue.cuts import Cut
from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, lay_out, part_at
from unterbau.progress import Progress
from unterbau.shop.pour.base_mould import mould_of
from unterbau.shop.pour.cavity import Cavity, cavities_of, room_of
from unterbau.shop.pour.cure import Cure, Room, cure_of
from unterbau.shop.pour.formwork import Panel, panels
from unterbau.shop.pour.holding import CAUTIONS, PullOut, core_words, metal_words, pull_outs, shrink_words
from unterbau.shop.pour.mix import Mix, fill_of, mix_of
from unterbau.shop.pour.plan import MOULD, PourPlan
from unterbau.shop.state import ShopState
from unterbau.structure.parts import Stand
from unterbau.studies.gain import Gain, gain

FLAT = 0.1e-3
"""That a face cast against a form is wanted flat, m."""


@dataclass(frozen=True, slots=True)
class Poured:
    """A pour."""

    plan: PourPlan
    cavities: tuple[Cavity, ...]
    room: Room
    mix: Mix
    cure: Cure
    panels: tuple[Panel, ...]
    pull_outs: tuple[PullOut, ...]
    problems: tuple[str, ...]
    gain: Gain | None
    caution: str


def what_is_poured(machine: Machine, shop: ShopState, candidate: str, part: str | None) -> PourPlan:
    """Return the plan of a part: the one that is named, the first that is planned, or the largest hollow's.

    Raises:
        InputError: The machine has no such hollow.
    """
    cavities = cavities_of(lay_out(machine))
    known = [one.part for one in cavities]
    planned = [one.part for one in shop.pours if one.candidate == candidate]
    if part is None:
        filled = [one.part for one in cavities if one.filled]
        part = next(iter((*planned, *filled, *known)), MOULD)
    if part != MOULD and part not in known:
        named = ", ".join((*known, MOULD))
        raise InputError("part", f'"{part}" has no closed hollow to fill; there are {named}')
    plan = shop.pour(candidate, part)
    if part == MOULD and plan not in shop.pours:
        return replace(plan, mould=mould_of(lay_out(machine), plan.mould) or plan.mould)
    return plan


def poured(
    machine: Machine, shop: ShopState, candidate: str, book: PriceBook, cut: Cut, part: str | None = None,
    with_gain: bool = True, progress: Progress | None = None,
) -> Poured:  # fmt: skip
    """Return a candidate's pour.

    Raises:
        InputError: There is nothing to fill, or it cannot be mixed so.
        Cancelled: The progress asked to stop.
    """
    plan = what_is_poured(machine, shop, candidate, part)
    cavities = cavities_of(lay_out(machine))
    room, volume = room_of(plan, cavities)
    mix = mix_of(plan, volume)
    cure = cure_of(plan, mix, room)
    mould = plan.mould
    form = panels(mix.density, room.height, mould.board, mould.board_E, mould.brace, FLAT) if plan.part == MOULD else ()
    pulls = pull_outs(plan) if plan.part == MOULD else ()
    problems = [*cure.warnings, *(one.problem for one in pulls if one.problem)]
    hollow = next((one for one in cavities if one.part == plan.part), None)
    metal = hollow.metal if hollow is not None else ""
    for words in (
        core_words(mould, mix.density) if plan.part == MOULD else "",
        metal_words(plan, metal) if metal else "",
        shrink_words(plan, hollow.length, hollow.wall, min(hollow.inside), metal) if hollow is not None else "",
    ):
        problems += [words] if words else []
    found = _gain(machine, plan, mix, book, cut, progress) if with_gain else None
    return Poured(plan, cavities, room, mix, cure, form, pulls, tuple(problems), found, CAUTIONS[plan.sort])


def _gain(
    machine: Machine, plan: PourPlan, mix: Mix, book: PriceBook, cut: Cut, progress: Progress | None
) -> Gain | None:
    if plan.part != MOULD:
        return gain(machine, plan.part, fill_of(plan), book, cut, mix.money, 0.0, None, progress)
    if not isinstance(part_at(machine, "stand"), Stand):
        return None
    return gain(machine, "stand", fill_of(plan), book, cut, mix.money, mix.density * mix.volume, plan.mould, progress)
