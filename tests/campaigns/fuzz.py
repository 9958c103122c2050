"""`./dev fuzz [SECONDS] [SEED]`: mutated input through every reader, then random machines; prints what broke."""

import logging
import sys
from collections import Counter

from tests.campaigns import machines, readers


def main() -> int:
    """Run both for so many seconds each; return 1 where anything broke."""
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 60.0
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    logging.disable(logging.CRITICAL)  # readers of others' formats tell at length what they mend
    found: Counter[str] = Counter()
    for campaign in (readers.campaign, machines.campaign):
        for line in campaign(seconds, seed):
            if line.startswith("tried"):
                sys.stdout.write(f"{line}\n")
                continue
            short = line.split(";")[0]
            found[short] += 1
            if found[short] == 1:
                sys.stdout.write(f"{line}\n")
    sys.stdout.write(f"{sum(found.values())} faults of {len(found)} sorts\n")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
