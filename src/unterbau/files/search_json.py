"""What a search may vary, as JSON."""

import json
from pathlib import Path
from typing import Any

from unterbau.errors import InputError
from unterbau.files.atomic import check_size, read_text
from unterbau.studies.designs import Bounds, Free
from unterbau.studies.search import GOALS, Goal

MOST_BYTES = 1_000_000
STEPS = 200


def read_space(path: Path) -> tuple[tuple[Free, ...], Bounds, Goal]:
    """Return what may vary, the bounds and the goal of a file.

    Raises:
        InputError: With the path of the fault.
        UnterbauError: The file cannot be read.
    """
    check_size(path, MOST_BYTES)
    try:
        data = json.loads(read_text(path), object_pairs_hook=_once, parse_constant=_finite)
    except (ValueError, RecursionError) as error:
        raise InputError(path.name, f"expected JSON: {error}") from None
    if not isinstance(data, dict) or not isinstance(data.get("free"), dict):
        raise InputError("$.free", "expected parts with the fields that may vary")
    unknown = set(data) - {"free", "bounds", "goal"}
    if unknown:
        raise InputError(f"$.{min(unknown)}", "unknown key; expected free, bounds, goal")
    free = []
    for key, fields in data["free"].items():
        if not isinstance(fields, dict):
            raise InputError(f"$.free.{key}", "expected fields with their values")
        for field, values in fields.items():
            free.append(Free(key, field, _values(f"$.free.{key}.{field}", values)))
    goal = data.get("goal", "stiffest")
    known: dict[str, Goal] = {one: one for one in GOALS}
    if not isinstance(goal, str) or goal not in known:
        raise InputError("$.goal", f"expected {', '.join(GOALS)}, got {goal}")
    return tuple(free), _bounds(data.get("bounds", {})), known[goal]


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    names = [name for name, _ in pairs]
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise ValueError(f'the key "{twice}" stands twice')
    return dict(pairs)


def _finite(name: str) -> float:
    raise ValueError(f"{name} is no number")


def _values(where: str, values: Any) -> tuple[Any, ...]:
    if isinstance(values, list) and values and all(isinstance(one, str | int | float | bool | None) for one in values):
        return tuple(values)
    if isinstance(values, dict) and set(values) == {"from", "to", "steps"}:
        low, high, steps = values["from"], values["to"], values["steps"]
        numbers = all(isinstance(one, int | float) and not isinstance(one, bool) for one in (low, high))
        if numbers and isinstance(steps, int) and 2 <= steps <= STEPS:
            return tuple(low + (high - low) * n / (steps - 1) for n in range(steps))
    raise InputError(where, 'expected a list of values, or {"from": 0.1, "to": 0.2, "steps": 3}')


def _bounds(data: Any) -> Bounds:
    if not isinstance(data, dict) or set(data) - {"mass", "money", "lift"}:
        raise InputError("$.bounds", "expected mass, money, lift")
    for name, value in data.items():
        if not isinstance(value, int | float) or isinstance(value, bool) or not 0.0 <= value <= 1e9:
            raise InputError(f"$.bounds.{name}", "expected a number from 0")
    return Bounds(**{name: float(value) for name, value in data.items()})
