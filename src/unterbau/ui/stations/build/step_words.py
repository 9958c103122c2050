"""What is said of a step: when it can be done or was, what was measured, how what it fits stands by itself."""

from unterbau.shop.build.done import Done
from unterbau.shop.build.hold_points import left_outside
from unterbau.shop.build.schedule import Dated
from unterbau.shop.lifting import Balance
from unterbau.shop.measure.hammer import Struck
from unterbau.units import Units, force_text, length_text, stiffness_text, tolerance_text


def when_words(row: Dated | None, done: tuple[Done, ...], candidate: str, step: str, units: Units) -> str:
    """Return when a step can be done, or when it was and what its hold point was measured at."""
    if row is not None:
        waited = "; the whole waits for it" if row.critical else ""
        return f"{row.start:%a %d %b}, {row.step.hours:.1f} h{waited}"
    for one in done:
        if (one.candidate, one.step) == (candidate, step):
            off, doubt = (tolerance_text(value, units) for value in (one.value, one.uncertainty))
            measured = f", {'simulated' if one.simulated else 'measured'} {off} ± {doubt}" if one.uncertainty else ""
            outside = f"; outside its limit, because: {one.note}" if left_outside(one) else ""
            return f"done {one.when}{measured}{outside}"
    return "done"


def balance_words(balance: Balance, units: Units) -> str:
    """Return how a sub-assembly stands by itself."""
    edge, up = length_text(balance.edge, units), length_text(balance.up, units)
    return (
        f"by itself its centre lies {edge} inside its nearest edge and {up} up: {force_text(balance.push, units)} at "
        "its top tip it over, less where it stands on less than its outline"
    )


def struck_words(found: Struck, units: Units) -> str:
    """Return what a blow says of the modes at the place that was struck."""
    rows = [
        f"{one.frequency:.1f} Hz, damping {one.zeta:.1%}, alone {stiffness_text(1 / one.give, units)}"
        for one in found.circles
    ]
    return f"struck with {force_text(found.blow, units)}: " + "; ".join(rows)
