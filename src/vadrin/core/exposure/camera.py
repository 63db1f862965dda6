"""What a camera can really be set to, and the settings that come nearest to a wanted bracket."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import exact_aperture, stops_counted, stops_text
from vadrin.core.exposure.corrections import shutter_of_frame_rate
from vadrin.core.exposure.reciprocity import LONG_S, Reciprocity, effective_time
from vadrin.core.exposure.shutter_dial import exact_shutter

CLOSE_ENOUGH = 1 / 6
"""Stops by which a frame may miss what was wanted before it is flagged."""

_LONGEST_BULB = 1800.0
_MOVED, _EDGE, _LONG, _FILTER = 0.35, 0.5, 2.2, 0.4


@dataclass(frozen=True)
class CameraLimits:
    """What can be set.

    Attributes
    ----------
    shutters : tuple of float
        Exact times behind the marks in seconds, longest first.
    apertures : tuple of float
        Exact f-numbers behind the marks, widest first.
    measured : tuple of (float, float)
        Marks whose time was measured, with that time in seconds.
    light_loss : float
        Stops the lens passes less than its marks say.
    reciprocity : Reciprocity or None
        What the film makes of long exposures, where that is known.
    """

    shutters: tuple[float, ...]
    apertures: tuple[float, ...]
    measured: tuple[tuple[float, float], ...] = ()
    light_loss: float = 0.0
    reciprocity: Reciprocity | None = None


@dataclass(frozen=True)
class CameraSetting:
    """Where to put the camera for one frame.

    Attributes
    ----------
    seconds, aperture : float
        Exact values behind the marks.
    filter_stops : float
        Neutral density in front of the lens.
    stops : float
        What the frame gets, from the meter reading, by the measured times.
    wanted : float
    flags : tuple of str
        What is to be known about it, in words.
    """

    seconds: float
    aperture: float
    filter_stops: float
    stops: float
    wanted: float
    flags: tuple[str, ...] = ()

    @property
    def reached(self) -> bool:
        """Whether the frame comes within a sixth of a stop of what was wanted."""
        return abs(self.stops - self.wanted) <= CLOSE_ENOUGH + 1e-9


def shutter_marks(
    slowest: float, fastest: float, step: float = 1.0, bulb: bool = False, held_step: float = 1.0
) -> tuple[float, ...]:
    """Exact times from the slowest to the fastest mark; held by hand beyond that.

    Raises
    ------
    ValueError
        If the slowest is shorter than the fastest, or the step is not positive.
    """
    if slowest < fastest or step <= 0 or fastest <= 0:
        raise ValueError("shutter speeds run from a slower to a faster time in steps above 0")
    first, last = exact_shutter(slowest), exact_shutter(fastest)
    count = int(log2(first / last) / step + 1.001)
    marks = [first * 2.0 ** (-step * i) for i in range(count)]
    held = first * 2.0
    while bulb and held <= _LONGEST_BULB:
        marks.insert(0, held)
        held *= 2.0**held_step
    return tuple(marks)


def aperture_marks(widest: float, smallest: float, step: float = 0.5) -> tuple[float, ...]:
    """Exact f-numbers: the widest, then the series in steps of stops down to the smallest.

    Raises
    ------
    ValueError
        If the widest has the larger f-number, or the step is not positive.
    """
    if widest > smallest or step <= 0 or widest <= 0:
        raise ValueError("apertures run from a wider to a smaller one in steps above 0")
    last = exact_aperture(smallest)
    marks = [exact_aperture(widest)]
    place = int(np.ceil(2 * log2(marks[0]) / step - 1e-6))
    while 2.0 ** (place * step / 2) <= last * 1.001:
        mark = 2.0 ** (place * step / 2)
        if mark > marks[0] * 1.01:
            marks.append(mark)
        place += 1
    return tuple(marks)


def cine_shutters(frame_rate: float, angle: float, narrowest: float = 10.0) -> tuple[float, ...]:
    """Exposure times of a shutter whose angle closes by half stops."""
    angles = []
    while angle >= narrowest:
        angles.append(angle)
        angle /= 2**0.5
    return tuple(shutter_of_frame_rate(a, frame_rate) for a in angles)


def measured_shutter(camera: CameraLimits, seconds: float) -> float:
    """The time a mark really gives: measured where it was, else exact."""
    near = [
        real for mark, real in camera.measured if abs(log2(exact_shutter(mark) / seconds)) < 0.1
    ]
    return near[-1] if near else seconds


def effective_shutter(camera: CameraLimits, seconds: float) -> float:
    """The time a mark is worth to the film: real, less what a long exposure loses."""
    real = measured_shutter(camera, seconds)
    return real if camera.reciprocity is None else effective_time(camera.reciprocity, real)


def settings_for(
    camera: CameraLimits,
    metered_seconds: float,
    metered_aperture: float,
    wanted: Array,
    turned_first: str = "shutter",
    filters: tuple[float, ...] = (0.0,),
) -> tuple[CameraSetting, ...]:
    """The setting for each wanted offset from the meter reading.

    Among settings within a sixth of a stop the one is taken that moves the preferred control
    only, is neither wide open nor an unmeasured shortest time, stays below one second and
    needs least filter; where none is near enough, the nearest.

    Parameters
    ----------
    camera : CameraLimits
    metered_seconds, metered_aperture : float
        What the meter asks for, as marks.
    wanted : ndarray, shape (n,)
        Stops.
    turned_first : str
        ``shutter`` or ``aperture``: what is turned.
    filters : tuple of float
        Neutral densities at hand, in stops.
    """
    t, n, f = (
        grid.ravel()
        for grid in np.meshgrid(camera.shutters, camera.apertures, filters, indexing="ij")
    )
    real = np.array([effective_shutter(camera, s) for s in camera.shutters])
    real = np.repeat(real, len(camera.apertures) * len(filters))
    start = exact_shutter(metered_seconds) / exact_aperture(metered_aperture) ** 2
    stops = np.log2(real / n**2 / start) - f - camera.light_loss
    penalty = _penalties(camera, t, n, f, metered_seconds, metered_aperture, turned_first)
    miss = np.abs(stops[None, :] - np.asarray(wanted, dtype=np.float64)[:, None])
    cost = np.where(miss <= CLOSE_ENOUGH, 0.6 * miss, 50.0 + 20.0 * miss) + penalty
    return tuple(
        _setting(camera, float(t[i]), float(n[i]), float(f[i]), float(stops[i]), float(w))
        for w, i in zip(wanted, cost.argmin(1), strict=True)
    )


def _penalties(
    camera: CameraLimits,
    t: Array,
    n: Array,
    f: Array,
    metered_seconds: float,
    metered_aperture: float,
    turned_first: str,
) -> Array:
    turned = np.abs(2 * np.log2(n / exact_aperture(metered_aperture)))
    if turned_first == "aperture":
        turned = np.abs(np.log2(t / exact_shutter(metered_seconds)))
    known = [mark for mark, _ in camera.measured]
    quick = (t <= camera.shutters[-1] * 1.01) & (len(camera.shutters) > 1)
    if any(abs(log2(exact_shutter(m) / camera.shutters[-1])) < 0.1 for m in known):
        quick = np.zeros_like(quick)
    wide = (n <= camera.apertures[0] * 1.01) & (len(camera.apertures) > 1)
    edge = quick.astype(float) + wide
    # Past one second every further stop is worse than turning the other control by one.
    long = np.where(t >= LONG_S * 0.99, _LONG + 0.5 * np.log2(np.maximum(t, 1.0)), 0.0)
    return np.asarray(_MOVED * turned + _EDGE * edge + long + _FILTER * f)


def _setting(
    camera: CameraLimits, t: float, n: float, f: float, stops: float, wanted: float
) -> CameraSetting:
    flags = []
    if abs(stops - wanted) > CLOSE_ENOUGH + 1e-9:
        more = "more" if stops > wanted else "less"
        flags.append(f"{stops_counted(round(abs(stops - wanted) * 3) / 3)} {more} than wanted")
    if t >= LONG_S * 0.99:
        flags.append(_long_flag(camera, t))
    if len(camera.apertures) > 1 and n <= camera.apertures[0] * 1.01:
        flags.append("wide open")
    off = log2(measured_shutter(camera, t) / t)
    if abs(off) > CLOSE_ENOUGH:
        flags.append(f"measured {stops_text(round(off * 6) / 6, signed=True)} stop off its mark")
    return CameraSetting(t, n, f, stops, wanted, tuple(flags))


def _long_flag(camera: CameraLimits, t: float) -> str:
    if camera.reciprocity is None:
        return "long enough for reciprocity"
    lost = log2(measured_shutter(camera, t) / effective_shutter(camera, t))
    return f"{stops_counted(round(lost * 6) / 6)} longer, for reciprocity"


def neutral_density_needed(settings: tuple[CameraSetting, ...]) -> float:
    """Neutral density in whole stops that lets a camera reach the least exposures; 0 for none."""
    over = max((s.stops - s.wanted for s in settings), default=0.0)
    return float(np.ceil(over - 1e-6)) if over > CLOSE_ENOUGH else 0.0


def long_setting(
    camera: CameraLimits,
    metered_seconds: float,
    metered_aperture: float,
    seconds: float,
    wanted: float,
) -> CameraSetting:
    """A setting for a time that is fixed, as in a test of reciprocity.

    The light is taken away by the aperture as far as it closes, the rest by neutral density in
    whole stops.
    """
    start = exact_aperture(metered_aperture)
    need = log2(seconds / exact_shutter(metered_seconds)) - wanted
    closing = [2 * log2(n / start) for n in camera.apertures]
    within = [c for c in closing if c <= need + 1e-6] or [min(closing)]
    closed = max(within)
    dark = max(0.0, float(round(need - closed)))
    stops = log2(seconds / exact_shutter(metered_seconds)) - closed - dark
    made = _setting(camera, seconds, start * 2.0 ** (closed / 2), dark, stops, wanted)
    return made
