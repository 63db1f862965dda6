"""Films beside one reference by what an eye told of each on the light box."""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, OwnAnswer
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import ei_range_text
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.light_boxes import (
    LightBoxKey,
    eye_answers,
    light_box_for,
    light_box_key,
    light_box_result,
)
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.core.figure import Figure
from vadrin.core.judging.films_by_eye import stops_faster

if TYPE_CHECKING:
    from vadrin.core.judging.eye_answers import SeenFrame

SAME_STOPS = 0.12
"""Stops apart that nobody sees."""
_HEADS = ("", "EI by eye", "Range", "Speed")
_ACT = (
    "Read densities, by a wedge where there is no instrument: by eye you can find the EI, not the "
    "contrast."
)


def apart_words(told: list[tuple[str, Figure]], reference: str) -> tuple[str, str]:
    """How far the film that differs most lies from the reference: in short, and with its range."""
    name, apart = max(told, key=lambda pair: abs(pair[1].value or 0.0))
    value = apart.value or 0.0
    plural = "s" if abs(value) >= 1.05 else ""
    says = "Alike" if abs(value) < SAME_STOPS else f"{value:+.1f} stop{plural}"
    reach = (
        ""
        if apart.low is None or apart.high is None
        else (f" ({apart.low:+.1f} to {apart.high:+.1f})")
    )
    return says.replace("-", "−"), f"{name} beside {reference}{reach}.".replace("-", "−")


def faster_by_eye(loaded: LoadedTest, strip: LoadedStrip, reference: LoadedStrip) -> Figure | None:
    """Stops by which a strip's film is faster; None before an eye was asked about both."""
    told, of_other = eye_answers(loaded, strip), eye_answers(loaded, reference)
    film, other = light_box_key(loaded, strip), light_box_key(loaded, reference)
    if not told or not of_other or film is None or other is None:
        return None
    return _faster(film, told, other, of_other)


@lru_cache(maxsize=128)
def _faster(
    film: LightBoxKey,
    told: tuple[SeenFrame, ...],
    other: LightBoxKey,
    of_other: tuple[SeenFrame, ...],
) -> Figure:
    """Column, rail, shelf and card ask for the same: it is worked out once."""
    return stops_faster(light_box_for(film), told, light_box_for(other), of_other)


def index_by_eye(loaded: LoadedTest, strip: LoadedStrip) -> Figure | None:
    """The EI an eye gave a strip's film; None before it was asked."""
    result = light_box_result(loaded, strip)
    return result.zone_ei if result is not None else None


def _shown(index: Figure | None) -> tuple[str, str]:
    if index is None:
        return "not judged", ""
    if index.value is None:
        return index.why, ""
    return f"EI {marked_ei(index.value)}", ei_range_text(index)


def compare_by_eye(
    loaded: LoadedTest,
    judged: dict[str, float],
    more: tuple[AnswerTable, ...],
    plot: AnswerPlot | None,
) -> OwnAnswer:
    """What a comparison says of which no density was read.

    Parameters
    ----------
    loaded : LoadedTest
    judged : dict of str to float
        Figures of qualities that were judged side by side.
    more : tuple of AnswerTable
        The same in words.
    plot : AnswerPlot, optional
    """
    figures: dict[str, float | Figure | None] = dict(judged)
    rows, told = [], []
    for strip in loaded.strips:
        first, index = strip is loaded.strips[0], index_by_eye(loaded, strip)
        apart = None if first else faster_by_eye(loaded, strip, loaded.strips[0])
        if index is not None:
            figures[f"{strip.strip.label}_ei"] = index
        speed = "the reference" if first else "—"
        if apart is not None:
            figures[f"{strip.strip.label}_speed_stops"] = apart
            speed = apart.why
        if apart is not None and apart.value is not None:
            told.append((film_name(loaded, strip), apart))
            speed = f"{apart.value:+.1f} stop".replace("-", "−")
        rows.append((film_name(loaded, strip), *_shown(index), speed))
    seen = any(f"{strip.strip.label}_ei" in figures for strip in loaded.strips)
    table = AnswerTable(_HEADS, tuple(rows)) if seen else None
    if not told:
        words = "Only one of them was judged yet." if seen else "Nothing was read yet."
        act = "Read the reference's strip first, or judge each strip on the light box."
        return OwnAnswer("", words, act, figures, table, (), plot, more=more)
    says, words = apart_words(told, film_name(loaded, loaded.strips[0]))
    words = f"{words[:-1]}, by one eye on the light box."
    return OwnAnswer(says, words, _ACT, figures, table, (), plot, more=more)
