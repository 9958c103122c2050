"""`unterbau propose PROJECT`: machines for the brief of a project, with their reasons."""

import dataclasses
import json
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--seconds", default=45.0, help="To look for them.")
@click.option("--kind", "among", multiple=True, help="Look among these only; several times.")
@click.option("--json", "as_json", is_flag=True, help="As JSON; N/m, kg, hours.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def propose(project: Path, seconds: float, among: tuple[str, ...], as_json: bool, target: str) -> None:
    """Print up to three unlike machines that meet the brief of PROJECT, or what it would take."""
    from unterbau.errors import InputError
    from unterbau.files.project_json import read_project
    from unterbau.studies.propose import propose as look

    if not 0.0 <= seconds <= 3600.0:
        raise InputError("--seconds", f"expected 0 to 3600, got {seconds:g}")
    opened = read_project(project)
    found = look(opened.brief, opened.prices, seconds, None, among)
    if as_json:
        rows = [
            {
                "kind": one.kind.id, "label": one.kind.label, "meets": one.meets, "reaches": one.reaches,
                "target": list(one.target),
                "stiffness": [[band.low, band.likely, band.high] for band in one.answers.worst],
                "mass": one.mass, "money": one.money, "hours": one.hours, "changes": list(one.changes),
                "conflicts": list(one.conflicts), "asks": list(one.asks), "reasons": list(one.reasons),
                "machine": dataclasses.asdict(one.machine),
            }
            for one in found.proposals
        ]  # fmt: skip
        data = {"met": found.met, "proposals": rows, "tried": list(found.tried), "instead": list(found.instead)}
        output.write(target, json.dumps(data, ensure_ascii=False, indent=1) + "\n")
        return
    lines = ["for this brief" if found.met else "nothing meets the brief; these come closest"]
    for one in found.proposals:
        how = "meets it" if one.meets else "does not meet it"
        lines.append(f"{one.kind.label} {how}: {one.reaches:.0%} of the stiffness, {one.mass:.0f} kg, {one.money:.0f} "
                     f"{opened.prices.currency}, {one.hours:.0f} h")  # fmt: skip
        lines += [f"  {words}" for words in one.reasons]
        lines += [f"  done to it: {words}" for words in one.changes]
        lines += [f"  ! {words}" for words in one.conflicts]
    lines += [f"it would take: {words}" for words in found.instead]
    output.write(target, "\n".join(lines) + "\n")
