"""The log of a build as a page of HTML or as Markdown, its photos linked from where they lie."""

import os
from html import escape
from pathlib import Path
from urllib.parse import quote

from unterbau.files.html_page import page
from unterbau.files.photos import folder_of
from unterbau.shop.build.log import Entry, changed

WIDE = 320  # px
HEARD = ".wav"


def _sums(log: tuple[Entry, ...], mine: tuple[int, ...]) -> str:
    money, hours = (sum(getattr(log[n], name) for n in mine) for name in ("money", "hours"))
    return f"{len(mine)} entries, {hours:g} hours, {money:g} spent"


def _figures(one: Entry) -> str:
    rows = [f"{one.hours:g} h"] if one.hours else []
    rows += [f"{one.money:g} spent"] if one.money else []
    return ", ".join(rows)


def _of(log: tuple[Entry, ...], candidate: str) -> tuple[int, ...]:
    return tuple(n for n, one in enumerate(log) if one.candidate == candidate)


def _link(target: Path, project: Path | None, name: str) -> str:
    """Return the way from a page to a photo; the bare name where the project has no file yet."""
    if project is None:
        return quote(name)
    way = os.path.relpath(folder_of(project) / name, target.parent)
    return quote(way.replace(os.sep, "/"))


def log_html(log: tuple[Entry, ...], candidate: str, target: Path, project: Path | None) -> str:
    """Return a candidate's log as a page that is written to a target."""
    mine = _of(log, candidate)
    rows = [f"<h1>{escape(candidate)}: log</h1><p class='small'>{escape(_sums(log, mine))}</p>"]
    for n in mine:
        one = log[n]
        told = f" <span class='small'>{escape(_figures(one))}</span>" if _figures(one) else ""
        rows.append(f"<h2>{escape(one.when)}{told}</h2>")
        rows += [f"<p>{escape(line)}</p>" for line in one.text.splitlines() if line.strip()]
        rows += [f"<p class='small'>changed: {escape(line)}</p>" for line in changed(log, n)]
        for name in one.photos:
            way = _link(target, project, name)
            if name.endswith(HEARD):
                rows.append(f'<p><a href="{way}">{escape(name)}</a></p>')
            else:
                rows.append(f'<p><img src="{way}" width="{WIDE}" alt="{escape(name)}"></p>')
    return page(f"{candidate}: log", "\n".join(rows))


def log_markdown(log: tuple[Entry, ...], candidate: str, target: Path, project: Path | None) -> str:
    """Return a candidate's log as Markdown that is written to a target."""
    mine = _of(log, candidate)
    rows = [f"# {_plain(candidate)}: log", "", _sums(log, mine), ""]
    for n in mine:
        one = log[n]
        rows += [f"## {one.when}", ""]
        rows += [_plain(one.text), ""] if one.text.strip() else []
        rows += [f"*{_figures(one)}*", ""] if _figures(one) else []
        rows += [f"- changed: {_plain(line)}" for line in changed(log, n)]
        for name in one.photos:
            mark = "" if name.endswith(HEARD) else "!"
            rows.append(f"{mark}[{_plain(name)}]({_link(target, project, name)})")
        rows.append("")
    return "\n".join(rows).rstrip() + "\n"


def _plain(text: str) -> str:
    """Return text in which nothing is taken as a mark."""
    return "".join(f"\\{c}" if c in "\\`*_[]<>#" else c for c in text)
