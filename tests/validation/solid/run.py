"""Solve the solid cases with calculix-ccx, store their flexibilities: `python -m tests.validation.solid.run [NAME…]`.

By hand, not in CI: a minute a case. Debian: `apt-get install calculix-ccx`.
"""

import json
import sys
import tempfile
from pathlib import Path

from tests.validation.solid.cases import CASES, filled_in, solid

STORED = Path(__file__).with_name("results.json")


def main(names: list[str]) -> None:
    """Solve the named cases, or all."""
    for one in CASES:
        if names and one.name not in names:
            continue
        body = solid(one)
        with tempfile.TemporaryDirectory() as folder:
            F = body.flexibility(Path(folder), one.loaded)
        whole = filled_in(one, F)
        stored = json.loads(STORED.read_text(encoding="utf-8")) if STORED.exists() else {}
        stored[one.name] = [[float(f"{value:.6g}") for value in row] for row in whole]
        STORED.write_text(json.dumps(stored), encoding="utf-8")
        print(one.name, len(body.nodes), "nodes")  # noqa: T201


if __name__ == "__main__":
    main(sys.argv[1:])
