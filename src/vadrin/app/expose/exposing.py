"""Edits while the film is in the camera: what was taken or went otherwise, and the light."""

from __future__ import annotations

from dataclasses import replace
from math import log2

from vadrin.app.loaded.frame_order import next_to_expose
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.camera_settings import limits_of, metering_of, on_one_sheet, with_settings
from vadrin.app.stamps import now
from vadrin.core.exposure.arithmetic import exact_aperture, stops_text
from vadrin.core.exposure.camera import effective_shutter
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.frames import FrameState
from vadrin.core.planning.test_types import Metering
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Batch, Exposure, Frame, MeterReading, Note, Strip, Test
from vadrin.notebook.store import Notebook

DRIFT_TOLD = 1 / 3
"""Stops the light may move before it is said."""

_ALL_CELLS = "under the dark slide every cell still open gets this exposure too"
_DONE = {
    FrameState.EXPOSED: "tick frame",
    FrameState.SKIPPED: "skip frame",
    FrameState.DOUBLED: "mark double exposure of frame",
    FrameState.PLANNED: "take back frame",
}


def asked_stops(notebook: Notebook, test: Test, frame: Frame) -> float | None:
    """What the marks the script asked for give, in stops from the frame's EI."""
    if frame.wanted_stops is None or frame.seconds is None or frame.aperture is None:
        return frame.stops
    if test.by_contact:
        return frame.wanted_stops
    return _stops_of(notebook, test, frame, frame.seconds, frame.aperture)


def _stops_of(
    notebook: Notebook, test: Test, frame: Frame, seconds: float, aperture: float
) -> float:
    limits = limits_of(notebook, test, notebook.get(Strip, frame.strip_id))
    fixed = metering_of(test) is not Metering.CAMERA
    # A time that is itself the question is timed by the watch, not by a mark.
    real = seconds if fixed else effective_shutter(limits, exact_shutter(seconds))
    start = exact_shutter(test.metered_seconds) / exact_aperture(test.aperture) ** 2
    index = log2((frame.exposure_index or test.exposure_index) / test.exposure_index)
    light = log2(real / exact_aperture(aperture) ** 2 / start) + index + _light_of(notebook, frame)
    return round(light - frame.filter_stops - limits.light_loss, 4)


def _light_of(notebook: Notebook, frame: Frame) -> float:
    """How far the light had moved, in stops, when a frame's settings were last worked out."""
    return float(frame.compensation or 0.0)


def mark_frame(notebook: Notebook, frame: Frame, state: FrameState) -> None:
    """Set a frame's state, with the time it happened; the first of a roll takes the roll.

    Under a dark slide the cells of every band are exposed together.

    Raises
    ------
    EditRefusedError
        For what cannot happen to one cell of a sheet alone.
    """
    test = _test_of(notebook, frame)
    if test is not None and on_one_sheet(test):
        _mark_cells(notebook, test, frame, state)
        return
    once = asked_stops(notebook, test, frame) if test else frame.stops
    light = None if once is None else once + (state == FrameState.DOUBLED)
    shots = {FrameState.EXPOSED: 1, FrameState.DOUBLED: 2}.get(state, 0)
    with notebook.change(f"{_DONE[state]} {frame.position + 1}"):
        record(notebook, frame, state, light, [(once, frame.seconds, frame.aperture)] * shots)


def _mark_cells(notebook: Notebook, test: Test, frame: Frame, state: FrameState) -> None:
    if state not in (FrameState.EXPOSED, FrameState.PLANNED):
        raise EditRefusedError(f"{_ALL_CELLS}: take the sheet as it is, or begin another")
    bands = notebook.all(Strip, test_id=test.id)
    cells = notebook.all_of(Frame, "strip_id", [band.id for band in bands])
    with notebook.change(f"{_DONE[state]} {frame.position + 1}"):
        for cell in (c for c in cells if c.position == frame.position):
            planned = None if cell.wanted_stops is None else cell.stops
            shots = [(planned, cell.seconds, cell.aperture)] * (state == FrameState.EXPOSED)
            record(notebook, cell, state, planned, shots)


def take_otherwise(
    notebook: Notebook,
    frame: Frame,
    seconds: float | None = None,
    aperture: float | None = None,
    stops: float | None = None,
) -> None:
    """Tick a frame that was taken with another shutter, aperture or offset than asked for."""
    test = _test_of(notebook, frame)
    if test is None or frame.wanted_stops is None:
        raise EditRefusedError("this frame is kept from light; tick it, skip it or double it")
    if on_one_sheet(test):
        raise EditRefusedError(f"{_ALL_CELLS}: note what was set (N), and begin another sheet")
    t, n = seconds or frame.seconds, aperture or frame.aperture
    if stops is None:
        if t is None or n is None:
            raise EditRefusedError("say the offset from the meter, in stops")
        stops = _stops_of(notebook, test, frame, t, n)
    with notebook.change(f"frame {frame.position + 1} taken otherwise"):
        record(notebook, frame, FrameState.EXPOSED, stops, [(stops, t, n)])


