"""A strip's metrics in words: the same rows for the screen and the terminal."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_brief
from vadrin.core.figure import Figure
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


@dataclass(frozen=True)
class Metric:
    """One metric of a strip: its name, the field it is in, and its decimals; None for an EI."""

    name: str
    field: str
    places: int | None = None

    def cell(self, strip: StripMetrics) -> Cell:
        """It in words."""
        figure: Figure = getattr(strip, self.field)
        return index_cell(figure) if self.places is None else number_cell(figure, self.places)


METRICS = (
    Metric("Zone I EI", "zone_ei"),
    Metric("speed 0.8/H", "speed"),
    Metric("average gradient", "average_gradient", 3),
    Metric("contrast index", "contrast_index", 3),
    Metric("gamma", "gamma", 3),
    Metric("Zone VIII density", "zone8_density", 2),
    Metric("ΔD", "delta_d", 2),
    Metric("lg H at speed point", "log_h_m", 2),
    Metric("base plus fog", "base_fog", 3),
)
"""Every metric that is shown of a strip, in order."""


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
