"""`unterbau steps PROJECT`: the steps of a build, in an order that holds, with dates and hold points."""

import json
from datetime import date, datetime
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--start", type=click.DateTime(["%Y-%m-%d"]), help="First evening; today when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON; metres, kilograms, hours.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def steps(project: Path, candidate: str | None, start: datetime | None, as_json: bool, target: str) -> None:
    """Print the steps in which a candidate of PROJECT is built, what each needs and when it can be done."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.building import build_schedule, build_steps

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    today = start.date() if start is not None else date.today()
    found = build_steps(chosen.machine, opened.shop, chosen.name, opened.brief, today)
    plan = build_schedule(found, opened.shop, chosen.name, today)
    if as_json:
        rows = [
            {
                "id": one.step.id, "words": one.step.words, "needs": list(one.step.needs), "hours": one.step.hours,
                "waits": one.step.waits, "start": one.start.isoformat(timespec="minutes"),
                "end": one.end.isoformat(timespec="minutes"), "ready": one.ready.isoformat(timespec="minutes"),
                "critical": one.critical, "reversible": one.step.reversible, "lifted": one.step.lifted or None,
                "people": one.step.people or None, "pieces": list(one.step.pieces),
                "hold": None if one.step.hold is None else {
                    "words": one.step.hold.words, "bench": one.step.hold.bench, "within": one.step.hold.within,
                    "why": one.step.hold.why,
                },
                "caution": one.step.caution or None,
            }
            for one in plan.rows
        ]  # fmt: skip
        data = {"candidate": chosen.name, "ready": plan.ready.isoformat(timespec="minutes"), "steps": rows}
        output.write(target, json.dumps(data, ensure_ascii=False, indent=1) + "\n")
        return
    lines = [f"{chosen.name}: {len(plan.rows)} steps, ready {plan.ready:%Y-%m-%d}"]
    for one in plan.rows:
        mark = "*" if one.critical else " "
        lines.append(f"{mark} {one.start:%a %d %b %H:%M}  {one.step.words}")
        if one.step.hold is not None:
            lines.append(f"      hold: {one.step.hold.words}, within {one.step.hold.within * 1e3:.2g} mm")
        lines += [f"      lift {one.step.lifted:.0f} kg: {one.step.people}"] if one.step.people else []
        lines += [f"      {one.step.caution}"] if one.step.caution else []
    output.write(target, "\n".join(lines) + "\n")
