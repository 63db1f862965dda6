"""Cine film: the EI whose metering asks for the exposure of the best frames, light by light."""

from __future__ import annotations

from math import log2, sqrt

from vadrin.app.descriptions.answer_in_words import AnswerTable, FilmCell, FilmRow, OwnAnswer
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import ei_range_text, minutes_text
from vadrin.app.display.words import list_text
from vadrin.app.document.state import State
from vadrin.app.entry.numbers import numbers_typed
from vadrin.app.loaded.frame_index import index_of, within_half_a_step
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.results.working_steps import develop_words
from vadrin.app.test_types.film_cells import GOOD_ENOUGH
from vadrin.core.figure import Figure, absent
from vadrin.core.judging.verdicts import USE_IT
from vadrin.core.planning.test_options import LightsInTurn
from vadrin.core.planning.test_types.cine import LIGHTS, TWIN, Cine
from vadrin.errors import EntryError

_HEADS = ("Piece", "Light", "Time", "Frames of use", "EI by eye", "EI by density")
_APART = 1 / 3


def light_of(strip: LoadedStrip) -> str:
    """The light a length was shot in."""
    return strip.strip.note.partition(",")[0] or "the light there was"


def _good(strip: LoadedStrip) -> list[float]:
    """EIs of the frames that can be used as they are, the slowest first."""
    judged = ((index_of(f), f) for f in strip.frames if f.readable and not f.frame.blank)
    return sorted(i for i, f in judged if i is not None and f.verdict == USE_IT)


def _by_eye(strip: LoadedStrip, step: float) -> Figure:
    """Middle of the frames of use, with half a step of the bracket to each side: as much as a
    bracket tells of a best frame that lies as far from both ends of what can be used."""
    good = _good(strip)
    if not good:
        judged = any(f.verdict in GOOD_ENOUGH for f in strip.frames)
        return absent("no frame of it can be used" if judged else "not judged yet")
    return within_half_a_step(sqrt(good[0] * good[-1]), step)


def _cell(frame: LoadedFrame) -> FilmCell:
    index = index_of(frame)
    words = "blank" if index is None or frame.frame.blank else f"EI {marked_ei(index)}"
    return FilmCell(words, frame.density, frame.verdict, frame.verdict == USE_IT)


def _name(strip: LoadedStrip) -> str:
    minutes = f" {minutes_text(strip.minutes)}" if strip.minutes else ""
    return f"{strip.strip.label} {strip.strip.note}{minutes}"


def cine_answer(state: State) -> OwnAnswer:
    """What a cine test says."""
    loaded, analysis = state.loaded, state.analysis
    known = {m.label: m for m in analysis.strips} if analysis else {}
    step = loaded.test.step or 1.0
    best: dict[str, tuple[LoadedStrip, Figure]] = {}
    rows, film = [], []
    for strip in loaded.strips:
        light, eye = light_of(strip), _by_eye(strip, step)
        metrics = known.get(strip.strip.label)
        dense = metrics.zone_ei if metrics else absent("not read")
        film.append(FilmRow(_name(strip), tuple(_cell(f) for f in strip.frames if f.readable)))
        minutes = minutes_text(strip.minutes) if strip.minutes else "—"
        rows.append(
            (strip.strip.label, light, minutes, str(len(_good(strip))), _index(eye), _index(dense))
        )
        before = best.get(light)
        if eye.present and (before is None or _rank(strip) > _rank(before[0])):
            best[light] = (strip, eye)
    figures = {f"{light.replace(' ', '_')}_ei": eye for light, (_, eye) in best.items()}
    figures |= {f"{label}_shadow_ei": m.zone_ei for label, m in known.items()}
    twin = _twin_stops(loaded, step)
    figures |= {"twin_stops": twin} if twin is not None else {}
    table = AnswerTable(_HEADS, tuple(rows))
    if not best:
        act = "Give every frame a verdict at Read, Verdicts: U where you would use it."
        return OwnAnswer(
            "", "no frame was judged good enough to use yet", act, figures, table, tuple(film)
        )
    says = list_text(
        [f"EI {marked_ei(eye.known())} in {light}" for light, (_, eye) in best.items()]
    )
    waits = [light_of(s) for s in loaded.strips if light_of(s) not in best]
    act = (
        f"Judge the frames shot in {waits[0]}."
        if waits
        else ("Shoot a scene at that EI, the meter in the hand and not in the camera.")
    )
    steps = tuple(
        (
            f"In {light}",
            f"meter at EI {marked_ei(eye.known())}; develop {develop_words(loaded, strip)}",
        )
        for light, (strip, eye) in best.items()
    )
    words = f"{_words(best)}{_twin_words(twin)}"
    return OwnAnswer(says, words, act, figures, table, tuple(film), steps=steps)


