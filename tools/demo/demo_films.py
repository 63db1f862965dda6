"""How the films of the demo's other tests answer to light, and what an eye says of a frame.

A verdict follows from what the frame shows: shadows four stops under the metered grey must stand
clear of the fog, and highlights three stops above it must still print.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip
from vadrin.core.channels import Channel
from vadrin.core.exposure.reciprocity import Reciprocity, effective_time
from vadrin.core.frames import FrameRole
from vadrin.core.judging.verdicts import NOTHING_THERE, SALVAGED, TOO_DENSE, USE_IT
from vadrin.core.simulation.film import Film, curve_at, densities, typical_film
from vadrin.notebook.records import Test

Developed = Callable[[Test, LoadedStrip], tuple[Film, float]]
"""The film of a strip and the minutes it was developed, as the simulation counts them."""
Reads = Callable[[Test, LoadedStrip, LoadedFrame, Channel], float | None]
Seen = Callable[[Test, LoadedStrip, LoadedFrame], str]

STOP = 0.30103
_SHADOW, _HIGHLIGHT = 4, 3
"""Stops from the metered grey at which a print first and last wants detail."""
_CLEAR, _FAINT, _PRINTS = 0.10, 0.05, 2.0
"""Net densities: shadows that print, shadows that can be saved, the densest that prints."""
_SHED_LAW = Reciprocity(factor=0.16, exponent=1.42)
_COLOUR_BASE = {Channel.RED: 0.22, Channel.GREEN: 0.55, Channel.BLUE: 0.85}
PROJECTED = 1.35
"""Net density of the densest highlight that a projection print still shows."""
_WARM_BASIN = 2.0
"""How much faster a warm colour developer goes than one in a tray."""


def _film(test: Test, moved: float = 0.0) -> Film:
    film = typical_film(test.exposure_index)
    return replace(film, toe=film.toe - moved)


def _dense(film: Film, minutes: float, log_h: float | None) -> float:
    place = np.array([np.nan if log_h is None else log_h])
    return float(densities(film, minutes, place)[0])


def _minutes(strip: LoadedStrip) -> float:
    return strip.strip.planned_min or 8.0


def of_its_speed(test: Test, strip: LoadedStrip) -> tuple[Film, float]:
    """A film that is what its box says."""
    return _film(test), _minutes(strip)


def stood(test: Test, strip: LoadedStrip) -> tuple[Film, float]:
    """A bath left to stand holds contrast back, and brings a little of the shadows."""
    alone = strip.strip.label == "A"
    film = _film(test, 0.2 if alone else 0.0)
    return replace(film, contrast=0.72 if alone else 1.0), 10.0


def old(test: Test, strip: LoadedStrip) -> tuple[Film, float]:
    """Two stops gone, and fog come."""
    return replace(_film(test, -2 * STOP), fog=0.46), _minutes(strip)


def other(test: Test, strip: LoadedStrip) -> tuple[Film, float]:
    """The second strip is of another film: faster, and a little steeper."""
    second = strip.strip.position > 0
    film = replace(_film(test, 0.2 if second else 0.0), contrast=1.08 if second else 1.0)
    return film, _minutes(strip)


def drifting(test: Test, strip: LoadedStrip) -> tuple[Film, float]:
    """A process that holds, until its last run was a little too warm."""
    late = strip.strip.position == 5
    return replace(_film(test), contrast=1.09 if late else 1.0), _minutes(strip)


def of_the_light(test: Test, strip: LoadedStrip) -> tuple[Film, float]:
    """Cine film that sees open shade two thirds of a stop fainter than a meter does."""
    shade = "shade" in strip.strip.note
    return _film(test, -2 / 3 * STOP if shade else 0.0), _minutes(strip)


def read_of(developed: Developed) -> Reads:
    """Densities of a film that a strip's time alone changes."""

    def read(test: Test, strip: LoadedStrip, frame: LoadedFrame, _of: Channel) -> float | None:
        if frame.frame.role == FrameRole.FOGGED:
            return None
        return _dense(*developed(test, strip), frame.log_h(test.meter_constant))

    return read


