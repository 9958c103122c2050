"""What is asked for by content all the time works its hash out once: machines, price books."""

from typing import TypeVar

T = TypeVar("T", bound="type[Hashed]")


class Hashed:
    """A frozen dataclass with room for its hash; it is no field, so it is neither compared nor sent anywhere."""

    __slots__ = ("_hash",)
    _hash: int


def hashed_once(cls: T) -> T:
    """Have a dataclass work its hash out once."""
    worked_out = cls.__hash__

    def kept(self: Hashed) -> int:
        try:
            return self._hash
        except AttributeError:
            found = worked_out(self)
            object.__setattr__(self, "_hash", found)
            return found

    cls.__hash__ = kept  # type: ignore[method-assign,assignment]
    return cls
