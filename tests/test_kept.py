"""Answers that are kept: by bytes, the newest above all."""

import pickle
from dataclasses import dataclass, fields, replace

import numpy as np

from unterbau.kept import LEAST, Kept, keep_more, weight
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.structure.parts import Member


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


def test_a_machine_works_its_hash_out_once_and_sends_it_nowhere() -> None:
    """Equal machines have equal hashes, a copy from elsewhere works out its own, and it is no field."""
    one, other = MovingGantry(), MovingGantry()
    assert hash(one) == hash(other) == hash(one)
    sent = pickle.loads(pickle.dumps(one))
    assert sent == one
    assert not hasattr(sent, "_hash")
    assert "_hash" not in {field.name for field in fields(one)}
    assert hash(replace(one, gantry_beam=Member("rhs-100x60x4", "steel-s235"))) != hash(one)


def test_a_process_may_keep_more() -> None:
    """Twice as much, twice as many answers."""
    try:
        keep_more(2.0)
        kept = Kept(1.0)
        for number in range(4):
            kept[number] = np.zeros(50_000)
        assert len(kept) == 4
    finally:
        keep_more(1.0)
