"""The readings table as a sheet of an XLSX or ODS file; text stays text, never a formula."""

from __future__ import annotations

from io import BytesIO

Cells = list[list[str | float | None]]


def xlsx_of(cells: Cells) -> bytes:
    """A file with rows in the sheet ``readings``."""
    from openpyxl import Workbook
    from openpyxl.cell import WriteOnlyCell

    book = Workbook(write_only=True)
    sheet = book.create_sheet("readings")
    for row in cells:
        line = []
        for value in row:
            # The library would round numbers to 16 digits; 17 bring every value back.
            exact = repr(value) if isinstance(value, float) else value
            cell = WriteOnlyCell(sheet, value=exact)
            if value is not None:
                cell.data_type = "n" if isinstance(value, float) else "s"
            line.append(cell)
        sheet.append(line)
    file = BytesIO()
    book.save(file)
    return file.getvalue()


def ods_of(cells: Cells) -> bytes:
    """A file with rows in the sheet ``readings``."""
    from odf.opendocument import OpenDocumentSpreadsheet
    from odf.table import Table, TableCell, TableRow
    from odf.text import P

    book = OpenDocumentSpreadsheet()
    table = Table(name="readings")
    for row in cells:
        line = TableRow()
        for value in row:
            if isinstance(value, float):
                cell = TableCell(valuetype="float", value=repr(value))
                cell.addElement(P(text=repr(value)))
            elif value:
                cell = TableCell(valuetype="string")
                for part in str(value).split("\n"):
                    cell.addElement(P(text=part))
            else:
                cell = TableCell()
            line.addElement(cell)
        table.addElement(line)
    book.spreadsheet.addElement(table)
    file = BytesIO()
    book.write(file)
    return file.getvalue()
