"""Version 4 to 5: a bench sways, what counted as firm says so; motors, collets, stiffened members joined."""

from typing import Any


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 4 file as version 5."""
    candidates = data.get("candidates")
    if isinstance(candidates, list):
        candidates = [_candidate(one) for one in candidates]
    return {**data, "version": 5, **({"candidates": candidates} if "candidates" in data else {})}


def _candidate(data: Any) -> Any:
    machine = data.get("machine") if isinstance(data, dict) else None
    if not isinstance(machine, dict):
        return data
    stand = machine.get("stand", {})
    if isinstance(stand, dict) and stand.get("kind", "bench") == "bench" and machine.get("kind") != "wall-axis":
        machine = {**machine, "stand": {**stand, "kind": "firm"}}
    return {**data, "machine": machine}
