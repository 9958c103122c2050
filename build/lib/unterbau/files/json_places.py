"""Where in a file a fault is, in the words of those who never open it in an editor."""

import json
import re
from typing import Any

from unterbau.errors import InputError

STEP = re.compile(r"\.([^.\[\]]+)|\[(\d+)\]")
UNSAID = {"machine"}
"""Keys that say nothing to a reader."""
NAMES = ("name", "id", "item")


def in_words(where: str, data: Any) -> str:
    """Return a path of a file, such as $.candidates[1].machine.spindle.mass, as candidate “oak”, spindle, mass.

    Args:
        where: The path.
        data: What the file holds, as far as it could be read.
    """
    words: list[str] = []
    for step in STEP.finditer(where):
        key, index = step[1], step[2]
        if key is not None:
            data = data.get(key) if isinstance(data, dict) else None
            if key not in UNSAID:
                words.append(key.replace("_", " "))
            continue
        number = int(index)
        data = data[number] if isinstance(data, list) and number < len(data) else None
        own = data if isinstance(data, dict) else {}
        name = next((own[one] for one in NAMES if isinstance(own.get(one), str)), "")
        many = words.pop() if words else "row"
        words.append(f"{_one(many)} “{name}”" if name and len(name) < 60 else f"{_one(many)} {number + 1}")
    return ", ".join(words)


def _one(many: str) -> str:
    if many.endswith("ies"):
        return many.removesuffix("ies") + "y"
    return many.removesuffix("es") if many.endswith(("masses", "boxes")) else many.removesuffix("s")


def told(error: InputError, data: Any) -> InputError:
    """Return a fault with its place in words first, and the path behind it for those who mend the file by hand."""
    words = in_words(error.where, data) if error.where.startswith("$.") else ""
    return InputError(error.where, error.problem, words)


def as_far_as_read(text: str | bytes) -> Any:
    """Return what a text holds as JSON, or nothing where it is none."""
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        return None
