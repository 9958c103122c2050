"""A report of all candidates side by side: verdict, picture, figures, what differs, where the flex went, sources.

The page holds everything itself, and keeps to what simple readers of HTML know, so that the same text makes the PDF.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from html import escape
from pathlib import Path

from unterbau.catalogue.prices import money_text
from unterbau.files.atomic import write_atomically
from unterbau.files.html_page import ASSUMPTIONS, band_words, image, page, row
from unterbau.machine.differs import differences
from unterbau.machine.machine import kind_of
from unterbau.project.project import Candidate, Project
from unterbau.studies.compare import Figures, flow
from unterbau.studies.missed import may_miss
from unterbau.units import Units, in_units, mass_text, movement_text, unit_text

AXES = ("X", "Y", "Z")
TOLD, LEAST = 6, 0.03
"""Links that are named where the flex went, and the least share of the benchmark's give that is."""
PULL = 100.0  # N


@dataclass(frozen=True, slots=True)
class Comparison:
    """What a report is made of."""

    project: Project
    rows: tuple[Figures, ...]
    """Of all candidates, in the project's order."""
    verdict: tuple[str, ...]
    when: str
    units: Units
    picture: bytes = b""
    """PNG of all as dots."""
    machines: Mapping[str, bytes] | None = None
    """PNG of each candidate by name."""


def comparison_html(made: Comparison) -> str:
    """Return the report."""
    project, names = made.project, ", ".join(one.name for one in made.rows)
    benchmark = project.candidate(project.benchmark)
    others = "".join(_other(made, benchmark, project.candidate(one.name)) for one in made.rows)
    misses = " ".join(dict.fromkeys(may_miss(project.candidate(one.name).machine) for one in made.rows))
    body = f"""<h1>{escape(project.name)}</h1>
<p>{len(made.rows)} candidates compared · {escape(made.when)} · ★ {escape(benchmark.name)} is the benchmark</p>
<h2>VERDICT</h2>{"".join(f"<p>{escape(one)}</p>" for one in made.verdict)}
<p>{image(made.picture, 420, "all candidates")}</p>
<h2>FIGURES, likely (low – high)</h2>{_figures(made)}
<h2>WHAT DIFFERS, AND WHERE THE FLEX WENT</h2>{others}
<h2>ASSUMPTIONS AND SOURCES</h2><p class="small">{escape(ASSUMPTIONS)} {escape(misses)} Prices of
{escape(project.prices.date)}. In the verdict joints, guides and materials are drawn alike for all candidates, so that
what they have in common falls out. Where each number comes from stands in the program under “why is it this”.</p>"""
    return page(f"{project.name}: {names}", body)


def _figures(made: Comparison) -> str:
    per = in_units(1e-6, "N/µm", made.units)[0]
    unit = unit_text("N/µm", made.units)
    titles = (*(f"{axis}, {unit}" for axis in AXES), f"least, {unit}", "droop", "first mode, Hz", "mass", "money")
    rows = [row("", *titles, "checks that fail", head=True)]
    for one in made.rows:
        answers = one.answers
        star = "★ " if one.name == made.project.benchmark else ""
        fails = "–" if one.checked is None else str(sum(check.verdict == "fail" for check in one.checked))
        rows.append(row(
            f"<b>{star}{escape(one.name)}</b>", *(band_words(band, per) for band in answers.stiffness),
            band_words(min(answers.worst, key=lambda band: band.likely), per),
            movement_text(answers.droop.likely, made.units), band_words(one.frequency) if one.frequency else "–",
            mass_text(answers.likely.mass, made.units), escape(money_text(one.cost.money, made.project.prices)), fails,
        ))  # fmt: skip
    return f"<table>{''.join(rows)}</table>"


def _other(made: Comparison, benchmark: Candidate, one: Candidate) -> str:
    star = "★ " if one.name == benchmark.name else ""
    head = f"<h3>{star}{escape(one.name)}</h3><p class='small'>{escape(kind_of(one.machine).label)}</p>"
    seen = f"<p>{image((made.machines or {}).get(one.name, b''), 150, one.name)}</p>"
    if star:
        return head + seen
    told = "; ".join(differences(benchmark.machine, one.machine, made.units)) or "nothing differs"
    known = {each.name: each.answers.likely for each in made.rows}
    lines = []
    for axis, name in enumerate(AXES):
        found = flow((benchmark.machine, known[benchmark.name]), (one.machine, known[one.name]), axis)
        before, after = sum(each.before for each in found), sum(each.after for each in found)
        large = [each for each in found if abs(each.change) > LEAST * before]
        large.sort(key=lambda each: -abs(each.change))
        parts = ", ".join(f"{escape(each.label)} {_signed(PULL * each.change, made.units)}" for each in large[:TOLD])
        moved = f"{movement_text(PULL * before, made.units)} → {movement_text(PULL * after, made.units)}"
        lines.append(row(f"pulled along {name}, {PULL:.0f} N", moved, parts or "no link changes it much"))
    return f"{head}{seen}<p>differs from ★: {escape(told)}</p><table>{''.join(lines)}</table>"


def _signed(movement: float, units: Units) -> str:
    return f"{'+' if movement > 0 else '−'}{movement_text(abs(movement), units)}"


def write_comparison(path: Path, made: Comparison) -> None:
    """Write the report, whole or not at all.

    Raises:
        UnterbauError: The file could not be written.
    """
    write_atomically(path, comparison_html(made))
