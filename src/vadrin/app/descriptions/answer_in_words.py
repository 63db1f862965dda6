"""The answer of a type of test that asks for something else than an EI and a time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from vadrin.core.figure import Figure

if TYPE_CHECKING:
    from vadrin.app.document.state import State


@dataclass(frozen=True)
class AnswerTable:
    """Rows behind an answer, in words: on the screen, on the card and in the terminal alike.

    `in_a_line` is what the screen shows in their place, where they matter less than the answer.
    """

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    in_a_line: str = ""


@dataclass(frozen=True)
class FilmCell:
    """One frame of a row of film: what stands on it, its density, and a mark below it."""

    words: str
    density: float | None = None
    mark: str = ""
    held: bool = False


@dataclass(frozen=True)
class FilmRow:
    """Frames that are told apart by what they stand for: a process, a push, a known film."""

    name: str
    cells: tuple[FilmCell, ...]
    note: str = ""


@dataclass(frozen=True)
class Series:
    """Points and a line through them, for a plot; `tone` is the layer of colour film it is of."""

    name: str
    points: tuple[tuple[float, float], ...] = ()
    line: tuple[tuple[float, float], ...] = ()
    tone: str = ""


@dataclass(frozen=True)
class AnswerPlot:
    """A plot behind an answer; `log_axes` where both axes go by powers of ten."""

    across: str
    up: str
    series: tuple[Series, ...]
    log_axes: bool = False


@dataclass(frozen=True)
class HueTurn:
    """A patch over the pushes: each with its hue in degrees and its chroma, the normal first."""

    name: str
    places: tuple[tuple[str, float, float], ...]


@dataclass(frozen=True)
class PatchColours:
    """A patch over the pushes: what a display shows of each in sRGB, the normal first; None where
    it was not measured."""

    name: str
    places: tuple[tuple[str, tuple[int, int, int] | None], ...]
    words: str = ""


@dataclass(frozen=True)
class OwnAnswer:
    """What a test of such a kind says.

    Attributes
    ----------
    says : str
        In a word or two; empty where it is not known yet.
    words : str
        How sure, or what is missing.
    act : str
        The one thing to do next.
    figures : mapping of str to float, Figure or None
        Numbers behind it, by their keys in the report.
    table : AnswerTable, optional
    film : tuple of FilmRow
    plot : AnswerPlot, optional
    more : tuple of AnswerTable
        More rows, of other columns.
    hues : tuple of HueTurn
    patches : tuple of PatchColours
    of_a_curve : bool
        Whether it rests on a film's curve, so that a reading off it is to be minded.
    steps : tuple of (str, str)
        How somebody else works by it: what is done, and how.
    """

    says: str
    words: str
    act: str
    figures: Mapping[str, float | Figure | None] = field(default_factory=dict)
    table: AnswerTable | None = None
    film: tuple[FilmRow, ...] = ()
    plot: AnswerPlot | None = None
    of_a_curve: bool = False
    more: tuple[AnswerTable, ...] = ()
    hues: tuple[HueTurn, ...] = ()
    patches: tuple[PatchColours, ...] = ()
    steps: tuple[tuple[str, str], ...] = ()


AnswersInWords = Callable[["State"], OwnAnswer]
"""How a type of test answers, from a test and what its readings come to so far."""
