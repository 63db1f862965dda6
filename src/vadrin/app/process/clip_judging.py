"""The clip of a test: what was read or seen of it, and whether to go."""

from __future__ import annotations

import json

from vadrin.app.descriptions.answer_in_words import OwnAnswer
from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.densities import reading_typed
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import reference_words
from vadrin.app.stamps import now
from vadrin.core.frames import FrameRole
from vadrin.core.planning.test_types.clip import Clip
from vadrin.core.process.clip_verdict import (
    ClipAnswer,
    ClipVerdict,
    SeenThrough,
    clip_of_densities,
    clip_seen_through,
)
from vadrin.errors import EntryError
from vadrin.notebook.records import Judgement, Rule, RuleTrial
from vadrin.notebook.store import Notebook

CLIP = "clip"
SEEN_RULE = "Seen through a clip"
_SEEN, _READ, _WEDGE = "seen through", "densities", "wedge"
_READ_SD = 0.02
LOOKS = tuple(str(s) for s in SeenThrough)


def type_clip(notebook: Notebook, loaded: LoadedTest, clip: str, good: str, base: str) -> None:
    """Keep densities of the clip, of the good one and of the base; each read, or between two
    steps of a wedge, as ``1.20-1.35``.

    Raises
    ------
    EntryError
        If one is no density, or the good clip is not dense.
    """
    if not loaded.strips:
        raise EntryError("plan the strips first: a clip goes before one")
    typed = [reading_typed(words) for words in (clip, good, base)]
    d_clip, d_good, d_base = (t.density for t in typed)
    sd_clip, sd_good, _ = (t.deviation(_READ_SD) for t in typed)
    try:
        answer = clip_of_densities(d_clip, d_good, d_base, sd_clip, sd_good)
    except ValueError as error:
        raise EntryError(str(error)) from error
    way = _WEDGE if max(sd_clip, sd_good) > _READ_SD else _READ
    detail = {"clip_sd": sd_clip, "good_sd": sd_good, "base": d_base}
    _keep(notebook, loaded, answer, way, value=d_clip, reference=d_good, detail=json.dumps(detail))


def type_seen_through(notebook: Notebook, loaded: LoadedTest, words: str) -> None:
    """Keep how print looks through the clip, beside the good one.

    Raises
    ------
    EntryError
        Listing what may be said.
    """
    if not loaded.strips:
        raise EntryError("plan the strips first: a clip goes before one")
    looks = SeenThrough(choice_typed(words, LOOKS))
    answer = clip_seen_through(looks)
    with notebook.change("judge the clip"):
        _keep(notebook, loaded, answer, _SEEN, detail=json.dumps(looks.value))
        planned = _planned(loaded)
        if planned and answer.next_try:
            _put_on_trial(notebook, loaded, planned * answer.next_try)


def _planned(loaded: LoadedTest) -> float | None:
    return next((s.strip.planned_min for s in loaded.strips[::-1] if s.strip.planned_min), None)


def _put_on_trial(notebook: Notebook, loaded: LoadedTest, minutes: float) -> None:
    """What the look of a clip makes of the time is a rule like others: sealed, and scored later."""
    rule = seen_through_rule(notebook) or notebook.add(Rule(name=SEEN_RULE, takes="minutes"))
    notebook.add(
        RuleTrial(
            rule_id=rule.id,
            test_id=loaded.test.id,
            given=minutes,
            usual_min=_planned(loaded),
            predicted_min=minutes * rule.amount,
            predicted_at=now(),
        )
    )


def seen_through_rule(notebook: Notebook) -> Rule | None:
    """The rule that goes by print seen through a clip, once it was tried."""
    return next(iter(notebook.all(Rule, name=SEEN_RULE)), None)


def _keep(
    notebook: Notebook,
    loaded: LoadedTest,
    answer: ClipAnswer,
    way: str,
    detail: str,
    value: float | None = None,
    reference: float | None = None,
) -> None:
    strip = loaded.strips[-1].strip
    with notebook.change("judge the clip"):
        notebook.add(
            Judgement(
                strip_id=strip.id,
                position=len(loaded.judged(CLIP)),
                asked=CLIP,
                answer=answer.verdict.value,
                way=way,
                value=value,
                reference=reference,
                detail=detail,
                judged_at=now(),
            )
        )


