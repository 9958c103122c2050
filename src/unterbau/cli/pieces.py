"""`unterbau pieces PROJECT`: every piece as it is cut, with ends and holes."""

import json
from pathlib import Path

import click

from unterbau.cli import output
from unterbau.sections.solved import section_name


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON, in metres and kilograms.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def pieces(project: Path, candidate: str | None, as_json: bool, target: str) -> None:
    """Print the bars, plates and rounds that a candidate of PROJECT is made of."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.machine.item_words import text_words
    from unterbau.machine.machine import lay_out
    from unterbau.materials.material import material
    from unterbau.shop.by_eye import unsettled
    from unterbau.shop.fasteners import fasteners_of
    from unterbau.shop.pieces import hole_words, pieces_of
    from unterbau.units import length_text, mass_text

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    structure, units = lay_out(chosen.machine), opened.units
    found, screws = pieces_of(structure), fasteners_of(structure)
    if as_json:
        rows = [
            {
                "label": one.label, "names": list(one.names), "count": one.count, "part": one.part, "sort": one.sort,
                "stock": one.stock, "section": section_name(one.section) or None,
                "material": one.material, "length": one.length,
                "width": one.width or None, "thickness": one.thickness or None,
                "ends": [{"angle": end.angle, "against": end.joined or None} for end in one.ends],
                "holes": [
                    {"face": hole.face, "x": hole.x, "y": hole.y, "sort": hole.sort, "screw": hole.screw,
                     "diameter": hole.diameter, "of": hole.of}
                    for hole in one.holes
                ],
                "mass": one.mass, "net_mass": one.mass - one.drilled,
            }
            for one in found
        ]  # fmt: skip
        fasteners = [{"what": one.words, "count": one.count, "of": list(one.of)} for one in screws]
        told = {
            "candidate": chosen.name, "pieces": rows, "fasteners": fasteners, "unsettled": list(unsettled(structure)),
        }  # fmt: skip
        output.write(
            target,
            json.dumps(told, ensure_ascii=False, indent=1) + "\n",
        )
        return
    lines = [f"{chosen.name}: {sum(one.count for one in found)} pieces of {len(found)} sorts"]
    for one in found:
        size = length_text(one.length, units)
        size += f" × {length_text(one.width, units)}" if one.width else ""
        angles = ", ".join(f"{end.angle:g}°" for end in one.ends if end.angle)
        mitred = f", mitred {angles}" if angles else ""
        lines.append(
            f"{one.label:3}{one.count} × {one.stock}, {material(one.material).label}, {size}{mitred}, "
            f"{mass_text(one.mass, units)} each: {', '.join(one.names)}"
        )
        words: dict[str, int] = {}
        for hole in one.holes:
            words[hole_words(hole)] = words.get(hole_words(hole), 0) + 1
        lines += [f"     {count} × {text}" for text, count in words.items()]
    lines.append("screws that the machine sets, with what goes with them")
    lines += [f"   {one.count} × {one.words}: {', '.join(one.of)}" for one in screws]
    lines += ["to be settled before drilling", *(f"   {text_words(text, units)}" for text in unsettled(structure))]
    output.write(target, "\n".join(lines) + "\n")
