"""Errors that name the place and say what to change."""


class UnterbauError(Exception):
    """Anything the program refuses, as a sentence for the person at the screen."""


class InputError(UnterbauError):
    """A value, file or machine that cannot be used as given."""

    def __init__(self, where: str, problem: str, words: str = "") -> None:
        """Take the place (a path in the file, a field's name), a sentence about it, and the place in plain words."""
        self.where = where
        self.problem = problem
        if words:
            super().__init__(f"{words}: {problem} (in the file at {where})")
        else:
            super().__init__(f"{where}: {problem}" if where not in ("", "$") else problem)
