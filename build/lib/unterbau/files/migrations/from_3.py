"""Version 3 to 4: sections of one's own joined the project; members got seams and loose fills."""

from typing import Any

from unterbau.errors import InputError


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 3 file as version 4, without sections of its own.

    Raises:
        InputError: The file holds keys that version 3 did not know.
    """
    if "sections" in data:
        raise InputError("$.sections", "unknown key in version 3")
    return {**data, "version": 4, "sections": []}
