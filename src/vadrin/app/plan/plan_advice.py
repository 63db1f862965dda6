"""What is to be known of a plan before it is shot: what the camera cannot do, and what helps."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.app.display.quantities import neutral_density_text
from vadrin.app.display.words import counted, list_text
from vadrin.app.learning.kit_learnt import bottle_words
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.plan.camera_settings import dial_of, limits_of, metering_of
from vadrin.app.plan.makers_advice import makers_advice
from vadrin.core.checks.setting_checks import daylight_after_a_push, dial_ends_below
from vadrin.core.exposure.arithmetic import stops_text
from vadrin.core.exposure.camera import CameraLimits, CameraSetting, neutral_density_needed
from vadrin.core.frames import LIT
from vadrin.core.planning.test_types import Metering, type_of
from vadrin.notebook.records import Camera, Frame, Strip, Test
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class PlanAdvice:
    """What is to be known of a plan before it is shot: faults first, then notes."""

    faults: tuple[str, ...]
    notes: tuple[str, ...]


def advice_on(notebook: Notebook, loaded: LoadedTest) -> PlanAdvice:
    """What the camera cannot do of a plan, what would help, and what to look out for."""
    test, faults, notes = loaded.test, [], []
    groups = _by_limits(loaded)
    for strips in groups:
        limits = limits_of(notebook, test, strips[0].strip)
        lit = [f.frame for s in strips for f in s.frames if f.frame.role in LIT]
        whose = _camera_name(notebook, strips[0].strip)
        faults += [f"{whose}{words}" for words in _unreached(test, limits, lit)]
        mine = _notes(limits, lit) if metering_of(test) is Metering.CAMERA else []
        labels = list_text([s.strip.label for s in strips])
        notes += [f"Strip {labels}: {n}" for n in mine] if len(groups) > 1 else mine
    kind = type_of(test.kind)
    if not test.repeat_first and kind is not None and kind.repeats_first:
        notes.append("Repeat the first exposure at the end to check that the light did not change.")
    drift = bottle_words(notebook, test.id, test.bottle_id)
    notes += [words for words in (makers_advice(loaded), drift) if words]
    camera = notebook.get(Camera, test.camera_id) if test.camera_id else None
    dial = dial_of(notebook, test)
    indexes = {f.frame.exposure_index for _, f in loaded.frames() if f.frame.role in LIT}
    for index in sorted(i for i in indexes if i):
        notes += _dials(index, camera, dial)
    return PlanAdvice(tuple(faults), tuple(dict.fromkeys(notes)))


def _by_limits(loaded: LoadedTest) -> list[list[LoadedStrip]]:
    """Strips grouped by the camera they are shot with and the film they are of."""
    groups: dict[tuple[int | None, int | None], list[LoadedStrip]] = {}
    for strip in loaded.strips:
        groups.setdefault((strip.strip.camera_id, strip.strip.stock_id), []).append(strip)
    return list(groups.values())


def _camera_name(notebook: Notebook, strip: Strip) -> str:
    camera = notebook.get(Camera, strip.camera_id) if strip.camera_id else None
    return f"{camera.name}: " if camera else ""


def _unreached(test: Test, limits: CameraLimits, lit: list[Frame]) -> list[str]:
    missed = [f for f in lit if abs((f.stops or 0.0) - (f.wanted_stops or 0.0)) > 1 / 6 + 1e-3]
    if not missed or metering_of(test) is Metering.ENLARGER or test.by_contact:
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
        words += f" A {neutral_density_text(over + test.filter_stops)} would make it possible."
    elif len(limits.apertures) == 1:
        words += " Name a lens, so that the aperture may be turned too."
    else:
        words += " More light on the target, or a shorter bracket, would make it possible."
    return [words]


def _at_an_edge(limits: CameraLimits, lit: list[Frame]) -> int:
    """How many frames are wide open, or at a shortest time that was not measured."""
    open_wide = limits.apertures[0] * 1.01 if len(limits.apertures) > 1 else 0.0
    known = {round(float(np.log2(m)), 1) for m, _ in limits.measured}
    wide = sum((f.aperture or 99.0) <= open_wide for f in lit)
    quick = sum(
        bool(f.seconds)
        and f.seconds <= limits.shutters[-1] * 1.01
        and round(float(np.log2(f.seconds)), 1) not in known
        for f in lit
        if f.seconds
    )
    return wide + quick


def _notes(limits: CameraLimits, lit: list[Frame]) -> list[str]:
    long = [f for f in lit if (f.seconds or 0.0) >= 0.99]
    edge = _at_an_edge(limits, lit)
    notes = []
    if long and limits.reciprocity is not None:
        notes.append(
            f"{_frames(len(long))} a second or longer; their times are lengthened as this film's "
            "own law for long exposures says."
        )
    elif long:
        notes.append(
            f"{_frames(len(long))} a second or longer, where film answers as to less light: "
            "give more light, keep them out of the curve, or type the film's law."
        )
    if edge:
        are = "is" if edge == 1 else "are"
        notes.append(
            f"{counted(edge, 'frame')} {are} wide open or at the shortest time, which seldom "
            "matches the rest."
        )
    dark = max((f.filter_stops for f in lit), default=0.0)
    if dark:
        notes.append(f"A {neutral_density_text(dark)}, or less, is part of this plan.")
    return notes


def _frames(count: int) -> str:
    return f"{counted(count, 'frame')} last{'s' if count == 1 else ''}"


def _dials(
    index: float, camera: Camera | None, dial: tuple[float, float, float] | None
) -> list[str]:
    told = dial_ends_below(index, *dial) if dial else []
    if camera and index >= 1000:
        told += daylight_after_a_push(index, camera.fastest, 16.0)
    return [f"{w.sentence} {w.remedy}" for w in told]
