"""What to set the meter to, and what it should say, before a roll or a strip is begun."""

from __future__ import annotations

from vadrin.app.display.marks import aperture_mark, marked_ei, shutter_mark, stops_text
from vadrin.app.frame_order import Place
from vadrin.app.plan.camera_settings import metering_of
from vadrin.app.plan.compared_materials import on_twins
from vadrin.app.test_sheet import StripSheet, TestSheet
from vadrin.core.exposure.corrections import meter_setting_for
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.planning.test_kinds import Metering
from vadrin.notebook.records import Camera, LightMeter
from vadrin.notebook.store import Notebook


def strip_index(sheet: TestSheet, strip: StripSheet) -> float:
    """The EI a strip is metered at: that of its first lit frame, or the test's."""
    asked = (f.frame.exposure_index for f in strip.frames if f.frame.exposure_index)
    return next(asked, sheet.test.exposure_index)


def meter_says(sheet: TestSheet, index: float) -> str:
    """What the meter should say at an EI in the light the plan counts on: ``1/30 at f/5.6``."""
    seconds = exact_shutter(sheet.test.metered_seconds) * sheet.test.exposure_index / index
    return f"{shutter_mark(seconds)[0]} at {aperture_mark(sheet.test.aperture)}"


def dial_words(notebook: Notebook, sheet: TestSheet, index: float) -> str:
    """How to set an EI the dial does not reach; empty where it does, or no dial is known."""
    test = sheet.test
    camera = notebook.get(Camera, test.camera_id) if test.camera_id else None
    meter = notebook.get(LightMeter, test.meter_id) if test.meter_id else None
    dial = camera if camera and camera.dial_low and camera.dial_high else meter
    if dial is None or not dial.dial_low or not dial.dial_high:
        return ""
    reach = camera.compensation if dial is camera and camera else 0.0
    setting = meter_setting_for(index, dial.dial_low, dial.dial_high, reach)
    if setting.compensation == 0 and setting.short == 0:
        return ""
    words = f"set {marked_ei(setting.dial)}"
    if setting.compensation:
        words += f" and {stops_text(round(setting.compensation * 3) / 3, True)} compensation"
    if setting.short > 0.05:
        words += f", and count {stops_text(round(setting.short * 3) / 3)} stop more by hand"
    return f"the dial ends before it: {words}"


def meter_words(notebook: Notebook, sheet: TestSheet, strip: StripSheet) -> str:
    """What to set the meter to for a strip, and what it should say."""
    index = strip_index(sheet, strip)
    beyond = dial_words(notebook, sheet, index)
    where = f"EI {marked_ei(index)}" + (f" ({beyond})" if beyond else "")
    return f"Set the meter to {where}: it should say {meter_says(sheet, index)} (M)."


def meter_first(notebook: Notebook, sheet: TestSheet, shots: list[Place], number: int) -> str:
    """The meter is set before the first frame, for a new roll, and where the EI changes."""
    if metering_of(sheet.test) is Metering.ENLARGER:
        return ""
    strip = shots[number][0]
    if number == 0:
        return f"{meter_words(notebook, sheet, strip)} "
    before = [s for s, _ in shots[:number]]
    if on_twins(sheet.test) or strip in before:
        return ""
    if strip.strip.roll not in {s.strip.roll for s in before}:
        return f"A new roll. {meter_words(notebook, sheet, strip)} "
    changed = strip_index(sheet, strip) != strip_index(sheet, before[-1])
    return f"{meter_words(notebook, sheet, strip)} " if changed else ""
