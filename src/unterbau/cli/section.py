"""`unterbau section NAME`: what a cross-section is and does."""

from pathlib import Path
from typing import TYPE_CHECKING

import click

from unterbau.cli import output
from unterbau.errors import InputError
from unterbau.sections.names import NAMES

if TYPE_CHECKING:
    from unterbau.sections.section import Section
    from unterbau.sections.solved import CustomSection

EPILOG = "\b\nNAME is one of, with your own sizes in millimetres:\n" + "\n".join(
    f"  {name:16} {meaning}" for name, meaning in NAMES.items()
)


@click.command(epilog=EPILOG)
@click.argument("name", required=False)
@click.option("--json", "as_json", is_flag=True, help="SI units, as JSON.")
@click.option("--from", "source", type=click.Path(path_type=Path), help="A drawn section, DXF or text, for NAME.")
@click.option("--unit", type=click.Choice(["mm", "cm", "m", "inch"]), help="Of a drawing that does not say.")
@click.option("--dxf", type=click.Path(path_type=Path), help="Write the outline as a drawing.")
@click.option("--svg", type=click.Path(path_type=Path), help="Write the outline as a picture.")
@click.option("--rebuild", is_flag=True, help="Solve the shipped slotted profiles anew (minutes).")
def section(
    name: str | None, as_json: bool, source: Path | None, unit: str | None, dxf: Path | None, svg: Path | None,
    rebuild: bool,
) -> None:  # fmt: skip
    """Print the properties of the section NAME."""
    if rebuild:
        _rebuild()
        return
    drawn = _drawn(source, unit) if source is not None else None
    if name is None and drawn is None:
        raise InputError("NAME", "expected the name of a section, for example shs-60x60x4")
    import dataclasses
    import json

    from unterbau.sections.section import section as section_named

    found = section_named(drawn or name or "")
    p = found.properties
    _write(found, dxf, svg)
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


def _drawn(source: Path, unit: str | None) -> "CustomSection":
    """Solve a drawn section."""
    from unterbau.files.atomic import read_text
    from unterbau.files.drawn_section import solve_drawn
    from unterbau.files.section_dxf import read_dxf
    from unterbau.files.section_text import read_section_text
    from unterbau.sections.solved import CustomSection

    drawing = read_dxf(source) if source.suffix.lower() == ".dxf" else read_section_text(read_text(source))
    if not drawing.unit:
        if unit is None:
            raise InputError(str(source), "does not say its unit; expected --unit mm, cm, m or inch")
        drawing = drawing.in_unit(unit)
    for fault in drawing.faults:
        raise InputError(f"{source}: x {fault.x:.3f}, y {fault.y:.3f} mm", fault.text)
    for line in drawing.report:
        click.echo(line, err=True)
    return CustomSection(solve_drawn(drawing, source.stem))


def _write(found: "Section", dxf: Path | None, svg: Path | None) -> None:
    from unterbau.files.atomic import write_atomically
    from unterbau.files.section_dxf import dxf_text, svg_text

    if dxf is not None:
        write_atomically(output.checked(dxf), dxf_text(found))
    if svg is not None:
        write_atomically(output.checked(svg), svg_text(found))


def _rebuild() -> None:
    from importlib.resources import files

    from unterbau.files.atomic import write_atomically
    from unterbau.sections import building, cache, solved

    for name, text in ((cache.FILE, cache.rebuild()), (solved.FILE, building.rebuild())):
        target = Path(str(files("unterbau.sections") / name))
        write_atomically(target, text)
        click.echo(f"written: {target}")
