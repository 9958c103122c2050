"""`unterbau search PROJECT SPACE.json`: the unbeaten designs of what may vary."""

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import click

from unterbau.cli import output
from unterbau.errors import InputError


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.argument("space", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--seconds", default=60.0, help="To look for them.")
@click.option("--json", "as_json", is_flag=True, help="As JSON; N/m, kg.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def search(project: Path, space: Path, candidate: str | None, seconds: float, as_json: bool, target: str) -> None:
    """Print the designs of a candidate of PROJECT that no other of SPACE beats in stiffness, mass and money.

    SPACE: `{"free": {"gantry_beam": {"section": ["rhs-80x80x4", "rhs-120x80x5"]}, "dimensions": {"x_stance": {"from":
    0.1, "to": 0.2, "steps": 3}}}, "bounds": {"mass": 150}, "goal": "stiffest"}`, in m and kg.
    """
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.files.search_json import read_space
    from unterbau.project.custom_sections import custom_refs
    from unterbau.sections.solved import CustomSection
    from unterbau.studies.search import search as look
    from unterbau.studies.search_workers import SIDE_BY_SIDE

    if not 0.1 <= seconds <= 36000.0:
        raise InputError("--seconds", f"expected 0.1 to 36000, got {seconds:g}")
    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    free, bounds, goal = read_space(space)
    own = {one.name: one for one in custom_refs(opened.candidates)}
    free = tuple(replace(one, values=tuple(own.get(str(value), value) for value in one.values)) for one in free)
    found = look(chosen.machine, free, bounds, goal, opened.prices, seconds, processes=SIDE_BY_SIDE)

    def plain(value: Any) -> Any:
        return value.name if isinstance(value, CustomSection) else value

    if as_json:
        rows: list[dict[str, Any]] = [
            {
                "values": {f"{a.key}.{a.field}": plain(b) for a, b in zip(free, s.design.choice, strict=True)},
                "stiffness": list(s.design.stiffness), "mass": s.design.mass, "money": s.design.money,
                "worst": [[band.low, band.likely, band.high] for band in s.worst], "first_mode": s.mode,
            }
            for s in found.unbeaten
        ]  # fmt: skip
        data = {
            "candidate": chosen.name, "tried": found.tried, "of": found.of, "whole": found.whole,
            "impossible": found.impossible, "shared": list(found.shared), "unbeaten": rows,
        }  # fmt: skip
        output.write(target, json.dumps(data, ensure_ascii=False, indent=1) + "\n")
        return
    whole = "all" if found.whole else f"of {found.of:,}"
    lines = [f"{chosen.name}: {found.tried} designs ({whole}), {len(found.unbeaten)} unbeaten"]
    for s in found.unbeaten:
        values = ", ".join(str(value) for value in s.design.choice)
        x, y, z = (value / 1e6 for value in s.design.stiffness)
        lines.append(f"  {x:.2f} {y:.2f} {z:.2f} N/µm, {s.design.mass:.1f} kg, {s.design.money:.0f}: {values}")
    lines += [f"  {words}" for words in found.shared]
    output.write(target, "\n".join(lines) + "\n")
