"""The question a test poses to the core: its readings, and how to work them out."""

from __future__ import annotations

import math
from collections.abc import Iterator

from vadrin.app.loaded.light_boxes import light_box_result
from vadrin.app.loaded.loaded_test import SCAN, LoadedStrip, LoadedTest
from vadrin.app.loaded.makers_told import makers_of_test
from vadrin.app.loaded.once import once
from vadrin.app.loaded.reference_temperature import reference_of, temperature_factor_of
from vadrin.core import readings as core
from vadrin.core.channels import Channel
from vadrin.core.curves.metrics import SPEED_DENSITY
from vadrin.core.fitting.fit import INSTRUMENT_NOISE
from vadrin.core.planning.test_types import type_of
from vadrin.core.process.makers_table import makers_minutes
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Analysis, Settings
from vadrin.core.results.common_error import SCAN_SCALE
from vadrin.core.results.criteria import MEASURES, Target
from vadrin.core.results.push import RulesOfThumb
from vadrin.core.step_deviation import step_deviation
from vadrin.notebook.records import Reading

LIGHT_BOX = "light box"
"""Stands for a frame where the light box told a strip's speed point."""
_ENOUGH_READ = 3
_TOE_SLOPE = 0.45
"""Usual slope of a film at its speed point."""


def channel_of(loaded: LoadedTest) -> Channel:
    """The channel a test is worked out in: its own; else visual, or the first that was read."""
    used = channels_read(loaded)
    own = next((c for c in Channel if c == loaded.test.channel), None)
    if own in used:
        return own
    return next((c for c in Channel if c in used), Channel.VISUAL)


def channels_read(loaded: LoadedTest) -> set[Channel]:
    """The channels that something was read in."""
    return {r.channel for _, f in loaded.frames() for r in f.readings}


def _by_eye(
    loaded: LoadedTest, strip: LoadedStrip, rows: tuple[core.Reading, ...]
) -> tuple[core.Reading, ...]:
    """What the light box told of a strip that was read too: where its speed point lies."""
    seen, lit = light_box_result(loaded, strip), sum(r.log_h is not None for r in rows)
    if seen is None or lit < _ENOUGH_READ or lit == len(rows):
        return ()
    index = seen.zone_ei
    if index.value is None or index.low is None or index.high is None:
        return ()
    spread = math.log10(index.high / index.low) / (2 * 1.96)
    at = math.log10(loaded.test.meter_constant / 16 / index.value)
    return (core.Reading(LIGHT_BOX, at, SPEED_DENSITY, _TOE_SLOPE * spread, net=True),)


def readings_of(loaded: LoadedTest) -> tuple[core.StripReadings, ...]:
    """The readings that count, as the core wants them; of a kind that keeps its channels apart,
    strip by strip in each of them."""
    made = [
        _of_strip(loaded, strip, channel) for channel in _asked(loaded) for strip in loaded.strips
    ]
    return tuple(m for m in made if m is not None)


def taking_readings_of(loaded: LoadedTest) -> Iterator[None]:
    """Take the readings that count strip by strip; whoever asks for them then waits for none.

    Densities of its frames, which every view asks for, are kept with them.
    """
    for channel in _asked(loaded):
        for strip in loaded.strips:
            _of_strip(loaded, strip, channel)
            # Every one, so no `any`, which would stop at the first that was read.
            for frame in strip.frames:
                _ = frame.density
            yield


def _asked(loaded: LoadedTest) -> list[Channel]:
    """The channels a test is worked out in."""
    kind = type_of(loaded.test.kind)
    wanted = [channel_of(loaded)]
    if kind is not None and kind.channels_apart:
        left = set() if kind.visual_too else {Channel.VISUAL}
        wanted = sorted(channels_read(loaded) - left) or wanted
    return wanted


@once
def _of_strip(
    loaded: LoadedTest, strip: LoadedStrip, channel: Channel
) -> core.StripReadings | None:
    """A strip's readings in a channel; None where there are none."""
    rows = tuple(
        core.Reading(f.number, f.log_h(loaded.test.meter_constant), r.density, own_deviation(r))
        for f in strip.frames
        if f.counts
        for r in f.readings
        if not r.left_out and r.channel == channel
    )
    if not rows:
        return None
    if channel == Channel.VISUAL:
        rows += _by_eye(loaded, strip, rows)
    return core.StripReadings(
        strip.strip.label,
        strip.minutes,
        strip.strip.temperature_c,
        rows,
        channel,
        loaded.material_of(strip),
        reference_of(loaded, strip),
        temperature_factor_of(loaded, strip),
        SCAN_SCALE if _scanned(strip, channel) else 0.0,
    )


def _scanned(strip: LoadedStrip, channel: Channel) -> bool:
    """Whether a strip was read off a picture."""
    return any(
        r.way == SCAN for f in strip.frames for r in f.readings if r.channel == channel and f.counts
    )


def own_deviation(reading: Reading) -> float:
    """What a reading brings of its own uncertainty: that of its step, or what it was given."""
    if reading.low is not None and reading.high is not None:
        return step_deviation(reading.low, reading.high)
    return reading.deviation or 0.0


def settings_of(loaded: LoadedTest, draws: int = 200) -> Settings:
    """How a test is to be worked out."""
    instrument = loaded.instrument
    # A notebook from elsewhere, or a hurt one, may name a measure this program does not know.
    known = loaded.test.target_kind in MEASURES
    target = Target(loaded.test.target_kind, loaded.test.target_value) if known else Target()
    return Settings(
        target=target,
        pushes=_pushes_of(loaded),
        method=loaded.test.school,
        meter_constant=loaded.test.meter_constant,
        rules_of_thumb=RulesOfThumb(makers=_makers_of(loaded)),
        instrument_noise=(instrument and instrument.noise) or INSTRUMENT_NOISE,
        draws=draws,
    )


def _pushes_of(loaded: LoadedTest) -> tuple[float, ...]:
    """The pushes that are answered: the usual ones, and every one that was shot."""
    shot = {s.strip.push for s in loaded.strips if s.strip.push is not None}
    return tuple(sorted({*Settings().pushes, *shot}))


def _makers_of(loaded: LoadedTest) -> tuple[tuple[float, float], ...]:
    """Minutes that the maker's table names for the pushes answered here."""
    told = makers_of_test(loaded)
    minutes = {stops: makers_minutes(told, stops) for stops in _pushes_of(loaded)}
    return tuple((stops, m) for stops, m in minutes.items() if m is not None)


def analyse_as(kind: str, strips: tuple[core.StripReadings, ...], settings: Settings) -> Analysis:
    """Work readings out as a kind of test asks for it."""
    known = type_of(kind)
    return known.analyse(strips, settings) if known else analyse(strips, settings)
