"""Where a command's answer goes: a file, or `-` for standard output. Nothing is replaced that was not meant."""

import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import click

from unterbau.errors import UnterbauError
from unterbau.files.atomic import shown, write_atomically
from unterbau.files.project_json import SUFFIX

FORCE = "unterbau.force"
"""Key of the wish to replace existing files."""


def write(target: str, text: str) -> None:
    """Write text to a file, whole or not at all, or to standard output for `-`.

    Raises:
        UnterbauError: The file must not be replaced, or cannot be written.
    """
    if target == "-":
        sys.stdout.write(text)
        sys.stdout.flush()
    else:
        write_atomically(checked(Path(target)), text)


def checked(path: Path) -> Path:
    """Return a path that may be written to.

    Raises:
        UnterbauError: It is an input of the command, a project, no regular file, or there already and not to be
            replaced.
    """
    if path.exists() and not path.is_file():
        raise UnterbauError(f"{shown(path)} is no regular file; expected the name of a file, or - for standard output")
    if not path.exists():
        return path
    context = click.get_current_context(silent=True)
    if any(_same(path, one) for one in _inputs(context)):
        raise UnterbauError(f"{shown(path)} is an input of this command and was left as it is")
    if path.suffix.lower() == SUFFIX:
        raise UnterbauError(f"{shown(path)} is a project and was left as it is; expected another name")
    if context is None or not context.meta.get(FORCE):
        raise UnterbauError(f"{shown(path)} is there already and was left as it is; --force replaces it")
    return path


def with_force(command: click.Command) -> click.Command:
    """Return a command that writes files with the option `--force`."""
    if any(one.name in ("target", "dxf", "svg") for one in command.params):
        command.params.append(click.Option(
            ["--force"], is_flag=True, expose_value=False, callback=_on_force, help="Replace an existing file.",
        ))  # fmt: skip
    return command


def _on_force(context: click.Context, _parameter: click.Parameter, value: bool) -> None:
    context.meta[FORCE] = value


def _inputs(context: click.Context | None) -> Iterator[Path]:
    """Yield the files that a command reads: its arguments, and what its options name but for outputs."""
    if context is None:
        return
    outputs = {"target", "dxf", "svg", "folder"}
    values: dict[str, Any] = {name: value for name, value in context.params.items() if name not in outputs}
    for value in values.values():
        for one in value if isinstance(value, tuple) else (value,):
            if isinstance(one, Path):
                yield one


def _same(a: Path, b: Path) -> bool:
    try:
        return a.samefile(b)
    except OSError:
        return False


@contextmanager
def quiet() -> Iterator[None]:
    """Keep what a library's own code writes to standard output away from it meanwhile."""
    sys.stdout.flush()
    kept, nowhere = os.dup(1), os.open(os.devnull, os.O_WRONLY)
    try:
        os.dup2(nowhere, 1)
        yield
    finally:
        os.dup2(kept, 1)
        os.close(kept)
        os.close(nowhere)
