"""What each version of the project file changed, one module a step."""

from collections.abc import Callable
from typing import Any

from unterbau.files.migrations import from_1, from_2, from_3, from_4, from_5, from_6, from_7, from_8, from_9

UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: from_1.upgrade,
    2: from_2.upgrade,
    3: from_3.upgrade,
    4: from_4.upgrade,
    5: from_5.upgrade,
    6: from_6.upgrade,
    7: from_7.upgrade,
    8: from_8.upgrade,
    9: from_9.upgrade,
}
"""From a version to the next, on the file's plain data."""
