"""The temperature that times are restated at: that of the process a test, or a strip, follows."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.core.process.process_kinds import kind_of_process
from vadrin.core.restated_time import DEFAULT_Q10, usual_reference
from vadrin.notebook.records import Process


def routine_of(loaded: LoadedTest, strip: LoadedStrip | None = None) -> Process | None:
    """The kept process that a strip followed: its own, else that of the test."""
    own = strip.routine if strip is not None else None
    return own or loaded.routine


def reference_of(loaded: LoadedTest, strip: LoadedStrip | None = None) -> float:
    """Degrees Celsius of the process it follows, or what its baths show it to be."""
    routine = routine_of(loaded, strip)
    if routine is not None:
        return routine.temperature_c
    return usual_reference([s.strip.temperature_c for s in loaded.strips if s.routine is None])


def temperature_factor_of(loaded: LoadedTest, strip: LoadedStrip | None = None) -> float:
    """How much faster its process goes for each 10 K warmer: its own factor, or its kind's."""
    routine = routine_of(loaded, strip)
    if routine is None:
        return DEFAULT_Q10
    return routine.q10 or kind_of_process(routine.kind).q10


def reference_words(loaded: LoadedTest, strip: LoadedStrip | None = None) -> str:
    """``20 °C``."""
    return f"{reference_of(loaded, strip):g} °C"
