"""The page of a test of speed."""

from __future__ import annotations

from vadrin.app.descriptions.answer_in_words import FilmCell, FilmRow
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import numbers_text, option_word
from vadrin.app.display.marks import marked_ei
from vadrin.app.entry.exposures import exposure_indexes_typed
from vadrin.app.entry.numbers import number_typed
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.test_types.film_cells import by_index
from vadrin.core.frames import FrameRole
from vadrin.core.planning.strip_plan import SERIES_STOPS
from vadrin.core.planning.test_options import IndexSeries, options_as
from vadrin.core.planning.test_types.speed import Speed
from vadrin.errors import EntryError


def speed_rows(loaded: LoadedTest) -> tuple[FilmRow, ...]:
    """The frames of a speed test in the order of their EIs, with their verdicts; a series in a
    row for each of the exposures that every EI got."""
    if options_as(loaded.test.options, IndexSeries).exposure_indexes:
        return tuple(row for strip in loaded.strips for row in _series_rows(strip))
    made = []
    for strip in loaded.strips:
        cells = tuple(
            FilmCell(f"EI {marked_ei(i)}", f.density, f.verdict) for i, f in by_index(strip)
        )
        made.append(FilmRow(f"strip {strip.strip.label}", cells))
    return tuple(made)


def _series_rows(strip: LoadedStrip) -> list[FilmRow]:
    named = zip(SERIES_STOPS, ("as metered", "three stops over", "four stops under"), strict=True)
    return [
        FilmRow(
            name,
            tuple(
                FilmCell(f"EI {marked_ei(f.frame.exposure_index)}", f.density, f.verdict)
                for f in strip.frames
                if f.frame.role is FrameRole.BRACKET
                and f.frame.wanted_stops == stops
                and f.frame.exposure_index
            ),
        )
        for stops, name in named
    ]


_NO_SERIES = "none"
_MOST_OF_A_SERIES = 12


def _series_typed(words: str) -> tuple[float, ...]:
    """EIs to shoot in threes; none takes the bracket again."""
    plain = words.strip().lower()
    if plain in ("", "no", _NO_SERIES):
        return ()
    indexes = exposure_indexes_typed(plain)
    if len(set(indexes)) != len(indexes) or len(indexes) > _MOST_OF_A_SERIES:
        raise EntryError(f"a series has up to {_MOST_OF_A_SERIES} EIs, each once")
    return tuple(sorted(indexes))


def _series_text(indexes: tuple[float, ...]) -> str:
    return numbers_text(indexes) or _NO_SERIES


def _step_series(shown: str, way: int) -> str:
    """One EI more or less, a third of a stop on; none begins at 100."""
    known = [number_typed(w) for w in shown.split(", ")] if shown != _NO_SERIES else []
    if way < 0:
        return _series_text(tuple(known[:-1]))
    return numbers_text((*known, marked_ei(known[-1] * 2 ** (1 / 3)) if known else 100.0))


DESCRIPTION = TestDescription(
    Speed.key,
    "Which EI suits my usual development?",
    "One development, from far under to far over.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.BRACKET, PlanSentence.OWN, PlanSentence.ROLL),
    own_sentence="In the bracket's place, EIs in a series: {series}; each gets one as metered, "
    "one three stops over and one four under.",
    own_words={
        "series": option_word(
            "EIs of the series",
            IndexSeries,
            "exposure_indexes",
            _series_typed,
            _series_text,
            _step_series,
        )
    },
    step=0.5,
)
