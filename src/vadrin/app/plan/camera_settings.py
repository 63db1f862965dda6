"""From a plan's wishes to the marks of the camera there is, and what that camera cannot do."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from vadrin.app.display.quantities import list_text
from vadrin.app.entry.reciprocity_entry import law_of
from vadrin.app.plan.planning import by_contact
from vadrin.app.test_sheet import StripSheet, TestSheet
from vadrin.core.checks.setting_checks import daylight_after_a_push, dial_ends_below
from vadrin.core.exposure.arithmetic import exact_aperture, stops_text
from vadrin.core.exposure.camera import (
    CameraLimits,
    CameraSetting,
    aperture_marks,
    cine_shutters,
    long_setting,
    neutral_density_needed,
    settings_for,
    shutter_marks,
)
from vadrin.core.planning.test_kinds import NO_CHECK
from vadrin.notebook.records.all_records import BRACKET, CHECK, Frame, Strip, Test
from vadrin.notebook.records.kit import Camera, Lens, LightMeter, ShutterTime, Stock
from vadrin.notebook.store import Notebook

_LIT = (BRACKET, CHECK)
UNMETERED = ("paper", "reciprocity")
"""Kinds whose times are their question, not what a camera's marks allow."""

_HELD_FINELY = 1 / 6
"""Times held by hand come in whole stops, but finer where a law asks for odd ones."""

_NEUTRAL = (0.0, 1.0, 2.0, 3.0, 6.0, 10.0)


def limits_of(notebook: Notebook, test: Test, strip: Strip | None = None) -> CameraLimits:
    """What the camera and lens can be set to; any shutter where none is named.

    A strip shot with another camera, or on another film, has the limits of those.
    """
    camera_id = (strip and strip.camera_id) or test.camera_id
    camera = notebook.get(Camera, camera_id) if camera_id else None
    lens = notebook.get(Lens, test.lens_id) if test.lens_id else None
    stock = notebook.get(Stock, (strip and strip.stock_id) or test.stock_id)
    law = law_of(stock) if stock else None
    held = _HELD_FINELY if law else 1.0
    apertures: tuple[float, ...] = (exact_aperture(test.aperture),)
    if lens is not None:
        apertures = aperture_marks(lens.widest, lens.smallest, lens.aperture_step)
    if camera is None:
        shutters = shutter_marks(1.0, 1 / 8000, 1 / 6, bulb=True, held_step=held)
        return CameraLimits(shutters, apertures, law=law)
    shutters = shutter_marks(camera.slowest, camera.fastest, camera.shutter_step, camera.bulb, held)
    if camera.frame_rate and camera.shutter_angle:
        shutters = cine_shutters(camera.frame_rate, camera.shutter_angle)
    measured = tuple((s.marked, s.measured) for s in notebook.all(ShutterTime, camera_id=camera.id))
    return CameraLimits(shutters, apertures, measured, law=law)


def _filters(test: Test) -> tuple[float, ...]:
    """Neutral densities that may be used: none, unless the plan says up to how much."""
    return tuple(f for f in _NEUTRAL if f <= test.filter_stops + 1e-9)


@lru_cache(maxsize=64)
def _settings(
    limits: CameraLimits, seconds: float, aperture: float, wanted: tuple[float, ...], prefer: str,
    filters: tuple[float, ...],
) -> tuple[CameraSetting, ...]:  # fmt: skip
    """As `settings_for`; the strips of a test ask for the same ones."""
    return settings_for(limits, seconds, aperture, np.array(wanted), prefer, filters)


def with_settings(test: Test, limits: CameraLimits, frames: list[Frame]) -> list[Frame]:
    """Frames with the marks to set for each, and the exposure those marks really give."""
    if test.kind == "paper":
        base = test.metered_seconds
        return [
            replace(f, seconds=base * 2.0 ** (f.wanted_stops or 0.0), aperture=test.aperture)
            for f in frames
        ]
    if by_contact(test):
        one = test.metered_seconds * 2.0**test.last_stop
        return [
            f if f.wanted_stops is None else replace(f, seconds=one, aperture=test.aperture)
            for f in frames
        ]
    wanted = [f.wanted_stops or 0.0 for f in frames if f.role in _LIT and f.seconds is None]
    found = iter(
        _settings(
            limits, test.metered_seconds, test.aperture, tuple(_from_meter(test, frames)),
            test.prefer, _filters(test),
        )
        if wanted else ()
    )  # fmt: skip
    made = []
    for frame in frames:
        if frame.role not in _LIT:
            made.append(frame)
        elif frame.seconds is not None:
            long = long_setting(limits, test.metered_seconds, test.aperture, frame.seconds,
                                frame.wanted_stops or 0.0)  # fmt: skip
            made.append(_set(frame, long, long.wanted))
        else:
            setting = next(found)
            made.append(_set(frame, setting, frame.wanted_stops or 0.0))
    return made


def _from_meter(test: Test, frames: list[Frame]) -> list[float]:
    """Wanted stops from the one meter reading, which was taken at the test's own EI."""
    return [
        (f.wanted_stops or 0.0) - _index_stops(test, f)
        for f in frames
        if f.role in _LIT and f.seconds is None
    ]


def _index_stops(test: Test, frame: Frame) -> float:
    """How many stops less light a frame's EI asks for than the test's own."""
    return float(np.log2((frame.exposure_index or test.exposure_index) / test.exposure_index))


