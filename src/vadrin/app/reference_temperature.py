"""The temperature a test's times are restated at: that of its process."""

from __future__ import annotations

from vadrin.app.test_sheet import TestSheet
from vadrin.core.process.process_kinds import kind_of_process
from vadrin.core.restated_time import DEFAULT_Q10, usual_reference


def reference_of(sheet: TestSheet) -> float:
    """Degrees Celsius of the process it follows, or what its baths show it to be."""
    if sheet.routine is not None:
        return sheet.routine.temperature_c
    return usual_reference([s.strip.temperature_c for s in sheet.strips])


def temperature_factor_of(sheet: TestSheet) -> float:
    """How much faster its process goes for each 10 K warmer: its own factor, or its kind's."""
    if sheet.routine is None:
        return DEFAULT_Q10
    return sheet.routine.q10 or kind_of_process(sheet.routine.kind).q10


def reference_words(sheet: TestSheet) -> str:
    """``20 °C``."""
    return f"{reference_of(sheet):g} °C"
