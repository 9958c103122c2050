"""Sizes in a row: memory is flat after the first fifty (it was 16 MB for each, 2.3 GB after an hour; 300 run once)."""

import gc
import os
from dataclasses import replace
from pathlib import Path

import pytest

from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.structure.parts import Place
from unterbau.studies.answers import likely_answers

FIRST, ALL = 50, 120
ROOM = 60e6
"""What kept figures may still fill up, bytes: a hundredth of what was lost."""


def resident() -> float:
    gc.collect()
    return int(Path("/proc/self/statm").read_text(encoding="ascii").split()[1]) * float(os.sysconf("SC_PAGE_SIZE"))


@pytest.mark.skipif(not Path("/proc/self/statm").exists(), reason="tells its memory otherwise")
def test_sizes_in_a_row_leave_the_memory_flat() -> None:
    machine = BracedMill()
    for number in range(ALL):
        wide = replace(machine.dimensions, table_length=machine.dimensions.table_length + 1e-4 * number)
        likely_answers(replace(machine, dimensions=wide), Place())
        if number == FIRST:
            then = resident()
    assert resident() - then < ROOM
