"""What the strips of a comparison are called."""

from __future__ import annotations

from vadrin.app.sheets.test_sheet import StripSheet, TestSheet


def film_name(sheet: TestSheet, strip: StripSheet) -> str:
    """What a strip is called: its film or its chemistry, never its letter."""
    if strip.other:
        return strip.other
    return f"{sheet.stock.name}{f' {sheet.batch.name}' if sheet.batch else ''}"
