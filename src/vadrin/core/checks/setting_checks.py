"""Traps in how frames were exposed and developed, beside those in the readings."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.diagnostic import Diagnostic, Severity
from vadrin.core.exposure.arithmetic import marked_ei, stops_counted, stops_text
from vadrin.core.exposure.corrections import MeterSetting, daylight_excess, meter_setting_for


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
    """The dial ends before the EI wanted."""
    setting = meter_setting_for(wanted, lowest, highest, compensation)
    if setting.compensation == 0 and setting.short == 0:
        return []
    words = f"The meter dial stops before EI {marked_ei(wanted)}: {dial_setting_text(setting)}"
    severity = Severity.NOTE
    left = round(setting.left * 3) / 3
    rest = f"{stops_counted(left)} of compensation remain{'s' if left <= 1 else ''}."
    if setting.short > 0.05:
        severity = Severity.SERIOUS
        rest = f"Short by {stops_counted(round(setting.short * 3) / 3)}: meter by hand."
    return [Diagnostic("dial", severity, words + ".", rest)]


def daylight_after_a_push(
    exposure_index: float, fastest_s: float, smallest_f: float
) -> list[Diagnostic]:
    """The rest of a roll pushed at night is too fast for daylight."""
    excess = daylight_excess(exposure_index, fastest_s, smallest_f)
    if excess <= 0:
        return []
    return [
        Diagnostic(
            "daylight",
            Severity.CAUTION,
            f"In full sun this camera overexposes EI {marked_ei(exposure_index)} by "
            f"{stops_counted(round(excess * 3) / 3)}, even at its fastest shutter speed and "
            "smallest aperture.",
            "Finish the roll before daylight, or use a neutral density of "
            f"{0.3 * np.ceil(excess):.1f}.",
        )
    ]


def stained(visual: Array, blue: Array) -> list[Diagnostic]:
    """A stained negative read through the visual filter only."""
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
