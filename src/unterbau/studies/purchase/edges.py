"""Holes near an edge: does the material leave room for them?"""

from unterbau.catalogue.screws import screw_size
from unterbau.machine.machine import Machine, lay_out
from unterbau.materials.edge_distance import least_edge
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import about
from unterbau.units import Units, length_text

ROUNDED = 1e-5
"""m."""


def edge_checks(machine: Machine, units: Units) -> list[Check]:
    """Return which holes of plates lie too near an edge, the nearest of each part; nothing where all have room.

    Source:
        In metals EN 1993-1-8, table 3.3; in others common practice, no source.
    """
    found: dict[str, Check] = {}
    for piece in pieces_of(lay_out(machine)):
        check = _of_piece(piece, units)
        if check is not None and (piece.part not in found or check.share > found[piece.part].share):
            found[piece.part] = check
    return list(found.values())


def _of_piece(piece: ShopPiece, units: Units) -> Check | None:
    if piece.sort != "plate" or not piece.width:
        return None
    worst: tuple[float, str, float, float] | None = None
    for hole in piece.holes:
        if hole.face not in ("face", "back"):
            continue
        away = min(hole.x, piece.length - hole.x, hole.y, piece.width - hole.y)
        least = least_edge(piece.material, screw_size(hole.screw).d)
        share = 1.0 + (least - away) / least
        if away < least - ROUNDED and (worst is None or share > worst[0]):
            worst = (share, hole.screw, away, least)
    if worst is None:
        return None
    share, screw, away, least = worst
    return Check(
        piece.part, f"{piece.names[0]}, holes near an edge",
        f"an {screw} hole lies {_where(away, units)}",
        f"expected at least {length_text(least, units)} in this material",
        about(share), judged(share, 1.0), "a longer or wider plate, or smaller blocks and screws",
        "least distance in diameters of the screw: 1.2 in metals, near EN 1993-1-8 table 3.3 (from memory; it counts "
        "the hole's diameter); 2 to 3 in prints, timber, resin and stone, common practice, no source",
    )  # fmt: skip


def _where(away: float, units: Units) -> str:
    if away < 0.0:
        return f"{length_text(-away, units)} outside its edge"
    return f"{length_text(away, units)} from an edge"
