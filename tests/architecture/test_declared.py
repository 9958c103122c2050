"""Each package that is imported is declared, and the pinned set is complete: a fresh installation starts."""

import ast
import re
import sys
import tomllib
from importlib.metadata import distribution, packages_distributions
from pathlib import Path

from packaging.requirements import Requirement

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "unterbau"


def imported() -> dict[str, str]:
    """Return each top-level module that the program imports from elsewhere, and one file that does."""
    found: dict[str, str] = {}
    for path in SOURCE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            names = [alias.name for alias in node.names] if isinstance(node, ast.Import) else []
            names += [node.module or ""] if isinstance(node, ast.ImportFrom) else []
            found.update((name.partition(".")[0], path.name) for name in names)
    return {name: file for name, file in found.items() if name not in {*sys.stdlib_module_names, "unterbau"}}


def declared() -> list[Requirement]:
    data = tomllib.loads((ROOT / "pyproject.toml").read_text())
    return [Requirement(text) for text in data["project"]["dependencies"]]


def canonical(name: str) -> str:
    return re.sub(r"[-_.]+", "-", name).lower()


def pinned() -> set[str]:
    rows = (ROOT / "requirements.txt").read_text().splitlines()
    return {canonical(row.partition("==")[0]) for row in rows if "==" in row}


def test_every_imported_package_is_declared() -> None:
    known = {canonical(one.name) for one in declared()}
    of = packages_distributions()
    missing = {
        f"{module} (in {file})"
        for module, file in imported().items()
        if not known & {canonical(name) for name in of.get(module, [])}
    }
    assert not missing, f"imported and not declared in pyproject.toml: {missing}"


def test_every_declared_package_is_imported() -> None:
    of = packages_distributions()
    used = {canonical(name) for module in imported() for name in of.get(module, [])}
    assert {canonical(one.name) for one in declared()} <= used


def test_the_pinned_set_holds_all_that_the_declared_packages_need() -> None:
    """`requirements.txt` is installed without looking for more, so it is complete."""
    waiting, seen = [canonical(one.name) for one in declared()], set()
    while waiting:
        name = waiting.pop()
        if name in seen:
            continue
        seen.add(name)
        needs = [Requirement(text) for text in distribution(name).requires or []]
        waiting += [canonical(one.name) for one in needs if one.marker is None or one.marker.evaluate({"extra": ""})]
    assert seen <= pinned(), f"needed and not pinned: {sorted(seen - pinned())}"
