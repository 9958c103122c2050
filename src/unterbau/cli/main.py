"""The command `unterbau` and its subcommands."""

import sys
from io import TextIOWrapper

import click

from unterbau import __version__
from unterbau.cli.answers import answers
from unterbau.cli.checks import checks
from unterbau.cli.clash import clash
from unterbau.cli.cut_plan import cut_plan
from unterbau.cli.drawings import drawings
from unterbau.cli.frame import frame
from unterbau.cli.learn import learn
from unterbau.cli.output import with_force
from unterbau.cli.pieces import pieces
from unterbau.cli.pour import pour
from unterbau.cli.propose import propose
from unterbau.cli.search import search
from unterbau.cli.section import section
from unterbau.cli.sheet_plan import sheet_plan
from unterbau.cli.steps import steps
from unterbau.cli.summary import summary
from unterbau.cli.tap import tap
from unterbau.errors import UnterbauError


@click.group()
@click.version_option(__version__, prog_name="unterbau")
def unterbau() -> None:
    """See which part of a home-built machine will flex, before buying it."""


for _command in (
    frame, section, answers, checks, clash, summary, pieces, cut_plan, sheet_plan, drawings, pour, steps, tap, learn,
    propose, search,
):  # fmt: skip
    unterbau.add_command(with_force(_command) if not isinstance(_command, click.Group) else _command)
    if isinstance(_command, click.Group):
        for _inner in _command.commands.values():
            with_force(_inner)


def run(arguments: list[str]) -> int:
    """Run a subcommand and return the exit status: 0 done, 2 refused."""
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, TextIOWrapper):
            stream.reconfigure(errors="replace")  # a terminal that knows no µ shows a question mark
    try:
        unterbau.main(arguments, prog_name="unterbau", standalone_mode=False)
    except UnterbauError as error:
        sys.stderr.write(f"unterbau: {error}\n")
        return 2
    except click.ClickException as error:
        error.show()
        return error.exit_code
    except click.exceptions.Exit as stop:
        return stop.exit_code
    except click.Abort:
        return 130
    except Exception as error:  # a fault of ours: told in a sentence, never a traceback
        sys.stderr.write(f"unterbau: this could not be done ({type(error).__name__}: {error})\n")
        return 1
    return 0
