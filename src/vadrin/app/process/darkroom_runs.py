"""Runs by the clock: begun, noted to the second, and written down as what the strips got."""

from __future__ import annotations

import json
from contextlib import suppress
from dataclasses import asdict, replace

from vadrin.app.document.stations import key_to
from vadrin.app.library.laboratory_steps import own_steps, steps_of
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of, routine_of, temperature_factor_of
from vadrin.app.process.bath import forget_bath
from vadrin.app.process.development import develop_strip
from vadrin.app.process.strip_chemistry import together
from vadrin.app.process.uptime import Moment, seconds_at
from vadrin.core.origin import Origin
from vadrin.core.process.agitation import STAND, Agitation, agitation_of
from vadrin.core.process.clock_records import ClockEvent, ClockStep, RunEventType, StripTime
from vadrin.core.process.darkroom_clock import DarkroomClock, effective_c
from vadrin.errors import EntryError
from vadrin.notebook.records import DarkroomRun, Process, ProcessStep, RunEvent, Strip, Test
from vadrin.notebook.store import Notebook

__all__ = ["Clock", "Run", "RunEventType"]

Clock = DarkroomClock
"""The clock of a run, as the screen knows it."""
Run = DarkroomRun
"""A run, as the screen knows it."""
_USUAL_MIN = 8.0


def process_steps(notebook: Notebook, loaded: LoadedTest) -> tuple[ProcessStep, ...]:
    """The steps of the process the next strips follow."""
    return steps_of(notebook, _routine_now(loaded))


def write_usual_steps(notebook: Notebook, loaded: LoadedTest) -> str:
    """Keep the usual steps of a test's process as its own, to be changed; says where they are.

    Raises
    ------
    EntryError
        If the test follows no process.
    """
    process = _routine_now(loaded)
    if process is None:
        raise EntryError("name the process of this test first, under What they got")
    if not own_steps(notebook, process):
        with notebook.change(f"the steps of {process.name}"):
            for step in process_steps(notebook, loaded):
                notebook.add(replace(step, process_id=process.id))
    where = f"{key_to('cupboard')}, steps of processes"
    return f"The steps of {process.name} are in the cupboard ({where})."


def clock_steps(notebook: Notebook, loaded: LoadedTest) -> tuple[ClockStep, ...]:
    """The steps of a run of a test; strips leave the developer at their planned times."""
    strips = [s.strip for s in together(loaded)]
    own = next((s.agitation for s in strips if s.agitation), "") or loaded.test.agitation
    pulls = tuple(
        StripTime(s.label, 60.0 * (s.planned_min or _USUAL_MIN))
        for s in sorted(strips, key=lambda s: s.planned_min or _USUAL_MIN)
    )
    made = []
    for step in process_steps(notebook, loaded):
        agitation = agitation_of((step.develops and own) or step.agitation)
        mine = pulls if step.develops else ()
        seconds = max(p.seconds for p in mine) if mine else step.seconds
        made.append(
            ClockStep(
                step.name, seconds or 60.0, agitation or STAND, mine, step.develops, step.may_pause
            )
        )
    return tuple(made)


def _steps_text(steps: tuple[ClockStep, ...]) -> str:
    return json.dumps([asdict(s) for s in steps], ensure_ascii=False)


def _steps_told(words: str) -> tuple[ClockStep, ...]:
    made = []
    for held in json.loads(words):
        moved = held["agitation"]
        agitation = Agitation(**{**moved, "moments_s": tuple(moved["moments_s"])})
        pulls = tuple(StripTime(**p) for p in held["pulls"])
        made.append(ClockStep(**{**held, "agitation": agitation, "pulls": pulls}))
    return tuple(made)


def run_under_way(notebook: Notebook, test_id: int, now: Moment) -> DarkroomRun | None:
    """The newest run of a test whose times are not written down yet, and that can be told."""
    open_runs = [r for r in notebook.all(DarkroomRun, test_id=test_id) if not r.confirmed]
    for run in reversed(open_runs):
        # A notebook from elsewhere may hold steps and events that mean nothing here.
        with suppress(ValueError, TypeError, KeyError, AttributeError):
            clock_of(notebook, run, now)
            return run
    return None


def clock_of(notebook: Notebook, run: DarkroomRun, now: Moment) -> DarkroomClock:
    """The clock of a run, from its record alone; its times are on the uptime axis of now."""
    events = sorted(
        (
            ClockEvent(
                seconds_at(e.happened_at, e.uptime, e.boot, now),
                RunEventType(e.what),
                e.value,
                e.strip,
            )
            for e in notebook.all(RunEvent, run_id=run.id)
        ),
        key=lambda e: e.at,
    )
    return DarkroomClock(_steps_told(run.steps), tuple(events), run.reference_c, run.q10)


