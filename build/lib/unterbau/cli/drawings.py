"""`unterbau drawings PROJECT -o FOLDER`: dimensioned sheets, templates, DXF, SVG, cut plans with labels, meshes."""

from datetime import date
from pathlib import Path

import click


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("-o", "--output", "folder", required=True, type=click.Path(path_type=Path), help="Folder to write into.")
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
def drawings(project: Path, folder: Path, candidate: str | None) -> None:
    """Write all that a shop wants of a candidate of PROJECT.

    `pieces.pdf` (a dimensioned sheet each), `cut-plan-and-labels.pdf`, `quote.pdf`; for each piece DXF and SVG at full
    size, and templates over A4 pages; a DXF for each sheet; the machine as glTF and STL.
    """
    from unterbau.files.drawings import Wanted, write_all
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.rail_tolerance import rails_bear

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    wanted = Wanted(
        opened.name, chosen.name, chosen.machine, opened.shop, opened.brief.tools, rails_bear(chosen.machine),
        opened.units, date.today().isoformat(),
    )  # fmt: skip
    written = write_all(folder, wanted)
    click.echo(f"{chosen.name}: {len(written)} files in {folder}")
    for path in written:
        click.echo(f"  {path.name}")
