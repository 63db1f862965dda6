"""Whether a person wants no estimates from other tests; said once, kept with their choices."""

from __future__ import annotations

from vadrin.app.library.kept_preferences import keep_preference, preference

_NAME = "estimates left out"


def estimates_left_out() -> bool:
    """Whether they are left out of every answer."""
    return preference(_NAME) is True


def leave_estimates_out(left_out: bool) -> None:
    """Keep it; where it cannot be written, it is let be."""
    keep_preference(_NAME, left_out)
