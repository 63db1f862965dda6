"""How somebody else works by an answer: what to set and how to develop, and what to mind."""

from __future__ import annotations

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.library.laboratory_steps import steps_gone_through, steps_text
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import (
    reference_of,
    reference_words,
    temperature_factor_of,
)
from vadrin.app.results.conditions import is_developed
from vadrin.core.exposure.arithmetic import METER_CONSTANT
from vadrin.core.process.process_kinds import NEGATIVE, kind_of_process
from vadrin.core.restated_time import restated_time

Step = tuple[str, str]
"""What is done, and how."""


def set_step(index: float) -> Step:
    """The meter at an EI."""
    return ("Set", f"the meter to EI {marked_ei(index)}")


def develop_words(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """What a strip got, restated at the temperature of its process: ``8:00 min at 20 °C``; said
    to be planned where nobody noted it."""
    if not strip.minutes:
        return "for a time nobody noted"
    warmth, factor = reference_of(loaded, strip), temperature_factor_of(loaded, strip)
    minutes = restated_time(strip.minutes, strip.strip.temperature_c, warmth, factor)
    words = f"{minutes_text(minutes)} min at {reference_words(loaded, strip)}"
    own = strip.strip.agitation
    if own and own != loaded.test.agitation:
        words += f", agitation: {own}"
    if strip.strip.label in loaded.only_planned():
        words += " (planned, nobody noted it)"
    return words


def develop_step(loaded: LoadedTest, strip: LoadedStrip | None) -> tuple[Step, ...]:
    """How a strip was developed, as a step; nothing where there is no strip."""
    return () if strip is None else (("Develop", develop_words(loaded, strip)),)


def developed_steps(loaded: LoadedTest) -> tuple[Step, ...]:
    """How the strips that were looked at were developed, those developed alike in one step."""
    if not is_developed(loaded):
        return ()
    alike: dict[str, list[str]] = {}
    for strip in loaded.strips:
        if strip.looked_at:
            alike.setdefault(develop_words(loaded, strip), []).append(strip.strip.label)
    if len(alike) == 1:
        return (("Develop", next(iter(alike))),)
    return tuple((f"Develop as {', '.join(labels)}", words) for words, labels in alike.items())


def _baths_words(loaded: LoadedTest) -> str:
    """Every bath of a process that is more than developer, stop, fixer and wash as usual."""
    process = loaded.routine
    if process is None or (kind_of_process(process.kind) is NEGATIVE and not loaded.baths):
        return ""
    baths = steps_text(steps_gone_through(process, loaded.baths))
    return f"every bath of {process.name}: {baths}."


def to_be_minded(loaded: LoadedTest) -> tuple[str, ...]:
    """What a finding holds for alone: baths, light, filter, bleach, meter."""
    test = loaded.test
    said = (
        _baths_words(loaded),
        f"found in {test.light}, and true of that light." if test.light else "",
        f"a filter of factor {test.filter_factor:g} was on the lens, and its loss is taken off "
        "here: with it on, give that much more."
        if test.filter_factor > 1
        else "",
        f"the bleach was {test.process_state}: one of another age bleaches otherwise."
        if test.process_state
        else "",
        f"the meter’s constant was {test.meter_constant:g}: a meter of another reads otherwise."
        if abs(test.meter_constant - METER_CONSTANT) > 1e-6
        else "",
    )
    return tuple(words for words in said if words)