def _of_judgement(kept: Judgement) -> ClipAnswer | None:
    try:
        told = json.loads(kept.detail)
        if kept.way == _SEEN:
            return clip_seen_through(SeenThrough(told))
        sds = float(told["clip_sd"]), float(told["good_sd"])
        return clip_of_densities(kept.value or 0, kept.reference or 0, float(told["base"]), *sds)
    except (ValueError, KeyError, TypeError):
        # A notebook from elsewhere may hold a judgement that means nothing here.
        return None


def _fogged(strip: LoadedStrip) -> list[float]:
    return [
        f.density
        for f in strip.frames
        if f.frame.role is FrameRole.FOGGED and f.density is not None
    ]


def _of_readings(loaded: LoadedTest) -> ClipAnswer | None:
    """The answer of a test of a clip whose two clips were read."""
    if loaded.test.kind != Clip.key or len(loaded.strips) < 2:
        return None
    good, clip = _fogged(loaded.strips[0]), _fogged(loaded.strips[1])
    blanks = [
        f.density
        for s in loaded.strips
        for f in s.frames
        if f.frame.blank and f.density is not None
    ]
    if not good or not clip or not blanks:
        return None
    means = (sum(d) / len(d) for d in (clip, good, blanks))
    try:
        return clip_of_densities(*means, *(_READ_SD / len(d) ** 0.5 for d in (clip, good)))
    except ValueError:
        return None


def clip_answer_of(loaded: LoadedTest) -> ClipAnswer | None:
    """What the newest clip of a test says; None where there is none."""
    judged = loaded.judged(CLIP)
    return (_of_judgement(judged[-1]) if judged else None) or _of_readings(loaded)


def clip_pieces(loaded: LoadedTest) -> tuple[tuple[str, float | None], ...]:
    """The good clip and the one in question, each with its density where it is known."""
    judged = loaded.judged(CLIP)
    if judged and judged[-1].value is not None:
        return (("the good clip", judged[-1].reference), ("the clip", judged[-1].value))
    if loaded.test.kind != Clip.key or len(loaded.strips) < 2:
        return (("the good clip", None), ("the clip", None))
    read = [_fogged(s) for s in loaded.strips[:2]]
    good, clip = (sum(d) / len(d) if d else None for d in read)
    return (("the good clip", good), ("the clip", clip))


def clip_words(loaded: LoadedTest, answer: ClipAnswer) -> str:
    """The answer in a sentence, with the time for the strip that waits."""
    planned = _planned(loaded)
    if answer.factor is None or answer.low is None or answer.high is None:
        return f"{answer.why[:1].upper()}{answer.why[1:]}." if answer.why else "As the good one."
    if answer.verdict is ClipVerdict.UNSURE:
        return f"{answer.why[:1].upper()}{answer.why[1:]}."
    share = f"{answer.factor:.2f} times the time ({answer.low:.2f} to {answer.high:.2f})"
    if answer.verdict is ClipVerdict.GO:
        return f"It is as the good one: {share}."
    if planned is None:
        return f"It needs {share}."
    times = [minutes_text(planned * f) for f in (answer.factor, answer.low, answer.high)]
    return (
        f"{times[0]} instead of {minutes_text(planned)} ({times[1]} to {times[2]}): {share}. "
        "Try it on a second clip before the roll."
    )


def clip_answer(loaded: LoadedTest) -> OwnAnswer:
    """The answer of a test of a clip."""
    answer = clip_answer_of(loaded)
    if answer is None:
        return OwnAnswer(
            "",
            "not judged yet",
            "Judge the clip beside the good one: on Process under Clip, or read both.",
        )
    act = "" if answer.verdict is ClipVerdict.GO else clip_words(loaded, answer)
    says = answer.verdict.value
    figures = {"factor": answer.factor, "low": answer.low, "high": answer.high}
    steps = _steps(loaded, answer)
    said = f"{says[0].upper()}{says[1:]}"
    return OwnAnswer(said, clip_words(loaded, answer), act, figures, steps=steps)


def _steps(loaded: LoadedTest, answer: ClipAnswer) -> tuple[tuple[str, str], ...]:
    """The time to go by; that nothing may be developed in it, where there is none."""
    planned, at = _planned(loaded), reference_words(loaded)
    if answer.verdict is ClipVerdict.GO:
        time = f"{minutes_text(planned)} min at {at}, " if planned else ""
        return (("Develop", f"{time}as ever"),)
    if answer.factor is None or planned is None or answer.verdict is ClipVerdict.UNSURE:
        return (("Develop", "no roll in this bottle before another clip says so"),)
    time = minutes_text(planned * answer.factor)
    return (("Develop", f"{time} min at {at}, a second clip first"),)
