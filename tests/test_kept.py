"""Answers that are kept: by bytes, the newest above all."""

from dataclasses import dataclass

import numpy as np

from unterbau.kept import LEAST, Kept, weight


@dataclass(frozen=True)
class Pair:
    a: np.ndarray
    b: np.ndarray


def test_an_answer_weighs_its_arrays_and_shared_ones_once() -> None:
    big = np.zeros(100_000)
    assert 800_000 <= weight(Pair(big, big)) < 810_000
    assert 1_600_000 <= weight((Pair(big, np.zeros(100_000)), {"x": big})) < 1_610_000
    assert weight(Pair(big[:10], big[10:])) < 810_000
    assert weight("word") == 0
    assert weight([1, 2.0, None]) < 10 * LEAST


def test_the_oldest_go_and_the_newest_stays_whatever_it_weighs() -> None:
    store = Kept(1.0)
    for name in "abc":
        store[name] = np.zeros(50_000)
    assert "a" not in store
    assert {"b", "c"} <= set(store)
    store["huge"] = np.zeros(1_000_000)
    assert list(store) == ["huge"]
