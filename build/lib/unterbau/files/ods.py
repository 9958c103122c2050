"""Tables as OpenDocument: rows of cells, numbers as numbers."""

import io
from collections.abc import Iterable, Sequence


def ods(name: str, rows: Iterable[Sequence[str | float]]) -> bytes:
    """Return a table as the bytes of an .ods file; cells that are floats are numbers, others text that is never run."""
    from odf.opendocument import OpenDocumentSpreadsheet
    from odf.table import Table, TableCell, TableRow
    from odf.text import P

    document = OpenDocumentSpreadsheet()
    table = Table(name=name)
    for cells in rows:
        row = TableRow()
        for one in cells:
            if isinstance(one, float):
                cell = TableCell(valuetype="float", value=one)
                cell.addElement(P(text=f"{one:g}"))
            else:
                cell = TableCell(valuetype="string")
                cell.addElement(P(text=one))
            row.addElement(cell)
        table.addElement(row)
    document.spreadsheet.addElement(table)
    stream = io.BytesIO()
    document.write(stream)
    return stream.getvalue()
