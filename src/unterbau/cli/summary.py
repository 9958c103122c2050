"""`unterbau summary`: the one-page summary of a candidate as HTML."""

from datetime import date
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark if not given.")
@click.option("-o", "target", required=True, type=click.Path(path_type=Path), help="The HTML file to write.")
def summary(project: Path, candidate: str | None, target: Path) -> None:
    """Write one page about a candidate: figures with bands, load path, parts, assumptions."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.files.summary_html import Summary, write_summary
    from unterbau.structure.parts import Place
    from unterbau.studies.answers import answers
    from unterbau.studies.purchase.checks import checks

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    place = Place()
    found = answers(chosen.machine, place)
    when = date.today().isoformat()
    checked = checks(chosen.machine, opened.brief, opened.units)
    write_summary(output.checked(target), Summary(opened, chosen, found, place, when, opened.units, b"", checked))
