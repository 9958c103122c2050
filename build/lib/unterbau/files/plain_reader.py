"""JSON into dataclasses, strictly, without a library.

The frame file has a reader of its own because a command has to start within half a second,
and building validators for it took half of that (docs/decisions/frame-reader.md).
"""

import json
import math
import types
from dataclasses import MISSING, fields, is_dataclass
from typing import Any, Literal, TypeVar, get_args, get_origin

from unterbau.errors import InputError

T = TypeVar("T")


def read_plainly(kind: type[T], text: str | bytes) -> T:
    """Return the dataclass that a JSON text holds.

    Raises:
        InputError: Not JSON, unknown, missing or repeated keys, wrong types; names the path.
    """
    try:
        data = json.loads(text, object_pairs_hook=_object)
    except (ValueError, RecursionError) as error:
        raise InputError("$", f"this is not JSON: {error}") from None
    result: T = _read("$", kind, data)
    return result


class _Repeated(dict[str, Any]):
    """An object in which a key stands twice."""

    key = ""


def _object(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    result = dict(pairs)
    if len(result) == len(pairs):
        return result
    names = [name for name, _ in pairs]
    repeated = _Repeated(result)
    repeated.key = next(name for name in names if names.count(name) > 1)
    return repeated


def _read(path: str, kind: Any, value: Any) -> Any:
    if kind is float:
        return _number(path, value)
    if kind in (int, bool, str):
        return _plain(path, kind, value)
    if is_dataclass(kind):
        return _dataclass(path, kind, value)
    origin, inside = get_origin(kind), get_args(kind)
    if origin is tuple:
        return _tuple(path, inside, value)
    if origin is Literal:
        if value not in inside or isinstance(value, bool):
            raise InputError(path, f"expected {' or '.join(repr(one) for one in inside)}, got {_shown(value)}")
        return value
    if origin is types.UnionType and value is None:
        return None
    return _read(path, next(one for one in inside if one is not type(None)), value)


def _number(path: str, value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise InputError(path, f"expected a number, got {_shown(value)}")
    try:
        number = float(value)
    except OverflowError:
        number = math.inf
    if not math.isfinite(number):
        raise InputError(path, "expected a finite number")
    return number


def _plain(path: str, kind: type, value: Any) -> Any:
    if type(value) is not kind:
        words = {int: "a whole number", bool: "true or false", str: "text"}[kind]
        raise InputError(path, f"expected {words}, got {_shown(value)}")
    return value


def _tuple(path: str, inside: tuple[Any, ...], value: Any) -> tuple[Any, ...]:
    if not isinstance(value, list):
        raise InputError(path, f"expected a list, got {_shown(value)}")
    if inside[-1] is Ellipsis:
        return tuple(_read(f"{path}[{n}]", inside[0], one) for n, one in enumerate(value))
    if len(value) != len(inside):
        raise InputError(path, f"expected {len(inside)} entries, got {len(value)}")
    return tuple(_read(f"{path}[{n}]", kind, one) for n, (kind, one) in enumerate(zip(inside, value, strict=True)))


def _dataclass(path: str, kind: Any, value: Any) -> Any:
    if not isinstance(value, dict):
        raise InputError(path, f"expected an object with keys, got {_shown(value)}")
    if isinstance(value, _Repeated):
        raise InputError(f"{path}.{value.key}", "this key stands twice")
    known = {field.name: field for field in fields(kind)}
    for name in value:
        if name not in known:
            raise InputError(f"{path}.{name}", "unknown key")
    for name, field in known.items():
        if name not in value and field.default is MISSING:
            raise InputError(f"{path}.{name}", "this key is missing")
    return kind(**{name: _read(f"{path}.{name}", known[name].type, one) for name, one in value.items()})


def _shown(value: Any) -> str:
    if isinstance(value, list | dict):
        return "a list" if isinstance(value, list) else "an object"
    text = json.dumps(value, ensure_ascii=False)
    return text if len(text) < 40 else text[:36] + "…"
