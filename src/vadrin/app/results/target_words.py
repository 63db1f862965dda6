"""What a test is judged by, in words: shown, typed, stepped."""

from __future__ import annotations

from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.numbers import number_typed
from vadrin.app.entry.times import minutes_typed
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.rating import AS_DEVELOPED, BY_EYE
from vadrin.core.results.criteria import MEASURES
from vadrin.errors import EntryError

TARGET_NAMES = tuple(measure.name for measure in MEASURES.values())
"""What one can choose to be judged by."""


def target_text(kind: str, value: float) -> str:
    """A target in words."""
    if kind == AS_DEVELOPED:
        return "as developed"
    if kind == BY_EYE:
        return "judged by eye"
    measure = MEASURES.get(kind)
    if measure is None:
        return f"{kind} {value:g}"
    return measure.pattern.format(minutes_text(value) if measure.given else value)


def target_value_text(kind: str, value: float) -> str:
    """The value of a target as it is typed."""
    measure = MEASURES.get(kind)
    return minutes_text(value, exact=True) if measure and measure.given else f"{value:.4g}"


def usual_value(kind: str, loaded: LoadedTest) -> float:
    """What a target is to begin with: of one's own time, that of the strip that is not pushed."""
    measure = MEASURES[kind]
    normal = next((s.minutes for s in loaded.strips if not s.strip.push and s.minutes), None)
    return normal if measure.given and normal else measure.usual


def target_name(kind: str) -> str:
    """The name of a kind of target."""
    return MEASURES[kind].name if kind in MEASURES else kind


def target_typed(words: str) -> tuple[str, float]:
    """The kind of target that is meant, and the value it usually has.

    Raises
    ------
    EntryError
        Listing the targets there are.
    """
    name = choice_typed(words, TARGET_NAMES, anywhere=True)
    measure = next(m for m in MEASURES.values() if m.name == name)
    return measure.key, measure.usual


def target_value_typed(kind: str, words: str) -> float:
    """A wanted value of a target.

    Raises
    ------
    EntryError
        If no negative is like that.
    """
    if kind not in MEASURES:
        raise EntryError(f"“{kind}” is no measure known here; choose one first")
    measure = MEASURES[kind]
    value = _value_of(kind, words)
    if not measure.lowest <= value <= measure.highest:
        raise EntryError(f"{target_text(kind, value)} is out of reach; try {measure.usual:g}")
    return value


def target_value_stepped(kind: str, shown: str, way: int) -> str:
    """One press of an arrow key on a wanted value."""
    step = MEASURES[kind].step if kind in MEASURES else 0.01
    return target_value_text(kind, max(_value_of(kind, shown) + way * step, step))


def _value_of(kind: str, words: str) -> float:
    """A value as its measure is typed: minutes, or a number."""
    measure = MEASURES.get(kind)
    return minutes_typed(words) if measure and measure.given else number_typed(words)
