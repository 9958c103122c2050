"""JSON read into dataclasses, strictly; errors name the path in the file."""

import json
from typing import Any, TypeVar

from pydantic import TypeAdapter, ValidationError

from unterbau.errors import InputError

T = TypeVar("T")

SENTENCES = {
    "missing": "this key is missing",
    "extra_forbidden": "unknown key",
    "unexpected_keyword_argument": "unknown key",
    "finite_number": "expected a finite number",
    "float_type": "expected a number, {got}",
    "int_type": "expected a whole number, {got}",
    "bool_type": "expected true or false, {got}",
    "string_type": "expected text, {got}",
    "tuple_type": "expected a list, {got}",
    "list_type": "expected a list, {got}",
    "dataclass_type": "expected an object with keys, {got}",
    "too_short": "expected at least {min_length} entries",
    "too_long": "expected at most {max_length} entries",
    "literal_error": "expected {expected}, {got}",
    "union_tag_invalid": "expected {expected_tags}, got {tag}",
    "union_tag_not_found": "this key is missing",
    "none_required": "expected null, {got}",
}


def read_strictly(adapter: TypeAdapter[T], text: str | bytes, tags: frozenset[str] = frozenset()) -> T:
    """Return the object that a JSON text holds.

    Args:
        adapter: What it is to be.
        text: The JSON.
        tags: Values of keys that choose among several; they are no part of a path.

    Raises:
        InputError: Not JSON, unknown or missing keys, wrong types; names the path.
    """
    try:
        return adapter.validate_json(text)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        if first["type"] == "json_invalid":
            raise InputError("$", f"this is not JSON: {first['msg'].removeprefix('Invalid JSON: ')}") from None
        place = tuple(part for part in first["loc"] if part not in tags)
        if str(first["type"]).startswith("union_tag"):
            place += (str(first["ctx"]["discriminator"]).strip("'"),)
        raise InputError(json_path(place), _sentence(dict(first))) from None


def json_path(location: tuple[int | str, ...]) -> str:
    """Return a location as `$.beams[3].offset_i[0]`."""
    parts = [f"[{part}]" if isinstance(part, int) else f".{part}" for part in location if part != "function-after"]
    return "$" + "".join(parts)


def _sentence(error: dict[str, Any]) -> str:
    template = SENTENCES.get(str(error["type"]))
    if template is None:
        return str(error["msg"])
    context = dict(error.get("ctx") or {})
    return template.format(**{**context, "got": f"got {_shown(error.get('input'))}"})


def _shown(value: object) -> str:
    if isinstance(value, bool | str | float | int) or value is None:
        text = json.dumps(value)
        return text if len(text) < 40 else text[:36] + '…"'
    return "a list" if isinstance(value, list | tuple) else "an object"
