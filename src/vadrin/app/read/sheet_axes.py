"""What the axes of a maker's sheet are, and what can be read off them."""

from __future__ import annotations

from vadrin.app.sheets.test_sheet import TestSheet
from vadrin.core.planning.test_options import SheetAxis, SheetSource, options_as
from vadrin.core.planning.test_types.data_sheet import DataSheet

AXIS_ENDS = ("left", "right", "lower", "upper")
"""The four places that are marked, in order: two along, two up."""


def is_sheet(sheet: TestSheet) -> bool:
    """Whether a test is a maker's sheet."""
    return sheet.test.kind == DataSheet.key


def source_of(sheet: TestSheet) -> SheetSource:
    """What a maker's sheet says of itself."""
    return options_as(sheet.test.options, SheetSource)


def absolute(sheet: TestSheet) -> bool:
    """Whether its exposures are in lux seconds, so that an EI can be read off them."""
    return source_of(sheet).axis != SheetAxis.RELATIVE
