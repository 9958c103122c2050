"""All that a shop wants of a candidate, into one folder: sheets, templates, DXF, SVG, cut plans, quote, meshes."""

from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from shutil import rmtree
from tempfile import mkdtemp

from unterbau.errors import UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.machine_mesh import gltf, stl
from unterbau.files.piece_dxf import file_name, piece_dxf, sheet_dxf
from unterbau.files.piece_pdf import Sheets, pieces_pdf
from unterbau.files.piece_svg import piece_svg
from unterbau.files.plans_pdf import Plans, plans_pdf
from unterbau.files.quote_pdf import quote_pdf
from unterbau.files.template_pdf import template_pdf, template_views
from unterbau.machine.machine import Machine, lay_out
from unterbau.progress import Progress, Silent
from unterbau.shop.bars import bar_plans
from unterbau.shop.by_hand import hand_of
from unterbau.shop.making import Need, how_of, needs_of
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.shop.sheets import PlatesPlan, sheet_plans
from unterbau.shop.state import ShopState
from unterbau.structure.parts import Place
from unterbau.units import Units

Content = str | bytes
PLACE = Place(0.5, 0.5, 0.0)
"""Where the head stands in the meshes."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """Of what drawings are made."""

    project: str
    candidate: str
    machine: Machine
    shop: ShopState
    tools: tuple[str, ...]
    """Of the brief."""
    bears: dict[str, float]
    """How far rails may be off, m, by their guide's link."""
    units: Units
    when: str


def write_all(folder: Path, wanted: Wanted, progress: Progress | None = None) -> tuple[Path, ...]:
    """Write all drawings of a candidate into a folder, all of them or none; return the files.

    They are written beside where they belong first: a full disk leaves the folder as it was.

    Raises:
        UnterbauError: The folder cannot be made, or a file not be written.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    fresh = not folder.exists()
    try:
        folder.mkdir(parents=True, exist_ok=True)
        aside = Path(mkdtemp(prefix=".drawings-", dir=folder))
    except OSError as error:
        raise UnterbauError(f"{folder} cannot be made: {error.strerror}") from None
    every = list(_files(wanted))
    try:
        for number, (name, content) in enumerate(every):
            report.step(number, len(every), name)
            write_atomically(aside / name, content())
        for name, _ in every:
            (aside / name).replace(folder / name)
    except OSError as error:
        raise UnterbauError(f"{folder} was not written: {error.strerror}") from None
    finally:
        rmtree(aside, ignore_errors=True)
        if fresh:
            with suppress(OSError):
                folder.rmdir()  # only where nothing came into it
    return tuple(folder / name for name, _ in every)


def one_piece(wanted: Wanted, piece: ShopPiece, name: str) -> Content:
    """Return the drawing of one piece in the format that a file's name ends with.

    Raises:
        UnterbauError: There is nothing of the piece to draw in that format, or no such format.
    """
    ending = name.lower()
    if ending.endswith(".template.pdf"):
        return template_pdf(piece)
    if ending.endswith(".pdf"):
        needs = needs_of(lay_out(wanted.machine), wanted.bears)
        return pieces_pdf(_sheets(wanted, (piece,), needs))
    if ending.endswith(".svg"):
        return piece_svg(piece)
    drawn = piece_dxf(piece) if ending.endswith(".dxf") else None
    if drawn is None:
        what = Path(name).suffix or "a file"
        raise UnterbauError(f"{piece.label} as {what}: expected .pdf, .svg, or .dxf of a plate or a drilled bar")
    return drawn


def _files(wanted: Wanted) -> Iterator[tuple[str, Callable[[], Content]]]:
    structure = lay_out(wanted.machine)
    pieces, needs = pieces_of(structure), needs_of(structure, wanted.bears)
    shop = wanted.shop
    plates = sheet_plans(
        pieces, shop.sheet, shop.gap, shop.border, None, shop.sawn == "guillotine",
        lambda material, thick: hand_of(shop.by_hand, wanted.candidate, material, thick),
    )  # fmt: skip
    bars = bar_plans(pieces, shop.stocks(), shop.kerf, shop.trim)
    yield "pieces.pdf", partial(pieces_pdf, _sheets(wanted, pieces, needs))
    plans = Plans(wanted.project, wanted.candidate, bars, plates, pieces, wanted.units)
    yield "cut-plan-and-labels.pdf", partial(plans_pdf, plans)
    outside = tuple(
        one for one in pieces if how_of(one, wanted.candidate, shop.made, wanted.tools) == "have made"
    )  # fmt: skip
    if outside:
        yield "quote.pdf", partial(quote_pdf, _sheets(wanted, outside, needs))
    for one in pieces:
        name = file_name(one)
        drawn = piece_dxf(one)
        if drawn is not None:
            yield f"{name}.dxf", partial(str, drawn)
        yield f"{name}.svg", partial(piece_svg, one)
        if template_views(one):
            yield f"{name}-template.pdf", partial(template_pdf, one)
    for plan in plates:
        for number in range(len(plan.plan.sheets) if plan.plan is not None else 0):
            yield f"{_sheet_name(plan, number)}.dxf", partial(sheet_dxf, plan, number)
    yield "machine.glb", partial(gltf, structure, PLACE)
    yield "machine.stl", partial(stl, structure, PLACE)


def _sheets(wanted: Wanted, pieces: tuple[ShopPiece, ...], needs: dict[str, tuple[Need, ...]]) -> Sheets:
    return Sheets(wanted.project, wanted.candidate, pieces, needs, wanted.units, wanted.when)


def _sheet_name(plan: PlatesPlan, number: int) -> str:
    return f"sheet-{plan.material}-{plan.thickness * 1e3:g}mm-{number + 1}"
