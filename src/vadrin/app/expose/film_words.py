"""What film is called and done with as it is exposed: rolls are wound on, sheets are changed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from itertools import pairwise

from vadrin.app.display.words import list_text
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.plan.camera_settings import on_one_sheet
from vadrin.core.planning.plan_request import FilmUnit
from vadrin.core.planning.test_options import SecondSteps, options_as


@dataclass(frozen=True)
class FilmWords:
    """The words for one way in which film comes.

    Attributes
    ----------
    piece : str
        What several strips may lie on.
    next_piece : str
        What is done before the next of them.
    blank : str
        What is done for a frame that stays blank.
    kept_dark : str
        The same, as a setting.
    given_s : mapping of int to float
        Under a dark slide, what each frame is given on top of what it has, by its id.
    """

    piece: str
    next_piece: str
    blank: str
    kept_dark: str
    given_s: Mapping[int, float] = field(default_factory=dict)


_ROLLS = FilmWords(
    "roll",
    "change the film or the camera",
    "Put the cap on and wind on: this frame stays blank.",
    "cap on",
)
_SHEETS = FilmWords(
    "set of sheets",
    "take the next holders",
    "Leave the dark slide in: this sheet stays blank.",
    "slide in",
)


_ONE_SHEET = FilmWords(
    "sheet",
    "take the next holder",
    "Draw the slide out as far as this cell only: it stays covered, and blank.",
    "slide in",
)


def film_words(loaded: LoadedTest) -> FilmWords:
    """The words for the film of a test."""
    if on_one_sheet(loaded.test):
        return replace(_ONE_SHEET, given_s=_given(loaded))
    return _SHEETS if loaded.test.film_unit is FilmUnit.SHEETS else _ROLLS


def shots_of(loaded: LoadedTest) -> list[tuple[LoadedStrip, LoadedFrame]]:
    """The exposures there are to make, in order; one of each cell where bands share them."""
    shots = loaded.shots()
    return [s for s in shots if s[0] is loaded.strips[0]] if on_one_sheet(loaded.test) else shots


def second_light_words(loaded: LoadedTest) -> str:
    """How the bands of one sheet get their second exposure or flash; empty where none is due."""
    options = options_as(loaded.test.options, SecondSteps)
    if not on_one_sheet(loaded.test) or not options.of_light or not options.base_s:
        return ""
    bands = sorted(
        (options.seconds(step), strip.strip.label)
        for step, strip in zip(options.steps, loaded.strips, strict=False)
    )
    said = [f"{bands[0][0]:.3g} s to the whole sheet"]
    covered: list[str] = []
    for (before, label), (after, _) in pairwise(bands):
        covered.append(label)
        said.append(f"cover {list_text(covered)}: {after - before:.3g} s more")
    return f"For the {options.factor}: {'; '.join(said)}."


def _given(loaded: LoadedTest) -> dict[int, float]:
    """Seconds each cell is given last: those it has in all, less what the cell before has."""
    given = {}
    for strip in loaded.strips:
        before = 0.0
        for frame in strip.frames:
            if frame.frame.seconds is not None and frame.frame.wanted_stops is not None:
                given[frame.frame.id] = frame.frame.seconds - before
                before = frame.frame.seconds
    return given
