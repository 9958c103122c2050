"""Verdicts on invented candidates with a known order; paired draws against full samples; what differs in words."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.band import LEVELS
from unterbau.brief.brief import Brief
from unterbau.brief.targets import targets
from unterbau.catalogue.prices import shipped_prices
from unterbau.machine.changes.change import LeftOut, Weight
from unterbau.machine.differs import differences
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.machine import to_frame
from unterbau.structure.footing import Footing
from unterbau.structure.parts import Joint, Place
from unterbau.studies.answers import answers
from unterbau.studies.compliance import solve_tip
from unterbau.studies.spread import _Draw
from unterbau.studies.verdict import Standing, order, paired, standing, verdict

BOOK = shipped_prices()
LUCK = np.random.default_rng(4).normal(0.0, 0.2, 4000)


def invented(name: str, likely: float, money: float, mass: float = 100.0, own: float = 0.0,
             conflicts: tuple[str, ...] = ()) -> Standing:  # fmt: skip
    """Return a candidate whose doubt is what all have in common, and some of its own."""
    alone = np.random.default_rng(len(name)).normal(0.0, own, 4000)
    return Standing(name, likely * np.exp(LUCK + alone), likely, "Y", mass, money, conflicts)


def test_the_cheapest_that_meets_the_brief_is_the_one_to_build() -> None:
    rows = (invented("soft", 0.6, 500.0), invented("dear", 2.0, 3000.0), invented("right", 1.4, 1200.0))
    assert [one.name for one in order(rows)] == ["right", "dear", "soft"]
    found = verdict(rows, BOOK)
    assert (found.best, found.runner_up) == ("right", "dear")
    text = " ".join(found.sentences)
    assert "the cheapest of those that meet it" in text
    assert "were stiffness what counts, dear would lead" in text
    assert "soft reaches 0.60 of the target along Y" in text


def test_none_that_meets_it_names_the_nearest_and_why_it_falls_short() -> None:
    found = verdict((invented("a", 0.5, 100.0), invented("bb", 0.8, 900.0)), BOOK)
    assert found.best == "bb"
    assert found.sentences[0].startswith("None is stiff enough")
    found = verdict((invented("a", 1.5, 100.0, conflicts=("too wide for the door",)), invented("bb", 0.8, 90.0)), BOOK)
    assert "stiff enough" in found.sentences[0]
    assert "too wide for the door" in found.sentences[0]


def test_a_brief_that_only_carries_is_judged_by_numbers() -> None:
    """What is only carried asks for none: numbers all the same, and none that is not one."""
    brief, mill = replace(Brief(), process="carrying"), ColumnMill()
    assert not any(targets(brief).stiffness)
    found = standing("a", mill, answers(mill, Place()), brief, BOOK, Place())
    assert np.isfinite(found.reach).all()
    assert found.likely >= 1.0, "no made-up target is missed"
    text = " ".join(
        verdict((found, replace(found, name="b", likely=2 * found.likely, reach=2 * found.reach)), BOOK).sentences
    )
    assert "nan" not in text
    assert "the brief asks for no stiffness" in text


def test_common_doubt_is_taken_out_of_a_comparison() -> None:
    """A tenth stiffer in every draw is a difference though both bands overlap by far; own doubt hides it."""
    a, b = invented("a", 1.1, 1.0), invented("bb", 1.0, 1.0)
    assert a.band.low < b.band.likely < a.band.high
    assert paired(a, b).ratio.low == pytest.approx(1.1)
    assert paired(a, b).differ
    assert paired(a, b).chance == 1.0
    c, d = invented("ccc", 1.1, 1.0, own=0.2), invented("dddd", 1.0, 1.0, own=0.2)
    assert not paired(c, d).differ
    text = verdict((c, replace(d, money=2.0)), BOOK).sentences[1]
    assert "no difference worth the name" in text
    assert not paired(invented("e", 1.01, 1.0), b).differ


def test_one_candidate_has_no_verdict() -> None:
    assert verdict((invented("a", 1.0, 1.0),), BOOK).best == ""


def test_a_paired_ratio_is_that_of_full_samples() -> None:
    """Both machines solved anew with the same draw of all that is uncertain: ends of the ratio within a tenth."""
    machine, brief = BracedMill(), Brief()
    both = (machine, replace(machine, z_guides=replace(machine.z_guides, preload="light")))
    found = [answers(one, Place()) for one in both]
    rows = [standing("x", one, full, brief, BOOK, Place()) for one, full in zip(both, found, strict=True)]
    pair = paired(rows[1], rows[0])
    wanted, draw, ratios = np.array(targets(brief).stiffness), np.random.default_rng(3), []
    builds = [{level: to_frame(one, Place(), level) for level in LEVELS} for one in both]
    drawers = [_Draw(one, {level: built.frame for level, built in built.items()})
               for one, built in zip(both, builds, strict=True)]  # fmt: skip
    for _ in range(200):
        luck = dict.fromkeys((*drawers[0].names, *drawers[1].names), 0.0)
        luck = {name: float(draw.standard_normal()) for name in luck}
        least = []
        for drawer, built, full in zip(drawers, builds, found, strict=True):
            frame = drawer.frame(np.array([luck[name] for name in drawer.names]))
            here = 1 / np.diag(solve_tip(replace(built["likely"], frame=frame)))
            scale = np.array([a.likely / b.likely for a, b in zip(full.worst, full.stiffness, strict=True)])
            least.append(float((here * scale / wanted).min()))
        ratios.append(least[1] / least[0])
    for mine, theirs in zip((pair.ratio.low, pair.ratio.high), np.percentile(ratios, (5, 95)), strict=True):
        assert mine == pytest.approx(theirs, rel=0.1)


def test_what_differs_is_told_part_by_part() -> None:
    mill = BracedMill()
    other = replace(
        mill, mount_joint=Joint("epoxied"), dimensions=replace(mill.dimensions, travel_z=0.2),
        changes=(Weight("weight_1", Footing("left post", "back", 0.2), "lamp"), LeftOut("left_out_1", "tie")),
    )  # fmt: skip
    words = differences(mill, other)
    assert any("bolted and epoxied" in one for one in words)
    assert any("travel Z" in one and "→" in one for one in words)
    assert any("added: lamp 1" in one for one in words)
    assert "left out: tie" in words
    assert "without lamp 1" in differences(other, mill)
    assert differences(mill, mill) == ()
    assert differences(mill, ColumnMill())[0].startswith("another kind")
