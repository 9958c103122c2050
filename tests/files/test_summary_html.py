"""The one-page summary says what the answers say."""

import re
from html.parser import HTMLParser
from importlib.resources import files
from pathlib import Path

import pytest

from unterbau.catalogue.prices import money_text
from unterbau.cli.main import run
from unterbau.files.project_json import parse_project
from unterbau.files.summary_html import Summary, summary_html
from unterbau.machine.machine import cost_of, links
from unterbau.project import edits
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
from unterbau.studies.purchase.check import Check
from unterbau.units import Units

DEMO = files("unterbau.demo") / "carving-router.unterbau"


class Reader(HTMLParser):
    """Keeps the text and checks that tags close."""

    def __init__(self) -> None:
        super().__init__()
        self.open: list[str] = []
        self.words: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag not in ("meta", "img", "br", "hr"):
            self.open.append(tag)
        assert not any(name in ("src", "href") and value and value.startswith("http") for name, value in attrs)

    def handle_endtag(self, tag: str) -> None:
        assert self.open.pop() == tag

    def handle_data(self, data: str) -> None:
        self.words.append(data.strip())


def page(name: str, units: Units = "mm", rename: str = "") -> str:
    project = parse_project(DEMO.read_text(encoding="utf-8"))
    if rename:
        project = edits.rename(project, name, rename)
        name = rename
    candidate = project.candidate(name)
    found = answers(candidate.machine, Place())
    reader = Reader()
    reader.feed(summary_html(Summary(project, candidate, found, Place(), "2026-11-25", units, b"png")))
    reader.close()
    assert reader.open == []
    return " ".join(reader.words)


def test_every_figure_with_its_band() -> None:
    project = parse_project(DEMO.read_text(encoding="utf-8"))
    candidate = project.candidate("plate box")
    found = answers(candidate.machine, Place())
    text = page("plate box")
    for band in found.stiffness:
        assert f"{band.likely / 1e6:.1f}" in text
        assert f"{band.low / 1e6:.1f}" in text
    assert f"{found.likely.mass:.1f} kg" in text
    assert money_text(cost_of(candidate.machine, project.prices).money, project.prices) in text
    assert "not a promise" in text
    assert "local codes" in text
    shares = found.likely.shares
    weakest = shares.keys[int(shares.compliance[1].sum(axis=1).argmax())]
    label = next(link.label for link in links(candidate.machine) if link.key == weakest)
    assert label in text


def test_checks_that_fail_are_listed_and_the_others_counted() -> None:
    project = parse_project(DEMO.read_text(encoding="utf-8"))
    candidate = project.candidate("plate box")
    bad = Check("z_motor", "Z without power", "<falls>", "m·g", 2.0, "fail", "a brake", "from memory")
    good = Check("x_drive", "X screw, whipping", "slow", "far", 0.2, "pass", "", "from memory")
    found = answers(candidate.machine, Place())
    html = summary_html(Summary(project, candidate, found, Place(), "2026-11-25", "mm", b"", (bad, good)))
    assert "BEFORE BUYING" in html
    assert "&lt;falls&gt;" in html
    assert "a brake" in html
    assert "X screw" not in html
    assert "1 of 2 checks pass" in html


def test_names_cannot_break_the_page_and_inches_are_inches() -> None:
    text = page("plate box", "inch", rename='<b>"box" & co</b>')
    assert '<b>"box" & co</b>' in text
    assert "thou" in text
    assert not re.search(r"\d µm", text)


def test_the_page_from_the_command_line(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    target = tmp_path / "page.html"
    assert run(["summary", str(DEMO), "--candidate", "plate box", "-o", str(target)]) == 0
    assert "plate box" in target.read_text(encoding="utf-8")
    assert run(["summary", str(DEMO), "--candidate", "none", "-o", str(target)]) == 2
    assert "there is no candidate" in capsys.readouterr().err
    assert run(["summary", str(DEMO), "-o", str(tmp_path / "no" / "page.html")]) == 2
    assert "was not written" in capsys.readouterr().err


def test_what_was_added_is_listed_and_what_does_not_stand_is_said() -> None:
    text = (Path(__file__).parent / "version-6.unterbau").read_text(encoding="utf-8")
    project = parse_project(text)
    candidate = project.candidate("changed")
    made = Summary(project, candidate, answers(candidate.machine, Place()), Place(), "2026-11-28", "mm", b"png")
    reader = Reader()
    reader.feed(summary_html(made))
    said = " ".join(reader.words)
    assert "brace 1: 2 × tube 80×40×4" in said
    assert "lamp 2 is left away, it does not stand: expected a bar or plate of this machine" in said
