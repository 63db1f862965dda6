"""Kept verdicts and answers of an eye in the words they are shown by."""

from __future__ import annotations

from typing import TYPE_CHECKING

from vadrin.core.judging.verdicts import CANT_TELL, NOTHING_THERE, SALVAGED, TOO_DENSE, USE_IT

if TYPE_CHECKING:
    from vadrin.core.results.push import ShadowVerdict

__all__ = ["NOTHING_THERE", "TOO_DENSE", "USE_IT", "answer_words", "shadow_words"]

_SHOWN = {
    NOTHING_THERE: "unusable",
    SALVAGED: "salvageable",
    USE_IT: "usable",
    CANT_TELL: "not sure",
}

_LEFT = {"NOTHING": "no usable shadow", "SALVAGE": "salvageable"}
"""What a push leaves of the shadows, where the report keeps an older word."""


def answer_words(kept: str) -> str:
    """A verdict or an answer as it is shown; the notebook keeps it by its older word."""
    return _SHOWN.get(kept, kept)


def shadow_words(verdict: ShadowVerdict) -> str:
    """What a push leaves of the shadows; a push without them still has its other tones."""
    return _LEFT.get(verdict.name, verdict.value)
