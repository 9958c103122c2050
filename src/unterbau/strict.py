"""How files are validated: a setting each stored dataclass carries, read by `files`."""

from typing import Any, get_args, get_type_hints

STRICT = {"strict": True, "extra": "forbid", "allow_inf_nan": False}
"""JSON read into dataclasses, strictly; errors name the path in the file."""


class Named:
    """Marks a value that stands in files under its name; the reader puts the value in its place."""

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> dict[str, Any]:
        """Let the reader expect a text."""
        del source, handler
        return {"type": "str", "strict": True}


class Tagged:
    """Marks a union of dataclasses, each with a field of one value that says which it is."""

    def __init__(self, attribute: str) -> None:
        self.attribute = attribute

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> dict[str, Any]:
        """Let the reader choose by the tag, so that an error names the one meant."""
        choices = {}
        for one in get_args(source):
            (tag,) = get_args(get_type_hints(one)[self.attribute])
            choices[tag] = handler.generate_schema(one)
        return {"type": "tagged-union", "choices": choices, "discriminator": self.attribute}
