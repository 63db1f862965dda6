"""The traps a set of readings can hold, said in plain words."""

from __future__ import annotations

from collections import Counter
from typing import TYPE_CHECKING

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.figure import Figure
from vadrin.core.fitting.fit import Fit
from vadrin.core.limits import CURVE_ADVISED
from vadrin.core.process.minutes import minutes_brief, minutes_text
from vadrin.core.readings import StripReadings
from vadrin.core.restated_time import REFERENCE_TEMPERATURE_C
from vadrin.core.wording import counted

if TYPE_CHECKING:
    from vadrin.core.results.finding import Finding
    from vadrin.core.results.strip_metrics import StripMetrics

_FAMILY = 5
"""Times that differ from which on a strip can be told from the bend of the family."""
_SURELY, _CLEARLY, _OTHERS = 3.0, 0.10, 2.5
"""A strip is off by so many standard deviations, by so much in ln contrast, and by so many times
what the others are off among themselves."""
_BLANK_GAP = 0.06
"""Density by which blanks may differ, or a frame lie under them, before it is asked about."""


def _misread(fit: Fit) -> list[Diagnostic]:
    return [
        Diagnostic(
            "misread",
            Severity.SERIOUS,
            f"Strip {d.strip}, frame {d.frame} reads {d.density:.2f} where its neighbours "
            f"ask for {d.expected:.2f}: it {d.why}, and was left out.",
            "Read that frame again, and check that it is the frame the record says.",
            d.strip,
            (d.frame,),
        )
        for d in fit.outliers
    ]


def _means(strip: StripReadings, blank: bool) -> dict[str, float]:
    """Mean density of every blank, or every lit, frame of a strip; looks have no base in them."""
    read: dict[str, list[float]] = {}
    for r in strip.readings:
        if (r.log_h is None) == blank and not r.net:
            read.setdefault(r.frame, []).append(r.density)
    return {frame: float(np.mean(densities)) for frame, densities in read.items()}


def _questionable_blanks(
    strips: tuple[StripReadings, ...], fit: Fit, known: set[tuple[str, str]]
) -> list[Diagnostic]:
    """Blanks that disagree with each other, or with the frames that had light."""
    told = []
    for strip in strips:
        blanks, lit = _means(strip, blank=True), _means(strip, blank=False)
        if not blanks or not lit:
            continue
        base = float(np.median(list(blanks.values())))
        gap = max(_BLANK_GAP, 6 * fit.noise)
        apart = tuple(name for name, d in blanks.items() if abs(d - base) > gap)
        thin = tuple(n for n, d in lit.items() if d < min(blanks.values()) - gap)
        if apart:
            low, high = min(blanks.values()), max(blanks.values())
            words = f"The blanks of strip {strip.label} read {low:.2f} to {high:.2f}."
            told.append(_blank_doubt(words, strip.label, apart))
        elif len(thin) > 1 or any((strip.label, n) not in known for n in thin):
            many = len(thin) > len(blanks)
            words = (
                f"On strip {strip.label}, {counted(len(thin), 'frame')} "
                f"that had light {'is' if len(thin) == 1 else 'are'} thinner than the blank "
                f"({base:.2f})."
            )
            told.append(_blank_doubt(words, strip.label, tuple(blanks) if many else thin))
    return told


def _blank_doubt(words: str, strip: str, frames: tuple[str, ...]) -> Diagnostic:
    remedy = (
        "No frame should be thinner than the blank. Read them again, and check which are blank."
    )
    return Diagnostic("questionable blank", Severity.SERIOUS, words, remedy, strip, frames)


def _blanks(strips: tuple[StripReadings, ...]) -> list[Diagnostic]:
    bare = [s.label for s in strips if not len(s.blanks())]
    return [
        Diagnostic(
            "no blank frame",
            Severity.CAUTION,
            f"Strip {label} has no blank frame: base plus fog is estimated from the toe.",
            "Read the film between or after the frames as a blank.",
            label,
        )
        for label in bare
    ]


def _pasted_twice(strips: tuple[StripReadings, ...]) -> list[Diagnostic]:
    told = []
    for strip in strips:
        seen = Counter((r.frame, r.log_h, r.density) for r in strip.readings)
        if len(seen) >= CURVE_ADVISED and min(seen.values()) > 1:
            told.append(
                Diagnostic(
                    "pasted twice",
                    Severity.CAUTION,
                    f"Every reading of strip {strip.label} is duplicated.",
                    "Remove the copies, or the ranges will be too narrow.",
                    strip.label,
                )
            )
    return told


def _thin_brackets(strips: tuple[StripReadings, ...]) -> list[Diagnostic]:
    few = [s.label for s in strips if len(np.unique(s.exposed()[0])) < CURVE_ADVISED]
    return [
        Diagnostic(
            "few frames",
            Severity.CAUTION,
            f"Strip {label} has fewer than {CURVE_ADVISED} different exposures.",
            "Add frames between and beyond those read.",
            label,
        )
        for label in few
    ]


def _temperature(
    strips: tuple[StripReadings, ...], reports: tuple[StripMetrics, ...]
) -> list[Diagnostic]:
    told = []
    references = {s.label: s.reference_c for s in strips}
    for s in reports:
        if s.temperature_c is None or s.time_min is None or s.restated_min is None:
            continue
        reference = references.get(s.label, REFERENCE_TEMPERATURE_C)
        off = s.temperature_c - reference
        if abs(off) >= 0.3:
            side = "warm" if off > 0 else "cold"
            was, counts = (minutes_text(t, exact=True) for t in (s.time_min, s.restated_min))
            told.append(
                Diagnostic(
                    "temperature",
                    Severity.NOTE,
                    f"Strip {s.label} was {abs(off):.1f} °C {side}: its {was} min "
                    f"count as {counts} min at {reference:g} °C.",
                    "Temper the next strip to the reference temperature.",
                    s.label,
                )
            )
    return told


