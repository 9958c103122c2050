"""Errors that name the place and say what to change."""


class UnterbauError(Exception):
    """Anything the program refuses, as a sentence for the person at the screen."""


class InputError(UnterbauError):
    """A value, file or machine that cannot be used as given."""

    def __init__(self, where: str, problem: str) -> None:
        """Take the place (a path in the file, a field's name) and a sentence about it."""
        self.where = where
        self.problem = problem
        super().__init__(f"{where}: {problem}" if where else problem)
