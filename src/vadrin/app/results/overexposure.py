"""How much overexposure a film stands: where it stops growing, where it turns, what prints."""

from __future__ import annotations

from typing import TYPE_CHECKING

from vadrin.app.document.state import State
from vadrin.app.loaded.black_setup import black_setup
from vadrin.app.loaded.once import once
from vadrin.app.results.rating import rating_of

if TYPE_CHECKING:
    from vadrin.core.results.strip_metrics import StripMetrics

_LONG_BLACK = 8.0
"""Times the time for maximum black from which a densest frame is a nuisance to print."""


def _rated_strip(state: State) -> StripMetrics | None:
    """The strip of the test's own film that was developed nearest to the time it is rated at."""
    analysis, others = state.settled(), state.loaded.others()
    own = [s for s in analysis.strips if s.label not in others and s.restated_min]
    wanted = rating_of(state).time_min.value
    if not own:
        return None
    middle = own[len(own) // 2].restated_min if wanted is None else wanted
    return min(own, key=lambda s: abs((s.restated_min or 0.0) - (middle or 0.0)))


@once
def overexposure_words(state: State) -> str:
    """Latitude and greatest density of a film, in sentences; empty where no frame tells them."""
    strip = _rated_strip(state) if state.analysis is not None else None
    if strip is None:
        return ""
    reach, densest = strip.figures["usable_stops"], strip.figures["max_density"]
    said = []
    if reach.value is not None:
        said.append(
            f"Latitude of strip {strip.label}: {reach.value:.1f} stops from the first detail to "
            "the last"
        )
    if densest.value is not None:
        said.append(
            f"{'density' if said else f'Density of strip {strip.label}'} ends "
            f"{densest.value:.2f} over base plus fog"
        )
    words = f"{', '.join(said)}." if said else ""
    return f"{words}{_to_print(state, strip)}" if words else ""


def _to_print(state: State, strip: StripMetrics) -> str:
    """How long the densest frame would print, where the time for maximum black is known."""
    setup = black_setup(state.loaded)
    frames = [
        f.density
        for s in state.loaded.strips
        if s.strip.label == strip.label
        for f in s.frames
        if f.density is not None and f.counts
    ]
    fog = strip.base_fog.value
    if setup is None or not setup.black_s or fog is None or not frames:
        return ""
    black = setup.black_s
    seconds = black * 10.0 ** (max(frames) - fog)
    if seconds < _LONG_BLACK * black:
        return ""
    return (
        f" Through its densest frame paper would go black in {seconds:.0f} s, where through clear "
        f"film it takes {black:.1f} s."
    )
