"""`unterbau drawings PROJECT -o FOLDER`: a DXF for each plate, and for each bar that is drilled."""

from pathlib import Path

import click


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("-o", "--output", "folder", required=True, type=click.Path(path_type=Path), help="Folder to write into.")
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
def drawings(project: Path, folder: Path, candidate: str | None) -> None:
    """Write the pieces of a candidate of PROJECT as DXF: outline, holes and threads on layers, mm."""
    from unterbau.errors import UnterbauError
    from unterbau.files.piece_dxf import write_drawings
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.machine.machine import lay_out
    from unterbau.shop.pieces import pieces_of

    chosen = candidate_named(read_project(project), candidate)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise UnterbauError(f"{folder} cannot be made: {error.strerror}") from None
    written = write_drawings(folder, pieces_of(lay_out(chosen.machine)))
    click.echo(f"{chosen.name}: {len(written)} drawings in {folder}")
    for path in written:
        click.echo(f"  {path.name}")
