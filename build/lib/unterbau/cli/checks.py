"""`unterbau checks PROJECT`: what the lens Checks says."""

import json
import math
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def checks(project: Path, candidate: str | None, as_json: bool, target: str) -> None:
    """Print what of a candidate of PROJECT will not do, before it is bought; the worst first."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.purchase.checks import checks as make

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    found = make(chosen.machine, opened.brief, opened.units)
    if as_json:
        rows = [
            {
                "part": one.key, "name": one.name, "verdict": one.verdict, "asked": one.asked, "working": one.working,
                "share": one.share if math.isfinite(one.share) else None, "cure": one.cure, "source": one.source,
            }
            for one in found
        ]  # fmt: skip
        data = {"candidate": chosen.name, "checks": rows}
        output.write(target, json.dumps(data, ensure_ascii=False, indent=1) + "\n")
        return
    lines = [f"{chosen.name}, before buying"]
    for one in found:
        untold = "cannot be told" if one.verdict == "unknown" else "depends on care"
        share = f"{one.share:.0%} of what it can" if math.isfinite(one.share) else untold
        lines += [f"{one.verdict:8}{one.name}: {share}", f"        asked: {one.asked}", f"        {one.working}"]
        lines += [f"        helps: {one.cure}"] if one.cure else []
    output.write(target, "\n".join(lines) + "\n")
