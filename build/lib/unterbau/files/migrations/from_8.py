"""Version 8 to 9: foot plates under sides, drag chains, how screws are held, how long motors run; log, cuts, order."""

from typing import Any


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 8 file as version 9."""
    return {**data, "version": 9}