def judged_of(developed: Developed, densest: float = _PRINTS) -> Seen:
    """Verdicts on frames whose shadows and highlights are those of a film; the densest highlight
    that is of use depends on what it is printed on."""

    def judged(test: Test, strip: LoadedStrip, frame: LoadedFrame) -> str:
        log_h = frame.log_h(test.meter_constant)
        if log_h is None or frame.frame.role == FrameRole.FOGGED:
            return ""
        film, minutes = developed(test, strip)
        fog = float(curve_at(film, minutes).fog)
        shadow = _dense(film, minutes, log_h - _SHADOW * STOP) - fog
        if _dense(film, minutes, log_h + _HIGHLIGHT * STOP) - fog > densest:
            return TOO_DENSE
        if shadow >= _CLEAR:
            return USE_IT
        return SALVAGED if shadow >= _FAINT else NOTHING_THERE

    return judged


def stained(test: Test, strip: LoadedStrip, frame: LoadedFrame, channel: Channel) -> float:
    """The second bath: a third of a stop faster, and stained the more the denser it is."""
    second = strip.strip.position > 0
    dense = _dense(_film(test, 0.1 if second else 0.0), 8.0, frame.log_h(test.meter_constant))
    return dense + (0.03 + 0.18 * dense if second and channel == Channel.BLUE else 0.0)


def dim(test: Test, _strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """Long exposures lose by a law of the film's own."""
    log_h, held = frame.log_h(test.meter_constant), frame.frame.seconds
    if log_h is not None and held is not None and held > 0.5:
        stops = frame.frame.stops or 0.0
        worth = effective_time(_SHED_LAW, held) / (held / 2.0**stops)
        log_h += float(np.log10(worth)) - STOP * stops
    return _dense(_film(test), 8.0, log_h)


def _steeper(strip: LoadedStrip) -> float:
    """How much steeper the blue layer of a pushed colour film is than the others."""
    return 1.0 + 0.11 * (strip.strip.push or 0.0)


def layers(test: Test, strip: LoadedStrip, frame: LoadedFrame, channel: Channel) -> float:
    """Three layers; pushed far, blue runs away from the others."""
    film, minutes = _film(test), _WARM_BASIN * _minutes(strip)
    net = _dense(film, minutes, frame.log_h(test.meter_constant))
    net -= float(curve_at(film, minutes).fog)
    risen = 0.02 * (strip.strip.push or 0.0)
    blue = _steeper(strip) if channel == Channel.BLUE else 1.0
    return _COLOUR_BASE[channel] + risen + net * blue


def colours_seen(_test: Test, strip: LoadedStrip, frame: LoadedFrame) -> str:
    """A chart is of use while its layers go about together; the frames near the meter's word."""
    stops = frame.frame.stops
    if frame.frame.blank or stops is None or abs(stops) > 1:
        return ""
    apart = _steeper(strip) - 1.0
    return USE_IT if apart < 0.12 else SALVAGED if apart < 0.25 else NOTHING_THERE


def positive(test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """A direct positive: density falls with exposure, and with the second factor."""
    log_h = frame.log_h(test.meter_constant)
    if log_h is None:
        return 2.1
    middle = float(np.log10(test.meter_constant / test.exposure_index)) - 0.1
    away = log_h - middle + 0.15 * (strip.strip.position - 1)
    return float(0.14 + 1.95 / (1 + np.exp(4.2 * away)))


def positive_seen(test: Test, strip: LoadedStrip, frame: LoadedFrame) -> str:
    """Grey is to come out grey: burnt out where it is too light, blocked where too dark."""
    if frame.frame.blank:
        return ""
    off = positive(test, strip, frame, Channel.VISUAL) - 0.9
    if abs(off) <= 0.3:
        return USE_IT
    return SALVAGED if abs(off) <= 0.6 else TOO_DENSE if off > 0 else NOTHING_THERE


def paper(_test: Test, _strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float | None:
    """Enlarging paper, by the seconds its steps had."""
    seconds = frame.frame.seconds
    if not seconds:
        return None
    return float(0.07 + 2.02 / (1 + np.exp(-6.0 * np.log10(seconds / 7.0))))


def clipped(_test: Test, strip: LoadedStrip, frame: LoadedFrame, _channel: Channel) -> float:
    """The piece in question came out thinner: the bath is old."""
    if frame.frame.role != FrameRole.FOGGED:
        return 0.24
    return 2.21 if strip.strip.position == 0 else 1.98
