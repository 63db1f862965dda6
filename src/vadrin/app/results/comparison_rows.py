"""Materials set beside the reference, in words."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.quantities import minutes_range_text, minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.metric_rows import Cell
from vadrin.core.figure import Figure
from vadrin.core.results.comparison import Comparison

HEADS = (
    "Beside the reference",
    "Speed",
    "Contrast",
    "Base plus fog",
    "Toe",
    "Highlights",
    "Time to match",
)


@dataclass(frozen=True)
class ComparisonRow:
    """One material: its name, then a cell for each of `HEADS` after the first."""

    name: str
    cells: tuple[Cell, ...]


def _minus(words: str) -> str:
    return words.replace("-", "−")


def _cell(
    figure: Figure, pattern: str, unit: str = "", scale: float = 1.0, less: float = 0.0
) -> Cell:
    if figure.value is None:
        return Cell("—", why=figure.why)

    def written(value: float | None) -> str:
        shown = format(((value or 0.0) - less) * scale, pattern)
        nothing = not any(digit in "123456789" for digit in shown)
        return shown.lstrip("+-") if nothing else _minus(shown)

    spread = ""
    if figure.low is not None and figure.high is not None:
        spread = f"{written(figure.low)} to {written(figure.high)}"
    return Cell(f"{written(figure.value)} {unit}".strip(), spread)


def _line(loaded: LoadedTest, one: Comparison) -> ComparisonRow:
    strip = next((s for s in loaded.strips if s.strip.label == one.strip), None)
    other = strip.other or strip.strip.note if strip else ""
    factor = one.time_factor
    match = Cell("—", why=factor.why)
    if one.match_min.value is not None:
        match = Cell(minutes_text(one.match_min.value), minutes_range_text(one.match_min))
    elif factor.value is not None:
        match = Cell(f"×{factor.value:.2f}", "rule of thumb")
    return ComparisonRow(
        f"{other or 'another'}, strip {one.strip}",
        (
            _cell(one.speed_stops, "+.1f", "stop"),
            _cell(one.contrast, "+.0f", "%", 100.0, 1.0),
            _cell(one.base_fog, "+.2f"),
            _cell(one.toe_share, "+.0f", "%", 100.0),
            _cell(one.shoulder_stops, "+.1f", "stop"),
            match,
        ),
    )


def comparison_rows(state: State) -> tuple[ComparisonRow, ...]:
    """A line for each strip of another material."""
    loaded, analysis = state.loaded, state.settled()
    return tuple(_line(loaded, one) for one in analysis.compared)