def record(
    notebook: Notebook,
    frame: Frame,
    state: FrameState,
    light: float | None,
    shots: list[tuple[float | None, float | None, float | None]],
) -> None:
    when = "" if state == FrameState.PLANNED else now()
    before = _rolls_begun(notebook, frame)
    for old in notebook.all(Exposure, frame_id=frame.id):
        notebook.remove(old)
    notebook.put(replace(frame, state=state, exposed_at=when, stops=light))
    if light is not None:
        notebook.add_all(
            [
                Exposure(
                    frame_id=frame.id,
                    position=i,
                    exposed_at=when,
                    stops=stops,
                    seconds=t,
                    aperture=n,
                )
                for i, (stops, t, n) in enumerate(shots)
            ]
        )
    _count_rolls(notebook, frame, _rolls_begun(notebook, frame) - before)


def _test_of(notebook: Notebook, frame: Frame) -> Test | None:
    strip = notebook.get(Strip, frame.strip_id)
    return notebook.get(Test, strip.test_id) if strip else None


def _rolls_begun(notebook: Notebook, frame: Frame) -> int:
    """1 where the roll a frame is on has been begun, else 0."""
    strip = notebook.get(Strip, frame.strip_id)
    if strip is None:
        return 0
    mates = notebook.all(Strip, test_id=strip.test_id, roll=strip.roll)
    frames = notebook.all_of(Frame, "strip_id", [s.id for s in mates])
    return int(any(f.state != FrameState.PLANNED for f in frames))


def _count_rolls(notebook: Notebook, frame: Frame, taken: int) -> None:
    """Count the batch down by the rolls taken, where its rolls are counted at all."""
    strip = notebook.get(Strip, frame.strip_id)
    test = notebook.get(Test, strip.test_id) if strip else None
    batch_id = (strip.batch_id if strip else None) or (test.batch_id if test else None)
    batch = notebook.get(Batch, batch_id) if batch_id and taken else None
    if batch is not None and batch.rolls_left is not None:
        notebook.put(replace(batch, rolls_left=max(0, batch.rolls_left - taken)))


def write_note(notebook: Notebook, test_id: int, frame_id: int | None, words: str) -> None:
    """Keep words about a frame, or about the test."""
    if words.strip():
        with notebook.change("note"):
            notebook.add(
                Note(test_id=test_id, frame_id=frame_id, written_at=now(), words=words.strip())
            )


def note_light(notebook: Notebook, loaded: LoadedTest, seconds: float) -> float:
    """Write down what the meter asks for now, at the plan's aperture.

    Returns
    -------
    float
        Stops by which the light moved since the plan's reading; minus is dimmer.
    """
    moved = log2(exact_shutter(loaded.test.metered_seconds) / exact_shutter(seconds))
    place = next_to_expose(loaded)
    with notebook.change("meter reading"):
        notebook.add(
            MeterReading(
                test_id=loaded.test.id,
                taken_at=now(),
                stops=round(moved, 4),
                frame_id=place[1].frame.id if place else None,
            )
        )
    return moved


def light_now(notebook: Notebook, loaded: LoadedTest) -> float:
    """Stops by which the light had moved at the last meter reading."""
    readings = notebook.all(MeterReading, test_id=loaded.test.id)
    return readings[-1].stops if readings else 0.0


def rescale_rest(notebook: Notebook, loaded: LoadedTest) -> int:
    """Work the settings of all frames not taken yet out for the light as it is now."""
    if on_one_sheet(loaded.test):
        raise EditRefusedError(f"{_ALL_CELLS}: begin another sheet in the new light")
    moved = light_now(notebook, loaded)
    count = 0
    test = replace(
        loaded.test, metered_seconds=exact_shutter(loaded.test.metered_seconds) / 2.0**moved
    )
    fixed = metering_of(loaded.test) is not Metering.CAMERA
    with notebook.change("rescale the frames to come"):
        for strip in loaded.strips:
            lit = [f.frame for f in strip.frames if f.frame.state == FrameState.PLANNED]
            lit = [f for f in lit if f.wanted_stops is not None]
            bare = lit if fixed else [replace(f, seconds=None) for f in lit]
            for frame in with_settings(test, limits_of(notebook, test, strip.strip), bare):
                notebook.put(replace(frame, compensation=moved))
            count += len(lit)
    return count


def spoil_since_last_reading(notebook: Notebook, loaded: LoadedTest) -> int:
    """Leave out the frames taken between the last two meter readings."""
    readings = notebook.all(MeterReading, test_id=loaded.test.id)
    ids = [f.frame.id for _, f in loaded.shots()]

    def turn(reading: MeterReading) -> int:
        return ids.index(reading.frame_id) if reading.frame_id in ids else len(ids)

    stop = turn(readings[-1]) if readings else 0
    start = turn(readings[-2]) if len(readings) > 1 else 0
    spoilt = [
        f.frame
        for _, f in loaded.shots()[start:stop]
        if f.frame.state in (FrameState.EXPOSED, FrameState.DOUBLED)
    ]
    with notebook.change("mark the spoilt frames"):
        for frame in spoilt:
            words = f"the light moved by {stops_text(readings[-1].stops, signed=True)} stop"
            notebook.put(replace(frame, state=FrameState.SKIPPED, note=words))
    return len(spoilt)
