"""Version 7 to 8: plates may have a layer glued under them and be sealed; none had."""

from typing import Any


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 7 file as version 8."""
    return {**data, "version": 8}
