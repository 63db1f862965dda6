"""Whether a person wants no estimates from other tests; said once, kept with their choices."""

from __future__ import annotations

from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.library.kept_preferences import keep_preference, preference

_NAME, _OTHERS = "estimates left out", "learn from others"


def estimates_left_out() -> bool:
    """Whether they are left out of every answer."""
    return preference(_NAME) is True


def leave_estimates_out(left_out: bool) -> None:
    """Keep it; where it cannot be written, it is let be."""
    keep_preference(_NAME, left_out)


def others_count() -> bool:
    """Whether tests that were taken in from others are learnt from, too."""
    return preference(_OTHERS) is True


def turn_others(bench: Workbench) -> None:
    """Learn from tests that were taken in from others, or from one's own alone."""
    count = not others_count()
    keep_preference(_OTHERS, count)
    whose = "your own tests and others’" if count else "your own tests alone"
    bench.said.emit(f"Estimates are learnt from {whose}.")
    bench.changed.emit(Topic.EVERYTHING)


def turn_estimates(bench: Workbench) -> None:
    """Use them, or leave them out of every answer."""
    left_out = not estimates_left_out()
    leave_estimates_out(left_out)
    bench.said.emit(f"Estimates from other tests are {'left out' if left_out else 'used'}.")
    bench.changed.emit(Topic.EVERYTHING)
