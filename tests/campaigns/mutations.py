"""Texts changed at random, by bytes and by what stands in them."""

import json
import random
from collections.abc import Callable
from copy import deepcopy
from typing import Any

ODD: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 1e-300, 1e300, -1e9, 10**40, 0.3, "", "x" * 5000, "\0", "\ud800", "<img src=a>",
    [], {}, [[]], [1, 2], "NaN", "steel-s235", "shs-60x60x4", "-of-",
)  # fmt: skip
PIECES = ("0", "-", "1e999", "(", "[", "{", '"', ",", ";", "\n", "\0", "é", "NaN", "1" * 60, "((((", "----", "=1+1")


def bytes_changed(text: str, draw: random.Random) -> str:
    """Return a text with some places cut, doubled, or replaced."""
    for _ in range(draw.randint(1, 4)):
        a = draw.randint(0, len(text))
        b = min(len(text), a + draw.choice((0, 1, 2, 8, 200)))
        text = text[:a] + draw.choice((*PIECES, text[a:b] * 2, "")) * draw.choice((1, 1, 1, 40)) + text[b:]
    return text


def json_changed(text: str, draw: random.Random) -> str:
    """Return a JSON text with some values put in other places, dropped, or replaced by odd ones."""
    data = json.loads(text)
    for _ in range(draw.randint(1, 3)):
        parent, key = _somewhere(data, draw)
        if parent is None:
            continue
        match draw.randint(0, 4):
            case 0:
                del parent[key]
            case 1 if isinstance(parent[key], int | float) and not isinstance(parent[key], bool):
                parent[key] *= draw.choice((0, -1, 1e-9, 1e9, 1.5, 0.5, 1e3))
            case _:
                parent[key] = deepcopy(draw.choice(ODD))
    return json.dumps(data)


def _somewhere(data: Any, draw: random.Random) -> tuple[Any, Any]:
    parent: Any = None
    key: Any = None
    while isinstance(data, dict | list) and data and (parent is None or draw.random() < 0.85):
        parent = data
        key = draw.choice(list(data)) if isinstance(data, dict) else draw.randrange(len(data))
        data = parent[key]
    return parent, key


CHANGES: tuple[Callable[[str, random.Random], str], ...] = (bytes_changed, json_changed)
