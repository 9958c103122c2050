"""The order a person wants the steps of a build in, where several could come next. Saved with the project."""

from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.strict import STRICT

MOST = 500


@dataclass(frozen=True, slots=True)
class Wished:
    """Steps of a candidate in the order they are wanted."""

    __pydantic_config__ = STRICT

    candidate: str
    steps: tuple[str, ...]


def check_orders(orders: tuple[Wished, ...]) -> None:
    """Check wished orders.

    Raises:
        InputError: With the place of the first fault.
    """
    seen = set()
    for index, one in enumerate(orders):
        if one.candidate in seen:
            raise InputError(f"orders[{index}].candidate", f'"{one.candidate}" has two orders')
        seen.add(one.candidate)
        if len(one.steps) > MOST or len(set(one.steps)) < len(one.steps):
            raise InputError(f"orders[{index}].steps", f"expected at most {MOST} steps, each once")
    if len(orders) > MOST:
        raise InputError("orders", f"expected at most {MOST}, got {len(orders)}")


def order_of(orders: tuple[Wished, ...], candidate: str) -> tuple[str, ...]:
    """Return the order a candidate's steps are wanted in; nothing where none is told."""
    return next((one.steps for one in orders if one.candidate == candidate), ())


def with_order(orders: tuple[Wished, ...], candidate: str, steps: tuple[str, ...]) -> tuple[Wished, ...]:
    """Return the orders with another for a candidate; an empty one is forgotten."""
    rest = tuple(one for one in orders if one.candidate != candidate)
    return (*rest, Wished(candidate, steps)) if steps else rest
