"""What a practice film may be asked: how each figure is typed, shown and held against the truth."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum
from math import log2

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.exposures import exposure_index_typed
from vadrin.app.entry.numbers import number_within
from vadrin.app.entry.times import minutes_typed

UNKNOWN = "—"
"""Where there is no figure."""


class Measure(Enum):
    """What a figure is, and so how its error is told."""

    EI = "EI"
    MINUTES = "minutes"
    SECONDS = "seconds"
    STOPS = "stops"
    TIMES = "times"
    DENSITY = "density"
    DIFFERENCE = "difference"

    def read(self, words: str) -> float:
        """The figure that was typed.

        Raises
        ------
        EntryError
        """
        return _READ[self](words)

    def shown(self, value: float | None) -> str:
        """A figure as it is shown, with its unit."""
        return UNKNOWN if value is None else _SHOWN[self](value)

    def typed(self, value: float) -> str:
        """A figure as it would be typed."""
        return _TYPED[self](value)

    def off(self, value: float | None, true: float | None) -> float | None:
        """How far a figure is off: in stops of light, or as a share."""
        if value is None or true is None:
            return None
        if self in (Measure.STOPS, Measure.DENSITY, Measure.DIFFERENCE):
            return value - true
        if not value or not true or value / true <= 0:
            return None
        return value / true - 1.0 if self.is_share else log2(value / true)

    @property
    def is_share(self) -> bool:
        """Whether errors are shares; else stops."""
        return self in (Measure.MINUTES, Measure.TIMES)

    def off_words(self, value: float | None, true: float | None) -> str:
        """An error as it is shown."""
        off = self.off(value, true)
        if off is None:
            return UNKNOWN
        unit = "" if self in (Measure.DENSITY, Measure.DIFFERENCE) else " stop"
        words = f"{100 * off:+.0f} %" if self.is_share else f"{round(off, 2) + 0.0:+.2f}{unit}"
        return words.replace("-", "−")


_READ: dict[Measure, Callable[[str], float]] = {
    Measure.EI: exposure_index_typed,
    Measure.MINUTES: minutes_typed,
    Measure.SECONDS: lambda words: number_within(
        words, 1.0, 100_000.0, "seconds lie between 1 and 100,000", "35"
    ),
    Measure.STOPS: lambda words: number_within(
        words, -6.0, 6.0, "stops lie between −6 and 6", "0.5"
    ),
    Measure.TIMES: lambda words: number_within(
        words, 0.1, 10.0, "a share lies between 0.1 and 10", "1.1"
    ),
    Measure.DENSITY: lambda words: number_within(
        words, 0.0, 4.0, "a density lies between 0 and 4", "0.35"
    ),
    Measure.DIFFERENCE: lambda words: number_within(
        words, -2.0, 2.0, "a difference of densities lies between −2 and 2", "-0.05"
    ),
}
_SHOWN: dict[Measure, Callable[[float], str]] = {
    Measure.EI: lambda value: f"EI {marked_ei(value):g}",
    Measure.MINUTES: lambda value: f"{minutes_text(value)} min",
    Measure.SECONDS: lambda value: f"{value:.0f} s",
    Measure.STOPS: lambda value: f"{value:+.2f} stop".replace("-", "−"),
    Measure.TIMES: lambda value: f"× {value:.2f}",
    Measure.DENSITY: lambda value: f"{value:.2f}",
    Measure.DIFFERENCE: lambda value: f"{round(value, 2) + 0.0:+.2f}".replace("-", "−"),
}
_TYPED: dict[Measure, Callable[[float], str]] = {
    Measure.EI: lambda value: f"{marked_ei(value):g}",
    Measure.MINUTES: minutes_text,
    Measure.SECONDS: lambda value: f"{value:.0f}",
    Measure.STOPS: lambda value: f"{value:.2f}",
    Measure.TIMES: lambda value: f"{value:.2f}",
    Measure.DENSITY: lambda value: f"{value:.2f}",
    Measure.DIFFERENCE: lambda value: f"{value:.2f}",
}


@dataclass(frozen=True)
class Question:
    """One figure that is asked.

    Attributes
    ----------
    key : str
        It is kept under.
    name : str
        It is called by in the envelope.
    field : str
        What its field is of.
    before, after : str
        Words around its field.
    measure : Measure
    """

    key: str
    name: str
    field: str
    before: str
    after: str
    measure: Measure


INDEX = Question("index", "EI", "EI", "I say EI", "", Measure.EI)
TIME = Question("time_min", "time", "time", "Develop", "min", Measure.MINUTES)
PUSH = Question(
    "push_min", "push 1", "time of push 1", "A push of one stop", "min", Measure.MINUTES
)
LONG_S = 15.0
"""Seconds by the meter that a test of long exposures is asked for."""
LONG = Question(
    "long_s",
    "long exposure",
    "seconds to give",
    f"Where the meter says {LONG_S:g} s give",
    "s",
    Measure.SECONDS,
)
FASTER = Question(
    "faster_stops", "speed", "stops it is faster", "The other is faster by", "stops", Measure.STOPS
)
STEEPER = Question(
    "steeper", "contrast", "contrast beside it", "Its contrast is ×", "", Measure.TIMES
)
TODAY = Question("todays_index", "today's EI", "today's EI", "Today I rate it EI", "", Measure.EI)
FOG = Question(
    "base_fog", "base plus fog", "base plus fog", "Its base plus fog is", "", Measure.DENSITY
)
RED, BLUE = (
    Question(
        f"{layer}_beside_green",
        f"{layer} beside green",
        f"contrast of {layer} beside green",
        f"At normal the contrast of {layer} is ×",
        "of that of green",
        Measure.TIMES,
    )
    for layer in ("red", "blue")
)
LONGER = Question(
    "bottle_times",
    "time in the old bottle",
    "times the time",
    "The old bottle needs ×",
    "the time",
    Measure.TIMES,
)
THIN_OFF = Question(
    "thin_off",
    "thin patch",
    "thin patch beside the first strip",
    "The thin patch of the last strip is off by",
    "",
    Measure.DIFFERENCE,
)
STEP_OFF = Question(
    "step_off",
    "contrast step",
    "contrast step beside the first strip",
    "Its contrast step is off by",
    "",
    Measure.DIFFERENCE,
)
SCALE = Question(
    "exposure_scale",
    "exposure scale",
    "exposure scale",
    "The paper’s exposure scale is",
    "",
    Measure.DENSITY,
)
BLACK = Question(
    "paper_black", "black", "darkest black", "Its darkest black is", "", Measure.DENSITY
)
_TIMES_ASKED = (INDEX, TIME, PUSH)


@dataclass(frozen=True)
class PracticeKind:
    """A type of test that is practised.

    Attributes
    ----------
    key : str
        Of the type of test.
    asked_for : str
        As it is chosen.
    questions : tuple of Question
    material : str
        What lies in the envelope.
    """

    key: str
    asked_for: str
    questions: tuple[Question, ...] = _TIMES_ASKED
    material: str = "film"


KINDS = {
    kind.key: kind
    for kind in (
        PracticeKind("time", "development times"),
        PracticeKind("speed", "its EI"),
        PracticeKind("push", "its pushes"),
        PracticeKind("reciprocity", "long exposures", (LONG,)),
        PracticeKind("two developers", "another developer", (FASTER, STEEPER)),
        PracticeKind("compare", "another batch", (FASTER, STEEPER)),
        PracticeKind("rescue", "an old film", (TODAY, FOG)),
        PracticeKind("colour", "its colour layers", (RED, BLUE)),
        PracticeKind("clip", "an old bottle", (LONGER,)),
        PracticeKind("process control", "a process run after run", (THIN_OFF, STEP_OFF)),
        PracticeKind("paper", "enlarging paper", (SCALE, BLACK), "paper"),
    )
}
"""Every type of test a practice film can be asked, by its key."""
QUESTIONS = {q.key: q for kind in KINDS.values() for q in kind.questions}


def questions_of(kind: str) -> tuple[Question, ...]:
    """What a type of test is asked; EI and times for one that is not practised."""
    known = KINDS.get(kind)
    return known.questions if known is not None else _TIMES_ASKED


def material_of(kind: str) -> str:
    """What lies in the envelope of a type of test."""
    known = KINDS.get(kind)
    return known.material if known is not None else "film"
