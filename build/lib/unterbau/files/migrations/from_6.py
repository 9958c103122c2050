"""Version 6 to 7: shops know who makes pieces, offers, dates, hours, plates moved by hand; none had been told."""

from typing import Any


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 6 file as version 7."""
    return {**data, "version": 7}
