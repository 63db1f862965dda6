"""What a finding rests on beside its readings, and how each of it came to be known."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import date_text
from vadrin.app.document.stations import key_to
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.exposure.arithmetic import METER_CONSTANT
from vadrin.core.origin import Origin
from vadrin.core.planning.test_types import Metering, type_of
from vadrin.core.wording import counted, list_text

PLANNED = "planned, not noted"
"""Stands beside a time that nobody noted."""

ORIGIN_WORDS = {
    Origin.UNKNOWN: "noted",
    Origin.PLANNED: PLANNED,
    Origin.TOLD: "as it was typed",
    Origin.DONE: "kept by the clock",
    Origin.MEASURED: "measured",
    Origin.ASSUMED: "assumed, nobody noted it",
}


@dataclass(frozen=True)
class Condition:
    """One condition of a test, or of one of its strips.

    Attributes
    ----------
    key : str
        As in a report.
    name : str
        In a sentence.
    shown : str
        Its value in words; empty where nothing was said.
    origin : Origin or None
        None where nothing was said and nothing stands in for it.
    strip : str
        The strip it is of; empty for the whole test.
    """

    key: str
    name: str
    shown: str
    origin: Origin | None
    strip: str = ""


def _read(loaded: LoadedTest) -> Iterator[LoadedStrip]:
    """Strips that the finding rests on."""
    return (s for s in loaded.strips if s.looked_at)


def is_developed(loaded: LoadedTest) -> bool:
    """Whether it is film that is exposed and developed for the test."""
    kind = type_of(loaded.test.kind)
    return kind is not None and kind.scripted and kind.metering is not Metering.ENLARGER


def _time(strip: LoadedStrip) -> Condition:
    minutes = strip.minutes
    planned = strip.strip.time_min is None and minutes is not None
    origin = Origin.PLANNED if planned else strip.strip.time_from
    shown = "" if minutes is None else f"{minutes_text(minutes, exact=True)} min"
    return Condition("time", "time", shown, origin if shown else None, strip.strip.label)


def _temperature(loaded: LoadedTest, strip: LoadedStrip) -> Condition:
    warmth, origin = strip.strip.temperature_c, strip.strip.temperature_from
    if warmth is None:
        warmth, origin = reference_of(loaded, strip), Origin.ASSUMED
    shown = f"{warmth:g} °C"
    return Condition("temperature", "temperature", shown, origin, strip.strip.label)


def _agitation(loaded: LoadedTest, strip: LoadedStrip) -> Condition:
    shown = strip.strip.agitation or loaded.test.agitation
    origin: Origin | None = Origin.DONE if strip.strip.time_from is Origin.DONE else Origin.TOLD
    if strip.strip.time_min is None:
        origin = Origin.PLANNED
    return Condition("agitation", "agitation", shown, origin if shown else None, strip.strip.label)


def _batch(loaded: LoadedTest) -> Condition:
    named = loaded.batch.name if loaded.batch else ""
    return Condition("batch", "batch", named, Origin.TOLD if named else None)


def _age(loaded: LoadedTest) -> Condition:
    """How old and how used the developer was."""
    bottle = loaded.bottle
    if bottle is None or not bottle.mixed_at:
        return Condition("developer_age", "developer’s age", "", None)
    shown = f"mixed {date_text(bottle.mixed_at)}, {counted(round(bottle.films_done), 'film')} done"
    return Condition("developer_age", "developer’s age", shown, Origin.TOLD)


def _meter(loaded: LoadedTest) -> Condition:
    constant = loaded.test.meter_constant
    if loaded.meter is not None:
        shown = f"{loaded.meter.name}, constant {constant:g}"
        return Condition("meter", "light meter", shown, Origin.TOLD)
    usual = constant == METER_CONSTANT
    origin = Origin.ASSUMED if usual else Origin.TOLD
    return Condition("meter", "light meter", f"constant {constant:g}", origin)


def _light(loaded: LoadedTest) -> Condition:
    shown = loaded.test.light
    return Condition("light", "light", shown, Origin.TOLD if shown else None)


@once
def conditions_of(loaded: LoadedTest) -> tuple[Condition, ...]:
    """Every condition of the strips that were read, then those of the whole test."""
    read = tuple(_read(loaded))
    if not read or not is_developed(loaded):
        return ()
    made = [
        condition
        for strip in read
        for condition in (_time(strip), _temperature(loaded, strip), _agitation(loaded, strip))
    ]
    metered = any(f.frame.exposure_index is not None for s in read for f in s.frames)
    of_all = (_batch(loaded), _age(loaded), *((_meter(loaded),) if metered else ()), _light(loaded))
    return (*made, *of_all)


def conditions_report(loaded: LoadedTest) -> list[dict[str, Any]]:
    """The conditions as plain JSON data; `from` is null where nothing was said."""
    return [
        {
            "key": c.key,
            "strip": c.strip or None,
            "value": c.shown or None,
            "from": None if c.origin is None else c.origin.value or "noted",
        }
        for c in conditions_of(loaded)
    ]


def _grouped(loaded: LoadedTest) -> dict[tuple[str, str, Origin | None], list[str]]:
    """Conditions of strips that are alike, together."""
    made: dict[tuple[str, str, Origin | None], list[str]] = {}
    for c in conditions_of(loaded):
        shown = "" if c.key == "time" else c.shown
        made.setdefault((c.name, shown, c.origin), []).append(c.strip)
    return made


def conditions_told(loaded: LoadedTest) -> tuple[str, ...]:
    """A line for each condition, those of strips together; what nobody said comes last."""
    lines, silent = [], []
    strips = sum(1 for _ in _read(loaded))
    for (name, shown, origin), labels in _grouped(loaded).items():
        if origin is None:
            silent.append(name)
            continue
        some = 0 < len([x for x in labels if x]) < strips
        of = f" of {list_text(tuple(labels))}" if some else ""
        value = f" {shown}," if shown else ""
        lines.append(f"{name[0].upper()}{name[1:]}{of}:{value} {ORIGIN_WORDS[origin]}.")
    if silent:
        lines.append(f"Nobody noted: {list_text(tuple(dict.fromkeys(silent)))}.")
    return tuple(lines)


def assumed_words(loaded: LoadedTest) -> str:
    """What a card has to say of conditions that nobody gave; empty where all were given."""
    assumed, silent = [], []
    for (name, shown, origin), _ in _grouped(loaded).items():
        if origin is Origin.ASSUMED or (origin is Origin.PLANNED and name == "temperature"):
            assumed.append(shown if name == "temperature" else f"{name} {shown}")
        elif origin is None:
            silent.append(name)
    words = f" Assumed, not noted: {list_text(tuple(dict.fromkeys(assumed)))}." if assumed else ""
    return words + (f" Not noted: {list_text(tuple(dict.fromkeys(silent)))}." if silent else "")


def planned_diagnostics(loaded: LoadedTest) -> tuple[Diagnostic, ...]:
    """What is to be minded of strips whose time is only what was planned, one each."""
    return tuple(
        Diagnostic(
            "time planned",
            Severity.SERIOUS,
            f"Nobody noted how long strip {strip.strip.label} was developed: "
            f"{minutes_text(strip.strip.planned_min or 0.0, exact=True)} min is only what was "
            "planned.",
            f"Write the real time of strip {strip.strip.label} down at Process "
            f"({key_to('process')}).",
            strip.strip.label,
        )
        for strip in loaded.strips
        if strip.strip.label in loaded.only_planned()
    )


def assumed_diagnostics(loaded: LoadedTest) -> tuple[Diagnostic, ...]:
    """The temperature that nobody noted, as one thing to be minded."""
    open_to_doubt = (Origin.ASSUMED, Origin.PLANNED)
    guessed = [
        c for c in conditions_of(loaded) if c.key == "temperature" and c.origin in open_to_doubt
    ]
    if not guessed:
        return ()
    degrees = list_text(tuple(dict.fromkeys(c.shown for c in guessed)))
    return (
        Diagnostic(
            "temperature assumed",
            Severity.NOTE,
            f"Nobody noted how warm the developer was: {degrees} is assumed.",
            f"Write it down at Process ({key_to('process')}): 1 °C changes a time by about a "
            "tenth.",
            "",
        ),
    )


def planned_words(loaded: LoadedTest) -> str:
    """Which times are only planned, in a clause; empty where all were noted."""
    labels = loaded.only_planned()
    if not labels:
        return ""
    strips = "strip" if len(labels) == 1 else "strips"
    return f"time of {strips} {list_text(labels)} {PLANNED}"
