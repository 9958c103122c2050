"""What a pour adds to the shopping list in place of the fill or the block that the list of parts counts."""

from unterbau.errors import InputError
from unterbau.parts_list.bill import Item
from unterbau.shop.pour.cavity import cavities_of, room_of
from unterbau.shop.pour.mix import mix_of
from unterbau.shop.pour.plan import MOULD, PourPlan
from unterbau.structure.stand import KEY
from unterbau.structure.structure import Structure

POUR = "pour"
"""Part of what is poured, before the link that it fills."""


def with_pours(items: tuple[Item, ...], structure: Structure, pours: tuple[PourPlan, ...]) -> tuple[Item, ...]:
    """Return a list of parts with what is weighed for each pour in place of fills and of what is under the feet.

    A pour that cannot be mixed, or whose hollow is no more, leaves the list as it is.
    """
    cavities = cavities_of(structure)
    for plan in pours:
        if plan.part != MOULD and plan.part not in {one.part for one in cavities}:
            continue
        try:
            mix = mix_of(plan, room_of(plan, cavities)[1])
        except InputError:
            continue
        items = tuple(one for one in items if not _replaced(one, plan))
        items += tuple(
            Item(f"{POUR} {plan.part}", one.name, 1, 0.0, one.mass, one.money, True, False, f"pour:{one.name}")
            for one in mix.parts if one.mass > 0.0
        )  # fmt: skip
    return items


def _replaced(item: Item, plan: PourPlan) -> bool:
    if plan.part == MOULD:
        return item.part == KEY and item.price.startswith("fill:")
    return item.part == plan.part and item.text.startswith("fill,")
