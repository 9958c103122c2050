"""Between machine, structure and model nothing is `Any` without a reason, and what is misspelt is found by mypy."""

import ast
import shutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[2]
HEART = ("machine", "structure", "model", "parts_list")
MOST = 0.02


def annotations(tree: ast.Module) -> Iterator[ast.expr]:
    for node in ast.walk(tree):
        if isinstance(node, ast.arg | ast.AnnAssign) and node.annotation is not None:
            yield node.annotation
        elif isinstance(node, ast.FunctionDef) and node.returns is not None:
            yield node.returns


def test_hardly_anything_is_any() -> None:
    every, loose = 0, []
    for room in HEART:
        for file in sorted((ROOT / "src" / "unterbau" / room).rglob("*.py")):
            for one in annotations(ast.parse(file.read_text(encoding="utf-8"))):
                every += 1
                if any(isinstance(part, ast.Name) and part.id == "Any" for part in ast.walk(one)):
                    loose.append(f"{file.name}:{one.lineno}")
    assert every > 1000
    assert len(loose) < MOST * every, loose


def test_misspelt_parts_sizes_and_links_are_found(tmp_path: Path) -> None:
    """Three faults planted in one kind: mypy names all three."""
    shutil.copytree(ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("assets", "*.egg-info", "ui"))
    shutil.copy(ROOT / "pyproject.toml", tmp_path)
    kind = tmp_path / "src" / "unterbau" / "machine" / "kinds" / "slab_router.py"
    text = kind.read_text(encoding="utf-8")
    for right, wrong in (
        ("m.slab,", "m.slap,"), ("d.foot_inset", "d.foot_insert"), ('bed(lay, "slab",', 'bed(lay, "slap",'),
    ):  # fmt: skip
        assert right in text
        text = text.replace(right, wrong, 1)
    kind.write_text(text, encoding="utf-8")
    found = subprocess.run(
        [sys.executable, "-m", "mypy", "--config-file", "pyproject.toml", "--cache-dir", str(tmp_path / "cache"),
         "--follow-imports", "silent", str(kind)],
        cwd=tmp_path, env={"MYPYPATH": str(tmp_path / "src"), "PATH": "/usr/bin:/bin"}, capture_output=True, text=True,
        check=False,
    )  # fmt: skip
    assert found.returncode == 1, found.stdout + found.stderr
    for wrong in ('no attribute "slap"', 'no attribute "foot_insert"', "Literal['slap']"):
        assert wrong in found.stdout, found.stdout
