"""Version 5 to 6: machines may be changed by braces, panels, weights and what is left out; none had been."""

from typing import Any


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 5 file as version 6."""
    return {**data, "version": 6}
