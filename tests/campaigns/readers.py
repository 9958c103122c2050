"""Every reader with mutated input: it answers, or refuses in a sentence; nothing else, and soon."""

import io
import random
import tempfile
import time
import zipfile
from collections import Counter, defaultdict
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass
from importlib.resources import files
from pathlib import Path
from traceback import extract_tb

import numpy as np

from tests.campaigns.mutations import bytes_changed, json_changed
from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError, UnterbauError
from unterbau.files.frame_json import read_frame, solve_document
from unterbau.files.prices_csv import parse_prices, prices_text
from unterbau.files.project_json import parse_project
from unterbau.files.readings_csv import read_readings
from unterbau.files.recovery import keep, left_behind
from unterbau.files.search_json import read_space
from unterbau.files.section_dxf import dxf_text, read_dxf
from unterbau.files.section_text import outline_text, read_section_text
from unterbau.files.settings_json import read_settings
from unterbau.files.shopping_csv import read_shopping, shopping_text
from unterbau.files.shopping_ods import read_shopping_ods, shopping_ods
from unterbau.files.wav import read_wav, write_wav
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bill_of
from unterbau.sections.find import find, nearest
from unterbau.sections.section import section
from unterbau.shop.instruments.reading import parse_line
from unterbau.shop.measure.tap import tap_test
from unterbau.shop.offer_words import read_line_offers, read_postage
from unterbau.shop.pour.grain_words import read_grains
from unterbau.shop.pour.mould import Mould
from unterbau.shop.pour.open_words import read_open
from unterbau.shop.shopping import basket
from unterbau.shop.stock_words import read_offers, read_sheet
from unterbau.units import Kind, parse

FRAMES = Path(__file__).parents[1] / "files" / "frames"
LONGEST = 5.0
"""Seconds of the processor that any input may take."""
KEPT = Path("out/fuzz")
"""Where inputs that broke something are left."""
QUANTITIES = ("12", "1/2 in", '3 3/8"', "2 ft 6", "1250-2*40", "(1+2)*3 mm", "-5", "1e9", "1,5 kg", "20 lbf", "900 EUR")
MOULDS = ("pocket 50, 50: 220 × 350 × 50; sump 400, 120: 150 × 200 × 40; core 30 × 200; insert M8 60, 60 deep 40",)
TYPED: tuple[tuple[str, tuple[str, ...], Callable[[str], object]], ...] = (
    ("bars", ("6000 at 42; 3000 at 23; own 2 × 1300",), lambda text: read_offers(text, "flat-40x10", "brass", "inch")),
    ("sheet", ("2000 × 1000",), lambda text: read_sheet(text, "mm")),
    ("grains", ("0.1-0.5 at 0.40; 0.5-2 at 0.35; 2-8 at 0.30 wet 2 %",), read_grains),
    ("offers", ("Iron yard 12.50 from 10 in 5 days; Screw shop 11.90",), lambda text: read_line_offers(text, "a")),
    ("postage", ("Iron yard 9; Screw shop 5.50",), read_postage),
    ("reading", ("dial: +0.012 mm", "−3.5e-2 thou"), parse_line),
    ("section words", ("box section 80x40", "angle 40×40×4"), lambda text: (find(text), nearest(text))),
)
KINDS: tuple[Kind, ...] = ("length", "force", "mass", "money", "plain")


@dataclass(frozen=True)
class Reader:
    """One way in."""

    name: str
    corpus: tuple[str, ...]
    change: Callable[[str, random.Random], str]
    read: Callable[[str], object]


def readers(folder: Path) -> tuple[Reader, ...]:
    """Return all ways in; files are written into a folder."""
    demos = tuple(
        one.read_text(encoding="utf-8") for one in files("unterbau.demo").iterdir() if one.name.endswith(".unterbau")
    )
    frames = tuple(one.read_text(encoding="utf-8") for one in sorted(FRAMES.glob("*.frame.json")))
    sections = tuple(outline_text(section(name)) for name in ("rhs-80x40x4", "tslot-40L-1x1", "chs-50x3"))
    drawings = tuple(dxf_text(section(name)) for name in ("rhs-80x40x4", "chs-50x3"))
    project = parse_project(min(demos, key=len))
    kept = keep(folder / "kept", project, folder / "a.unterbau", "2026-01-02T03:04+00:00", 10).read_text("utf-8")
    return (
        Reader("project", demos, json_changed, parse_project),
        Reader("project bytes", demos, bytes_changed, parse_project),
        Reader("frame", frames, json_changed, lambda text: solve_document(read_frame(text.encode("utf-8", "replace")))),
        Reader("prices", (prices_text(shipped_prices()),), bytes_changed, parse_prices),
        Reader("section text", sections, bytes_changed, read_section_text),
        Reader("section DXF", drawings, bytes_changed, lambda text: read_dxf(_file(folder / "a.dxf", text))),
        Reader("quantity", QUANTITIES, bytes_changed, lambda text: [_typed(text, kind) for kind in KINDS]),
        *(Reader(name, corpus, bytes_changed, read) for name, corpus, read in TYPED),
        Reader("readings", READINGS, bytes_changed, lambda text: _readings(_file(folder / "r.csv", text))),
        Reader("shopping CSV", (shopping_text(BASKET),), bytes_changed,
               lambda text: read_shopping(_file(folder / "s.csv", text), BASKET, (), "a")),
        Reader("shopping ODS", (_content(shopping_ods(BASKET)),), bytes_changed,
               lambda text: read_shopping_ods(_packed(folder / "s.ods", text), BASKET, (), "a")),
        Reader("search space", SPACES, json_changed, lambda text: read_space(_file(folder / "space.json", text))),
        Reader("recording", _recordings(folder), bytes_changed, lambda text: _heard(folder / "a.wav", text)),
        Reader("mould", MOULDS, bytes_changed, lambda text: [read_open(text, Mould(), one) for one in ("mm", "inch")]),
        Reader("recovery", (kept,), json_changed, lambda text: _left(folder / "kept", text)),
        Reader("settings", ('{"theme": "dark", "text": 1.2, "units": "mm", "recent": ["/a"], "hints_done": []}',),
               json_changed, lambda text: read_settings(_file(folder / "settings.json", text))),
    )  # fmt: skip