def _set(frame: Frame, setting: CameraSetting, wanted: float) -> Frame:
    return replace(
        frame, seconds=setting.seconds, aperture=setting.aperture,
        filter_stops=setting.filter_stops, stops=round(wanted + setting.stops - setting.wanted, 4),
    )  # fmt: skip


@dataclass(frozen=True)
class PlanAdvice:
    """What is to be known of a plan before it is shot: faults first, then notes."""

    faults: tuple[str, ...]
    notes: tuple[str, ...]


def advice_on(notebook: Notebook, sheet: TestSheet) -> PlanAdvice:
    """What the camera cannot do of a plan, what would help, and what to look out for."""
    test, faults, notes = sheet.test, [], []
    groups = _by_limits(sheet)
    for strips in groups:
        limits = limits_of(notebook, test, strips[0].strip)
        lit = [f.frame for s in strips for f in s.frames if f.frame.role in _LIT]
        whose = _camera_name(notebook, strips[0].strip)
        faults += [f"{whose}{words}" for words in _unreached(test, limits, lit)]
        mine = [] if test.kind in UNMETERED else _notes(limits, lit)
        labels = list_text([s.strip.label for s in strips])
        notes += [f"Strip {labels}: {n}" for n in mine] if len(groups) > 1 else mine
    if not test.check_last and test.kind not in NO_CHECK:
        notes.append("Without a repeat of the first exposure nothing tells whether the light held.")
    camera = notebook.get(Camera, test.camera_id) if test.camera_id else None
    meter = notebook.get(LightMeter, test.meter_id) if test.meter_id else None
    indexes = {f.frame.exposure_index for _, f in sheet.frames() if f.frame.role in _LIT}
    for index in sorted(i for i in indexes if i):
        notes += _dials(index, camera, meter)
    return PlanAdvice(tuple(faults), tuple(dict.fromkeys(notes)))


def _by_limits(sheet: TestSheet) -> list[list[StripSheet]]:
    """Strips grouped by the camera they are shot with and the film they are of."""
    groups: dict[tuple[int | None, int | None], list[StripSheet]] = {}
    for strip in sheet.strips:
        groups.setdefault((strip.strip.camera_id, strip.strip.stock_id), []).append(strip)
    return list(groups.values())


def _camera_name(notebook: Notebook, strip: Strip) -> str:
    camera = notebook.get(Camera, strip.camera_id) if strip.camera_id else None
    return f"{camera.name}: " if camera else ""


def _unreached(test: Test, limits: CameraLimits, lit: list[Frame]) -> list[str]:
    missed = [f for f in lit if abs((f.stops or 0.0) - (f.wanted_stops or 0.0)) > 1 / 6 + 1e-3]
    if not missed or test.kind == "paper" or by_contact(test):
        return []
    stops = sorted({f.wanted_stops or 0.0 for f in missed})
    names = [stops_text(s, signed=True) for s in stops]
    words = f"The camera cannot give {list_text(names)} exactly."
    if len(names) > 6:
        words = (
            f"The camera cannot give {len(names)} exposures, {names[0]} to {names[-1]}, exactly."
        )
    over = neutral_density_needed(
        tuple(CameraSetting(0, 0, 0, f.stops or 0.0, f.wanted_stops or 0.0) for f in missed)
    )
    if over:
        words += f" A neutral density of {over + test.filter_stops:g} stops would let it."
    elif len(limits.apertures) == 1:
        words += " Name a lens, so that the aperture may be turned too."
    else:
        words += " More light on the target, or a shorter bracket, would let it."
    return [words]


def _notes(limits: CameraLimits, lit: list[Frame]) -> list[str]:
    long = [f for f in lit if (f.seconds or 0.0) >= 0.99]
    wide = [
        f for f in lit
        if len(limits.apertures) > 1 and (f.aperture or 99.0) <= limits.apertures[0] * 1.01
    ]  # fmt: skip
    known = {round(float(np.log2(m)), 1) for m, _ in limits.measured}
    quick = [
        f for f in lit
        if f.seconds and f.seconds <= limits.shutters[-1] * 1.01
        and round(float(np.log2(f.seconds)), 1) not in known
    ]  # fmt: skip
    notes = []
    if long and limits.law is not None:
        notes.append(
            f"{_frames(len(long))} a second or longer; their times are lengthened as this film's "
            "own law for long exposures says."
        )
    elif long:
        notes.append(
            f"{_frames(len(long))} a second or longer, where film answers as to less light: "
            "give more light, keep them out of the curve, or type the film's law."
        )
    if wide or quick:
        edge = len(wide) + len(quick)
        are = "1 frame is" if edge == 1 else f"{edge} frames are"
        notes.append(f"{are} wide open or at the shortest time, which seldom matches the rest.")
    dark = max((f.filter_stops for f in lit), default=0.0)
    if dark:
        notes.append(f"Neutral density of up to {dark:g} stops is part of this plan.")
    return notes


def _frames(count: int) -> str:
    return "1 frame lasts" if count == 1 else f"{count} frames last"


def _dials(index: float, camera: Camera | None, meter: LightMeter | None) -> list[str]:
    told = []
    if camera and camera.dial_low and camera.dial_high:
        told += dial_ends_below(index, camera.dial_low, camera.dial_high, camera.compensation)
    elif meter and meter.dial_low and meter.dial_high:
        told += dial_ends_below(index, meter.dial_low, meter.dial_high, 0.0)
    if camera and index >= 1000:
        told += daylight_after_a_push(index, camera.fastest, 16.0)
    return [f"{w.sentence} {w.remedy}" for w in told]
