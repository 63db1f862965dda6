"""What the darkroom clock says at one moment, in words that can be read from two metres."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vadrin.core.process.clock_records import ClockState, DueAction, DueActionKind
from vadrin.core.process.darkroom_clock import DarkroomClock

_SOON_S = 600.0
_TOGETHER_S = 2.0
_URGENT_S = 10.0
_HEAVY = (DueActionKind.PULL, DueActionKind.NEXT, DueActionKind.DONE)


def seconds_text(seconds: float) -> str:
    """``4:05``, ``1:30:00``; a minus where it is overdue."""
    whole = math.ceil(abs(seconds) - 1e-6) if seconds >= 0 else math.floor(abs(seconds))
    sign = "−" if seconds < 0 and whole else ""
    minutes, rest = divmod(int(whole), 60)
    if minutes < 60:
        return f"{sign}{minutes}:{rest:02d}"
    return f"{sign}{minutes // 60}:{minutes % 60:02d}:{rest:02d}"


@dataclass(frozen=True)
class Mark:
    """One act on the timeline: seconds ahead of now, its words, and how long it takes."""

    ahead_s: float
    words: str
    heavy: bool
    length_s: float = 0.0


@dataclass(frozen=True)
class ClockFaceWords:
    """Everything the face shows.

    Attributes
    ----------
    step : str
        The step under way, and which of how many.
    left : str
        What is left of it.
    now : str
        What the hands do now.
    coming : str
        The next act, and in how long.
    next_in : str
        The countdown to it alone; empty where none comes.
    next_act : str
        What it is.
    main : str
        The word on the main button.
    marks : tuple of Mark
    urgent : bool
        Whether the next act is due within seconds.
    """

    step: str
    left: str
    now: str
    coming: str
    next_in: str
    next_act: str
    main: str
    marks: tuple[Mark, ...]
    urgent: bool


def act_words(act: DueAction, clock: DarkroomClock, step: int) -> str:
    """What the hands do at an act."""
    if act.kind is DueActionKind.PULL:
        return f"take out strip {act.strip}"
    if act.kind is DueActionKind.NEXT:
        return clock.steps[step + 1].name.lower()
    return act.kind.value


def _marks(clock: DarkroomClock, state: ClockState) -> tuple[Mark, ...]:
    """The acts of the next minutes; the one under way too, as far as it still goes."""
    acts = clock.acts_of(state.step)
    made: list[Mark] = []
    ends = acts[-1].at
    # From the last to the first, so that where an act ends is known when it is met.
    for act in reversed(acts):
        ahead = act.at - state.elapsed_s
        if act.kind is DueActionKind.REST:
            ends = act.at
            continue
        length = ends - act.at if act.kind is DueActionKind.AGITATE else 0.0
        heavy = act.kind in _HEAVY
        if (ahead + length >= 0 or heavy) and ahead <= _SOON_S:
            made.append(Mark(ahead, act_words(act, clock, state.step), heavy, length))
    return tuple(reversed(made))


def next_pull(clock: DarkroomClock, state: ClockState) -> str:
    """The strip to be pulled next, while others stay in; empty where the last one is left."""
    pulls = [a.strip for a in state.coming if a.kind is DueActionKind.PULL]
    return pulls[0] if len(pulls) > 1 else ""


def _main_words(clock: DarkroomClock, state: ClockState) -> str:
    """The word on the main button."""
    if not clock.events:
        return "Start the clock"
    pulled = next_pull(clock, state)
    if pulled:
        return f"Strip {pulled} is out"
    last = state.step + 1 == len(clock.steps)
    return "All done" if last else f"On to: {clock.steps[state.step + 1].name}"


def _doing(clock: DarkroomClock, state: ClockState) -> str:
    """What the hands do now."""
    if not clock.events:
        return "not started"
    if state.stopped:
        return "stopped"
    if state.paused:
        return "paused"
    if state.left_s < -0.5:
        return "overdue"
    return "agitate" if state.moving else "let it stand"


def _far_ahead(clock: DarkroomClock, state: ClockState) -> Mark | None:
    """The next act where none comes soon: film that stands for half an hour has one, too."""
    acts = (a for a in state.coming if a.at > state.elapsed_s and a.kind is not DueActionKind.REST)
    act = next(acts, None)
    if act is None:
        return None
    return Mark(act.at - state.elapsed_s, act_words(act, clock, state.step), act.kind in _HEAVY)


def _coming(marks: tuple[Mark, ...], ahead: Mark | None) -> tuple[str, str]:
    """The countdown to the next acts, and what they are; what is overdue comes first, without."""
    overdue = [m.words for m in marks if m.ahead_s <= 0 and m.heavy]
    if overdue:
        return "", overdue[0]
    if ahead is None:
        return "", ""
    together = [m for m in marks if abs(m.ahead_s - ahead.ahead_s) < _TOGETHER_S] or [ahead]
    acts = [m.words for m in sorted(together, key=lambda m: not m.heavy)]
    return seconds_text(ahead.ahead_s), ", ".join(acts)


def face_words(clock: DarkroomClock, now: float) -> ClockFaceWords:
    """What a clock says at a moment of the uptime axis."""
    state = clock.at(now)
    title = f"{clock.steps[state.step].name} · step {state.step + 1} of {len(clock.steps)}"
    marks = _marks(clock, state)
    ahead = next((m for m in marks if m.ahead_s > 0), None) or _far_ahead(clock, state)
    live = bool(clock.events) and not state.stopped
    next_in, act = _coming(marks, ahead) if live else ("", "")
    urgent = live and state.running and ahead is not None and ahead.ahead_s < _URGENT_S
    return ClockFaceWords(
        title,
        seconds_text(state.left_s),
        _doing(clock, state),
        f"{act} in {next_in}" if next_in else f"now: {act}" if act else "",
        next_in,
        act,
        _main_words(clock, state),
        marks,
        urgent,
    )
