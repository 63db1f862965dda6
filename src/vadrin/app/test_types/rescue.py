"""Old film: today's EI, its fog beside a known film, what that costs, and what it is good for."""

from __future__ import annotations

from math import log2
from typing import TYPE_CHECKING

from vadrin.app.descriptions.answer_in_words import AnswerTable, OwnAnswer
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import ei_range_text, minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import THE_FRAME, LoadedStrip, LoadedTest
from vadrin.app.process.clip_judging import clip_answer_of, clip_words
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.app.results.working_steps import Step, develop_step, set_step
from vadrin.app.test_types.beside.rescue import ReferenceFilm
from vadrin.app.test_types.film_cells import row_by_index, usable_indexes
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.core.results.rating_method import CONTACT

if TYPE_CHECKING:
    from vadrin.core.results.strip_metrics import StripMetrics

_HEADS = ("Strip", "Time", "Today's EI", "Base plus fog", "Net range tried")
_WORTH, _BRIGHT = 1.0, 3.0
"""Stops lost up to which an old film is worth using as ever, and in bright light."""
_THICK_FOG = 0.6


def _verdict(lost: float, fog: float) -> str:
    if fog > _THICK_FOG and lost > _WORTH:
        return "for contact prints at most"
    if lost <= _WORTH:
        return "worth using"
    return "in bright light only" if lost <= _BRIGHT else "not worth a picture that matters"


def fog_beside(fog: Figure, known: ReferenceFilm | None) -> tuple[Figure, str]:
    """How much denser base plus fog is than that of a known film, and that in words."""
    if known is None or fog.value is None:
        why = "no other test of this stock is kept to lay beside it" if known is None else fog.why
        return absent(why), f"Its fog beside fresh film: {why}."
    more = fog.value - known.base_fog
    low = None if fog.low is None else fog.low - known.base_fog
    high = None if fog.high is None else fog.high - known.base_fog
    words = (
        f"Base plus fog {fog.value:.2f}, {more:+.2f} beside {known.name} at {known.base_fog:.2f}: "
        f"prints take {10**more:.1f} times as long."
    )
    return Figure(more, low, high), words


def _read_words(strip: LoadedStrip, mine: StripMetrics | None) -> tuple[str, str, str]:
    """EI, base plus fog and the range of densities of a strip."""
    if mine is None:
        return "not read", "—", "—"
    index, fog = mine.zone_ei, mine.base_fog
    read = [f.density for f in strip.frames if f.density is not None]
    return (
        # Why in full stands among what is to be minded; a card has no room for it.
        "none by density" if index.value is None else f"EI {marked_ei(index.value)}",
        fog.why if fog.value is None else f"{fog.value:.2f}",
        f"{max(read) - min(read):.2f}" if read else "—",
    )


