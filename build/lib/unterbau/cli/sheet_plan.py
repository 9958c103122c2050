"""`unterbau sheet-plan PROJECT`: which plates are cut from which sheets."""

import json
from pathlib import Path

import click

from unterbau.cli import output
from unterbau.errors import InputError

MM = 1e-3


@click.command("sheet-plan")
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--sheet", help="LENGTHxWIDTH of the sheets, mm; the usual ones of each material when left out.")
@click.option("--gap", default=5.0, help="Between plates, mm.")
@click.option("--border", default=10.0, help="Around a sheet, mm.")
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON, in mm.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def sheet_plan(
    project: Path, sheet: str | None, gap: float, border: float, candidate: str | None, as_json: bool, target: str
) -> None:
    """Print as few sheets as can be found for the plates of a candidate of PROJECT."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.machine.machine import lay_out
    from unterbau.materials.material import material
    from unterbau.shop.pieces import pieces_of
    from unterbau.shop.sheet_plan import Sheet
    from unterbau.shop.sheets import sheet_plans

    chosen = candidate_named(read_project(project), candidate)
    size = None
    if sheet is not None:
        try:
            long, wide = (float(part) for part in sheet.lower().replace("×", "x").split("x"))
        except ValueError:
            raise InputError("--sheet", f'expected LENGTHxWIDTH in mm, got "{sheet}"') from None
        size = Sheet(long * MM, wide * MM)
    rows, lines = [], [f"{chosen.name}: plates to be cut"]
    for one in sheet_plans(pieces_of(lay_out(chosen.machine)), lambda *_: size, gap * MM, border * MM):
        if one.plan is None:
            where, _, problem = one.problem.partition(": ")
            raise InputError(f"{one.stock}, {where}", problem)
        plan = one.plan
        rows.append({
            "stock": one.stock, "material": one.material, "sheets": len(plan.sheets), "bound": plan.least,
            "used": plan.used, "sheet": [plan.sheet.length / MM, plan.sheet.width / MM],
            "plan": [
                [{"name": laid.name, "x": laid.x / MM, "y": laid.y / MM, "length": laid.length / MM,
                  "width": laid.width / MM, "turned": laid.turned} for laid in row]
                for row in plan.sheets
            ],
        })  # fmt: skip
        count = len(plan.sheets)
        proven = "no plan has fewer" if plan.proven else f"no plan has fewer than {plan.least}"
        lines.append(
            f"{one.stock}, {material(one.material).label}: {count} sheet{'s' if count > 1 else ''} "
            f"{plan.sheet.length / MM:g} × {plan.sheet.width / MM:g}, {plan.used:.0%} used; {proven}"
        )
        lines += [
            "  " + ", ".join(f"{laid.name} at {laid.x / MM:.0f}, {laid.y / MM:.0f}" for laid in row)
            for row in plan.sheets
        ]
    data = {"candidate": chosen.name, "stocks": rows, "sheets": sum(row["sheets"] for row in rows)}  # type: ignore[misc]
    output.write(target, (json.dumps(data, ensure_ascii=False, indent=1) if as_json else "\n".join(lines)) + "\n")
