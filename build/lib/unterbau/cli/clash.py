"""`unterbau clash PROJECT`: what the lens Clash says."""

import json
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def clash(project: Path, candidate: str | None, as_json: bool, target: str) -> None:
    """Print what of a candidate of PROJECT collides on its travel, and which screws one cannot reach."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.access import access, reach_words
    from unterbau.studies.clash import ASSUMED, clashes, cures_of, spoken, where_words

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    found, reached = clashes(chosen.machine), access(chosen.machine)
    if as_json:
        rows = [
            {
                "first": one.first, "second": one.second, "parts": list(one.keys), "depth": one.depth,
                "axes": {
                    axis: {"from": one.low[n], "to": one.high[n], "travel": one.travel[n], "lost": one.lost(n)}
                    for n, axis in enumerate("XYZ") if one.moving[n]
                },
                "place": {"x": one.place.x, "y": one.place.y, "z": one.place.z},
                "where": where_words(one, opened.units), "cures": list(cures_of(one, chosen.machine, opened.units)),
            }
            for one in found.found
        ]  # fmt: skip
        screws = [
            {
                "of": one.of, "size": one.size, "free": one.free, "sometimes": one.sometimes, "never": one.never,
                "place": None if one.place is None else {"x": one.place.x, "y": one.place.y, "z": one.place.z},
                "hidden_by": list(one.hidden_by),
            }
            for one in reached
        ]  # fmt: skip
        data = {
            "candidate": chosen.name, "clashes": rows, "pairs": found.pairs, "meant": found.meant, "screws": screws,
            "assumed": ASSUMED,
        }  # fmt: skip
        output.write(target, json.dumps(data, ensure_ascii=False, indent=1) + "\n")
        return
    count = len(found.found)
    head = (
        "nothing collides" if not count else f"{count} pair{'s' if count > 1 else ''} collide{'' if count > 1 else 's'}"
    )
    lines = [f"{chosen.name}: {head}; {found.pairs} pairs looked at over the whole travel"]
    for one in found.found:
        lines.append(f"clash   {spoken(one.first)} and {spoken(one.second)}, {where_words(one, opened.units)}")
        lines += [f"        helps: {cure}" for cure in cures_of(one, chosen.machine, opened.units)]
    lines += [f"screws  {one.size} of {spoken(one.of)}: {reach_words(one)}" for one in reached]
    output.write(target, "\n".join([*lines, ASSUMED]) + "\n")
