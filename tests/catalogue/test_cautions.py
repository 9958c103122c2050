"""Cautions: in one file, hazard then action, short, used where they matter, none that can be read as its opposite."""

import re
from pathlib import Path

import pytest

from unterbau.brief.brief import PROCESSES
from unterbau.catalogue import cautions
from unterbau.catalogue.cautions import Caution
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.machine import lay_out
from unterbau.shop.build.steps import steps_of

SOURCE = Path(__file__).parents[2] / "src" / "unterbau"
EVERY = {name: value for name, value in vars(cautions).items() if isinstance(value, Caution)}
ALL = [*EVERY.values(), *cautions.FIRST_CUTS.values()]
FORBIDDEN = (r"\boff at\b", r"never with", r"\bone\b", r";", r"\bown weight\b", r"^(?:eyes|ears|hands)\b")


def test_no_caution_is_written_anywhere_else() -> None:
    found = [
        str(path.relative_to(SOURCE)) for path in SOURCE.rglob("*.py")
        if path.name != "cautions.py" and re.search(r"[\"'.;] ?[Cc]aution: \w", path.read_text(encoding="utf-8"))
    ]  # fmt: skip
    assert not found


@pytest.mark.parametrize("one", ALL, ids=lambda one: one.hazard[:30])
def test_each_is_a_hazard_and_an_action_in_short_sentences(one: Caution) -> None:
    for text in (one.hazard, one.action):
        for sentence in re.findall(r"[^.]+\.", text):
            assert len(sentence.split()) <= 20, sentence
            assert sentence.strip()[0].isupper()
        assert text.endswith(".")
        for pattern in FORBIDDEN:
            if pattern != r"\bone\b" or "one hand" not in text:
                assert not re.search(pattern, text.lower()), (pattern, text)


def test_each_is_used() -> None:
    text = "\n".join(path.read_text(encoding="utf-8") for path in SOURCE.rglob("*.py") if path.name != "cautions.py")
    unused = [name for name in EVERY if f"cautions.{name}" not in text]
    assert not unused


@pytest.mark.parametrize("process", PROCESSES)
def test_hazards_of_the_process_stand_at_its_first_use(process: str) -> None:
    assert set(cautions.FIRST_CUTS) == set(PROCESSES)
    steps = {one.id: one for one in steps_of(lay_out(LightTable()), (), {}, {}, 25.0, (), {}, None, process)}  # type: ignore[arg-type]
    assert steps["cuts"].caution == cautions.FIRST_CUTS[process].text  # type: ignore[index]
    assert ("arc" in steps["wiring"].caution) == (process == "plasma")
    assert "Nobody hangs on the machine" in steps["push"].caution
