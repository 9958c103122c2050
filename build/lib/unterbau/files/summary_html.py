"""One page about a candidate: picture, figures with bands, whose flex it is, parts and money, assumptions.

The page is plain HTML that holds everything itself, and keeps to what simple readers of HTML know, so
that the same text makes the printed page.
"""

from dataclasses import dataclass
from html import escape
from pathlib import Path

from unterbau.catalogue.prices import money_text
from unterbau.files.atomic import write_atomically
from unterbau.files.html_page import ASSUMPTIONS, band_words, image, page, row
from unterbau.machine.changes.change import name_of
from unterbau.machine.item_words import item_words, whose
from unterbau.machine.machine import bill_of, cost_of, links, not_standing, travel
from unterbau.mechanics.frame import CAUSES
from unterbau.parts_list.bill import Item
from unterbau.project.project import Candidate, Project
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers
from unterbau.studies.cutting import chosen_cut, moved_by
from unterbau.studies.missed import may_miss
from unterbau.studies.purchase.check import Check
from unterbau.units import Units, force_text, in_units, length_text, mass_text, movement_text, unit_text

AXES = ("X", "Y", "Z")
TOLD = 6
"""Links of the load path that are named for each pull."""
CAUSE_WORDS = dict(zip(CAUSES, ("stretch", "shear", "twist", "bending", "joint", "distortion", "wall"), strict=True))


@dataclass(frozen=True, slots=True)
class Summary:
    """What a page is made of."""

    project: Project
    candidate: Candidate
    answers: Answers
    place: Place
    when: str
    """Date of the page, in words."""
    units: Units
    picture: bytes
    """PNG."""
    checks: tuple[Check, ...] = ()
    """What was checked before buying, the worst first."""


def summary_html(made: Summary) -> str:
    """Return the page."""
    project, candidate = made.project, made.candidate
    star = " ★ benchmark" if candidate.name == project.benchmark else ""
    seen = image(made.picture, 330, "the machine")
    body = f"""<h1>{escape(project.name)}</h1>
<p>{escape(candidate.name)}{star} · {escape(made.when)} · {_place(made)}</p>
<table width="100%"><tr><td width="50%">{seen}</td><td>
<h2>STIFFNESS, {unit_text("N/µm", made.units)}</h2>{_stiffness(made.answers, made.units)}
<h2>FIGURES</h2>{_figures(made)}
<p>{_meaning(made)}</p>
</td></tr></table>
<h2>WHOSE FLEX IT IS, likely</h2>{_load_path(made)}
{_checks(made)}<h2>PARTS</h2>{_parts(made)}
<h2>ASSUMPTIONS</h2><p class="small">{escape(ASSUMPTIONS)} {escape(may_miss(candidate.machine))}</p>"""
    return page(f"{project.name}: {candidate.name}", body)


def _place(made: Summary) -> str:
    places = (
        f"{axis} {length_text(share * along, made.units)}"
        for axis, share, along in zip(
            AXES, (made.place.x, made.place.y, made.place.z), travel(made.candidate.machine), strict=True
        )
    )
    return f"head at {', '.join(places)} of its travel"


def _stiffness(answers: Answers, units: Units) -> str:
    rows = [row("", "tip, with cutter", "spindle nose", "weakest place of the travel", head=True)]
    for axis, name in enumerate(AXES):
        cells = (answers.stiffness[axis], answers.nose[axis], answers.worst[axis])
        rows.append(row(f"<b>{name}</b>", *(band_words(band, in_units(1e-6, "N/µm", units)[0]) for band in cells)))
    return f"<table>{''.join(rows)}</table><p class='small'>likely (low – high)</p>"


def _figures(made: Summary) -> str:
    answers, prices = made.answers, made.project.prices
    likely = answers.likely
    low, high = (movement_text(v, made.units) for v in answers.droop.ends)
    moving = ", ".join(f"{axis} {mass_text(mass, made.units)}" for axis, mass in likely.moving.items())
    found = cost_of(made.candidate.machine, prices)
    money = f"<b>{escape(money_text(found.money, prices))}</b>, prices of {escape(prices.date)}"
    if found.invented:
        money += ", partly invented figures to start from"
    rows = [
        row("droop over the travel", f"<b>{movement_text(answers.droop.likely, made.units)}</b> ({low} – {high})"),
        row("mass", f"<b>{mass_text(likely.mass, made.units)}</b>; drives move {moving}"),
        row("money", money),
    ]
    if first := answers.headline:
        rows.insert(1, row("lowest mode that the tool feels", f"{band_words(first.frequency)} Hz"))
    return f"<table>{''.join(rows)}</table>"


