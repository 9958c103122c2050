"""`unterbau section NAME`: what a cross-section is and does."""

import click

from unterbau.cli import output
from unterbau.errors import InputError
from unterbau.sections.names import NAMES

EPILOG = "\b\nNAME is one of, with your own sizes in millimetres:\n" + "\n".join(
    f"  {name:16} {meaning}" for name, meaning in NAMES.items()
)


@click.command(epilog=EPILOG)
@click.argument("name", required=False)
@click.option("--json", "as_json", is_flag=True, help="SI units, as JSON.")
@click.option("--rebuild", is_flag=True, help="Solve the shipped slotted profiles anew (minutes).")
def section(name: str | None, as_json: bool, rebuild: bool) -> None:
    """Print the properties of the section NAME."""
    if rebuild:
        _rebuild()
        return
    if name is None:
        raise InputError("NAME", "expected the name of a section, for example shs-60x60x4")
    import dataclasses
    import json

    from unterbau.sections.section import section as section_named

    found = section_named(name)
    p = found.properties
    if as_json:
        data = {"name": found.name, "label": found.label, "height": found.height, "width": found.width}
        output.write("-", json.dumps(data | dataclasses.asdict(p), indent=1, ensure_ascii=False) + "\n")
        return
    rows = (
        ("A", p.A * 1e4, "cm²"), ("Iy", p.Iy * 1e8, "cm⁴"), ("Iz", p.Iz * 1e8, "cm⁴"),
        ("Iyz", p.Iyz * 1e8, "cm⁴"), ("J", p.J * 1e8, "cm⁴"), ("Asy", p.Asy * 1e4, "cm²"), ("Asz", p.Asz * 1e4, "cm²"),
    )  # fmt: skip
    click.echo(f"{found.label}: {p.method}")
    for symbol, value, unit in rows:
        click.echo(f"{symbol:>4} {value:10.4g} {unit}")


def _rebuild() -> None:
    from importlib.resources import files
    from pathlib import Path

    from unterbau.files.atomic import write_atomically
    from unterbau.sections import cache

    target = Path(str(files("unterbau.sections") / cache.FILE))
    write_atomically(target, cache.rebuild())
    click.echo(f"written: {target}")
