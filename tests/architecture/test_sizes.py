"""Small files, functions and classes; colours in one place; no registry named anywhere."""

import ast
import re
import subprocess
from pathlib import Path

ROOT = Path(__file__).parents[2]
SOURCES = sorted((ROOT / "src").rglob("*.py"))
EVERY = [*SOURCES, *sorted((ROOT / "tests").rglob("*.py"))]


def test_files_functions_and_classes_are_small() -> None:
    faults = []
    for path in EVERY:
        text = path.read_text(encoding="utf-8")
        if len(text.splitlines()) > 400:
            faults.append(f"{path}: {len(text.splitlines())} lines")
        for node in ast.walk(ast.parse(text)):
            if isinstance(node, ast.FunctionDef) and (node.end_lineno or 0) - node.lineno >= 60:
                faults.append(f"{path}: {node.name} is too long")
            if isinstance(node, ast.ClassDef):
                public = [n for n in node.body if isinstance(n, ast.FunctionDef) and not n.name.startswith("_")]
                if len(public) > 20:
                    faults.append(f"{path}: {node.name} has {len(public)} public methods")
    assert not faults


def test_colours_stand_in_the_theme_only() -> None:
    pattern = re.compile(r"[\"']#[0-9a-fA-F]{3,8}[\"']")
    found = [str(p) for p in SOURCES if p.name != "theme.py" and pattern.search(p.read_text(encoding="utf-8"))]
    assert not found


def test_every_folder_is_a_package() -> None:
    folders = {p.parent for p in SOURCES}
    assert all((folder / "__init__.py").exists() or folder.name == "src" for folder in folders)


def test_pins_are_exact_and_name_no_registry() -> None:
    for name in ("requirements.txt", "requirements-dev.txt"):
        rows = [r for r in (ROOT / name).read_text().splitlines() if r and not r.startswith("#")]
        assert all(re.fullmatch(r"[A-Za-z0-9_.-]+==[0-9][^ ]*", row) for row in rows)
    tracked = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=True).stdout.split()
    hosts = re.compile("py" + "pi\\.org|python" + "hosted|npm" + "js\\.(org|com)|deb\\.de" + "bian\\.org")
    texts = [ROOT / t for t in tracked if (ROOT / t).suffix in {".py", ".md", ".txt", ".toml", ".json", ""}]
    assert not [str(t) for t in texts if t.is_file() and hosts.search(t.read_text(encoding="utf-8", errors="replace"))]
