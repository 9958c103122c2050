"""What a key may ask for next: the part on the bench one size smaller or larger, solved before it is asked for."""

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, part_at, with_part
from unterbau.machine.stepping import step


def neighbours(machine: Machine, key: str) -> tuple[Machine, ...]:
    """Return the machine with a part of it one size larger, and one smaller, as far as there is such a size."""
    now = part_at(machine, key)
    if now is None:
        return ()
    found = []
    for up in (True, False):
        try:
            changed = step(now, up)
            if changed is not None:
                found.append(with_part(machine, key, changed))
        except InputError:
            continue
    return tuple(found)
