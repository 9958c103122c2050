"""The shipped tables, read once."""

import json
from functools import lru_cache
from importlib.resources import files
from typing import Any


@lru_cache(maxsize=8)
def table(name: str) -> Any:
    """Return a shipped table of this folder as JSON data."""
    return json.loads((files("unterbau.catalogue") / f"{name}.json").read_text(encoding="utf-8"))
