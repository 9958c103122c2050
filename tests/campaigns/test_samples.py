"""A short fixed sample of the campaigns: what readers and machines answer, or refuse in a sentence."""

import random
from pathlib import Path

import pytest

from tests.campaigns import machines
from tests.campaigns.readers import broken, readers
from unterbau.structure.parts import Place

READERS = 22
INPUTS = {"frame": 40, "project": 40, "project bytes": 40, "section DXF": 60, "section words": 20}
"""Of the readers that take long."""
MANY = 150


@pytest.mark.parametrize("number", range(READERS))
def test_mutated_input_is_answered_or_refused(number: int, tmp_path: Path) -> None:
    every = readers(tmp_path)
    assert len(every) == READERS
    reader = every[number]
    draw = random.Random(f"{reader.name}, first sample")
    texts = [reader.change(draw.choice(reader.corpus), draw) for _ in range(INPUTS.get(reader.name, MANY))]
    assert not [found for text in texts if (found := broken(reader, text))]


@pytest.mark.filterwarnings("error::RuntimeWarning")
def test_machines_within_their_limits_are_answered_or_refused() -> None:
    draw = random.Random(3)
    tried = [machines.drawn(draw) for _ in range(16)]
    faults = [f"{one.kind}: {machines.wrong(one, Place(draw.random(), draw.random(), 0.5))}" for one in tried]
    assert not [one for one in faults if not one.endswith(": ")]
