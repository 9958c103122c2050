"""Cells of a table that a table program would run as a formula are written as text."""

RUN = ("=", "+", "@", "\t", "\r")


def as_text(cell: str) -> str:
    """Return a cell that is shown as it is, never run."""
    return f"'{cell}" if cell.startswith(RUN) or (cell.startswith("'") and cell[1:].startswith(RUN)) else cell


def from_text(cell: str) -> str:
    """Return what `as_text` made a cell of."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(RUN) else cell
