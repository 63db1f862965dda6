"""What to set the meter to, and what it should say, before a roll or a strip is begun."""

from __future__ import annotations

from vadrin.app.display.marks import aperture_mark, marked_ei, shutter_mark
from vadrin.app.loaded.frame_order import Place
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.plan.camera_settings import dial_of, metering_of
from vadrin.app.plan.compared_materials import on_twins
from vadrin.core.checks.setting_checks import dial_setting_text
from vadrin.core.exposure.arithmetic import stops_counted
from vadrin.core.exposure.corrections import meter_setting_for
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.planning.test_types import Metering
from vadrin.notebook.store import Notebook


def strip_index(loaded: LoadedTest, strip: LoadedStrip) -> float:
    """The EI a strip is metered at: that of its first lit frame, or the test's."""
    asked = (f.frame.exposure_index for f in strip.frames if f.frame.exposure_index)
    return next(asked, loaded.test.exposure_index)


def meter_says(loaded: LoadedTest, index: float) -> str:
    """What the meter should say at an EI in the light the plan counts on: ``1/30 at f/5.6``."""
    seconds = exact_shutter(loaded.test.metered_seconds) * loaded.test.exposure_index / index
    return f"{shutter_mark(seconds)[0]} at {aperture_mark(loaded.test.aperture)}"


def dial_words(notebook: Notebook, loaded: LoadedTest, index: float) -> str:
    """How to set an EI the dial does not reach; empty where it does, or no dial is known."""
    dial = dial_of(notebook, loaded.test)
    setting = meter_setting_for(index, *dial) if dial else None
    if setting is None or (setting.compensation == 0 and setting.short == 0):
        return ""
    words = f"the dial ends before it: {dial_setting_text(setting)}"
    if setting.short > 0.05:
        words += f", and count {stops_counted(round(setting.short * 3) / 3)} more by hand"
    return words


def meter_words(notebook: Notebook, loaded: LoadedTest, strip: LoadedStrip) -> str:
    """What to set the meter to for a strip, and what it should say."""
    index = strip_index(loaded, strip)
    beyond = dial_words(notebook, loaded, index)
    where = f"EI {marked_ei(index)}" + (f" ({beyond})" if beyond else "")
    return f"Set the meter to {where}: it should say {meter_says(loaded, index)} (M)."


def meter_first(notebook: Notebook, loaded: LoadedTest, shots: list[Place], number: int) -> str:
    """The meter is set before the first frame, for a new roll, and where the EI changes."""
    if metering_of(loaded.test) is Metering.ENLARGER:
        return ""
    strip = shots[number][0]
    if number == 0:
        return f"{meter_words(notebook, loaded, strip)} "
    before = [s for s, _ in shots[:number]]
    if on_twins(loaded.test) or strip in before:
        return ""
    if strip.strip.roll not in {s.strip.roll for s in before}:
        return f"A new roll. {meter_words(notebook, loaded, strip)} "
    changed = strip_index(loaded, strip) != strip_index(loaded, before[-1])
    return f"{meter_words(notebook, loaded, strip)} " if changed else ""
