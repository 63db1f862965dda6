"""The traps a set of readings can hold, said in plain words."""

from __future__ import annotations

import numpy as np

from vadrin.core.finding import Finding
from vadrin.core.fit import Fit
from vadrin.core.readings import REFERENCE_TEMPERATURE_C, StripReadings
from vadrin.core.strip_figures import StripFigures
from vadrin.core.warnings import Severity, Warning

_FEW_FRAMES = 5


def _misread(fit: Fit) -> list[Warning]:
    return [
        Warning(
            "misread",
            Severity.SERIOUS,
            f"Strip {d.strip}, frame {d.frame} reads {d.density:.2f} where its neighbours "
            f"ask for {d.expected:.2f}; it was left out.",
            "Read that frame again, and check that it is the frame the record says.",
            d.strip,
            (d.frame,),
        )
        for d in fit.dropped
    ]


def _blanks(strips: tuple[StripReadings, ...]) -> list[Warning]:
    bare = [s.label for s in strips if not len(s.blanks())]
    return [
        Warning(
            "no blank frame",
            Severity.CAUTION,
            f"Strip {label} has no blank frame: base plus fog is taken from the foot of the curve.",
            "Read the film between or after the frames as a blank.",
            label,
        )
        for label in bare
    ]


def _thin_brackets(strips: tuple[StripReadings, ...]) -> list[Warning]:
    few = [s.label for s in strips if len(np.unique(s.exposed()[0])) < _FEW_FRAMES]
    return [
        Warning(
            "few frames",
            Severity.CAUTION,
            f"Strip {label} has fewer than {_FEW_FRAMES} exposures that differ.",
            "Add frames between and beyond those read.",
            label,
        )
        for label in few
    ]


def _temperature(reports: tuple[StripFigures, ...]) -> list[Warning]:
    told = []
    for s in reports:
        if s.temperature_c is None or s.time_min is None or s.restated_min is None:
            continue
        off = s.temperature_c - REFERENCE_TEMPERATURE_C
        if abs(off) >= 0.3:
            side = "warm" if off > 0 else "cold"
            told.append(
                Warning(
                    "temperature",
                    Severity.NOTE,
                    f"Strip {s.label} was {abs(off):.1f} °C {side}: its {s.time_min:g} min "
                    f"count as {s.restated_min:.2f} min at {REFERENCE_TEMPERATURE_C:g} °C.",
                    "Temper the next strip to the reference temperature.",
                    s.label,
                )
            )
    return told


def _times(fit: Fit, finding: Finding) -> list[Warning]:
    if fit.law.distinct == 1:
        return [
            Warning(
                "one time",
                Severity.CAUTION,
                "Only one development time was tried, so no other time can be worked out.",
                "Develop a second strip half as long again.",
            )
        ]
    told = []
    if fit.law.distinct == 2:
        told.append(
            Warning(
                "two times",
                Severity.CAUTION,
                "Two development times make a straight line, not a curve: the range is wide.",
                "A third strip beyond the longer time shows how development bends.",
            )
        )
    if not finding.tested and finding.nearest_tested_min is not None:
        told.append(
            Warning(
                "not tested",
                Severity.SERIOUS,
                "The wanted contrast lies outside the times tested.",
                f"Run one strip beyond {finding.nearest_tested_min:g} min.",
            )
        )
    return told


def traps(
    strips: tuple[StripReadings, ...],
    fit: Fit,
    reports: tuple[StripFigures, ...],
    finding: Finding,
) -> tuple[Warning, ...]:
    """All warnings of a test, the most serious first."""
    found = _misread(fit) + _times(fit, finding) + _blanks(strips)
    found += _thin_brackets(strips) + _temperature(reports)
    order = [Severity.SERIOUS, Severity.CAUTION, Severity.NOTE]
    return tuple(sorted(found, key=lambda w: order.index(w.severity)))