def _meaning(made: Summary) -> str:
    chosen = chosen_cut(made.project.cut, made.project.own_cut)
    moves = [moved_by(chosen, float(made.answers.likely.compliance[axis, axis])) for axis in range(3)]
    each = ", ".join(f"{axis} {movement_text(m.likely, made.units)}" for axis, m in zip(AXES, moves, strict=True))
    return (
        f"{escape(chosen.label)} ({escape(chosen.tool)}) pulls with {force_text(chosen.force.likely, made.units)} "
        f"({chosen.force.low:.0f} – {chosen.force.high:.0f}) and moves the tool: {each}, likely."
    )


def _checks(made: Summary) -> str:
    """Return what will not do or is near its limit; that all is well in a line."""
    bad = [one for one in made.checks if one.verdict != "pass"]
    rows = [row(f"<b>{escape(one.verdict)}</b>", escape(one.name), escape(one.asked), escape(one.cure)) for one in bad]
    well = len(made.checks) - len(bad)
    if not made.checks:
        return ""
    table = f"<table>{''.join(rows)}</table>" if rows else ""
    return f"<h2>BEFORE BUYING</h2>{table}<p class='small'>{well} of {len(made.checks)} checks pass</p>"


def _load_path(made: Summary) -> str:
    shares = made.answers.likely.shares
    labels = {link.key: link.label for link in links(made.candidate.machine)}
    columns = []
    for axis, name in enumerate(AXES):
        table = shares.compliance[axis]
        total = float(table.sum())
        order = sorted(range(len(shares.keys)), key=lambda n, t=table: -float(t[n].sum()))[:TOLD]  # type: ignore[misc]
        lines = []
        for n in order:
            cause = CAUSE_WORDS[CAUSES[int(table[n].argmax())]]
            label = labels.get(shares.keys[n], "rest")
            extra = f", {cause}" if cause != "joint" else ""
            lines.append(f"{table[n].sum() / total:.0%} {escape(label)}{extra}")
        first = f"<b>pulled along {name}</b>, {force_text(100.0, made.units)}: {movement_text(100 * total, made.units)}"
        columns.append("<br>".join((first, *lines)))
    return f'<table width="100%">{row(*columns)}</table>'


def _parts(made: Summary) -> str:
    prices = made.project.prices
    items = bill_of(made.candidate.machine, prices)
    half = (len(items) + 1) // 2
    head = row("", "mass", escape(prices.currency), head=True)
    columns = (head + "".join(_item(item, made) for item in part) for part in (items[:half], items[half:]))
    table = f'<table width="100%"><tr>{"".join(f"<td><table>{rows}</table></td>" for rows in columns)}</tr></table>'
    return table + _left_away(made)


def _left_away(made: Summary) -> str:
    """Return what was added to the machine or taken from it and does not stand, in lines."""
    fallen = not_standing(made.candidate.machine)
    said = [
        f"{escape(name_of(one))} is left away, it does not stand: {escape(fallen[one.id])}"
        for one in made.candidate.machine.changes if one.id in fallen
    ]  # fmt: skip
    return f"<p class='small'>{'<br>'.join(said)}</p>" if said else ""


def _item(item: Item, made: Summary) -> str:
    mass = mass_text(item.mass, made.units) if item.mass >= 0.05 else ""
    money = f"{item.money:.0f}" if item.priced else "no price"
    return row(escape(f"{whose(made.candidate.machine, item)}: {item_words(item, made.units)}"), mass, money)


def write_summary(path: Path, made: Summary) -> None:
    """Write the page, whole or not at all.

    Raises:
        UnterbauError: The file could not be written.
    """
    write_atomically(path, summary_html(made))