def rescue_answer(state: State) -> OwnAnswer:
    """What a test of old film says."""
    loaded, analysis = state.loaded, state.analysis
    strips = {s.label: s for s in analysis.strips} if analysis else {}
    rows, film = [], []
    for strip in loaded.strips:
        mine = strips.get(strip.strip.label)
        time = minutes_text(strip.minutes) if strip.minutes else "—"
        rows.append((strip.strip.label, time, *_read_words(strip, mine)))
        film.append(row_by_index(strip, f"strip {strip.strip.label}", None, None))
    table = AnswerTable(_HEADS, tuple(rows))
    best = max(
        (s for s in strips.values() if s.zone_ei.value is not None),
        key=lambda s: s.zone_ei.value or 0.0,
        default=None,
    )
    index, how = _todays_index(loaded, best)
    # A base that was read is known, whether or not a speed could be told.
    known_fogs = (s.base_fog for s in strips.values() if s.base_fog.present)
    read_fog = next(known_fogs, absent("no densities were read"))
    fog = best.base_fog if best else read_fog
    known = loaded.beside if isinstance(loaded.beside, ReferenceFilm) else None
    more, fog_words = fog_beside(fog, known)
    fresh = known.exposure_index if known else None
    beside = fresh or loaded.stock.box_speed
    figures: dict[str, Figure | float | None] = {
        "ei": index,
        "base_fog": fog,
        "fog_over_known": more,
        "stops_lost": _apart(index, beside),
        "beside_ei": beside,
    }
    if index.value is None:
        act = "Read its frames, the blanks first, or judge them on the light box."
        strip0 = next((s for s in strips.values()), None)
        why = strip0.zone_ei.why if strip0 else "nothing of it was read or judged yet"
        return OwnAnswer("", f"{why[:1].upper()}{why[1:]}.", act, figures, table, tuple(film))
    lost = log2(beside / index.value)
    against = f"the {marked_ei(beside)} {'found fresh' if fresh else 'on its box'}"
    cost = f"{stops_counted(lost)} under {against}" if lost > 1 / 6 else f"as fast as {against}"
    words = f"{ei_range_text(index)}{how}; {cost}: "
    words += f"{_verdict(lost, fog.value or 0.0)}. {fog_words}"
    act = "Shoot a clip of it at that EI before a roll that matters, and keep the rest cold."
    return OwnAnswer(
        f"EI {marked_ei(index.value)}",
        words,
        act,
        figures,
        table,
        tuple(film),
        of_a_curve=True,
        steps=_steps(loaded, index.value, best),
    )


def _steps(loaded: LoadedTest, index: float, best: StripMetrics | None) -> tuple[Step, ...]:
    """Its EI and time; where a clip of it was judged, what that makes of the time."""
    rated = next((s for s in loaded.strips if best and s.strip.label == best.label), None)
    strip = rated or next((s for s in loaded.strips if s.looked_at), None)
    clip = clip_answer_of(loaded)
    told = (("By the clip", clip_words(loaded, clip)),) if clip is not None else ()
    return (set_step(index), *develop_step(loaded, strip), *told)


def _todays_index(loaded: LoadedTest, best: StripMetrics | None) -> tuple[Figure, str]:
    """The EI, and what it rests on: densities, the light box, or the thinnest frame of use."""
    if best is not None:
        return best.zone_ei, ""
    seen = light_box_answer(loaded)
    if seen is not None and seen[1].present:
        return seen[1], " by eye on the light box"
    judged = [found for s in loaded.strips if (found := usable_indexes(s)) is not None]
    if not judged:
        return absent("not read yet"), ""
    value, half = max(high for _, high in judged), 2.0 ** (0.5 * (loaded.test.step or 1.0))
    where = _judged_on(loaded)
    return Figure(
        value, value / half, value * half
    ), f", the thinnest frame that can be used{where}"


def _judged_on(loaded: LoadedTest) -> str:
    """Whether film or prints were judged, and that the other says something, too."""
    frames = [f for _, f in loaded.frames()]
    film, prints = (any(f.said(THE_FRAME, on_paper) for f in frames) for on_paper in (False, True))
    if not prints:
        return ""
    if not film:
        return " as its contact print shows"
    if loaded.test.school == CONTACT.key:
        return " as its contact print shows; what was seen on the film is kept beside it"
    return " on the film; what its contact prints show is kept beside it"


def _apart(index: Figure, beside: float) -> Figure:
    if index.value is None or index.low is None or index.high is None:
        return index if index.value is None else Figure(log2(beside / index.value))
    low, high = log2(beside / index.high), log2(beside / index.low)
    return Figure(log2(beside / index.value), low, high)


DESCRIPTION = TestDescription(
    Rescue.key,
    "Is this old film still worth using, and at which EI?",
    "From the marked speed down in whole stops, the last frames fogged for a clip.",
    sentences=(PlanSentence.TIMES, PlanSentence.BRACKET, PlanSentence.ROLL),
    first=0.0,
    last=7.0,
    subject="still scene",
    answer=rescue_answer,
)
