"""A plot of curves for who does not see it: where each begins and ends, and where they part."""

from __future__ import annotations

import numpy as np

from vadrin.app.curves.curve_lines import meter_exposure
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.once import once
from vadrin.core.curves.shape import net_density_at
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.results.strip_metrics import StripMetrics

_PARTED = 0.10
"""Net density from which two curves are apart."""


@once
def curves_in_words(state: State) -> str:
    """Every strip's curve in a sentence, and from where the longest and the shortest part.

    Empty before there is a curve.
    """
    analysis = state.analysis
    if analysis is None or not analysis.strips:
        return ""
    strips = sorted(analysis.strips, key=lambda s: s.restated_min or 0.0)
    said = [_of(strip) for strip in strips]
    if len(strips) > 1:
        said.append(_parting(strips[0], strips[-1], meter_exposure(state)))
    return "; ".join(said)


def _of(strip: StripMetrics) -> str:
    ends = net_density_at(strip.curve, np.array([strip.first, strip.last]))
    time = f", {minutes_text(strip.restated_min)} min" if strip.restated_min else ""
    words = f"strip {strip.label}{time}: over {(strip.last - strip.first) / STOP:.0f} stops from "
    words += f"{float(ends[0]):.2f} to {float(ends[1]):.2f} over base plus fog"
    gradient = strip.average_gradient.value
    return words if gradient is None else f"{words}, average gradient {gradient:.2f}"


def _parting(short: StripMetrics, long: StripMetrics, meter: float) -> str:
    x = np.arange(max(short.first, long.first), min(short.last, long.last), STOP / 6)
    if not len(x):
        return f"strips {short.label} and {long.label} have no exposure in common"
    apart = net_density_at(long.curve, x) - net_density_at(short.curve, x) > _PARTED
    if not apart.any():
        return f"strips {short.label} and {long.label} lie within {_PARTED:.2f} of each other"
    at = float(x[int(np.argmax(apart))])
    stops = round((at - meter) / STOP)
    place = f"{stops:+d} stops".replace("-", "−") if stops else "the meter reading"
    return f"strips {short.label} and {long.label} part from {place} on"
