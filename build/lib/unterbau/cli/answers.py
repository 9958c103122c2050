"""`unterbau answers PROJECT`: what the readout and the load path show."""

from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="SI units, with bands, as JSON.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def answers(project: Path, candidate: str | None, as_json: bool, target: str) -> None:
    """Print stiffness, shares, droop, modes, mass and money of a candidate of PROJECT."""
    from unterbau.files.answers_json import answers_data, answers_text, as_json_text
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.structure.parts import Place
    from unterbau.studies.answers import answers as compute

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    found = compute(chosen.machine, Place())
    data = answers_data(chosen, found, opened.prices)
    output.write(target, as_json_text(data) if as_json else answers_text(data))
