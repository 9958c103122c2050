"""The log: in the order of dates, what changed said once, found by any words, refused where it cannot be; pages."""

from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import pytest

from unterbau.errors import InputError
from unterbau.files.log_pages import log_html, log_markdown
from unterbau.shop.build.cuts import FirstCut, check_cuts
from unterbau.shop.build.log import Entry, changed, check_log, found, with_entry
from unterbau.shop.build.order import Wished, check_orders, order_of, with_order

BEFORE, AFTER = ("gantry beam: tube 120", "collet: clamped"), ("gantry beam: tube 160", "brace 1: flat 40")
LOG = with_entry(
    with_entry(
        with_entry((), Entry("a", "2026-11-20", "beam cut & *deburred*", parts=BEFORE, hours=2.0)),
        Entry("a", "2026-11-28", "stiffer beam <now>", ("beam.jpg",), 80.0, 1.5, AFTER),
    ),
    Entry("a", "2026-11-24", "waiting for rails", parts=BEFORE),
)


def test_entries_stand_by_date_and_say_only_what_changed() -> None:
    assert [one.when for one in LOG] == ["2026-11-20", "2026-11-24", "2026-11-28"]
    assert [bool(one.parts) for one in LOG] == [True, False, True]
    assert changed(LOG, 0) == changed(LOG, 1) == ()
    assert changed(LOG, 2) == (
        "gantry beam: tube 120 → tube 160", "without collet", "brace 1 added: flat 40"
    )  # fmt: skip


def test_an_entry_is_found_by_all_its_words() -> None:
    assert found(LOG, "a", "") == (2, 1, 0)
    assert found(LOG, "a", "BEAM cut") == (0,)
    assert found(LOG, "a", "2026-11 beam.jpg") == (2,)
    assert found(LOG, "b", "beam") == ()


def test_pages_hold_the_log_and_nothing_in_it_is_a_mark() -> None:
    project = Path("/work/shop/lute.unterbau")
    page = log_html(LOG, "a", Path("/work/shop/out/log.html"), project)
    root = ElementTree.fromstring(page.split("\n", 1)[1].replace('<meta charset="utf-8">', "").replace(
        'alt="beam.jpg">', 'alt="beam.jpg"/>'))  # fmt: skip
    (picture,) = root.iter("img")
    assert picture.attrib["src"] == "../lute.photos/beam.jpg"
    assert "stiffer beam <now>" in " ".join(root.itertext())
    assert "3 entries, 3.5 hours, 80 spent" in page
    text = log_markdown(LOG, "a", Path("/work/shop/log.md"), project)
    assert "![beam.jpg](lute.photos/beam.jpg)" in text
    assert "\\*deburred\\*" in text
    assert "- changed: without collet" in text


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"when": ""}, "when"), ({"when": "soon"}, "when"), ({"text": " "}, "text"), ({"hours": -1.0}, "hours"),
        ({"photos": ("../x.jpg",)}, "photos"), ({"photos": (".hidden",)}, "photos"), ({"money": float("nan")}, "hours"),
        ({"text": "x" * 20_000}, "text"),
    ],
)  # fmt: skip
def test_what_cannot_be_in_a_log_is_named(change: dict[str, object], where: str) -> None:
    one = replace(Entry("a", "2026-11-28", "words"), **change)  # type: ignore[arg-type]
    with pytest.raises(InputError) as error:
        check_log((LOG[0], one))
    assert error.value.where == f"log[1].{where}"


def test_first_cuts_and_orders_are_checked() -> None:
    good = FirstCut("a", "hardwood", 3e-3, 0.05, 0.0501)
    check_cuts((good,))
    for change, where in (({"depth": 0.0}, "depth"), ({"read": 0.2}, "read"), ({"sides": 3}, "sides")):
        with pytest.raises(InputError) as error:
            check_cuts((good, replace(good, **change)))
        assert error.value.where == f"cuts[1].{where}"
    orders = with_order(with_order((), "a", ("x", "y")), "b", ("z",))
    assert order_of(orders, "a") == ("x", "y")
    assert with_order(orders, "a", ()) == (Wished("b", ("z",)),)
    check_orders(orders)
    with pytest.raises(InputError, match="each once"):
        check_orders((Wished("a", ("x", "x")),))
    with pytest.raises(InputError, match="two orders"):
        check_orders((*orders, Wished("a", ())))
