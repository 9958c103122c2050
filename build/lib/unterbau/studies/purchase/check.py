"""One thing that is asked before buying, and how it came out."""

from dataclasses import dataclass
from typing import Literal

Verdict = Literal["pass", "watch", "fail", "unknown"]
WORST: tuple[Verdict, ...] = ("fail", "watch", "unknown", "pass")
"""In which order checks are told."""


@dataclass(frozen=True, slots=True)
class Check:
    """A check of one part."""

    key: str
    """Link of the load path that it is about; empty for the whole machine."""
    name: str
    asked: str
    """What is asked of the part, in words with numbers."""
    working: str
    """The formula with its numbers."""
    share: float
    """What is asked as a share of what the part can; 1 is at the limit, inf beyond any, nan unknown."""
    verdict: Verdict
    cure: str
    """What helps; empty where nothing is needed."""
    source: str


def counted(found: tuple[Check, ...]) -> str:
    """Return how many checks came out badly, in a few words."""
    counts = [(sum(one.verdict == verdict for one in found), verdict) for verdict in WORST[:-1]]
    return ", ".join(f"{count} {verdict}" for count, verdict in counts if count) or "all pass"


def judged(share: float, watch: float) -> Verdict:
    """Return the verdict on a share of a limit that is watched from some way below it."""
    if share != share:
        return "unknown"
    return "pass" if share <= watch else "watch" if share <= 1.0 else "fail"
