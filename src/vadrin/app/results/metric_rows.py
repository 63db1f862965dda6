"""A strip's metrics in words: the same rows for the screen and the terminal."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_brief
from vadrin.core.figure import Figure
from vadrin.core.results.strip_figures import STRIP_FIGURES, StripFigure
from vadrin.core.results.strip_metrics import StripMetrics

_MINUS = str.maketrans("-", "−")


@dataclass(frozen=True)
class Cell:
    """A figure in words: its value, its range, and why there is none."""

    shown: str
    spread: str = ""
    why: str = ""

    @property
    def with_spread(self) -> str:
        """Value and range on one line."""
        return f"{self.shown} ({self.spread})" if self.spread else self.shown


SHOWN_FIGURES = tuple(sorted((f for f in STRIP_FIGURES if f.name), key=lambda f: f.rank))
"""Every figure that is shown of a strip, in order."""


def strip_cell(strip: StripMetrics, shown: StripFigure) -> Cell:
    """A figure of a strip in words."""
    figure = strip.figures[shown.key]
    return index_cell(figure) if shown.places is None else number_cell(figure, shown.places)


def index_cell(figure: Figure) -> Cell:
    """An EI as the marks it and its range reach."""
    if figure.value is None:
        return Cell("—", why=figure.why)
    if figure.low is None or figure.high is None:
        return Cell(str(marked_ei(figure.value)))
    spread = f"{marked_ei(figure.low)} to {marked_ei(figure.high)}"
    return Cell(str(marked_ei(figure.value)), spread)


def number_cell(figure: Figure, places: int) -> Cell:
    """A plain number with its range."""
    if figure.value is None:
        return Cell("—", why=figure.why)
    if figure.low is None or figure.high is None:
        return Cell(_number(figure.value, places))
    return Cell(
        _number(figure.value, places),
        f"{_number(figure.low, places)} to {_number(figure.high, places)}",
    )


def _number(value: float, places: int) -> str:
    return f"{value:.{places}f}".translate(_MINUS)


def strip_heading(strip: StripMetrics) -> str:
    """Label and time of a strip: ``A, 4.5 min``."""
    return f"{strip.label}, {minutes_brief(strip.time_min)} min" if strip.time_min else strip.label
