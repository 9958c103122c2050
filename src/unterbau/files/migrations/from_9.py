"""Version 9 to 10: the payload at the head of machines, limits and reasons of hold points."""

from typing import Any


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 9 file as version 10; what is new has its usual values."""
    return {**data, "version": 10}
