"""Opens the window, or hands a subcommand to the command line."""

import gc
import os
import sys

SUBCOMMANDS = {
    "frame", "section", "answers", "checks", "clash", "summary", "pieces", "cut-plan", "sheet-plan", "drawings", "pour",
    "steps", "tap", "learn", "propose", "search",
    "--help", "--version",
}  # fmt: skip


def main() -> None:
    """Run `unterbau [FILE]` or `unterbau SUBCOMMAND …`."""
    for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS", "MKL_NUM_THREADS"):
        os.environ.setdefault(name, "1")
    arguments = sys.argv[1:]
    if arguments and arguments[0] in SUBCOMMANDS:
        from unterbau.cli.main import run

        sys.exit(run(arguments))
    gc.disable()  # nothing that is loaded can be thrown away; the window collects for itself (`ui/jobs/garbage`)
    from unterbau.ui.shell.application import start

    sys.exit(start(arguments))


if __name__ == "__main__":
    main()
