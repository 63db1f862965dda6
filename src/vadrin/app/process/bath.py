"""The bath the next strips of a test go into: one for recipe, lights-off sheet and clock."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of, temperature_factor_of
from vadrin.app.process.strip_chemistry import together
from vadrin.core.origin import Origin
from vadrin.core.restated_time import RESTATED_WITHIN_K, restated_time
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


def note_bath(
    notebook: Notebook, loaded: LoadedTest, bath_c: float | None, bath_from: Origin = Origin.TOLD
) -> None:
    """Write down how warm the bath is; None where that is not known any more."""
    known = bath_from if bath_c is not None else Origin.UNKNOWN
    if (loaded.test.bath_c, loaded.test.bath_from) != (bath_c, known):
        with notebook.change("the temperature of the bath"):
            notebook.put(replace(loaded.test, bath_c=bath_c, bath_from=known))


def forget_bath(notebook: Notebook, test_id: int) -> None:
    """The strips are through: the next bath is another."""
    test = notebook.get(Test, test_id)
    if test is not None and test.bath_c is not None:
        notebook.put(replace(test, bath_c=None, bath_from=Origin.UNKNOWN))


def too_far(loaded: LoadedTest) -> float | None:
    """Degrees that the bath lies off its reference, where no factor tells what that does."""
    if loaded.test.bath_c is None:
        return None
    away = loaded.test.bath_c - reference_of(loaded, next(iter(together(loaded)), None))
    return away if abs(away) > RESTATED_WITHIN_K else None


def minutes_in_bath(loaded: LoadedTest, planned_min: float) -> float:
    """Minutes in the bath as it is that are worth the planned ones at the reference.

    The planned ones themselves where the bath was not measured, or is too far off to tell.
    """
    if loaded.test.bath_c is None or too_far(loaded) is not None:
        return planned_min
    first = next(iter(together(loaded)), None)
    reference, factor = reference_of(loaded, first), temperature_factor_of(loaded, first)
    return planned_min / restated_time(1.0, loaded.test.bath_c, reference, factor)


def bath_words(loaded: LoadedTest) -> str:
    """What the times that follow are for, in a sentence."""
    reference = reference_of(loaded, next(iter(together(loaded)), None))
    if loaded.test.bath_c is None:
        return (
            f"Nobody noted how warm the bath is: these times are for {reference:g} °C. Measure it, "
            "and note it on Recipe or Clock, before the film goes in."
        )
    away = too_far(loaded)
    if away is not None:
        return (
            f"The bath is at {loaded.test.bath_c:g} °C, {abs(away):.1f} °C from {reference:g}: too "
            f"far to correct the time. These times are for {reference:g} °C; bring it there first."
        )
    return f"For a bath at {loaded.test.bath_c:g} °C, worth what was planned at {reference:g} °C."
