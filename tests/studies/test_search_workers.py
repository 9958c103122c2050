"""Designs tried apart: the order they were asked in, faults told, nothing tried that is not asked for any more."""

from contextlib import closing
from functools import partial
from os import _exit

import pytest

from unterbau.errors import InputError
from unterbau.studies.search_workers import AHEAD, CHUNK, tried_apart


def squared(shift: int, picked: tuple[int, ...]) -> int:
    return picked[0] ** 2 + shift


def broken(picked: tuple[int, ...]) -> int:
    if picked[0] == 5:
        _exit(3)
    return picked[0]


@pytest.mark.parametrize("processes", [1, 2])
def test_answers_come_in_the_order_they_were_asked_for(processes: int) -> None:
    picks = [(n,) for n in range(3 * CHUNK + 5)]
    found = list(tried_apart(iter(picks), partial(squared, 7), processes))
    assert found == [one[0] ** 2 + 7 for one in picks]
    assert list(tried_apart(iter(()), partial(squared, 7), processes)) == []


def test_what_is_asked_runs_only_a_little_ahead() -> None:
    asked: list[int] = []

    def picks() -> object:
        for n in range(10_000):
            asked.append(n)
            yield (n,)

    with closing(tried_apart(picks(), partial(squared, 0), 2)) as rows:  # type: ignore[arg-type]
        assert next(rows) == 0
    assert len(asked) <= CHUNK * (2 * AHEAD + 1)


def test_a_process_that_ends_by_itself_is_told_in_a_sentence() -> None:
    with pytest.raises(InputError, match="ended by itself"):
        list(tried_apart(iter([(n,) for n in range(20)]), broken, 2))
