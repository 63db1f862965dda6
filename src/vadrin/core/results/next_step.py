"""What to measure next: the reading or strip that would firm the answer up most.

The draws behind the intervals already hold how every reading hangs together with the
answer. A further reading d with noise s would cut the answer's variance by the share
cov(answer, d)**2 / ((var(d) + s**2) var(answer)); several at once by the same with matrices.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import STEP, curves_of, net_density_at
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.fitting import development_model
from vadrin.core.fitting.fit import Fit
from vadrin.core.fitting.intervals import DRAWN_SHARE
from vadrin.core.interruption import checkpoint
from vadrin.core.readings import StripReadings


class Act(Enum):
    """Kinds of next step."""

    REPEAT_FRAME = "read this frame again"
    ADD_FRAME = "add a frame at this exposure"
    RUN_STRIP = "run a strip for this time"


@dataclass(frozen=True)
class NextStep:
    """One act and what it is worth.

    Attributes
    ----------
    act : Act
    strip : str
        Its label; empty for a new strip.
    frame : str
        The frame to read again; empty otherwise.
    log_h : float or None
        Lg exposure of the frame meant.
    time_min : float or None
        Time of the strip to run.
    narrowing : float
        Share by which the interval of the answer is expected to narrow, 0 to 1.
    """

    act: Act
    strip: str
    frame: str
    log_h: float | None
    time_min: float | None
    narrowing: float


def _narrowing(answer: Array, seen: Array, noise: float, strayed: Array | None = None) -> float:
    """Share by which the answer's standard deviation falls, for readings (B, q) of it.

    `strayed` is what a strip of its own may differ by, shape (B, q): it blurs, and tells nothing.
    """
    centred = answer - answer.mean()
    others = seen - seen.mean(0)
    count = len(answer)
    spread = others.T @ others / count + (DRAWN_SHARE * noise) ** 2 * np.eye(seen.shape[1])
    if strayed is not None:
        spread += strayed.T @ strayed / count
    shared = others.T @ centred / count
    told = float(shared @ np.linalg.solve(spread, shared))
    variance = float((centred**2).mean())
    if variance <= 0:
        return 0.0
    return 1.0 - float(np.sqrt(np.clip(1.0 - told / variance, 0.0, 1.0)))


def _densities(fit: Fit, draws: Array, rows: Array, x: Array, minutes: float) -> Array:
    """Densities of drawn curves (B, 6) at lg exposures (q,): shape (B, q)."""
    at = np.array([minutes])
    curves = curves_of(rows, development_model.slope_weights_at(fit.model, draws, at)[:, 0])
    return np.asarray(curves.fog[:, None] + net_density_at(curves, x))


def _deviations(fit: Fit, count: int, rng: np.random.Generator) -> Array:
    """What a strip not yet run may deviate by, drawn, shape (count, 6)."""
    free = development_model.DEVIATION_UNIT * fit.scales.deviation_row * DRAWN_SHARE
    return np.asarray(free * rng.standard_normal((count, len(free))))


def next_steps(
    strips: tuple[StripReadings, ...],
    fit: Fit,
    draws: Array,
    answer: Array,
    rng: np.random.Generator,
    most: int = 3,
) -> tuple[NextStep, ...]:
    """The best few acts, the most narrowing first.

    Parameters
    ----------
    strips : tuple of StripReadings
        Those of the fit.
    fit : Fit
    draws : ndarray, shape (B, P)
    answer : ndarray, shape (B,)
        The quantity to firm up on every draw: ln EI, ln time.
    rng : numpy.random.Generator
        For the deviation of strips not yet run.
    most : int
        How many to return.
    """
    good = np.isfinite(answer)
    if good.sum() < 50:
        return ()
    draws, answer = draws[good], answer[good]
    found = _frame_steps(strips, fit, draws, answer)
    if fit.model.distinct >= 2:
        found += _strip_steps(strips, fit, draws, answer, rng)
    best: dict[tuple[Act, str], NextStep] = {}
    for step in sorted(found, key=lambda s: -s.narrowing):
        best.setdefault((step.act, step.strip), step)
    return tuple(sorted(best.values(), key=lambda s: -s.narrowing)[:most])


def _frame_steps(
    strips: tuple[StripReadings, ...], fit: Fit, draws: Array, answer: Array
) -> list[NextStep]:
    rows = development_model.strip_parameters(fit.model, draws)
    found = []
    for place, strip in enumerate(strips):
        checkpoint()
        x, _ = strip.exposed()
        between = np.arange(x.min() - STOP, x.max() + STOP + STEP, STOP / 2)
        fresh = between[np.abs(between[:, None] - x).min(1) > 0.04]
        for act, at, names in (
            (Act.REPEAT_FRAME, x, strip.exposed_names()),
            (Act.ADD_FRAME, fresh, ("",) * len(fresh)),
        ):
            if not len(at):
                continue
            seen = _densities(fit, draws, rows[:, place], at, float(fit.model.times[place]))
            gains = [_narrowing(answer, seen[:, i : i + 1], fit.noise) for i in range(len(at))]
            i = int(np.argmax(gains))
            found.append(
                NextStep(act, strip.label, names[i], float(at[i]), strip.time_min, gains[i])
            )
    return found


def _strip_steps(
    strips: tuple[StripReadings, ...],
    fit: Fit,
    draws: Array,
    answer: Array,
    rng: np.random.Generator,
) -> list[NextStep]:
    x = np.unique(strips[0].exposed()[0])
    found = []
    low, high = fit.model.times.min(), fit.model.times.max()
    for minutes in np.geomspace(low * 0.75, high * 1.35, 9):
        rows = development_model.curve_parameters(fit.model, draws, np.array([minutes]))[:, 0]
        seen = _densities(fit, draws, rows, x, float(minutes))
        own = rows + _deviations(fit, len(rows), rng)
        strayed = _densities(fit, draws, own, x, float(minutes)) - seen
        gain = _narrowing(answer, seen, fit.noise, strayed)
        found.append(NextStep(Act.RUN_STRIP, "", "", None, float(minutes), gain))
    return found
