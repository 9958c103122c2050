"""How long work tells how far it is and hears that it should stop."""

from typing import Protocol


class Cancelled(Exception):  # noqa: N818 - a wish that was granted, not an error
    """The person no longer wants the result."""


class Progress(Protocol):
    """What a study reports to."""

    def step(self, done: int, total: int, text: str) -> None:
        """Report a step.

        Raises:
            Cancelled: The study should stop now.
        """

    def found(self, so_far: object) -> None:
        """Tell what of the answer is there already."""


class Silent:
    """A progress nobody watches."""

    def step(self, done: int, total: int, text: str) -> None:
        """Do nothing."""

    def found(self, so_far: object) -> None:
        """Do nothing."""
