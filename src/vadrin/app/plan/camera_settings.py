"""From a plan's exposures to the marks of the camera there is."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache
from math import log2

import numpy as np

from vadrin.app.entry.reciprocity_entry import reciprocity_of
from vadrin.core.exposure.arithmetic import exact_aperture
from vadrin.core.exposure.camera import (
    CameraLimits,
    CameraSetting,
    aperture_marks,
    cine_shutters,
    long_setting,
    settings_for,
    shutter_marks,
)
from vadrin.core.exposure.dark_slide import SlideExposure, slide_exposures
from vadrin.core.frames import LIT
from vadrin.core.planning.test_types import Metering, type_of
from vadrin.notebook.records import Camera, Frame, Lens, LightMeter, ShutterTime, Stock, Strip, Test
from vadrin.notebook.store import Notebook

_HELD_FINELY = 1 / 6
"""Times held by hand come in whole stops, but finer where a law asks for odd ones."""

_NEUTRAL = (0.0, 1.0, 2.0, 3.0, 6.0, 10.0)


def metering_of(test: Test) -> Metering:
    """What a test's exposures are counted from."""
    kind = type_of(test.kind)
    return kind.metering if kind else Metering.CAMERA


def limits_of(notebook: Notebook, test: Test, strip: Strip | None = None) -> CameraLimits:
    """What the camera and lens can be set to; any shutter where none is named.

    A strip shot with another camera, or on another film, has the limits of those.
    """
    camera_id = (strip and strip.camera_id) or test.camera_id
    camera = notebook.get(Camera, camera_id) if camera_id else None
    lens = notebook.get(Lens, test.lens_id) if test.lens_id else None
    stock = notebook.get(Stock, (strip and strip.stock_id) or test.stock_id)
    reciprocity = reciprocity_of(stock) if stock else None
    held = _HELD_FINELY if reciprocity else 1.0
    loss = (lens.light_loss if lens is not None else 0.0) + log2(max(test.filter_factor, 1.0))
    apertures: tuple[float, ...] = (exact_aperture(test.aperture),)
    if lens is not None:
        apertures = aperture_marks(lens.widest, lens.smallest, lens.aperture_step)
    if camera is None:
        shutters = shutter_marks(1.0, 1 / 8000, 1 / 6, bulb=True, held_step=held)
        return CameraLimits(shutters, apertures, light_loss=loss, reciprocity=reciprocity)
    shutters = shutter_marks(camera.slowest, camera.fastest, camera.shutter_step, camera.bulb, held)
    if camera.frame_rate and camera.shutter_angle:
        shutters = cine_shutters(camera.frame_rate, camera.shutter_angle)
    measured = tuple((s.marked, s.measured) for s in notebook.all(ShutterTime, camera_id=camera.id))
    return CameraLimits(shutters, apertures, measured, loss, reciprocity)


def dial_of(notebook: Notebook, test: Test) -> tuple[float, float, float] | None:
    """Lowest and highest EI of the dial that is set, and the stops it compensates either way.

    The camera's own where it has one, else the light meter's; None where neither is known. An
    end nobody noted is no end.
    """
    camera = notebook.get(Camera, test.camera_id) if test.camera_id else None
    if camera and (camera.dial_low or camera.dial_high):
        return camera.dial_low or 0.0, camera.dial_high or math.inf, camera.compensation
    meter = notebook.get(LightMeter, test.meter_id) if test.meter_id else None
    if meter and (meter.dial_low or meter.dial_high):
        return meter.dial_low or 0.0, meter.dial_high or math.inf, 0.0
    return None


def _filters(test: Test) -> tuple[float, ...]:
    """Neutral densities that may be used: none, unless the plan says up to how much."""
    return tuple(f for f in _NEUTRAL if f <= test.filter_stops + 1e-9)


@lru_cache(maxsize=64)
def _settings(
    limits: CameraLimits,
    seconds: float,
    aperture: float,
    wanted: tuple[float, ...],
    turned_first: str,
    filters: tuple[float, ...],
) -> tuple[CameraSetting, ...]:
    """As `settings_for`; the strips of a test ask for the same ones."""
    return settings_for(limits, seconds, aperture, np.array(wanted), turned_first, filters)


def with_settings(test: Test, limits: CameraLimits, frames: list[Frame]) -> list[Frame]:
    """Frames with the marks to set for each, and the exposure those marks really give."""
    if metering_of(test) is Metering.ENLARGER:
        base = test.metered_seconds
        return [
            replace(f, seconds=base * 2.0 ** (f.wanted_stops or 0.0), aperture=test.aperture)
            for f in frames
        ]
    if test.by_contact:
        one = test.metered_seconds * 2.0**test.last_stop
        return [
            f if f.wanted_stops is None else replace(f, seconds=one, aperture=test.aperture)
            for f in frames
        ]
    if on_one_sheet(test):
        return _under_the_slide(test, limits, frames)
    wanted = tuple(_from_meter(test, frames))
    metered = test.metered_seconds, test.aperture
    found = iter(
        _settings(limits, *metered, wanted, test.turned_first, _filters(test)) if wanted else ()
    )

    def marked(frame: Frame) -> Frame:
        asked = frame.wanted_stops or 0.0
        if frame.role not in LIT:
            return frame
        if frame.seconds is None:
            return _set(frame, next(found), asked)
        long = long_setting(limits, *metered, frame.seconds, asked)
        return _set(frame, long, long.wanted)

    return [marked(frame) for frame in frames]


def on_one_sheet(test: Test) -> bool:
    """Whether its strips are bands of one sheet, exposed together under the dark slide."""
    kind = type_of(test.kind)
    return kind is not None and kind.on_one_sheet(test.options)


def _under_the_slide(test: Test, limits: CameraLimits, frames: list[Frame]) -> list[Frame]:
    lit = [f for f in frames if f.role in LIT]
    first = (lit[0].wanted_stops or 0.0) if lit else 0.0
    found = iter(
        slide_exposures(limits, test.metered_seconds, test.aperture, first, len(lit)) if lit else ()
    )
    aperture = exact_aperture(test.aperture)

    def exposed(frame: Frame, cell: SlideExposure) -> Frame:
        return replace(frame, seconds=cell.total_s, aperture=aperture, stops=cell.stops)

    return [exposed(f, next(found)) if f.role in LIT else f for f in frames]


def _from_meter(test: Test, frames: list[Frame]) -> list[float]:
    """Wanted stops from the one meter reading, which was taken at the test's own EI."""
    return [
        (f.wanted_stops or 0.0) - _index_stops(test, f)
        for f in frames
        if f.role in LIT and f.seconds is None
    ]


def _index_stops(test: Test, frame: Frame) -> float:
    """How many stops less light a frame's EI asks for than the test's own."""
    return float(np.log2((frame.exposure_index or test.exposure_index) / test.exposure_index))


def _set(frame: Frame, setting: CameraSetting, wanted: float) -> Frame:
    return replace(
        frame,
        seconds=setting.seconds,
        aperture=setting.aperture,
        filter_stops=setting.filter_stops,
        stops=round(wanted + setting.stops - setting.wanted, 4),
    )
