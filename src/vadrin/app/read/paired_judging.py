"""Strips judged beside the reference, openly or blind: which is which is told afterwards."""

from __future__ import annotations

import json
from dataclasses import dataclass
from random import Random

from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.stamps import now
from vadrin.core.judging.paired import QUALITIES, SCALE, PairedResult, paired_result
from vadrin.core.wording import counted
from vadrin.notebook.records import Judgement
from vadrin.notebook.store import Notebook

PAIRED_KEYS = {str(place): answer for place, answer in enumerate(SCALE, start=1)}
"""What each key says of the right one beside the left."""
PAIRED_QUALITIES = QUALITIES
_ASKED = "beside the reference: "


@dataclass(frozen=True)
class Pair:
    """Two strips to lay side by side.

    Attributes
    ----------
    reference, other : LoadedStrip
    turned : bool
        Whether the reference lies at the right.
    blind : bool
        Whether which is which is not told before the round is over.
    """

    reference: LoadedStrip
    other: LoadedStrip
    turned: bool
    blind: bool

    @property
    def names(self) -> tuple[str, str]:
        """What the left and the right one are called now."""
        if self.blind:
            return "P", "Q"
        both = [f"strip {s.strip.label}" for s in (self.reference, self.other)]
        return (both[1], both[0]) if self.turned else (both[0], both[1])

    def of_other(self, answer: str) -> str:
        """An answer about the right one, as one about the other strip."""
        return SCALE[len(SCALE) - 1 - SCALE.index(answer)] if self.turned else answer


def pairs_of(loaded: LoadedTest, blind: bool, rng: Random) -> tuple[Pair, ...]:
    """Every other strip beside the first, in an order and on sides that chance decides."""
    if len(loaded.strips) < 2:
        return ()
    reference, *others = loaded.strips
    if blind:
        others = rng.sample(others, len(others))
    return tuple(Pair(reference, other, blind and rng.random() < 0.5, blind) for other in others)


def keep_paired(notebook: Notebook, pair: Pair, quality: str, answer: str) -> None:
    """Keep an answer about the right one of a pair, as one about the strip that is not the
    reference."""
    told = pair.of_other(answer)
    detail = {"beside": pair.reference.strip.id, "blind": pair.blind}
    with notebook.change(f"{quality}, strip {pair.other.strip.label}"):
        notebook.add(
            Judgement(
                strip_id=pair.other.strip.id,
                position=len(pair.other.judgements),
                asked=f"{_ASKED}{quality}",
                answer=told,
                value=float(SCALE.index(told) - 2),
                way="blind" if pair.blind else "open",
                detail=json.dumps(detail),
                judged_at=now(),
            )
        )


def paired_of(strip: LoadedStrip, quality: str) -> PairedResult | None:
    """What all looks at a quality of a strip come to; None before the first."""
    said = tuple(
        j.answer
        for j in strip.judgements
        if j.asked == f"{_ASKED}{quality}" and not j.left_out and j.answer in SCALE
    )
    return paired_result(said) if said else None


def paired_words(result: PairedResult) -> tuple[str, str]:
    """What looks at a quality come to, and how many there were of which kind."""
    count = f"{result.more} more, {result.same} same, {result.less} less"
    if result.told:
        return (
            f"{SCALE[round(result.mean) + 2]} than the reference",
            f"{count}; unlikely to be chance",
        )
    looks = counted(result.more + result.same + result.less, "look")
    return "no difference seen yet", f"{count}; {looks} could be chance"


def paired_lines(loaded: LoadedTest) -> tuple[str, ...]:
    """A sentence for each quality that was judged of each strip."""
    made = []
    for strip in loaded.strips[1:]:
        for quality in QUALITIES:
            result = paired_of(strip, quality)
            if result is not None:
                words, count = paired_words(result)
                made.append(f"Strip {strip.strip.label}, {quality}: {words} ({count}).")
    return tuple(made)
