"""What the axes of a maker's sheet are, and what can be read off them."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.core.planning.test_options import SheetAxis, SheetSource, options_as
from vadrin.core.planning.test_types.data_sheet import DataSheet

AXIS_ENDS = ("left", "right", "lower", "upper")
"""The four places that are marked, in order: two along, two up."""


def is_data_sheet(loaded: LoadedTest) -> bool:
    """Whether a test is a maker's sheet."""
    return loaded.test.kind == DataSheet.key


def source_of(loaded: LoadedTest) -> SheetSource:
    """What a maker's sheet says of itself."""
    return options_as(loaded.test.options, SheetSource)


def absolute(loaded: LoadedTest) -> bool:
    """Whether its exposures are in lux seconds, so that an EI can be read off them."""
    return source_of(loaded).axis != SheetAxis.RELATIVE
