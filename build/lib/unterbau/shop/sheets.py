"""Plates of a machine to be cut: one plan for each thickness and material."""

from collections.abc import Callable
from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.materials.material import material as card
from unterbau.progress import Progress, Silent
from unterbau.shop.by_hand import HandLaid, laid_by_hand
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.sheet_plan import Board, Sheet, SheetPlan, sheet_plan

METAL, TIMBER = Sheet(2.0, 1.0), Sheet(2.44, 1.22)
"""Sheets on sale where none are told: metal, and boards; from memory."""
SheetOf = Callable[[str, float], Sheet | None]
"""Which sheets there are of a material and thickness, m; nothing where the usual ones."""
HandOf = Callable[[str, float], HandLaid | None]
GRAINED = ("birch-ply", "beech")
"""Materials whose grain runs along a plate."""


@dataclass(frozen=True, slots=True)
class PlatesPlan:
    """The plates of one thickness and material."""

    stock: str
    material: str
    thickness: float
    pieces: tuple[ShopPiece, ...]
    plan: SheetPlan | None
    problem: str = ""

    def piece(self, label: str) -> ShopPiece:
        """Return a piece by its letter."""
        return next(one for one in self.pieces if one.label == label)


def usual_sheet(material: str) -> Sheet:
    """Return the sheet that a material is usually sold in."""
    return TIMBER if card(material).kind in ("timber", "plastic") else METAL


def sheet_plans(
    pieces: tuple[ShopPiece, ...], sheet: SheetOf, gap: float, border: float, progress: Progress | None = None,
    by_edges: bool = False, hand: HandOf = lambda *_: None,
) -> tuple[PlatesPlan, ...]:  # fmt: skip
    """Return a plan for each thickness and material, on sheets of one size or of the usual one.

    Args:
        pieces: Of a machine; printed ones left away.
        sheet: Which sheets there are.
        gap: Between plates, m.
        border: Around a sheet, m.
        progress: Told of each sort.
        by_edges: Whether a saw cuts from edge to edge.
        hand: What somebody laid of a material and thickness.

    Raises:
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    groups: dict[tuple[float, str], list[ShopPiece]] = {}
    for one in pieces:
        if one.sort == "plate":
            groups.setdefault((round(one.thickness, 6), one.material), []).append(one)
    found = []
    for number, ((thickness, material), rows) in enumerate(sorted(groups.items())):
        report.step(number, len(groups), rows[0].stock)
        boards = tuple(Board(one.label, one.length, one.width, one.count, material not in GRAINED) for one in rows)
        plan, problem = None, ""
        try:
            size = sheet(material, thickness) or usual_sheet(material)
            laid = sheet_plan(boards, size, gap, border, None, by_edges)
            plan = laid_by_hand(laid, hand(material, thickness))
        except InputError as error:
            problem = f"{error.where}: {error.problem}"
        found.append(PlatesPlan(rows[0].stock, material, thickness, tuple(rows), plan, problem))
    return tuple(found)