def _rank(strip: LoadedStrip) -> tuple[bool, int]:
    """The first camera's lengths before the second's, and of those the one with most of use."""
    return not strip.strip.note.endswith(TWIN), len(_good(strip))


def _twin_stops(loaded: LoadedTest, step: float) -> Figure | None:
    """Stops more that the second camera needs than the first, over the lengths they share; None
    where there is no second one, or no pair of lengths was judged."""
    of: dict[tuple[str, float | None], dict[bool, float]] = {}
    for strip in loaded.strips:
        eye = _by_eye(strip, step)
        if eye.value is not None:
            place = light_of(strip), strip.minutes
            of.setdefault(place, {})[strip.strip.note.endswith(TWIN)] = eye.value
    apart = [log2(pair[False] / pair[True]) for pair in of.values() if len(pair) == 2]
    if not apart:
        return None
    # Each EI is told within half a step, and so is what they differ by.
    mean, half = sum(apart) / len(apart), step / sqrt(2 * len(apart))
    return Figure(mean, mean - half, mean + half)


def _twin_words(stops: Figure | None) -> str:
    """What the second camera is set to beside the first, in a sentence."""
    if stops is None or stops.value is None:
        return ""
    if abs(stops.value) < _APART / 2:
        return " Both cameras give the same."
    side = "more" if stops.value > 0 else "less"
    return (
        f" The second camera needs {stops_counted(abs(stops.value))} {side} than the first, a "
        f"factor of {2.0**stops.value:.1f}."
    )


def _index(figure: Figure) -> str:
    return figure.why if figure.value is None else f"EI {marked_ei(figure.value)}"


def _words(best: dict[str, tuple[LoadedStrip, Figure]]) -> str:
    parts = [
        f"in {light} {ei_range_text(eye)}, on length {strip.strip.label}"
        + (f", {minutes_text(strip.minutes)} min" if strip.minutes else "")
        for light, (strip, eye) in best.items()
    ]
    values = [eye.known() for _, eye in best.values()]
    apart = log2(max(values) / min(values))
    said = (
        f"The lights lie {stops_counted(apart)} apart: meter each by its own EI."
        if (len(values) > 1 and apart >= _APART)
        else ""
    )
    words = f"{'; '.join(parts)}. {said}".strip()
    return words + " Shutter angle, frame rate, filter and the lens's loss are taken off."


def _lights_typed(words: str) -> tuple[int, ...]:
    lights = tuple(dict.fromkeys(numbers_typed(words, like="1, 2")))
    if any(n not in LIGHTS for n in lights):
        told = list_text([f"{n} {name}" for n, name in LIGHTS.items()])
        raise EntryError(f"the lights are {told}")
    return tuple(int(n) for n in lights)


DESCRIPTION = TestDescription(
    Cine.key,
    "At which EI do I meter for my cine camera?",
    "Single frames at a few apertures in each light, the strip cut in lengths for its times.",
    sentences=(
        PlanSentence.TIMES,
        PlanSentence.OWN,
        PlanSentence.BRACKET,
        PlanSentence.FILTER,
        PlanSentence.ROLL,
    ),
    times=(6.0, 8.0),
    kit="cine camera, meter, tank; light box, scanner or densitometer",
    first=-2.0,
    last=2.0,
    own_sentence="Lights {lights} (1 sun, 2 open shade, 3 lamp), the meter read anew in each.",
    own_words={"lights": option_word("lights in turn", LightsInTurn, "lights", _lights_typed)},
    subject="still scene",
    answer=cine_answer,
)