BASKET = basket(bill_of(MovingGantry()), tuple(one.text for one in bill_of(MovingGantry())), (), "a")
READINGS = (
    "place;reading [mm]\n0;0,012\n100;0,02 mm\n",
    "0 12 31 38 30 24\n",
    "x,y\n0,1.5\n1,2.5\n",
    "\ufeff5\n7\n",
)
SPACES = (
    '{"free": {"gantry_beam": {"section": ["rhs-80x80x4"]}}, "bounds": {"mass": 150}, "goal": "stiffest"}',
    '{"free": {"dimensions": {"x_stance": {"from": 0.1, "to": 0.2, "steps": 3}}}}',
)


def _readings(path: Path) -> list[object]:
    found: list[object] = []
    for grid in (False, True):
        with suppress(InputError):
            found.append(read_readings(path, grid))
    return found


def _content(packed: bytes) -> str:
    with zipfile.ZipFile(io.BytesIO(packed)) as opened:
        return opened.read("content.xml").decode("utf-8")


def _packed(path: Path, content: str) -> Path:
    """Write a table whose content was changed, all else as a table program writes it."""
    with zipfile.ZipFile(io.BytesIO(shopping_ods(BASKET))) as whole, zipfile.ZipFile(path, "w") as made:
        for name in whole.namelist():
            data = content.encode("utf-8", "replace") if name == "content.xml" else whole.read(name)
            made.writestr(name, data)
    return path


def _recordings(folder: Path) -> tuple[str, ...]:
    path = folder / "made.wav"
    write_wav(path, np.sin(np.arange(2000) / 7.0), 8000)
    return (path.read_bytes().decode("latin-1"),)


def _heard(path: Path, text: str) -> object:
    path.write_bytes(text.encode("latin-1", "replace"))
    return tap_test(*read_wav(path))


def _file(path: Path, text: str) -> Path:
    path.write_text(text, encoding="utf-8", errors="replace")
    return path


def _typed(text: str, kind: Kind) -> float | None:
    try:
        value = parse(text, kind)
    except UnterbauError:
        return None
    if not abs(value) < 1e16:
        raise ArithmeticError(f"accepted {value}")
    return value


def _left(folder: Path, text: str) -> list[object]:
    _file(folder / "10.kept", text)
    return list(left_behind(folder))


def broken(reader: Reader, text: str) -> str:
    """Return what went wrong with an input, or nothing."""
    start = time.process_time()
    try:
        reader.read(text)
    except UnterbauError as error:
        if not str(error).strip():
            return f"{reader.name}: refused without a word"
    except Exception as error:
        last = extract_tb(error.__traceback__)[-1]
        return f"{reader.name}: {type(error).__name__} in {last.name} ({Path(last.filename).name}): {str(error)[:80]}"
    spent = time.process_time() - start
    return f"{reader.name}: took {spent:.0f} s" if spent > LONGEST else ""


def campaign(seconds: float, seed: int) -> Iterator[str]:
    """Yield what went wrong, then how much was tried.

    Each reader gets the same time; its inputs follow from the seed, however many there are.
    """
    tried = Counter[str]()
    spent: dict[str, float] = defaultdict(float)
    with tempfile.TemporaryDirectory() as name:
        every = readers(Path(name))
        draws = {one.name: random.Random(f"{seed} {one.name}") for one in every}
        end = time.monotonic() + seconds
        while (now := time.monotonic()) < end:
            reader = min(every, key=lambda one: spent[one.name])
            draw = draws[reader.name]
            tried[reader.name] += 1
            text = reader.change(draw.choice(reader.corpus), draw)
            found = broken(reader, text)
            if found:
                KEPT.mkdir(parents=True, exist_ok=True)
                place = _file(KEPT / f"{seed}-{tried[reader.name]}-{reader.name.replace(' ', '-')}.txt", text)
                yield f"{found}; {place}"
            spent[reader.name] += time.monotonic() - now
    yield f"tried: {', '.join(f'{n} {name}' for name, n in tried.items())}"
