"""`unterbau frame solve` and `unterbau frame export`."""

import json
from pathlib import Path

import click

from unterbau.cli import output


@click.group()
def frame() -> None:
    """Analysis models as files, to check a prediction with another program."""


@frame.command()
@click.argument("source", metavar="IN", type=click.Path(path_type=Path))
@click.option("-o", "--output", "target", default="-", help="Result file; `-` is standard output.")
def solve(source: Path, target: str) -> None:
    """Solve the frame file IN."""
    from unterbau.files.atomic import read_text
    from unterbau.files.frame_json import read_frame, solve_document

    result = solve_document(read_frame(read_text(source)))
    output.write(target, json.dumps(result, indent=1, allow_nan=False) + "\n")


@frame.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("-o", "--output", "target", default="-", help="Frame file; `-` is standard output.")
def export(project: Path, candidate: str | None, target: str) -> None:
    """Write the analysis model of a candidate of PROJECT."""
    from unterbau.files.frame_json import document_text, to_document
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.loads import CASES, standard_loads

    chosen = candidate_named(read_project(project), candidate)
    built, loads = standard_loads(chosen.machine)
    output.write(target, document_text(to_document(built, loads, CASES, modes=6)))
