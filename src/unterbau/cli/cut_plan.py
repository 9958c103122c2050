"""`unterbau cut-plan SOURCE`: which pieces are sawn from which bars, proven."""

import csv
import json
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from unterbau.cli import output
from unterbau.errors import InputError
from unterbau.sections.solved import section_name

if TYPE_CHECKING:
    from unterbau.shop.cut_plan import CutPlan, Stock, Wanted

MM = 1e-3
LONGEST = 100_000
"""Lines of a list of pieces."""


@click.command("cut-plan")
@click.argument("source", type=click.Path(path_type=Path))
@click.option("--stock", "stocks", multiple=True, help="LENGTH[:PRICE] of a bar on offer, mm; several times.")
@click.option("--kerf", default=0.0, help="Width of a saw cut, mm.")
@click.option("--trim", default=0.0, help="Cut off each end of a bar, mm.")
@click.option("--candidate", help="Of a project: name of the candidate; the benchmark when left out.")
@click.option("--json", "as_json", is_flag=True, help="As JSON, in mm.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def cut_plan(
    source: Path, stocks: tuple[str, ...], kerf: float, trim: float, candidate: str | None, as_json: bool, target: str
) -> None:
    """Print the cheapest set of bars for a project, or for a CSV of name, length in mm, count."""
    from unterbau.shop.bars import USUAL
    from unterbau.shop.cut_plan import Stock, cut_plan

    offers = tuple(_offer(one) for one in stocks) or (Stock(USUAL),)
    if source.suffix.lower() == ".csv":
        with output.quiet():
            plan = cut_plan(_read(source), offers, kerf * MM, trim * MM)
        data = _plain(plan)
        text = "\n".join(_lines(plan))
    else:
        data, text = _of_project(source, candidate, offers if stocks else (), kerf * MM, trim * MM)
    output.write(target, (json.dumps(data, ensure_ascii=False, indent=1) if as_json else text) + "\n")


def _of_project(
    source: Path, candidate: str | None, offers: "tuple[Stock, ...]", kerf: float, trim: float
) -> tuple[dict[str, Any], str]:
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.machine.machine import lay_out
    from unterbau.materials.material import material
    from unterbau.shop.bars import bar_plans
    from unterbau.shop.pieces import pieces_of

    chosen = candidate_named(read_project(source), candidate)
    pieces = pieces_of(lay_out(chosen.machine))
    sawn = [one for one in pieces if one.sort == "bar"]
    stocks = {(section_name(one.section), one.material): offers for one in sawn} if offers else {}
    with output.quiet():
        plans = bar_plans(pieces, stocks, kerf, trim)
    rows, lines = [], [f"{chosen.name}: bars to be sawn"]
    for one in plans:
        if one.plan is None:
            raise InputError(f"{one.stock}, {one.problem.split(':')[0]}", one.problem.partition(": ")[2])
        rows.append({"section": one.section, "material": one.material, **_plain(one.plan)})
        lines += [f"{one.stock}, {material(one.material).label}", *(f"  {line}" for line in _lines(one.plan))]
    return {"candidate": chosen.name, "sections": rows, "bars": sum(row["bars"] for row in rows)}, "\n".join(lines)


def _plain(plan: "CutPlan") -> dict[str, Any]:
    priced = any(bar.stock.price for bar in plan.bars)
    return {
        "bars": len(plan.bars), "bound": plan.least_bars, "proven": plan.proven,
        "cost": plan.cost if priced else None, "cost_bound": plan.least if priced else None,
        "setups": plan.setups, "waste": plan.waste, "kerf": plan.kerf / MM, "trim": plan.trim / MM,
        "plan": [
            {"length": bar.stock.length / MM, "pieces": list(bar.pieces), "left": round(bar.left / MM, 3)}
            for bar in plan.bars
        ],
    }  # fmt: skip


def _lines(plan: "CutPlan") -> list[str]:
    count = len(plan.bars)
    proven = "no plan is cheaper (proven)" if plan.proven else f"no plan is cheaper than {plan.least:g} (proven)"
    lines = [f"{count} bar{'s' if count != 1 else ''}, {plan.setups} set-ups; {proven}; waste {plan.waste:.1%}"]
    return lines + [f"{bar.stock.length / MM:g}: {' '.join(bar.pieces)}, {bar.left / MM:.0f} left" for bar in plan.bars]


def _offer(text: str) -> "Stock":
    from unterbau.shop.cut_plan import Stock

    length, _, price = text.partition(":")
    try:
        return Stock(float(length) * MM, float(price) if price else 0.0)
    except ValueError:
        raise InputError("--stock", f'expected LENGTH or LENGTH:PRICE in mm, got "{text}"') from None


def _read(source: Path) -> "tuple[Wanted, ...]":
    """Return the pieces of a CSV; a heading is passed over.

    Raises:
        InputError: Names the line.
    """
    from unterbau.files.atomic import read_text
    from unterbau.shop.cut_plan import Wanted

    found: list[Wanted] = []
    for number, row in enumerate(csv.reader(read_text(source).removeprefix("\ufeff").splitlines()), 1):
        cells = [cell.strip() for cell in row]
        if not any(cells) or (number == 1 and [cell.lower() for cell in cells[:3]] == ["name", "length", "count"]):
            continue
        if number > LONGEST:
            raise InputError(f"{source.name}, line {number}", f"expected at most {LONGEST} lines")
        try:
            name, length, count = cells[:3]
            found.append(Wanted(name, float(length) * MM, int(count)))
        except ValueError:
            raise InputError(
                f"{source.name}, line {number}", f'expected name, length in mm, count; got "{", ".join(cells)}"'
            ) from None
    return tuple(found)
