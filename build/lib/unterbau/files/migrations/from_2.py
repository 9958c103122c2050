"""Version 2 to 3: the brief joined the project; machines of other kinds became possible."""

import dataclasses
from typing import Any

from unterbau.brief.brief import Brief
from unterbau.errors import InputError


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 2 file as version 3, its brief left open.

    Raises:
        InputError: The file holds keys that version 2 did not know.
    """
    if "brief" in data:
        raise InputError("$.brief", "unknown key in version 2")
    brief = dataclasses.asdict(Brief())
    return {**data, "version": 3, "brief": {**brief, "cuts": list(brief["cuts"]), "tools": []}}
