"""What eyes told of strips laid blind beside the first one: grain, sharpness and the like."""

from __future__ import annotations

from vadrin.app.descriptions.answer_in_words import AnswerTable
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.read.paired_judging import PAIRED_QUALITIES, paired_of, paired_words

JUDGED = ("grain", "sharpness")
"""Qualities that no curve has: they are looked at blind, beside the first."""


def judged_table(loaded: LoadedTest) -> tuple[AnswerTable, ...]:
    """A row for each quality and strip that was judged; no table before the first look."""
    rows = tuple(
        (f"{film_name(loaded, strip)}, {quality}", *paired_words(told))
        for strip in loaded.strips[1:]
        for quality in PAIRED_QUALITIES
        if (told := paired_of(strip, quality)) is not None
    )
    return (AnswerTable(("Judged beside the reference", "", "Looks"), rows),) if rows else ()


def judged_figures(loaded: LoadedTest) -> dict[str, float]:
    """What was told of grain and sharpness, by strip and quality."""
    results = {(s.strip.label, q): paired_of(s, q) for s in loaded.strips for q in JUDGED}
    return {f"{label}_{q}": told.mean for (label, q), told in results.items() if told}


def judge_act(loaded: LoadedTest) -> str:
    """What of them nobody has looked at yet, as the next thing to do; empty for nothing."""
    left = [q for q in JUDGED if any(paired_of(s, q) is None for s in loaded.strips[1:])]
    return f"Judge {' and '.join(left)} blind, at Read, Side by side." if left else ""
