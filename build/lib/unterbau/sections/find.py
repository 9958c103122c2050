"""Finding a section as people call it: by any piece of its name, by sizes either way round, by trade words."""

import re
from difflib import SequenceMatcher
from functools import lru_cache, partial

from unterbau.sections.built_up import OF
from unterbau.sections.families import families
from unterbau.sections.section import section

TRADE_WORDS = {
    "extrusion": "profile", "slotted": "profile", "t-slot": "profile", "tslot": "profile", "aluminium": "profile",
    "aluminum": "profile", "iron": "", "bar": "flat rod", "flat": "flat", "strip": "flat", "plate": "flat",
    "square": "square", "tubing": "tube", "beam": "", "steel": "", "section": "", "channel": "channel", "u": "channel",
    "c": "channel c", "i": "i", "h": "i", "round": "round", "rod": "rod round", "angle": "angle", "l": "angle",
}  # fmt: skip
"""What people say, and what it is called here: any of the words, none where it tells nothing."""
FAMILIES = {"box": ("shs", "rhs", "box"), "hollow": ("shs", "rhs", "chs"), "pipe": ("chs", "shs", "rhs")}
"""What people say of several families, which they mean first."""
SUGGESTED = 3
LONGEST = 100
"""Letters that are looked at; no label is longer."""
_SIZE = re.compile(r"\d+(?:[.,]\d+)?")


@lru_cache(maxsize=1)
def _known() -> tuple[tuple[str, str, tuple[float, ...]], ...]:
    """Return name, words and sizes of every section."""
    found = []
    for family in families():
        for name in family:
            words = f"{section(name).label} {name}".lower()
            found.append((name, words, _sizes(section(name).label)))
    return tuple(found)


def find(text: str) -> tuple[str, ...]:
    """Return the names of the sections that fit what was typed, those whose sizes fit best first."""
    text = text[:LONGEST].lower().replace("×", "x")
    wanted = _sizes(text)
    words = [word for word in re.split(r"[^a-z-]+", _SIZE.sub(" ", text)) if word not in ("", "x", "mm", "-")]
    rows = []
    for place, (name, known, sizes) in enumerate(_known()):
        if all(_called(word, known) for word in words) and _fit(wanted, sizes):
            rows.append((min(map(partial(_rank, known), words), default=0), len(sizes) - len(wanted), place, name))
    return tuple(name for *_, name in sorted(rows))


def nearest(text: str) -> tuple[str, ...]:
    """Return the few sections whose words are nearest to what was typed."""
    text = text[:LONGEST].lower().replace("×", "x")
    loose = find(_SIZE.sub(" ", text)) if _SIZE.sub(" ", text).strip(" x") else ()
    wanted = _sizes(text)
    among = [row for row in _known() if OF not in row[0] and (not loose or row[0] in loose)]

    def away(row: tuple[str, str, tuple[float, ...]]) -> tuple[float, float]:
        pairs = zip(sorted(wanted, reverse=True), sorted(row[2], reverse=True), strict=False)
        sizes = sum(abs(a - b) / max(a, b, 1e-9) for a, b in pairs)
        sizes += abs(len(wanted) - len(row[2])) if wanted else 0.0
        return (sizes, -SequenceMatcher(None, text, row[1]).ratio())

    return tuple(row[0] for row in sorted(among, key=away)[:SUGGESTED])


def _rank(known: str, word: str) -> int:
    """Return how late a section comes among those that a word means."""
    return next((n for n, family in enumerate(_meant(word)) if f" {family}-" in known), 9)


def _meant(word: str) -> tuple[str, ...]:
    return next((families for trade, families in FAMILIES.items() if word.startswith(trade)), ())


def _called(word: str, known: str) -> bool:
    if word in known or any(f" {family}-" in known for family in _meant(word)):
        return True
    meant = TRADE_WORDS.get(word)
    if meant is None:
        return any(word.startswith(trade) and _called(trade, known) for trade in TRADE_WORDS if len(trade) > 2)
    return not meant or any(one in known for one in meant.split())


def _fit(wanted: tuple[float, ...], sizes: tuple[float, ...]) -> bool:
    """Return whether a section has all sizes wanted, whichever way round."""
    left = list(sizes)
    for one in wanted:
        if one not in left:
            return False
        left.remove(one)
    return True


def _sizes(text: str) -> tuple[float, ...]:
    return tuple(float(one.replace(",", ".")) for one in _SIZE.findall(text))
