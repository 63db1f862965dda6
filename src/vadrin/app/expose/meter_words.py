"""What to set the meter to, and what it should say, before a roll or a strip is begun."""

from __future__ import annotations

from vadrin.app.display.marks import aperture_mark, marked_ei, shutter_mark
from vadrin.app.expose.film_words import film_words
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.frame_order import Place
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.plan.camera_settings import dial_of, metering_of
from vadrin.app.plan.compared_materials import on_twins
from vadrin.core.checks.setting_checks import dial_setting_text
from vadrin.core.exposure.arithmetic import stops_counted
from vadrin.core.exposure.corrections import MeterSetting, meter_setting_for
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.planning.plan_request import Compared
from vadrin.core.planning.test_types import Metering, type_of
from vadrin.notebook.store import Notebook

_COUNTS = 0.05
"""Stops from which what a dial and its compensation leave open is said."""


def strip_index(loaded: LoadedTest, strip: LoadedStrip) -> float:
    """The EI a strip is metered at: that of its first lit frame, or the test's."""
    asked = (f.frame.exposure_index for f in strip.frames if f.frame.exposure_index)
    return next(asked, loaded.test.exposure_index)


def meter_says(loaded: LoadedTest, index: float) -> str:
    """What the meter should say at an EI in the light the plan counts on: ``1/30 at f/5.6``."""
    seconds = exact_shutter(loaded.test.metered_seconds) * loaded.test.exposure_index / index
    return f"{shutter_mark(seconds)[0]} at {aperture_mark(loaded.test.aperture)}"


def _setting(notebook: Notebook, loaded: LoadedTest, index: float) -> MeterSetting | None:
    """How the dial is set that ends before an EI; None where it does not, or none is known."""
    dial = dial_of(notebook, loaded.test)
    setting = meter_setting_for(index, *dial) if dial else None
    if setting is None or (setting.compensation == 0 and setting.short == 0):
        return None
    return setting


def _index_reached(setting: MeterSetting) -> float:
    """The EI that dial and compensation come to together."""
    return float(setting.dial * 2.0**-setting.compensation)


def dial_words(notebook: Notebook, loaded: LoadedTest, index: float) -> str:
    """How to set an EI the dial does not reach; empty where it does, or no dial is known."""
    setting = _setting(notebook, loaded, index)
    if setting is None:
        return ""
    words = f"the dial ends before it: {dial_setting_text(setting)}"
    if setting.short > _COUNTS:
        stops = stops_counted(round(setting.short * 3) / 3)
        side = "less" if index > _index_reached(setting) else "more"
        words += f", and give {stops} {side} by hand than the meter then says"
    return words


def meter_words(notebook: Notebook, loaded: LoadedTest, strip: LoadedStrip) -> str:
    """What to set the meter to for a strip, and what it should say."""
    index = strip_index(loaded, strip)
    beyond = dial_words(notebook, loaded, index)
    where = f"EI {marked_ei(index)}" + (f" ({beyond})" if beyond else "")
    setting = _setting(notebook, loaded, index)
    if setting is None or setting.short <= _COUNTS:
        return f"Set the meter to {where}: it should say {meter_says(loaded, index)} (M)."
    shown, given = (meter_says(loaded, at) for at in (_index_reached(setting), index))
    return f"Set the meter to {where}: it should say {shown} (M), and you give {given}."


def _light_of(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """The light a strip is for, where its test is shot in several; empty else."""
    kind = type_of(loaded.test.kind)
    if kind is None or not kind.lights_in_turn:
        return ""
    return strip.strip.note.partition(",")[0]


def load_words(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """Which film goes into the camera, where it is films that are compared; empty else."""
    kind = type_of(loaded.test.kind)
    films = loaded.test.compared in (Compared.STOCKS, Compared.BATCHES)
    if kind is None or not kind.compares_materials or not films:
        return ""
    return f"Load {film_name(loaded, strip)}. "


def meter_first(notebook: Notebook, loaded: LoadedTest, shots: list[Place], number: int) -> str:
    """The meter is set before the first frame, for a new roll, and where the EI changes."""
    if metering_of(loaded.test) is Metering.ENLARGER:
        return ""
    strip = shots[number][0]
    if number == 0:
        light = _light_of(loaded, strip)
        where = f"In {light}. " if light else ""
        return f"{where}{load_words(loaded, strip)}{meter_words(notebook, loaded, strip)} "
    before = [s for s, _ in shots[:number]]
    if _light_of(loaded, strip) != _light_of(loaded, before[-1]):
        anew = "read the meter anew, and count the stops from what it says. "
        return f"In {_light_of(loaded, strip)}: {anew}"
    if on_twins(loaded.test) or strip in before:
        return ""
    if strip.strip.roll not in {s.strip.roll for s in before}:
        new = load_words(loaded, strip) or f"A new {film_words(loaded).piece}. "
        return f"{new}{meter_words(notebook, loaded, strip)} "
    changed = strip_index(loaded, strip) != strip_index(loaded, before[-1])
    return f"{meter_words(notebook, loaded, strip)} " if changed else ""
