"""A film at its EI and pushed: its question, and the rows of film it is answered on."""

from __future__ import annotations

from vadrin.app.descriptions.answer_in_words import FilmCell, FilmRow
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.entry.exposures import pushes_typed
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.test_types.film_cells import GOOD_ENOUGH, by_index
from vadrin.core.judging.verdicts import USE_IT, share_of
from vadrin.core.planning.test_options import Pushes
from vadrin.core.planning.test_types.push import PushTest

_NO_DENSER = 0.03


def push_rows(loaded: LoadedTest) -> tuple[FilmRow, ...]:
    """A row of film for each push, with its counts of verdicts beside it."""
    made = []
    for strip in sorted(loaded.strips, key=lambda s: s.strip.push or 0.0):
        cells = tuple(
            FilmCell(f"{f.name}", f.density, f.verdict) for _, f in reversed(by_index(strip))
        )
        time = f", {minutes_text(strip.minutes)}" if strip.minutes else ""
        made.append(FilmRow(f"{push_name(strip.strip.push or 0.0)}{time}", cells, _count(strip)))
    return tuple(made)


def _count(strip: LoadedStrip) -> str:
    said = [GOOD_ENOUGH[f.verdict] for f in strip.frames if f.verdict in GOOD_ENOUGH]
    if not said:
        return ""
    share = share_of(sum(v == GOOD_ENOUGH[USE_IT] for v in said), len(said))
    return f"{share.count} of {share.total} usable"


def over_developed_proof(loaded: LoadedTest) -> str:
    """What two strips of one exposure prove, one developed far longer; empty for none.

    Shadows no denser on the longer one: thin shadows are exposure, not time.
    """
    for one in loaded.strips:
        for other in loaded.strips:
            if not one.minutes or not other.minutes or other.minutes < 1.4 * one.minutes:
                continue
            gains = _gains(loaded, one, other)
            if gains is None:
                continue
            shadow, rest = gains
            label, longer = one.strip.label, other.strip.label
            if shadow <= _NO_DENSER < rest:
                return (
                    f"Strip {longer}, developed longer than {label}, is no denser in the shadows "
                    f"({shadow:+.2f}) and {rest:+.2f} above them: thin shadows are exposure, and "
                    "no time brings them back."
                )
    return ""


def _gains(loaded: LoadedTest, one: LoadedStrip, other: LoadedStrip) -> tuple[float, float] | None:
    """Net density gained in the shadows, and above them; None where exposures are not alike."""
    constant = loaded.test.meter_constant

    def net(strip: LoadedStrip) -> dict[float, float]:
        blank = [f.density for f in strip.frames if f.frame.blank and f.density is not None]
        base = sum(blank) / len(blank) if blank else 0.0
        placed = [(f.log_h(constant), f.density) for f in strip.frames if f.counts]
        return {round(x, 2): d - base for x, d in placed if x is not None and d is not None}

    mine, theirs = net(one), net(other)
    alike = sorted(set(mine) & set(theirs))
    if len(alike) < 4:
        return None
    thin = [x for x in alike if mine[x] < 0.06]
    rest = [x for x in alike if mine[x] >= 0.3]
    if len(thin) < 2 or not rest:
        return None
    # The frames next to the base, where a print would want the first detail.
    shadow = sum(theirs[x] - mine[x] for x in thin) / len(thin)
    return shadow, sum(theirs[x] - mine[x] for x in rest) / len(rest)


DESCRIPTION = TestDescription(
    PushTest.key,
    "How far can I push, and what does it cost in shadow?",
    "The film at its EI and pushed, a strip or a roll each.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.OWN, PlanSentence.BRACKET, PlanSentence.ROLL),
    times=(6.5,),
    first=-4.0,
    last=4.0,
    own_sentence="Pushed by {pushes} stops, a strip each; each is as much longer as the "
    "maker's table has it, or 30 % longer for each stop.",
    own_words={"pushes": option_word("pushes in stops", Pushes, "stops", pushes_typed)},
)
