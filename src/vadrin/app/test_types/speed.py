"""The page of a test of speed."""

from __future__ import annotations

from vadrin.app.descriptions.answer_in_words import FilmCell, FilmRow
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.display.marks import marked_ei
from vadrin.app.sheets.test_sheet import StripSheet, TestSheet
from vadrin.app.test_types.film_cells import by_index
from vadrin.core.frames import FrameRole
from vadrin.core.planning.strip_plan import SERIES_STOPS
from vadrin.core.planning.test_types.speed import Speed


def speed_rows(sheet: TestSheet) -> tuple[FilmRow, ...]:
    """The frames of a speed test in the order of their EIs, with their verdicts; a series in a
    row for each of the exposures that every EI got."""
    if sheet.test.second_factor:
        return tuple(row for strip in sheet.strips for row in _series_rows(strip))
    made = []
    for strip in sheet.strips:
        cells = tuple(
            FilmCell(f"EI {marked_ei(i)}", f.density, f.verdict) for i, f in by_index(strip)
        )
        made.append(FilmRow(f"strip {strip.strip.label}", cells))
    return tuple(made)


def _series_rows(strip: StripSheet) -> list[FilmRow]:
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


DESCRIPTION = TestDescription(
    Speed.key,
    "At which EI do I rate it, developed as I do?",
    "One development, from far under to far over.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.BRACKET, PlanSentence.SERIES, PlanSentence.ROLL),
    step=0.5,
)
