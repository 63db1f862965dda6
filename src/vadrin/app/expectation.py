"""What a plan is likely to give: curves of a typical film, assumed and labelled so."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from vadrin.app.sheet import TestSheet
from vadrin.core.analysis import Analysis, Settings, analyse
from vadrin.core.film import Densitometer, expose_and_develop, invent_film

_EXACT = Densitometer(noise=0.0, dense_noise=0.0, places=6)
_TYPICAL = 11


@lru_cache(maxsize=16)
def _expected(index: float, constant: float, times: tuple[tuple[str, float], ...]) -> Analysis:
    rng = np.random.default_rng(_TYPICAL)
    film = invent_film(rng, index)
    log_h = np.log10(constant / index) + 0.30103 * np.arange(-9.0, 8.5, 1.0)
    strips = tuple(
        expose_and_develop(film, label, log_h, minutes, rng, _EXACT) for label, minutes in times
    )
    return analyse(strips, Settings(meter_constant=constant, draws=0))


def expected_sheet_analysis(sheet: TestSheet) -> Analysis:
    """The analysis a typical film of the planned EI would give at the planned times."""
    times = tuple((s.strip.label, s.strip.planned_min or 8.0) for s in sheet.strips)
    return _expected(sheet.test.exposure_index, sheet.test.meter_constant, times)
