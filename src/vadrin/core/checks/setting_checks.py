"""Traps in how frames were exposed and developed, beside those in the readings."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.exposure.arithmetic import marked_ei, stops_counted, stops_text
from vadrin.core.exposure.corrections import MeterSetting, daylight_excess, meter_setting_for
from vadrin.core.exposure.reciprocity import LONG_S
from vadrin.core.figure import Figure
from vadrin.core.process.minutes import minutes_text
from vadrin.core.process.temperature import restated_drift
from vadrin.core.wording import counted

_FAST_ENOUGH = 0.25


@dataclass(frozen=True)
class FrameSetting:
    """How one frame was exposed.

    Attributes
    ----------
    frame : str
    seconds, f_number : float
        As marked on the camera.
    measured_s : float
        What the shutter was measured to give; 0 where it was not.
    """

    frame: str
    seconds: float
    f_number: float
    measured_s: float = 0.0


def marks_taken_for_exact(
    settings: tuple[FrameSetting, ...], fastest_s: float, widest_f: float
) -> list[Diagnostic]:
    """Trap 1: shutters that are off, and the two settings that never match the rest."""
    off = [s for s in settings if s.measured_s > 0 and abs(log2(s.measured_s / s.seconds)) > 1 / 6]
    edge = [
        s
        for s in settings
        if (s.seconds <= fastest_s * 1.01 and not s.measured_s) or s.f_number <= widest_f * 1.01
    ]
    told = []
    if off:
        told.append(
            Diagnostic(
                "shutter off",
                Severity.CAUTION,
                "The shutter is off by more than a sixth of a stop on "
                f"{counted(len(off), 'frame')}.",
                "The measured times are used instead of the marks.",
                frames=tuple(s.frame for s in off),
            )
        )
    if edge:
        told.append(
            Diagnostic(
                "edge settings",
                Severity.NOTE,
                "Frames at full aperture or the shortest time seldom match the rest.",
                "Shift the bracket by a stop, or measure that setting.",
                frames=tuple(s.frame for s in edge),
            )
        )
    return told


def long_beside_short(settings: tuple[FrameSetting, ...], corrected: bool) -> list[Diagnostic]:
    """Trap 2: long exposures bend the curve for reciprocity, not for the film."""
    long = [s for s in settings if s.seconds > LONG_S]
    short = [s for s in settings if s.seconds <= _FAST_ENOUGH]
    if corrected or not long or not short:
        return []
    return [
        Diagnostic(
            "reciprocity",
            Severity.CAUTION,
            f"{counted(len(long), 'frame')} longer than {LONG_S:g} s beside short ones.",
            "Correct them for reciprocity, or bracket by the aperture.",
            frames=tuple(s.frame for s in long),
        )
    ]


def drifted_bath(strip: str, minutes: Array, temperature_c: Array, total_min: float
                 ) -> list[Diagnostic]:  # fmt: skip
    """Trap 9: a bath that drifted by half a degree or more, with the time it was worth."""
    if len(minutes) < 2 or np.ptp(temperature_c) < 0.5:
        return []
    effective_shutter = restated_drift(minutes, temperature_c, total_min)
    return [
        Diagnostic(
            "drift",
            Severity.NOTE,
            f"Strip {strip}'s bath went from {temperature_c[0]:.1f} to {temperature_c[-1]:.1f} °C: "
            f"its {minutes_text(total_min, exact=True)} min count as "
            f"{minutes_text(effective_shutter, exact=True)} min at 20 °C.",
            "Stand the tank in tempered water.",
            strip,
        )
    ]


def dial_setting_text(setting: MeterSetting) -> str:
    """How a dial is set that ends before the EI: ``set 1600 and −2 compensation``."""
    words = f"set {marked_ei(setting.dial)}"
    if setting.compensation:
        stops = stops_text(round(setting.compensation * 3) / 3, signed=True)
        words += f" and {stops} compensation"
    return words


def dial_ends_below(
    wanted: float, lowest: float, highest: float, compensation: float
) -> list[Diagnostic]:
    """Trap 13: the dial ends before the EI wanted."""
    setting = meter_setting_for(wanted, lowest, highest, compensation)
    if setting.compensation == 0 and setting.short == 0:
        return []
    words = f"The dial ends before EI {marked_ei(wanted)}: {dial_setting_text(setting)}"
    severity = Severity.NOTE
    rest = f"Of compensation {stops_counted(round(setting.left * 3) / 3)} is left."
    if setting.short > 0.05:
        severity = Severity.SERIOUS
        rest = f"Short by {stops_counted(round(setting.short * 3) / 3)}: meter by hand."
    return [Diagnostic("dial", severity, words + ".", rest)]


def left_on_another_speed(stops: Figure, shot_at: float) -> list[Diagnostic]:
    """Trap 14: a roll shot at another film's setting is a push or a pull."""
    if stops.value is None or abs(stops.value) < 1 / 6:
        return []
    kind = "push" if stops.value > 0 else "pull"
    size = stops_counted(round(stops.value * 3) / 3)
    return [
        Diagnostic(
            "wrong setting",
            Severity.SERIOUS,
            f"Shot at EI {marked_ei(shot_at)}, this roll is a {kind} of {size}.",
            f"Develop the whole roll for that {kind}.",
        )
    ]


def daylight_after_a_push(exposure_index: float, fastest_s: float, smallest_f: float
                          ) -> list[Diagnostic]:  # fmt: skip
    """Trap 15: the rest of a roll pushed at night is too fast for daylight."""
    excess = daylight_excess(exposure_index, fastest_s, smallest_f)
    if excess <= 0:
        return []
    return [
        Diagnostic(
            "daylight",
            Severity.CAUTION,
            f"In sunlight this camera overexposes EI {marked_ei(exposure_index)} by "
            f"{stops_counted(round(excess * 3) / 3)} at its least exposure.",
            f"Finish the roll before day, or use a neutral density of {0.3 * np.ceil(excess):.1f}.",
        )
    ]


def stained(visual: Array, blue: Array) -> list[Diagnostic]:
    """Trap 11: a stained negative read through the visual filter only."""
    if len(visual) == 0 or float(np.max(blue - visual)) < 0.08:
        return []
    return [
        Diagnostic(
            "stain",
            Severity.CAUTION,
            f"The negative is stained: up to {float(np.max(blue - visual)):.2f} denser to paper "
            "than to the eye.",
            "Work from the blue readings, which are the printing density.",
        )
    ]
