"""A strip's readings with the curve fitted to them, as an answer's plot draws them."""

from __future__ import annotations

from vadrin.app.curves.curve_lines import curve_points
from vadrin.app.descriptions.answer_in_words import Series
from vadrin.app.document.state import State
from vadrin.core.channels import Channel

Points = tuple[tuple[float, float], ...]


def fitted_series(
    state: State, label: str, name: str, points: Points, channel: Channel | None = None
) -> Series:
    """Readings as marks, and the curve that was fitted to them; marks alone where none was.

    Parameters
    ----------
    state : State
    label : str
        Of the strip.
    name : str
        As it is called in the plot.
    points : tuple of (float, float)
        Exposure in lg lux seconds and density, in order.
    channel : Channel, optional
        A layer of colour film, which is drawn in its own colour.
    """
    tone = str(channel) if channel is not None else ""
    drawn = state.analysis or state.earlier
    strips = (*drawn.layers, *drawn.strips) if drawn is not None else ()
    own = next((s for s in strips if s.label == label and channel in (None, s.channel)), None)
    if own is None or not points:
        return Series(name, points, (), tone)
    x, y = curve_points(own, (points[0][0], points[-1][0]))
    return Series(name, points, tuple(zip(x.tolist(), y.tolist(), strict=True)), tone)
