"""Places of the travel in words."""

from unterbau.structure.parts import Place

WORDS = {
    "x": {0.0: "left", 0.5: "mid", 1.0: "right"},
    "y": {0.0: "front", 0.5: "mid", 1.0: "back"},
    "z": {0.0: "lowest", 0.5: "mid", 1.0: "highest"},
}


def place_words(place: Place) -> str:
    """Return where the head stands, such as `X left, Y 25%, Z lowest`."""
    return ", ".join(
        f"{axis.upper()} {WORDS[axis].get(at, f'{at:.0%}')}"
        for axis, at in (("x", place.x), ("y", place.y), ("z", place.z))
    )
