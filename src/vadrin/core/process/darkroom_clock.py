"""A run in the darkroom as steps on a clock: what is due now, what is next, what each strip got.

Everything follows from the steps and from events with their times, so that a clock that was cut
off goes on to the second once the events are read again.
"""

from __future__ import annotations

from bisect import bisect_right
from operator import attrgetter, itemgetter

import numpy as np

from vadrin.core.process.clock_records import (
    ClockEvent,
    ClockState,
    ClockStep,
    Development,
    DueAction,
    DueActionKind,
    RunEventType,
)
from vadrin.core.process.temperature import restated_drift

_moment = attrgetter("at")
_LONGEST_S = 7 * 24 * 3600.0


class DarkroomClock:
    """The steps of a run, and what happened so far.

    Parameters
    ----------
    steps : tuple of ClockStep
    events : tuple of ClockEvent
        In the order they happened.
    reference_c, q10 : float
        Of the process.
    bath_c : float, optional
        How warm the bath is before anything was noted in the run.

    Raises
    ------
    ValueError
        For no steps, or a step of no length.
    """

    def __init__(
        self,
        steps: tuple[ClockStep, ...],
        events: tuple[ClockEvent, ...] = (),
        reference_c: float = 20.0,
        q10: float = 2.5,
        bath_c: float | None = None,
    ) -> None:
        if not steps:
            raise ValueError("a run needs at least one step")
        for step in steps:
            if not 0 < step.seconds <= _LONGEST_S:
                raise ValueError(f"“{step.name}” needs a time above 0, and at most a week")
        self.steps, self.events = steps, events
        self._reference, self._q10, self.bath_c = reference_c, q10, bath_c
        self._acts: dict[int, tuple[DueAction, ...]] = {}
        self._spans: dict[int, tuple[tuple[float, float], ...]] = {}

    def _began(self) -> list[tuple[float, float]]:
        """When each step so far began, and how long was paused since then in it."""
        began: list[tuple[float, float]] = []
        paused_at: float | None = None
        for event in self.events:
            if event.what in (RunEventType.START, RunEventType.NEXT):
                began.append((event.at, 0.0))
                paused_at = None
            elif event.what is RunEventType.PAUSE and paused_at is None:
                paused_at = event.at
            elif event.what is RunEventType.RESUME and paused_at is not None and began:
                start, waited = began[-1]
                began[-1] = (start, waited + event.at - paused_at)
                paused_at = None
        return began

    def _paused_since(self) -> float | None:
        since: float | None = None
        for event in self.events:
            if event.what is RunEventType.PAUSE:
                since = event.at if since is None else since
            elif event.what in (RunEventType.RESUME, RunEventType.NEXT, RunEventType.START):
                since = None
        return since

    def _ended(self) -> float | None:
        return next((e.at for e in self.events if e.what is RunEventType.STOP), None)

    def elapsed_in(self, step: int, now: float) -> float:
        """Seconds of a step at a moment, pauses taken out."""
        began = self._began()
        if step >= len(began):
            return 0.0
        start, waited = began[step]
        end = began[step + 1][0] if step + 1 < len(began) else now
        stop = self._ended()
        end = end if stop is None else min(end, stop)
        since = self._paused_since()
        if since is not None and step == len(began) - 1:
            end = min(end, since)
        return max(0.0, end - start - waited)

    def _notes(self, step: int) -> tuple[list[float], list[float]]:
        """Temperatures noted during a step: seconds since it began, and degrees."""
        began = self._began()
        start = began[step][0] if step < len(began) else 0.0
        end = began[step + 1][0] if step + 1 < len(began) else np.inf
        noted = [
            (e.at - start, e.value)
            for e in self.events
            if e.what is RunEventType.TEMPERATURE and e.value is not None and start <= e.at <= end
        ]
        before = [
            e.value
            for e in self.events
            if e.what is RunEventType.TEMPERATURE and e.value is not None and e.at < start
        ]
        known = before[-1] if before else self.bath_c
        if not noted and known is not None:
            noted = [(0.0, known)]
        return [at for at, _ in noted], [float(c) for _, c in noted if c is not None]

    @property
    def warmth_known(self) -> bool:
        """Whether anybody said how warm the bath is: else times count as at the reference."""
        noted = (e.value for e in self.events if e.what is RunEventType.TEMPERATURE)
        return self.bath_c is not None or any(value is not None for value in noted)

    def restated_s(self, step: int, seconds: float) -> float:
        """What so many seconds of a developing step are worth at the reference temperature."""
        at, warmth = self._notes(step)
        if not at or seconds <= 0 or not self.steps[step].develops:
            return max(seconds, 0.0)
        return restated_drift(np.array(at), np.array(warmth), seconds, self._reference, self._q10)

    def real_s(self, step: int, wanted: float) -> float:
        """Seconds by the clock that are worth `wanted` ones at the reference; by bisection."""
        if not self.steps[step].develops or not self._notes(step)[0]:
            return wanted
        low, high = 0.0, wanted * 8
        for _ in range(40):
            middle = 0.5 * (low + high)
            if self.restated_s(step, middle) < wanted:
                low = middle
            else:
                high = middle
        return 0.5 * (low + high)

    def acts_of(self, step: int) -> tuple[DueAction, ...]:
        """Everything to be done in a step, by the clock as it will be; worked out once."""
        if step not in self._acts:
            self._acts[step] = self._worked_out(step)
        return self._acts[step]

    def _worked_out(self, step: int) -> tuple[DueAction, ...]:
        if step >= len(self.steps):
            return ()
        this = self.steps[step]
        length = self.real_s(step, this.seconds)
        made: list[DueAction] = []
        for start, end in this.agitation.spans(length):
            made.append(DueAction(start, DueActionKind.AGITATE))
            if end < length:
                made.append(DueAction(end, DueActionKind.REST))
        out = {e.strip for e in self.events if e.what is RunEventType.PULL}
        made += [
            DueAction(self.real_s(step, p.seconds), DueActionKind.PULL, p.strip)
            for p in this.pulls
            if p.strip not in out
        ]
        last = DueActionKind.NEXT if step + 1 < len(self.steps) else DueActionKind.DONE
        made.append(DueAction(length, last))
        return tuple(sorted(made, key=lambda a: a.at))

    def at(self, now: float) -> ClockState:
        """What the clock shows."""
        began = self._began()
        stopped = self._ended() is not None
        if not began:
            acts = self.acts_of(0)
            return ClockState(0, 0.0, acts[-1].at, False, False, stopped, False, acts)
        step = min(len(began), len(self.steps)) - 1
        elapsed = self.elapsed_in(step, now)
        acts = self.acts_of(step)
        length = acts[-1].at
        passed = bisect_right(acts, elapsed, key=_moment)
        coming = tuple(a for a in acts[:passed] if a.kind is DueActionKind.PULL) + acts[passed:]
        moving = self._moving(step, elapsed, length)
        paused = self._paused_since() is not None
        return ClockState(
            step,
            elapsed,
            length - elapsed,
            not stopped and not paused,
            paused,
            stopped,
            moving and not paused and not stopped,
            coming,
        )

    def _moving(self, step: int, elapsed: float, length: float) -> bool:
        """Whether the tank is to be moved at a moment of a step."""
        if step not in self._spans:
            self._spans[step] = self.steps[step].agitation.spans(length)
        spans = self._spans[step]
        place = bisect_right(spans, elapsed, key=itemgetter(0))
        return place > 0 and elapsed < spans[place - 1][1]

    def developments(self, now: float) -> tuple[Development, ...]:
        """What each strip that was pulled, or is past its developer, got."""
        made: list[Development] = []
        began = self._began()
        pulled = {e.strip: e for e in self.events if e.what is RunEventType.PULL}
        for index, step in enumerate(self.steps[: len(began)]):
            if not step.develops:
                continue
            over = index + 1 < len(began) or self._ended() is not None
            whole = self.elapsed_in(index, now)
            for pull in step.pulls:
                event = pulled.get(pull.strip)
                if event is None and not over:
                    continue
                seconds = whole
                if event is not None:
                    seconds = min(whole, event.at - began[index][0] - self._waited(index, event.at))
                made.append(
                    Development(pull.strip, seconds / 60, self.restated_s(index, seconds) / 60)
                )
        return tuple(made)

    def _waited(self, step: int, until: float) -> float:
        """Seconds paused in a step before a moment."""
        before = tuple(e for e in self.events if e.at <= until)
        began = DarkroomClock(self.steps, before, self._reference, self._q10)._began()
        return began[step][1] if step < len(began) else 0.0


def effective_c(minutes: float, restated_min: float, reference_c: float, q10: float) -> float:
    """The steady temperature at which so many minutes are worth the restated ones."""
    if abs(np.log(q10)) < 1e-9:
        return reference_c
    return float(reference_c + 10.0 * np.log(restated_min / minutes) / np.log(q10))
