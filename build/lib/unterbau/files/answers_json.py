"""Answers as plain data and as text for a terminal."""

import dataclasses
import json
from typing import Any

from unterbau.band import Band
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import cost_of, links
from unterbau.mechanics.frame import CAUSES
from unterbau.project.project import Candidate
from unterbau.studies.answers import CORNERS, Answers
from unterbau.units import number_text

AXES = ("x", "y", "z")


def answers_data(candidate: Candidate, answers: Answers, prices: PriceBook) -> dict[str, Any]:
    """Return answers as JSON data: SI units, each prediction as low, likely, high."""
    likely = answers.likely
    labels = {link.key: link.label for link in links(candidate.machine)}
    path = {
        axis: [
            {
                "link": key,
                "label": labels.get(key, key),
                "compliance": float(rows.sum()),
                "share": float(rows.sum() / likely.compliance[a, a]),
                "causes": dict(zip(CAUSES, rows.tolist(), strict=True)),
            }
            for key, rows in zip(likely.shares.keys, likely.shares.compliance[a], strict=True)
        ]
        for a, axis in enumerate(AXES)
    }
    return {
        "candidate": candidate.name,
        "place": {"x": 0.5, "y": 0.5, "z": 0.0},
        "stiffness": _axes(answers.stiffness),
        "stiffness_at_nose": _axes(answers.nose),
        "softest": {"direction": list(answers.direction), "stiffness": dataclasses.asdict(answers.softest)},
        "weakest_of_the_travel": {
            axis: {**dataclasses.asdict(band), "place": dataclasses.asdict(at)}
            for axis, band, at in zip(AXES, answers.worst, answers.worst_places, strict=True)
        },
        "compliance": likely.compliance.tolist(),
        "load_path": path,
        "droop": {
            "range": dataclasses.asdict(answers.droop),
            "tool_against_feet": dataclasses.asdict(answers.sag),
            "places": [
                {
                    "x": x,
                    "y": y,
                    **{level: answers.droops[n][k] for n, level in enumerate(("low", "likely", "high"))},
                }
                for k, (x, y) in enumerate(CORNERS)
            ],
        },
        "modes": [dataclasses.asdict(mode) for mode in answers.modes],
        "mode_at_the_tool": dataclasses.asdict(answers.headline) if answers.headline else None,
        "hurry": {
            one.axis: {"moved": one.mass, "left_behind_per_acceleration": dataclasses.asdict(one.left_behind)}
            for one in answers.hurry
        },
        "mass": likely.mass,
        "moving_mass": likely.moving,
        "money": cost_of(candidate.machine, prices).money,
        "currency": prices.currency,
        "prices_of": prices.date,
    }


def _axes(bands: tuple[Band, Band, Band]) -> dict[str, dict[str, float]]:
    return {axis: dataclasses.asdict(band) for axis, band in zip(AXES, bands, strict=True)}


def as_json_text(data: dict[str, Any]) -> str:
    """Return the data as JSON text."""
    return json.dumps(data, indent=1, ensure_ascii=False, allow_nan=False) + "\n"


def answers_text(data: dict[str, Any]) -> str:
    """Return the data as a few lines for a terminal."""
    lines = [data["candidate"], "head: middle, middle, lowest"]
    for axis in AXES:
        s, n = data["stiffness"][axis], data["stiffness_at_nose"][axis]
        lines.append(
            f"{axis.upper()} {number_text(s['likely'] / 1e6, 3):>8} N/µm  "
            f"({number_text(s['low'] / 1e6, 3)} to {number_text(s['high'] / 1e6, 3)}), "
            f"at the nose {number_text(n['likely'] / 1e6, 3)}"
        )
    for axis in AXES:
        top = sorted(data["load_path"][axis], key=lambda row: -row["share"])[:4]
        lines.append(f"{axis.upper()} from: " + ", ".join(f"{row['label']} {row['share']:.0%}" for row in top))
    d = data["droop"]["range"]
    lines.append(
        f"droop {d['likely'] * 1e6:.1f} µm ({d['low'] * 1e6:.1f} with soft joints, {d['high'] * 1e6:.1f} with stiff)"
    )
    lines.append("modes " + ", ".join(f"{m['frequency']['likely']:.0f} Hz ({m['moves']})" for m in data["modes"][:6]))
    lines.append(
        f"mass {data['mass']:.1f} kg, money {data['money']:.0f} {data['currency']}, prices of {data['prices_of']}"
    )
    return "\n".join(lines) + "\n"
