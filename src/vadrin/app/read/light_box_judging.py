"""The light box: which frame to lay beside the blank next, and what was said of it."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass, replace

from vadrin.app.display.verdict_words import answer_words
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.numbers import number_within
from vadrin.app.loaded.light_boxes import (
    TOLD_FROM_BLANK,
    eye_answers,
    in_the_shadows,
    judged_of,
    light_box,
    light_box_result,
    looked_at_log_h,
    viewing_of,
)
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.results.light_box_ei import light_box_words
from vadrin.app.stamps import now
from vadrin.core.judging.eye_answers import (
    LOOKS_OF_A_KNOWN_EYE,
    USUAL_LOOKS,
    EyeVerdict,
    Looks,
    Viewing,
)
from vadrin.core.wording import counted
from vadrin.notebook.records import Instrument, Judgement
from vadrin.notebook.store import Notebook

__all__ = ["EyeTold", "viewing_of"]

EyeTold = EyeVerdict
"""What an eye says, as the screen knows it."""
YES, NO, UNSURE = EyeVerdict.YES, EyeVerdict.NO, EyeVerdict.UNSURE
WAYS = tuple(str(v) for v in Viewing)
_CLOSE = 1e-3
_EYE = "light box and eye"


@dataclass(frozen=True)
class EyeQuestion:
    """What is asked now.

    Attributes
    ----------
    frame : LoadedFrame or None
        The frame to lay beside the blank; None where nothing more is asked.
    words : str
        The question, or why none is asked.
    result : str
        What the answers so far come to.
    gain : str
        What one more answer would do.
    """

    frame: LoadedFrame | None
    words: str
    result: str
    gain: str


def blank_of(strip: LoadedStrip) -> LoadedFrame | None:
    """The blank frame of a strip that others are held against."""
    return next((f for f in strip.frames if f.frame.blank and f.readable), None)


def _frame_at(loaded: LoadedTest, strip: LoadedStrip, log_h: float) -> LoadedFrame | None:
    placed = [(looked_at_log_h(loaded, f), f) for f in strip.frames if f.counts]
    return next((f for x, f in placed if x is not None and abs(x - log_h) < _CLOSE), None)


def _check_frame(strip: LoadedStrip) -> LoadedFrame | None:
    """Another blank, to see whether the eye tells what is alike."""
    blanks = [f for f in strip.frames if f.frame.blank and f.readable]
    return blanks[1] if len(blanks) > 1 else None


@once
def question_of(loaded: LoadedTest, strip: LoadedStrip) -> EyeQuestion:
    """The next question of a strip, and what has come of those before."""
    result = light_box_result(loaded, strip)
    said = light_box_words(result.zone_ei) if result else ""
    if result and result.false_alarms:
        alarms = counted(result.false_alarms, "blank")
        said += f" You saw a difference in {alarms}, so the range is wider."
    if result and result.doubted is not None:
        odd = _frame_at(loaded, strip, result.doubted)
        if odd is not None:
            said += (
                f" Your answers contradict each other: look at frame {odd.number} again, and undo "
                "an answer that was a slip (Ctrl+Z)."
            )
    box, blank = light_box(loaded, strip), blank_of(strip)
    if blank is None:
        return EyeQuestion(
            None, "This strip has no blank frame to hold the others against.", said, ""
        )
    if box is None:
        return EyeQuestion(
            None, "Fewer than three frames of known exposure: nothing to bracket.", said, ""
        )
    answers, check = eye_answers(loaded, strip), _check_frame(strip)
    looks = _looks_of(strip)
    wanted = box.next_frame(answers, check is not None, looks)
    if wanted is None:
        return EyeQuestion(None, "One more look would hardly narrow it.", said, "")
    frame = check if math.isnan(wanted) else _frame_at(loaded, strip, wanted)
    if frame is None:
        return EyeQuestion(None, "The most useful frame is missing.", said, "")
    gain = ""
    if box.only_confirms(answers, looks):
        gain = "This look confirms one side; it hardly narrows the range."
    elif result is not None and result.zone_ei.present:
        expected = box.expected_range(answers)
        gain = f"One more answer would narrow it to about ± {expected / 2:.1f} stop."
    beside = f"Lay frame {frame.number} beside frame {blank.number}, the blank."
    return EyeQuestion(frame, f"{beside} {_asked(loaded, frame)}", said, gain)


def _looks_of(strip: LoadedStrip) -> Looks:
    """How many looks a strip takes: fewer by an eye that was known before."""
    judged = judged_of(strip)
    known = bool(judged) and all(look.reference is not None for look in judged)
    return LOOKS_OF_A_KNOWN_EYE if known else USUAL_LOOKS


def _asked(loaded: LoadedTest, frame: LoadedFrame) -> str:
    """What is asked of a frame: of a scene, of its shadows alone."""
    if in_the_shadows(loaded) and not frame.frame.blank:
        return "Is there anything in the shadows that should show something?"
    return "Can you see a difference?"


def answer_question(
    notebook: Notebook, strip: LoadedStrip, frame: LoadedFrame, told: EyeVerdict, way: str = ""
) -> None:
    """Keep what was said of a frame."""
    with notebook.change(f"light box: frame {frame.number} {told.value}"):
        notebook.add(
            Judgement(
                frame_id=frame.frame.id,
                position=len(judged_of(strip)),
                asked=TOLD_FROM_BLANK,
                answer=told.value,
                way=way or viewing_of(strip).value,
                reference=own_threshold(notebook),
                judged_at=now(),
            )
        )


def own_threshold(notebook: Notebook) -> float | None:
    """The net density that the tester's own eye tells, found with a wedge; None before that."""
    for kept in notebook.all(Instrument):
        if kept.kind == _EYE:
            try:
                return float(json.loads(kept.calibration)["told from"])
            except (ValueError, KeyError, TypeError):
                continue
    return None


def type_own_threshold(notebook: Notebook, words: str) -> None:
    """Keep what the tester's own eye tells: the least net density of a wedge's step beside clear
    film that can be told; nothing typed for the usual one.

    Raises
    ------
    EntryError
        If it is no such density.
    """
    plain = words.strip().lower()
    told: float | None = None
    if plain not in ("", "usual", "—"):
        refusal = "the smallest density an eye can see above clear film lies between 0.01 and 0.3"
        told = number_within(words, 0.005, 0.3, refusal, "0.05")
    kept = next((i for i in notebook.all(Instrument) if i.kind == _EYE), None)
    calibration = "" if told is None else json.dumps({"told from": told})
    with notebook.change("smallest density you can see"):
        if kept is None:
            notebook.add(Instrument(name="My eye", kind=_EYE, calibration=calibration))
        else:
            notebook.put(replace(kept, calibration=calibration))


def begin_again(notebook: Notebook, strip: LoadedStrip) -> None:
    """Take all answers of a strip away, to look again; undo brings them back."""
    with notebook.change(f"look at strip {strip.strip.label} again"):
        for judged in judged_of(strip):
            notebook.remove(judged)


def way_typed(words: str) -> str:
    """How one looks: side by side, or with a loupe.

    Raises
    ------
    EntryError
        Listing the ways there are.
    """
    return choice_typed(words, WAYS, anywhere=True)


def answers_words(strip: LoadedStrip) -> str:
    """What was said so far, frame by frame."""
    frames = {f.frame.id: f for f in strip.frames}
    said = [
        f"frame {frames[j.frame_id or 0].number} {answer_words(j.answer)}"
        for j in judged_of(strip)
        if j.frame_id in frames
    ]
    return f"So far: {', '.join(said)}." if said else "Nothing said yet."
