"""The part of ``vadrin bench`` about fits, beside a plain loop that does the same."""

from __future__ import annotations

import math
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from vadrin.core.fitting.fit import fit_strips, refit
from vadrin.core.readings import StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.strip_metrics import metrics_of_strips
from vadrin.core.simulation.film import Densitometer, expose_and_develop, invent_film

_STOP = math.log10(2)
_TIMES = (5.0, 7.0, 9.5, 13.0, 18.0)
_LOOP_DRAWS = 8


def _strips() -> tuple[StripReadings, ...]:
    rng = np.random.default_rng(5)
    film = invent_film(rng, 100.0)
    x = math.log10(8.125 / 100) + _STOP * np.arange(-6, 6.01, 0.5)
    meter = Densitometer(0.012, 0.0, 4)
    return tuple(
        expose_and_develop(film, label, x, t, rng, meter)
        for label, t in zip("ABCDE", _TIMES, strict=True)
    )


def _median_ms(act: Callable[[], object], times: int) -> float:
    act()
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        spent.append(time.perf_counter() - start)
    return 1000 * statistics.median(spent)


def _plain(
    x: np.ndarray, fog: float, g: float, toe: float, a: float, span: float, b: float
) -> np.ndarray:
    low = np.exp(a) * np.logaddexp(0, (x - toe) / np.exp(a))
    return np.asarray(fog + g * (low - np.exp(b) * np.logaddexp(0, (x - toe - span) / np.exp(b))))


def _plain_fit(strip: StripReadings, density: np.ndarray | None = None) -> np.ndarray:
    """One strip by SciPy's curve_fit, the six parameters of a softened broken line."""
    from scipy.optimize import curve_fit

    x, read = strip.exposed()
    y = read if density is None else density
    start = (float(y.min()), 0.6, float(np.interp(y.min() + 0.1, y, x)), -2.0, 3.0, -1.0)
    found, _ = curve_fit(_plain, x, y, p0=start, maxfev=5000)
    return np.asarray(found)


def _plain_answers(rows: np.ndarray) -> None:
    """Speed, gradient, finding and pushes of one draw from its strips' parameters (n, 6)."""
    from scipy.interpolate import PchipInterpolator
    from scipy.optimize import brentq

    at = PchipInterpolator(np.log(_TIMES), rows)

    def net(x: float, minutes: float) -> float:
        p = at(math.log(minutes))
        return float(_plain(np.asarray(x), *p)) - float(p[0])

    def x_m(minutes: float) -> float:
        return float(brentq(lambda x: net(x, minutes) - 0.1, -8.0, 4.0))

    def gradient(minutes: float) -> float:
        return (net(x_m(minutes) + 1.5, minutes) - 0.1) / 1.5

    def solved(wanted: Callable[[float], float]) -> float:
        low, high = _TIMES[0], _TIMES[-1]
        if wanted(low) * wanted(high) > 0:
            return math.nan
        return float(brentq(wanted, low, high))

    for minutes in _TIMES:
        gradient(minutes)
    normal = solved(lambda t: gradient(t) - 0.58)
    if math.isnan(normal):
        return
    meter = x_m(normal) + 4 * _STOP
    for push in (-1, 1, 2):
        for above in (0, 3):
            held = net(meter + above * _STOP, normal)
            x = meter + (above - push) * _STOP

            def off(minutes: float, x: float = x, held: float = held) -> float:
                return net(x, minutes) - held

            solved(off)


def _plain_bootstrap(strips: tuple[StripReadings, ...], draws: int) -> None:
    """Refit every strip to resampled readings and answer the same questions, draw by draw."""
    rng = np.random.default_rng(1)
    best = [(strip, strip.exposed()[0], _plain_fit(strip)) for strip in strips]
    for _ in range(draws):
        rows = [
            _plain_fit(strip, _plain(x, *p) + 0.012 * rng.standard_normal(len(x)))
            for strip, x, p in best
        ]
        _plain_answers(np.stack(rows))


def _starts() -> tuple[float, float]:
    """Seconds to import the four packages, and to a usable demo window."""
    bare = "import PyQt6.QtWidgets, pyqtgraph, numpy, scipy; print('x', flush=True)"
    commands = ([sys.executable, "-c", bare], [sys.executable, "-m", "vadrin", "--demo"])
    environment = {**os.environ, "VADRIN_SAY_USABLE": "1", "QT_QPA_PLATFORM": "offscreen"}
    spent: tuple[list[float], list[float]] = ([], [])
    for turn in range(8):
        for command, kept in zip(commands, spent, strict=True):
            start = time.perf_counter()
            with subprocess.Popen(command, env=environment, stdout=subprocess.PIPE) as run:
                if run.stdout:
                    run.stdout.readline()
                if turn:
                    kept.append(time.perf_counter() - start)
                run.kill()
    return statistics.median(spent[0]), statistics.median(spent[1])


def fit_rows() -> list[str]:
    """How long fits and a start take, as lines of the table."""
    strips = _strips()
    one, quick, full = strips[2:3], Settings(draws=0), Settings()
    near = fit_strips(one)

    def dragged() -> object:
        return metrics_of_strips(one, refit(one, near), None, quick.meter_constant)

    drag = _median_ms(dragged, 25)
    anew = _median_ms(lambda: analyse(one, quick), 15)
    fit_only = _median_ms(lambda: analyse(strips, quick), 5)
    whole = _median_ms(lambda: analyse(strips, full), 5)
    plain_one = _median_ms(lambda: _plain_fit(one[0]), 15)
    loop = _median_ms(lambda: _plain_bootstrap(strips, _LOOP_DRAWS), 1)
    loop *= full.draws / _LOOP_DRAWS
    bare, usable = _starts()
    repeated = replace(full, draws=64)
    fewer = _median_ms(lambda: analyse(strips, repeated), 5)
    rows = (
        ("drag: one strip refit, all figures / curve_fit", drag, plain_one),
        ("one strip from nothing, all figures / curve_fit", anew, plain_one),
        ("five strips, family, pushes, no intervals", fit_only, None),
        ("the same with intervals of 64 draws", fewer, None),
        (f"the same with intervals of {full.draws} draws / SciPy loop", whole, loop),
        ("start to a usable demo window / bare imports", 1000 * usable, 1000 * bare),
    )
    lines = [f"{'what':<58}{'ms':>9}{'beside':>10}{'ratio':>8}"]
    for name, ms, beside in rows:
        other = "" if beside is None else f"{beside:>10.1f}{ms / beside:>8.3f}"
        lines.append(f"{name:<58}{ms:>9.1f}{other}")
    return lines
