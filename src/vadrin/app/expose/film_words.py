"""What film is called and done with as it is exposed: rolls are wound on, sheets are changed."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.planning.plan_request import FilmUnit
from vadrin.notebook.records import Test


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
    """

    piece: str
    next_piece: str
    blank: str
    kept_dark: str


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


def film_words(test: Test) -> FilmWords:
    """The words for the film of a test."""
    return _SHEETS if test.film_unit is FilmUnit.SHEETS else _ROLLS
