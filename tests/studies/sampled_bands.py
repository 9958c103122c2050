"""Full samples of every demo's candidates, stored for the tests: `./dev bands [SAMPLES]`; some minutes."""

import json
import sys
from importlib.resources import files
from pathlib import Path

from unterbau.files.project_json import parse_project
from unterbau.structure.parts import Place
from unterbau.studies.spread import spread

STORED = Path(__file__).with_name("sampled_bands.json")
QUANTITIES = ("x", "y", "z", "mode")


def main(samples: int) -> None:
    """Draw every demo's first two candidates and store their 5 % and 95 % points."""
    found: dict[str, dict[str, tuple[float, float]]] = {}
    for demo in sorted(one.name for one in files("unterbau.demo").iterdir() if one.name.endswith(".unterbau")):
        project = parse_project((files("unterbau.demo") / demo).read_text(encoding="utf-8"))
        for one in project.candidates[:2]:
            full = spread(one.machine, Place(), samples)
            bands = {name: full.band(name) for name in QUANTITIES}
            found[f"{demo}|{one.name}"] = {name: (band.low, band.high) for name, band in bands.items()}
            print(demo, one.name)  # noqa: T201
    STORED.write_text(json.dumps({"samples": samples, "bands": found}, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 400)
