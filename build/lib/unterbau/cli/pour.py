"""`unterbau pour PROJECT`: what is filled, the mix, batches, lifts with temperatures, what it gains."""

import json
import math
from pathlib import Path
from typing import Any

import click

from unterbau.cli import output


@click.command()
@click.argument("project", type=click.Path(path_type=Path))
@click.option("--candidate", help="Name of the candidate; the benchmark when left out.")
@click.option("--part", help="Link whose hollows are filled, or `mould`; the largest hollow, or what is planned.")
@click.option("--no-gain", is_flag=True, help="Leave the machine before and after away.")
@click.option("--json", "as_json", is_flag=True, help="As JSON, in metres, kilograms, degrees Celsius, hours.")
@click.option("-o", "--output", "target", default="-", help="File; `-` is standard output.")
def pour(project: Path, candidate: str | None, part: str | None, no_gain: bool, as_json: bool, target: str) -> None:
    """Print how a candidate of PROJECT is filled or cast, as it is planned in the Pour station or as is usual."""
    from unterbau.files.project_json import candidate_named, read_project
    from unterbau.studies.cutting import chosen_cut
    from unterbau.studies.pouring import poured

    opened = read_project(project)
    chosen = candidate_named(opened, candidate)
    cut = chosen_cut(opened.cut, opened.own_cut)
    found = poured(chosen.machine, opened.shop, chosen.name, opened.prices, cut, part, not no_gain)
    if as_json:
        output.write(target, json.dumps(_data(found), ensure_ascii=False, indent=1) + "\n")
        return
    lines = [f"{chosen.name}: {found.plan.sort} in the {found.plan.part.replace('_', ' ')}"]
    lines.append(f"  {found.mix.volume * 1e3:.1f} litres, {found.mix.mass:.1f} kg, {found.mix.money:.0f}")
    lines += [f"  {one.mass:8.2f} kg  {one.name}" for one in found.mix.parts]
    lines.append(f"  {found.mix.batches} batches of {found.mix.batch:.1f} kg (by {found.mix.ends_by})")
    for lift in found.cure.lifts:
        lines.append(f"  lift {lift.number + 1} after {lift.at / 3600:.1f} h: {lift.thickness * 1e3:.0f} mm, "
                     f"{lift.peak:.0f} °C")  # fmt: skip
    lines += [f"  {one.when:%Y-%m-%d %H:%M}  {one.words}" for one in found.cure.events]
    lines += [f"  ! {words}" for words in found.problems]
    lines += [f"  {found.gain.words}"] if found.gain is not None else []
    lines.append(f"  {found.caution}")
    output.write(target, "\n".join(lines) + "\n")


def _data(found: Any) -> dict[str, Any]:
    plan, mix, cure = found.plan, found.mix, found.cure
    return {
        "candidate": plan.candidate, "part": plan.part, "sort": plan.sort,
        "cavities": [
            {"part": one.part, "pieces": list(one.names), "volume": one.volume, "screws": one.screws,
             "length": one.length, "inside": list(one.inside), "wall": one.wall, "filled": one.filled or None}
            for one in found.cavities
        ],
        "mix": {
            "volume": mix.volume, "mass": mix.mass, "density": mix.density, "money": mix.money,
            "resin_share": mix.resin or None, "resin_needed": mix.needed or None,
            "voids": plan.voids or (mix.packing.voids if mix.packing else None),
            "strength": mix.strength or None,
            "parts": [{"name": one.name, "mass": one.mass, "money": one.money} for one in mix.parts],
            "fractions": list(mix.packing.shares) if mix.packing else None,
        },
        "batches": {"count": mix.batches, "mass": mix.batch, "ends_by": mix.ends_by},
        "lifts": [
            {"number": one.number + 1, "after_hours": one.at / 3600, "thickness": one.thickness, "peak": one.peak,
             "peak_after_hours": one.peak_at / 3600, "gradient": one.gradient,
             "gels_after_hours": one.gels / 3600 if math.isfinite(one.gels) else None}
            for one in cure.lifts
        ],
        "adiabatic_rise": cure.rise,
        "events": [{"when": one.when.isoformat(timespec="minutes"), "what": one.words} for one in cure.events],
        "warnings": list(found.problems),
        "form": [
            {"panel": one.name, "pressure": one.pressure, "bows": one.bows, "brace": one.brace,
             "brace_for_flatness": one.for_flatness}
            for one in found.panels
        ],
        "inserts": [
            {"thread": one.thread, "bond": list(one.bond), "cone": list(one.cone), "problem": one.problem or None}
            for one in found.pull_outs
        ],
        "gain": None if found.gain is None else {
            "before": _figures(found.gain.before), "after": _figures(found.gain.after),
            "larger": None if found.gain.larger is None else {
                "section": found.gain.larger.words, "stiffness": list(found.gain.larger.stiffness),
                "mass": found.gain.larger.mass, "money": found.gain.larger.money,
            },
            "words": found.gain.words,
        },
        "caution": found.caution,
    }  # fmt: skip


def _figures(one: Any) -> dict[str, Any]:
    return {
        "stiffness": list(one.stiffness), "droop": one.droop, "first_mode": one.mode, "damping": one.zeta,
        "chatter_depth": one.depth if math.isfinite(one.depth) else None, "mass": one.mass, "money": one.money,
        "heaviest": one.heaviest,
    }  # fmt: skip
