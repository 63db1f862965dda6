"""A made-up film and developer that answer as real ones do: exposed, developed, read.

The curve is built from chance, not from the shape the fit assumes: a grain answers when it
has caught enough quanta, 1 - exp(-q), and grains run out the same way at the dense end.
    dD/dx = G(t) (1 - exp(-10**(n u))) exp(-10**(m (u - L))),  u = x - x_t(t)
with contrast G(t) = G_max (1 - exp(-k (t - t0))).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.curves import metrics
from vadrin.core.curves.shape import GRID, Curves, running_integral
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.restated_time import DEFAULT_Q10, REFERENCE_TEMPERATURE_C, restated_time


@dataclass(frozen=True)
class Film:
    """A film in a developer.

    Attributes
    ----------
    fog, fog_rate : float
        Base plus fog at no development, and its growth a minute.
    contrast, rate, delay : float
        G_max, k (1/min) and t0 (min) of first-order development.
    toe, toe_drift, drift_rate : float
        x_t (lg lux s) after long development, how far it lies above that at no
        development, and the rate (1/min) at which it gets there.
    toe_sharpness, shoulder_sharpness, span : float
        n, m and L of the curve's shape.
    """

    fog: float
    fog_rate: float
    contrast: float
    rate: float
    delay: float
    toe: float
    toe_drift: float
    drift_rate: float
    toe_sharpness: float
    shoulder_sharpness: float
    span: float


def curve_at(film: Film, minutes: float) -> Curves:
    """The true curve after a development at the reference temperature, batch shape ()."""
    grown = -np.expm1(-film.rate * max(minutes - film.delay, 0.05))
    slope = film.contrast * grown * -np.expm1(-(10.0 ** (film.toe_sharpness * GRID)))
    slope = slope * np.exp(-(10.0 ** (film.shoulder_sharpness * (GRID - film.span))))
    start = slope[0] / (film.toe_sharpness * np.log(10))
    toe = film.toe + film.toe_drift * np.exp(-film.drift_rate * minutes)
    # The correction terms of the integral may dip by a rounding where the curve is flat.
    net = np.maximum.accumulate(running_integral(slope) + start)
    fog = film.fog + film.fog_rate * minutes
    return Curves(np.asarray(fog), np.asarray(toe), net, np.asarray(slope))


def invent_film(rng: np.random.Generator, speed: float = 125.0) -> Film:
    """Invent a film whose ISO speed is near the one asked for.

    Parameters
    ----------
    rng : numpy.random.Generator
    speed : float
        0.8 / H_M at the time that gives the standard's contrast.
    """
    rate = rng.uniform(0.10, 0.16)
    film = Film(
        fog=rng.uniform(0.12, 0.30),
        fog_rate=rng.uniform(0.002, 0.007),
        contrast=rng.uniform(0.85, 1.15),
        rate=rate,
        delay=rng.uniform(0.1, 0.8),
        toe=0.0,
        toe_drift=rng.uniform(0.2, 0.4),
        drift_rate=rate * rng.uniform(0.8, 1.6),
        toe_sharpness=rng.uniform(1.6, 3.2),
        shoulder_sharpness=rng.uniform(0.9, 1.8),
        span=rng.uniform(2.6, 3.6),
    )
    minutes = time_for_delta_d(film)
    x_m = float(metrics.speed_point(curve_at(film, minutes)))
    return _moved(film, float(np.log10(0.8 / speed)) - x_m)


@lru_cache(maxsize=64)
def typical_film(speed: float = 125.0) -> Film:
    """A film in the middle of all that `invent_film` makes, of the ISO speed asked for."""
    film = Film(
        fog=0.21,
        fog_rate=0.0045,
        contrast=1.0,
        rate=0.13,
        delay=0.45,
        toe=0.0,
        toe_drift=0.3,
        drift_rate=0.15,
        toe_sharpness=2.4,
        shoulder_sharpness=1.35,
        span=3.1,
    )
    x_m = float(metrics.speed_point(curve_at(film, time_for_delta_d(film))))
    return _moved(film, float(np.log10(0.8 / speed)) - x_m)


def adapted_film(film: Film, zone_ei: float, minutes: float, gradient: float) -> Film:
    """A film changed to have a Zone I EI and an average gradient at a time, as were found.

    Time runs faster or slower for all of its rates alike, then its toe is moved.

    Parameters
    ----------
    film : Film
    zone_ei : float
    minutes : float
        Time at which the average gradient was found.
    gradient : float
    """
    pace = _minutes_reaching(film, metrics.average_gradient, gradient) / minutes
    changed = {
        "fog_rate": film.fog_rate * pace,
        "rate": film.rate * pace,
        "delay": film.delay / pace,
        "drift_rate": film.drift_rate * pace,
    }
    paced = Film(**{**vars(film), **changed})
    x_m = float(metrics.speed_point(curve_at(paced, minutes)))
    has = float(metrics.zone_ei(np.asarray(x_m)))
    return _moved(paced, float(np.log10(has / zone_ei)))


def _moved(film: Film, by: float) -> Film:
    return Film(**{**vars(film), "toe": film.toe + by})


def time_for_delta_d(film: Film, wanted: float = metrics.ISO_DELTA_D) -> float:
    """Minutes that give a delta D, by bisection between 1 and 60 minutes."""
    return _minutes_reaching(film, metrics.delta_d, wanted)


def _minutes_reaching(film: Film, figure: Callable[[Curves, Array], Array], wanted: float) -> float:
    """Minutes at which a figure that rises with development reaches a value."""
    low, high = 1.0, 60.0
    for _ in range(40):
        middle = 0.5 * (low + high)
        curve = curve_at(film, middle)
        if float(figure(curve, metrics.speed_point(curve))) < wanted:
            low = middle
        else:
            high = middle
    return 0.5 * (low + high)


@dataclass(frozen=True)
class Densitometer:
    """How readings deviate from the truth.

    Attributes
    ----------
    noise : float
        Standard deviation at any density.
    dense_noise : float
        Added standard deviation for each unit of density.
    places : int
        Decimals shown.
    """

    noise: float = 0.010
    dense_noise: float = 0.003
    places: int = 2


def densities(film: Film, minutes: float, log_h: Array) -> NDArray[np.float64]:
    """True densities, base plus fog included, at lg exposures (n,); NaN means blank."""
    curve = curve_at(film, minutes)
    u = np.nan_to_num(log_h - curve.toe, nan=-99.0)
    net = np.interp(u, GRID, curve.net, left=0.0)
    return np.asarray(curve.fog + net)


def expose_and_develop(
    film: Film,
    label: str,
    log_h: Array,
    time_min: float,
    rng: np.random.Generator,
    meter: Densitometer | None = None,
    temperature_c: float = REFERENCE_TEMPERATURE_C,
    blanks: int = 2,
    channel: str = "visual",
) -> StripReadings:
    """Make a strip, develop it and read it once.

    Parameters
    ----------
    film : Film
    label : str
    log_h : ndarray, shape (n,)
        Lg exposures in the order shot.
    time_min, temperature_c : float
        As it was developed.
    rng : numpy.random.Generator
        Source of all chance.
    meter : Densitometer, optional
    blanks : int
        Blank frames read first.
    channel : str
    """
    meter = meter or Densitometer()
    minutes = restated_time(time_min, temperature_c, q10=DEFAULT_Q10)
    places = np.concatenate([np.full(blanks, np.nan), log_h])
    true = densities(film, minutes, places)
    spread = meter.noise + meter.dense_noise * true
    shown = np.round(true + spread * rng.standard_normal(len(true)), meter.places)
    names = [f"b{i + 1}" for i in range(blanks)] + [str(i + 1) for i in range(len(log_h))]
    readings = tuple(
        Reading(name, None if np.isnan(x) else float(x), float(max(d, 0.0)))
        for name, x, d in zip(names, places, shown, strict=True)
    )
    return StripReadings(label, time_min, temperature_c, readings, channel)
