"""All clocks that run at once: which act is next in any of them, and whether one has passed."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from math import inf

from vadrin.app.process.clock_words import act_words, face_words, seconds_text
from vadrin.app.process.darkroom_runs import Clock, clock_of
from vadrin.app.process.uptime import Moment
from vadrin.core.process.clock_records import ClockState, DueAction, DueActionKind
from vadrin.notebook.records import DarkroomRun, Stock, Test
from vadrin.notebook.store import Notebook

_FORGOTTEN_S = 3600.0
_BY_ITSELF = (DueActionKind.AGITATE, DueActionKind.REST)
"""What goes on without an end."""
_RARELY_S = 120.0
"""Seconds between two acts over which one that was missed is worth catching up."""


@dataclass(frozen=True)
class RunningClock:
    """One run that is under way."""

    test_id: int
    film: str
    clock: Clock

    def words(self, now: float) -> str:
        """The film, its step and what is left of it; said where it is overdue."""
        state = self.clock.at(now)
        step = self.clock.steps[state.step].name
        if self.overdue(now):
            return f"{self.film}: {step} is overdue by {seconds_text(-state.left_s)}"
        left = "paused" if state.paused else seconds_text(state.left_s)
        return f"{self.film}: {step} {left}"

    def spoken(self, now: float) -> str:
        """What the hands do now, and what is left of the step, for who does not see the clock."""
        face = face_words(self.clock, now)
        return f"{self.film}: {face.now}; {face.left} left of {face.step}"

    def hands_in(self, now: float) -> tuple[float, str]:
        """Seconds until something has to be taken out or poured, and what; infinite for never."""
        state = self.clock.at(now)
        ahead = [(seconds, act) for seconds, act in _hands(state) if seconds > 0]
        seconds, act = min(ahead, key=lambda one: one[0], default=(inf, None))
        return seconds, f"{self.film}: {act_words(act, self.clock, state.step)}" if act else ""

    def overdue(self, now: float) -> bool:
        """Whether its step should be over."""
        state = self.clock.at(now)
        return state.running and state.left_s < -0.5

    def forgotten(self, now: float) -> bool:
        """Whether it is so far overdue that no film can be waiting for anybody."""
        state = self.clock.at(now)
        return state.running and state.left_s < -_FORGOTTEN_S

    def missed(self, before: float, now: float) -> str:
        """What was due while nobody looked, in a sentence; empty for nothing.

        Only hands that are asked for rarely are named: of an agitation every half minute the
        next one comes at once.
        """
        state = self.clock.at(now)
        since = state.elapsed_s - (now - before)
        acts = [a for a in self.clock.acts_of(state.step) if a.kind is DueActionKind.AGITATE]
        passed = [a.at for a in acts if max(since, _RARELY_S / 2) < a.at <= state.elapsed_s]
        following = [a.at for a in acts if a.at > state.elapsed_s]
        if not passed or not state.running:
            return ""
        if following and following[0] - passed[-1] < _RARELY_S:
            return ""
        return (
            f"{self.film}: agitation was due at {seconds_text(passed[-1])}, "
            f"{seconds_text(state.elapsed_s - passed[-1])} ago. Do it now, if nobody did."
        )


def running_clocks(notebook: Notebook, now: Moment) -> tuple[RunningClock, ...]:
    """Every run whose times are not written down and that was not stopped, the oldest first."""
    made = []
    for run in notebook.all(DarkroomRun):
        if run.confirmed:
            continue
        # A notebook from elsewhere may hold steps and events that mean nothing here.
        with suppress(ValueError, TypeError, KeyError, AttributeError):
            clock = clock_of(notebook, run, now)
            if clock.events and not clock.at(now.uptime).stopped:
                made.append(RunningClock(run.test_id, _film(notebook, run.test_id), clock))
    return tuple(made)


def _film(notebook: Notebook, test_id: int) -> str:
    test = notebook.get(Test, test_id)
    stock = notebook.get(Stock, test.stock_id) if test else None
    return stock.name if stock else "another test"


def next_act_in(clocks: tuple[RunningClock, ...], now: float) -> float | None:
    """Seconds until the next act of any clock; None where nothing is due."""
    ahead = []
    for each in clocks:
        state = each.clock.at(now)
        if state.running:
            ahead += [a.at - state.elapsed_s for a in state.coming if a.at > state.elapsed_s]
    return min(ahead, default=None)


def hands_needed_in(clock: Clock, now: float) -> float:
    """Seconds until a clock's next act that ends or takes out something; 0 where nothing runs."""
    return min((ahead for ahead, _ in _hands(clock.at(now))), default=0.0)


def _hands(state: ClockState) -> Iterator[tuple[float, DueAction]]:
    """What ends or takes out something, with its seconds from now; nothing where nothing runs."""
    for act in state.coming if state.running else ():
        if act.kind not in _BY_ITSELF:
            yield act.at - state.elapsed_s, act


def act_passed(clocks: tuple[RunningClock, ...], before: float, now: float) -> bool:
    """Whether an act of any clock fell between two moments."""
    for each in clocks:
        state = each.clock.at(now)
        if not state.running:
            continue
        since = state.elapsed_s - (now - before)
        if any(since < a.at <= state.elapsed_s for a in each.clock.acts_of(state.step)):
            return True
    return False
