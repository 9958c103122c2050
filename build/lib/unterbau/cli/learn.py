"""`unterbau learn PROJECT`: what the tests on the built machine teach about its joints."""

import json
from pathlib import Path

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON; N/m, Hz, kg, stiffness against the likely.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def learn(project: Path, candidate: str | None, as_json: bool, target: str) -> None:
    """Print the machine as built, by the tests that PROJECT holds of a candidate; without tests, as predicted."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.learning.learn import learn as taught

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    tests = tuple(one for one in opened.shop.tests if one.candidate == chosen.name)
    found = taught(chosen.machine, tests)
    if as_json:
        data = {
            "candidate": chosen.name, "tests": len(tests),
            "stiffness_before": [[b.low, b.likely, b.high] for b in found.stiffness_before],
            "stiffness": [[b.low, b.likely, b.high] for b in found.stiffness],
            "unknowns": [
                {"part": one.key, "label": one.label, "prior": [one.prior.low, one.prior.likely, one.prior.high],
                 "posterior": [one.posterior.low, one.posterior.likely, one.posterior.high],
                 "chance_loose": one.chance_loose, "loose": one.loose, "together": list(one.together)}
                for one in found.unknowns
            ],
            "loose": [list(group) for group in found.loose],
            "suspected": [{"part": key, "chance": chance} for key, chance in found.suspected],
            "compared": [
                {"sort": one.test.sort, "axis": one.test.axis if one.test.sort == "push" else None,
                 "measured": one.test.value, "before": one.before, "after": one.after, "surprise": one.surprise}
                for one in found.compared
            ],
            "next_test": found.next_test or None,
        }  # fmt: skip
        output.write(target, json.dumps(data, ensure_ascii=False, indent=1, default=float) + "\n")
        return
    lines = [f"{chosen.name}: {len(tests)} tests"]
    for name, a, b in zip("XYZ", found.stiffness_before, found.stiffness, strict=True):
        lines.append(f"  {name} {a.likely / 1e6:.2f} ({a.low / 1e6:.2f} to {a.high / 1e6:.2f}) → {b.likely / 1e6:.2f} "
                     f"({b.low / 1e6:.2f} to {b.high / 1e6:.2f}) N/µm")  # fmt: skip
    for one in found.unknowns[:8]:
        after = one.posterior
        lines += [f"  {one.label}: {after.likely:.2f} of likely ({after.low:.2f} to {after.high:.2f})"]
    lines += [f"  probably loose: {' or '.join(group)}" for group in found.loose]
    lines += [f"  perhaps loose: {key} ({chance:.0%})" for key, chance in found.suspected]
    lines += [f"  next: {found.next_test}"] if found.next_test else []
    output.write(target, "\n".join(lines) + "\n")
