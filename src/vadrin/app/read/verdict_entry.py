"""Verdicts and faults of frames, given by a key each, and what they count up to."""

from __future__ import annotations

from vadrin.app.display.verdict_words import answer_words
from vadrin.app.loaded.loaded_test import FAULT, ON_PAPER, LoadedFrame, LoadedTest
from vadrin.app.stamps import now
from vadrin.core.judging.verdicts import (
    FAULTS,
    SCALES,
    THE_FRAME,
    Fault,
    Share,
    fault_named,
    share_of,
)
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.notebook.records import Judgement
from vadrin.notebook.store import Notebook

VERDICT_KEYS = {
    key: (scale.asked, answer)
    for scale in SCALES
    for key, answer in zip(scale.keys, scale.answers, strict=True)
}
"""What each key says."""
FAULT_NAMES = tuple(f.name for f in FAULTS)
SCALE_LINES = tuple(
    (s.asked, ", ".join(f"{k} {answer_words(a)}" for k, a in zip(s.keys, s.answers, strict=True)))
    for s in SCALES
)
"""The scales with their keys, for the screen."""


def verdict_of(frame: LoadedFrame, asked: str) -> str:
    """What was last said of a frame on the film to a question; empty for nothing."""
    return frame.said(asked, on_paper=False)


def give_verdict(notebook: Notebook, frame: LoadedFrame, asked: str, answer: str) -> None:
    """Keep a verdict in the place of the one before; the same one again takes it away.

    What was said of its contact print stays.
    """
    before = [j for j in frame.judgements if j.asked == asked and j.way != ON_PAPER]
    with notebook.change(f"frame {frame.number}, {asked}: {answer_words(answer)}"):
        for judged in before:
            notebook.remove(judged)
        if verdict_of(frame, asked) != answer:
            notebook.add(
                Judgement(
                    frame_id=frame.frame.id,
                    position=len(frame.judgements),
                    asked=asked,
                    answer=answer,
                    judged_at=now(),
                )
            )


def type_fault(notebook: Notebook, frame: LoadedFrame, words: str) -> Fault:
    """Keep a fault with its place: ``drag top edge``; gives what usually causes it.

    Raises
    ------
    EntryError
        Listing the faults there are.
    """
    fault = fault_named(words)
    if fault is None:
        names = ", ".join(f.name for f in FAULTS)
        raise EntryError(f"no fault is called “{words.strip()}”; there are {names}")
    plain = words.strip()
    place = plain[len(fault.name) :] if plain.lower().startswith(fault.name) else ""
    if not place and not fault.name.startswith(plain.lower()):
        place = plain.partition(" ")[2]
    with notebook.change(f"fault on frame {frame.number}: {fault.name}"):
        notebook.add(
            Judgement(
                frame_id=frame.frame.id,
                position=len(frame.judgements),
                asked=FAULT,
                answer=fault.name,
                place=place.strip(" ,"),
                judged_at=now(),
            )
        )
    return fault


def forget_faults(notebook: Notebook, frame: LoadedFrame) -> None:
    """Take a frame's faults away."""
    with notebook.change(f"no fault on frame {frame.number}"):
        for judged in frame.judgements:
            if judged.asked == FAULT:
                notebook.remove(judged)


def fault_shown(frame: LoadedFrame) -> str:
    """The fault noted last, as it is typed; empty for none."""
    noted = [j for j in frame.judgements if j.asked == FAULT]
    last = max(noted, key=lambda j: j.id, default=None)
    return f"{last.answer} {last.place}".strip() if last else ""


def faults_words(frame: LoadedFrame) -> str:
    """A frame's faults, with the usual cause and the one change to try."""
    said = []
    for judged in frame.judgements:
        fault = fault_named(judged.answer) if judged.asked == FAULT else None
        if fault is not None:
            where = f" ({judged.place})" if judged.place else ""
            said.append(
                f"{fault.name[0].upper()}{fault.name[1:]}{where}: usually {fault.causes}. "
                f"Try first: {fault.change}."
            )
    return " ".join(said)


def usable_share(loaded: LoadedTest, at_least: str = THE_FRAME.answers[-1]) -> Share | None:
    """How many of the frames judged are as good as a verdict, with the range of the share."""
    order = THE_FRAME.answers
    said = [v for _, f in loaded.frames() if (v := verdict_of(f, THE_FRAME.asked)) in order]
    if not said:
        return None
    return share_of(sum(order.index(v) >= order.index(at_least) for v in said), len(said))


def share_words(share: Share) -> str:
    """A count with its range: ``11 of 24 frames can be used (28 to 65 of 100)``."""
    low, high = round(100 * share.low), round(100 * share.high)
    return f"{share.count} of {counted(share.total, 'frame')} can be used ({low} to {high} of 100)"
