"""The question a test poses to the core: its readings, and how to work them out."""

from __future__ import annotations

from vadrin.app.test_sheet import TestSheet
from vadrin.core import readings as core
from vadrin.core.fitting.family import Target
from vadrin.core.results.analysis import Settings


def channel_of(sheet: TestSheet) -> str:
    """The channel a test is worked out in: visual, or the first that was read."""
    used = {r.channel for _, f in sheet.frames() for r in f.readings}
    order = ("visual", "red", "green", "blue", "uv")
    return next((c for c in order if c in used), "visual")


def readings_of(sheet: TestSheet) -> tuple[core.StripReadings, ...]:
    """The readings that count, as the core wants them."""
    channel = channel_of(sheet)
    strips = []
    for strip in sheet.strips:
        rows = tuple(
            core.Reading(f.frame.name, f.log_h(sheet.test.meter_constant), r.density)
            for f in strip.frames
            if f.counts
            for r in f.readings
            if not r.left_out and r.channel == channel
        )
        if rows:
            temperature = strip.strip.temperature_c
            label, material = strip.strip.label, sheet.material_of(strip)
            strips.append(
                core.StripReadings(label, strip.minutes, temperature, rows, channel, material)
            )
    return tuple(strips)


def settings_of(sheet: TestSheet, draws: int = 200) -> Settings:
    """How a test is to be worked out."""
    target = Target(sheet.test.target_kind, sheet.test.target_value)
    return Settings(
        target=target,
        school=sheet.test.school,
        meter_constant=sheet.test.meter_constant,
        draws=draws,
    )
