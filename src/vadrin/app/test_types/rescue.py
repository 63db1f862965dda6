"""Old film: today's EI, its fog beside a known film, what that costs, and what it is good for."""

from __future__ import annotations

from math import log2
from typing import TYPE_CHECKING

from vadrin.app.descriptions.answer_in_words import AnswerTable, OwnAnswer
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import ei_range_text, minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.process.clip_judging import clip_answer_of, clip_words
from vadrin.app.results.ways_of_looking import (
    BY_DENSITY,
    ON_BOX,
    ON_CONTACT,
    PRINTS_BEST,
    Looked,
    ways_of_looking,
)
from vadrin.app.results.working_steps import Step, develop_step, set_step
from vadrin.app.test_types.beside.rescue import ReferenceFilm
from vadrin.app.test_types.film_cells import row_by_index
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.core.results.rating_method import CONTACT, EYE
from vadrin.core.wording import list_text
from vadrin.notebook.records.film_test import SCENE_SUBJECT

if TYPE_CHECKING:
    from vadrin.core.results.strip_metrics import StripMetrics

_HEADS = ("Strip", "Time", "Today's EI", "Base plus fog", "Net range tried")
_WORTH, _BRIGHT = 1.0, 3.0
"""Stops lost up to which an old film is worth using as ever, and in bright light."""
_THICK_FOG = 0.6
_CHOSEN = {CONTACT.key: (ON_CONTACT, PRINTS_BEST), EYE.key: (ON_BOX,)}
"""Ways of looking that rate, by the method that was chosen."""


def _verdict(lost: float, fog: float) -> str:
    if fog > _THICK_FOG and lost > _WORTH:
        return "for contact prints at most"
    if lost <= _WORTH:
        return "worth using"
    return "in bright light only" if lost <= _BRIGHT else "not worth a picture that matters"


def fog_beside(fog: Figure, known: ReferenceFilm | None) -> tuple[Figure, str]:
    """How much denser base plus fog is than that of a known film, and that in words."""
    if known is None or fog.value is None:
        why = "no other test of this film is kept to lay beside it" if known is None else fog.why
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
    ways = ways_of_looking(loaded, best.zone_ei if best is not None else None)
    index, how = _todays_index(loaded, ways)
    # A base that was read is known, whether or not a speed could be told.
    known_fogs = (s.base_fog for s in strips.values() if s.base_fog.present)
    read_fog = next(known_fogs, _blanks_fog(loaded))
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
        words = f"{why[:1].upper()}{why[1:]}."
        if fog.present:
            words += f" {fog_words}"
        return OwnAnswer("", words, act, figures, table, tuple(film))
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
        more=_ways_table(loaded, ways),
        steps=_steps(loaded, index.value, best),
    )


def _steps(loaded: LoadedTest, index: float, best: StripMetrics | None) -> tuple[Step, ...]:
    """Its EI and time; where a clip of it was judged, what that makes of the time."""
    rated = next((s for s in loaded.strips if best and s.strip.label == best.label), None)
    strip = rated or next((s for s in loaded.strips if s.looked_at), None)
    clip = clip_answer_of(loaded)
    told = (("By the clip", clip_words(loaded, clip)),) if clip is not None else ()
    return (set_step(index), *develop_step(loaded, strip), *told)


def _todays_index(loaded: LoadedTest, ways: tuple[Looked, ...]) -> tuple[Figure, str]:
    """The EI of the way that rates, and what it rests on."""
    rates = _rating_way(loaded, ways)
    if rates is None:
        return absent("not read yet"), ""
    beside = list_text([w.way for w in ways if w is not rates])
    words = "" if rates.way == BY_DENSITY else f", {rates.way}"
    return rates.index, f"{words} ({beside} beside it)" if beside else words


def _rating_way(loaded: LoadedTest, ways: tuple[Looked, ...]) -> Looked | None:
    """The way of looking that rates: the one that was chosen at Finding, else the surest."""
    wanted = _CHOSEN.get(loaded.test.school, ())
    chosen = next((w for w in ways if w.way in wanted), None)
    return chosen or next(iter(ways), None)


def _ways_table(loaded: LoadedTest, ways: tuple[Looked, ...]) -> tuple[AnswerTable, ...]:
    """Each way of looking beside the others, the one that rates marked; none for one alone."""
    if len(ways) < 2:
        return ()
    rates = _rating_way(loaded, ways)
    rows = tuple(
        (
            way.way,
            f"EI {marked_ei(way.index.known())}",
            ei_range_text(way.index),
            "rates" if way is rates else "",
        )
        for way in ways
    )
    return (AnswerTable(("Way of looking", "Today's EI", "", ""), rows),)


def _blanks_fog(loaded: LoadedTest) -> Figure:
    """Base plus fog of the blanks alone, where there is no curve to tell it."""
    read = [f.density for _, f in loaded.frames() if f.frame.blank and f.density is not None]
    return Figure(sum(read) / len(read)) if read else absent("no densities were read")


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
    first=-2.0,
    last=8.0,
    subject=SCENE_SUBJECT,
    answer=rescue_answer,
)