def _times(fit: Fit, finding: Finding) -> list[Diagnostic]:
    if fit.model.distinct == 1:
        return [
            Diagnostic(
                "one time",
                Severity.CAUTION,
                "Only one development time was tried, so no other time can be worked out.",
                "Develop a second strip at 1.5 × the time.",
            )
        ]
    told = []
    if fit.model.distinct == 2:
        told.append(
            Diagnostic(
                "two times",
                Severity.CAUTION,
                "Two development times make a straight line, not a curve: the range is wide.",
                "A third strip beyond the longer time shows how development bends.",
            )
        )
    bound = finding.nearest_tested_min
    if not finding.tested and bound is not None:
        way = "shorter" if bound <= float(np.min(fit.model.times)) else "longer"
        told.append(
            Diagnostic(
                "not tested",
                Severity.SERIOUS,
                "The wanted contrast lies outside the times tested.",
                f"Run one strip {way} than {minutes_brief(bound)} min.",
            )
        )
    return told


def _light_moved(strips: tuple[StripReadings, ...], noise: float) -> list[Diagnostic]:
    """Two frames of one exposure that do not agree."""
    told = []
    for strip in strips:
        by_exposure: dict[float, dict[str, list[float]]] = {}
        for r in strip.readings:
            if r.log_h is not None and not r.net:
                frames = by_exposure.setdefault(round(r.log_h, 3), {})
                frames.setdefault(r.frame, []).append(r.density)
        for frames in by_exposure.values():
            names = list(frames)
            if len(names) < 2:
                continue
            first, last = frames[names[0]], frames[names[-1]]
            gap = float(np.mean(last) - np.mean(first))
            sure = 3.0 * noise * (1 / len(first) + 1 / len(last)) ** 0.5
            if abs(gap) > max(sure, 0.03):
                told.append(
                    Diagnostic(
                        "light moved",
                        Severity.SERIOUS,
                        f"On strip {strip.label}, frames {names[0]} and {names[-1]} had the same "
                        f"exposure and differ by {abs(gap):.2f}: the light moved, or a shutter "
                        "sticks.",
                        "Expose the strip again in steady light, checking the meter on the way.",
                        strip.label,
                        (names[0], names[-1]),
                    )
                )
    return told


def _off_the_family(reports: tuple[StripMetrics, ...]) -> list[Diagnostic]:
    """A strip whose contrast the others, smooth in ln t among themselves, do not lead to."""
    known = [s for s in reports if s.restated_min and s.average_gradient.value]
    if len({s.restated_min for s in known}) < _FAMILY:
        return []
    ln_times = np.log([s.restated_min or 1.0 for s in known])
    gradient = np.array([s.average_gradient.known() for s in known])
    unsure = np.array([_spread(s.average_gradient) for s in known]) / gradient
    off, sigma, rest = np.array(
        [_left_out(ln_times, np.log(gradient), unsure, i) for i in range(len(known))]
    ).T
    worst = int(np.argmin(rest))
    sure = max(_SURELY * float(sigma[worst]), _CLEARLY, _OTHERS * float(rest[worst]))
    order = np.argsort(ln_times)
    rising = np.diff(gradient[order[order != worst]]) > 0
    if abs(off[worst]) < sure or not rising.all():
        # Where contrast falls, fog eats it, and a parabola says little.
        return []
    label = known[worst].label
    return [
        Diagnostic(
            "off the family",
            Severity.CAUTION,
            f"Strip {label} does not fit with the other strips: its time or temperature may have "
            "been other than noted.",
            "Check the notes of that strip, or run it again.",
            label,
        )
    ]


def _spread(figure: Figure) -> float:
    """Standard deviation behind a range; none is said where no range was wanted."""
    return 0.0 if figure.low is None or figure.high is None else (figure.high - figure.low) / 3.92


def _left_out(
    ln_times: Array, ln_gradient: Array, unsure: Array, place: int
) -> tuple[float, float, float]:
    """By how much one strip misses a parabola through the others, how sure that is, and by how
    much the others miss it themselves."""
    others = np.arange(len(ln_times)) != place
    powers = np.vander(ln_times - ln_times[others].mean(), 3)
    solver = np.linalg.pinv(powers[others])
    through = powers[place] @ solver
    off = float(ln_gradient[place] - through @ ln_gradient[others])
    sigma = np.sqrt(unsure[place] ** 2 + (through**2 * unsure[others] ** 2).sum())
    missed = ln_gradient[others] - powers[others] @ (solver @ ln_gradient[others])
    return off, float(sigma), float(np.sqrt((missed**2).sum()))


def reading_diagnostics(
    strips: tuple[StripReadings, ...], fit: Fit, reports: tuple[StripMetrics, ...], finding: Finding
) -> tuple[Diagnostic, ...]:
    """All warnings of a test, the most serious first."""
    found = _misread(fit) + _light_moved(strips, fit.noise) + _times(fit, finding)
    misread = {(d.strip, d.frame) for d in fit.outliers}
    found += _questionable_blanks(strips, fit, misread)
    found += _off_the_family(reports) + _blanks(strips)
    found += _pasted_twice(strips) + _thin_brackets(strips) + _temperature(strips, reports)
    order = [Severity.SERIOUS, Severity.CAUTION, Severity.NOTE]
    return tuple(sorted(found, key=lambda w: order.index(w.severity)))