def _first_now(loaded: LoadedTest) -> LoadedStrip | None:
    """One of the strips that go through the next run together."""
    return next(iter(together(loaded)), None)


def _routine_now(loaded: LoadedTest) -> Process | None:
    return routine_of(loaded, _first_now(loaded))


def clock_before(notebook: Notebook, loaded: LoadedTest) -> DarkroomClock:
    """The clock of a run that is not begun."""
    steps, first = clock_steps(notebook, loaded), _first_now(loaded)
    reference, factor = reference_of(loaded, first), temperature_factor_of(loaded, first)
    return DarkroomClock(steps, (), reference, factor, loaded.test.bath_c)


def begin_run(notebook: Notebook, loaded: LoadedTest, now: Moment) -> DarkroomRun:
    """Start the first step."""
    steps, first = clock_steps(notebook, loaded), _first_now(loaded)
    with notebook.change("start the clock"):
        run = notebook.add(
            DarkroomRun(
                test_id=loaded.test.id,
                started_at=now.stamp,
                steps=_steps_text(steps),
                reference_c=reference_of(loaded, first),
                q10=temperature_factor_of(loaded, first),
            )
        )
        if loaded.test.bath_c is not None:
            note_event(
                notebook,
                run,
                now,
                RunEventType.TEMPERATURE,
                loaded.test.bath_c,
                value_from=loaded.test.bath_from,
            )
        note_event(notebook, run, now, RunEventType.START)
    return run


def note_event(
    notebook: Notebook,
    run: DarkroomRun,
    now: Moment,
    what: RunEventType,
    value: float | None = None,
    strip: str = "",
    value_from: Origin = Origin.TOLD,
) -> None:
    """Write down that something happened, in the file at once.

    Raises
    ------
    EntryError
        Where the chemistry does not allow it.
    """
    if what is RunEventType.PAUSE:
        state = clock_of(notebook, run, now).at(now.uptime)
        step = _steps_told(run.steps)[state.step]
        if not step.may_pause:
            raise EntryError(f"“{step.name}” goes on in the tank: its clock can't be paused")
    with notebook.change(f"clock: {what.value} {strip}".strip()):
        test = notebook.get(Test, run.test_id)
        if what is RunEventType.TEMPERATURE and test is not None and test.bath_c != value:
            # One bath, one temperature: recipe and lights-off sheet go by it, too.
            notebook.put(replace(test, bath_c=value, bath_from=value_from))
        notebook.add(
            RunEvent(
                run_id=run.id,
                happened_at=now.stamp,
                uptime=now.uptime,
                boot=now.boot,
                what=what.value,
                value=value,
                strip=strip,
                value_from=Origin.UNKNOWN if value is None else value_from,
            )
        )


def _warmth_from(notebook: Notebook, run: DarkroomRun) -> Origin:
    """How a run's temperature is known: by a thermometer, once one was read."""
    origins = {e.value_from for e in notebook.all(RunEvent, run_id=run.id) if e.value is not None}
    known = (o for o in (Origin.MEASURED, Origin.TOLD) if o in origins)
    return next(known, Origin.UNKNOWN)


def confirm_run(notebook: Notebook, run: DarkroomRun, now: Moment) -> list[str]:
    """Write what the clock saw to the strips, as one edit; gives the labels written.

    Raises
    ------
    EntryError
        If no strip has left its developer yet.
    """
    clock = clock_of(notebook, run, now)
    got = {d.strip: d for d in clock.developments(now.uptime)}
    strips = [s for s in notebook.all(Strip, test_id=run.test_id) if s.label in got]
    if not strips:
        raise EntryError("no strip has left the developer yet")
    with notebook.change("what the clock saw"):
        for strip in strips:
            seen = got[strip.label]
            minutes = round(seen.minutes * 60) / 60
            warmth, warmth_from = None, Origin.UNKNOWN
            if clock.warmth_known:
                even = effective_c(seen.minutes, seen.restated_min, run.reference_c, run.q10)
                warmth, warmth_from = round(even, 2), _warmth_from(notebook, run)
            develop_strip(notebook, strip, minutes, warmth, Origin.DONE, warmth_from)
        notebook.put(replace(run, confirmed=True))
        forget_bath(notebook, run.test_id)
    return [s.label for s in strips]
