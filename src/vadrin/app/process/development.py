"""Strips developed: what each really got, and what that took of the bottle."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.densities import temperature_typed
from vadrin.app.entry.times import minutes_typed
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.process.bath import forget_bath, minutes_in_bath
from vadrin.core.origin import Origin
from vadrin.core.restated_time import DEFAULT_Q10, REFERENCE_TEMPERATURE_C, restated_time
from vadrin.notebook.records import Bottle, Strip, Test
from vadrin.notebook.store import Notebook


def develop_strip(
    notebook: Notebook,
    strip: Strip,
    time_min: float | None,
    temperature_c: float | None,
    time_from: Origin = Origin.TOLD,
    temperature_from: Origin = Origin.TOLD,
) -> None:
    """Write down what a strip really got, how that is known, and what it took of the bottle."""
    with notebook.change(f"process strip {strip.label}"):
        notebook.put(
            replace(
                strip,
                time_min=time_min,
                temperature_c=temperature_c,
                time_from=Origin.UNKNOWN if time_min is None else time_from,
                temperature_from=Origin.UNKNOWN if temperature_c is None else temperature_from,
            )
        )
        done = (time_min is not None) - (strip.time_min is not None)
        test = notebook.get(Test, strip.test_id)
        bottle = notebook.get(Bottle, test.bottle_id) if test and test.bottle_id else None
        if bottle is not None and done:
            strips = notebook.all(Strip, test_id=strip.test_id)
            rolls = len({s.roll for s in strips})
            films = bottle.films_done + done * rolls / len(strips)
            notebook.put(replace(bottle, films_done=max(0.0, films)))


def develop_as_planned(notebook: Notebook, loaded: LoadedTest) -> None:
    """Write down that the strips that wait got what was planned, each at its process's
    temperature, as one edit."""
    with notebook.change("process all strips as planned"):
        for each in loaded.strips:
            if each.strip.time_min is None:
                strip, bath = each.strip, loaded.test.bath_c
                planned = strip.planned_min
                if bath is not None and planned is not None:
                    minutes = round(minutes_in_bath(loaded, planned) * 60) / 60
                    develop_strip(
                        notebook, strip, minutes, bath, Origin.TOLD, loaded.test.bath_from
                    )
                else:
                    usual = reference_of(loaded, each)
                    develop_strip(notebook, strip, planned, usual, Origin.TOLD, Origin.PLANNED)
        forget_bath(notebook, loaded.test.id)


NOTHING = "—"
"""Stands where nothing was measured yet; typed, it takes a value away."""


def _empty(words: str) -> bool:
    return words.strip() in ("", NOTHING)


def type_time(notebook: Notebook, strip_id: int, words: str) -> None:
    """Write down the minutes a strip was developed.

    Raises
    ------
    EntryError
        If it is no time.
    """
    strip = notebook.get(Strip, strip_id)
    if strip is None:
        return
    time = None if _empty(words) else minutes_typed(words)
    warmth, known = strip.temperature_c, strip.temperature_from
    if warmth is None:
        warmth, known = _bath_of(notebook, strip)
    with notebook.change(f"process strip {strip.label}"):
        develop_strip(notebook, strip, time, warmth, Origin.TOLD, known)
        if all(s.time_min is not None for s in notebook.all(Strip, test_id=strip.test_id)):
            # Nothing waits for this bath any more: the next run has another.
            forget_bath(notebook, strip.test_id)


def type_temperature(notebook: Notebook, strip_id: int, words: str) -> None:
    """Write down how warm a strip's developer was, in degrees Celsius.

    Raises
    ------
    EntryError
        If it is no temperature a developer works at.
    """
    strip = notebook.get(Strip, strip_id)
    if strip is None:
        return
    warmth = None if _empty(words) else temperature_typed(words)
    # How long it was in there is another question: a plan is no answer to it.
    develop_strip(notebook, strip, strip.time_min, warmth, strip.time_from, Origin.TOLD)


def _bath_of(notebook: Notebook, strip: Strip) -> tuple[float | None, Origin]:
    """The temperature of the bath and how it is known; None where nobody noted it."""
    test = notebook.get(Test, strip.test_id)
    return (test.bath_c, test.bath_from) if test is not None else (None, Origin.UNKNOWN)


@dataclass(frozen=True)
class StripLine:
    """What a strip was to get and got, in words."""

    label: str
    planned: str
    time: str
    temperature: str
    restated: str
    developed: bool


def strip_line(
    strip: Strip, reference_c: float = REFERENCE_TEMPERATURE_C, q10: float = DEFAULT_Q10
) -> StripLine:
    """A strip's development in words, its time restated at a temperature."""
    planned, time, warmth = strip.planned_min, strip.time_min, strip.temperature_c
    return StripLine(
        strip.label,
        "" if planned is None else minutes_text(planned, exact=True),
        NOTHING if time is None else minutes_text(time, exact=True),
        NOTHING if warmth is None else f"{warmth:g}",
        "" if time is None else minutes_text(restated_time(time, warmth, reference_c, q10)),
        time is not None,
    )
