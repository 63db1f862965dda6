"""The stages of a positive as curves, and what a flash does to its shadows."""

from __future__ import annotations

from math import isnan

import numpy as np

from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, Series
from vadrin.app.display.marks import stops_counted
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.materials.reversal_stages import ReversalStages

FLASH_STOPS = 3.0
"""Stops under the grey at which a flash is drawn: a shadow there is lifted by a stop."""
_FLASHES = (5.0, 4.0, 3.0)
_TONES = (("3 stops under the grey", -3.0), ("1 stop under", -1.0), ("the grey", 0.0))
_NOT_READ = "not read"


def stages_plot(
    state: State, strip: LoadedStrip | None, grey: float | None
) -> tuple[AnswerPlot | None, AnswerTable | None]:
    """The curves of a sheet and what a flash would do, where its readings allow it.

    Parameters
    ----------
    state : State
    strip : LoadedStrip or None
        The one with the best cell, whose stages are drawn; the first for none.
    grey : float or None
        Lg exposure of the best cell.
    """
    known = {s.label: s for s in state.analysis.stages} if state.analysis else {}
    drawn = tuple(
        _positive(state, each, known[each.strip.label])
        for each in state.loaded.strips
        if each.strip.label in known
    )
    stages = known.get(strip.strip.label) if strip is not None else None
    stages = stages or next(iter(known.values()), None)
    if stages is None:
        return None, None
    drawn += _reckoned(stages, grey)
    rest = f"first developer, bleach, flash: reckoned from {stages.label}"
    across = f"log exposure, lux seconds ({rest})"
    plot = AnswerPlot(across, "density", drawn)
    return plot, None if grey is None else _flash_table(stages, grey)


def _positive(state: State, strip: LoadedStrip, stages: ReversalStages) -> Series:
    constant = state.loaded.test.meter_constant
    read = tuple(
        sorted(
            (x, frame.density)
            for frame in strip.frames
            if frame.density is not None and (x := frame.log_h(constant)) is not None
        )
    )
    return Series(f"{strip.strip.label} positive", read, _line(stages, stages.positive))


def _reckoned(stages: ReversalStages, grey: float | None) -> tuple[Series, ...]:
    """The baths before the positive, and a flash; reckoned from it, as the axis says."""
    made = []
    if stages.whole:
        line = _line(stages, stages.first_developer)
        made.append(Series("first developer", (), line))
        made.append(Series("after the bleach", (), _line(stages, stages.after_bleach)))
    if grey is not None:
        line = _line(stages, stages.flashed(grey - FLASH_STOPS * STOP))
        made.append(Series(f"with a flash at −{FLASH_STOPS:g}", (), line))
    return tuple(made)


def _line(stages: ReversalStages, density: Array) -> tuple[tuple[float, float], ...]:
    points = zip(stages.log_h.tolist(), density.tolist(), strict=True)
    return tuple((x, d) for x, d in points if not isnan(d))


def _flash_table(stages: ReversalStages, grey: float) -> AnswerTable:
    """Densities of three tones without a flash, and with flashes of rising strength."""
    rows = [("none", *_tones(stages, stages.positive, grey))]
    rows += [
        (
            f"{stops_counted(under)} under the grey",
            *_tones(stages, stages.flashed(grey - under * STOP), grey),
        )
        for under in _FLASHES
    ]
    heads = ("Flash, before or after (reckoned)", *(name for name, _ in _TONES))
    return AnswerTable(heads, tuple(rows))


def _tones(stages: ReversalStages, density: Array, grey: float) -> tuple[str, ...]:
    said = []
    for _, stops in _TONES:
        x = grey + stops * STOP
        inside = stages.log_h[0] - 1e-9 <= x <= stages.log_h[-1] + 1e-9
        value = float(np.interp(x, stages.log_h, density)) if inside else float("nan")
        said.append(_NOT_READ if isnan(value) else f"{value:.2f}")
    return tuple(said)
