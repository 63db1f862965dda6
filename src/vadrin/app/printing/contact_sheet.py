"""The contact sheet at the time for maximum black: verdicts on its frames, which prints best."""

from __future__ import annotations

from math import log2

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.verdict_words import answer_words
from vadrin.app.loaded.loaded_test import ON_PAPER, THE_FRAME, LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.results.contact_prints import BEST, best_frame, contact_answer, paper_verdict
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.app.stamps import now
from vadrin.core.judging.verdicts import USE_IT, Share, share_of
from vadrin.notebook.records import Judgement
from vadrin.notebook.store import Notebook

_SAME_STOPS = 1 / 6
"""Stops within which two EIs are called the same."""


def give_paper_verdict(notebook: Notebook, frame: LoadedFrame, asked: str, answer: str) -> None:
    """Keep a verdict on a contact print, in the place of the one before; the same again takes it
    away. What was said of the film itself stays."""
    before = [j for j in frame.judgements if j.asked == asked and j.way == ON_PAPER]
    same = paper_verdict(frame, asked) == answer
    with notebook.change(f"contact print {frame.number}, {asked}: {answer_words(answer)}"):
        for judged in before:
            notebook.remove(judged)
        if not same:
            notebook.add(
                Judgement(
                    frame_id=frame.frame.id,
                    position=len(frame.judgements),
                    asked=asked,
                    answer=answer,
                    way=ON_PAPER,
                    judged_at=now(),
                )
            )


def pick_best(notebook: Notebook, strip: LoadedStrip, frame: LoadedFrame) -> None:
    """Pick the frame that prints best; another one of the strip is picked no more."""
    with notebook.change(f"frame {frame.number} prints best"):
        for other in strip.frames:
            for judged in other.judgements:
                if judged.asked == BEST and judged.way == ON_PAPER:
                    notebook.remove(judged)
        if not paper_verdict(frame, BEST):
            notebook.add(
                Judgement(
                    frame_id=frame.frame.id,
                    position=len(frame.judgements),
                    asked=BEST,
                    answer="yes",
                    way=ON_PAPER,
                    judged_at=now(),
                )
            )


def paper_share(strip: LoadedStrip) -> Share | None:
    """How many frames of a strip can be used as they print."""
    said = [v for f in strip.frames if (v := paper_verdict(f, THE_FRAME))]
    return share_of(sum(v == USE_IT for v in said), len(said)) if said else None


def print_beside_the_light_box(loaded: LoadedTest) -> str:
    """What prints best, beside where the eye first tells film on the light box."""
    found = contact_answer(loaded)
    if found is None or found[1].value is None:
        return ""
    strip, index = found[0], found[1].value
    frame = best_frame(strip)
    words = f"Prints best: frame {frame.number if frame else ''}, EI {marked_ei(index)}"
    seen = light_box_answer(loaded)
    if seen is None or seen[1].value is None:
        return f"{words}."
    apart = log2(index / seen[1].value)
    told = f"{words}; the light box says EI {marked_ei(seen[1].value)}"
    if abs(apart) < _SAME_STOPS:
        return f"{told}, the same."
    side = "above" if apart > 0 else "below"
    return (
        f"{told}: the print lies {stops_counted(abs(apart))} {side}. Both are findings: the one "
        "of what the film recorded, the other of what prints. Choose at Finding which EI method "
        "rates it."
    )


def contact_words(loaded: LoadedTest) -> str:
    """The counts of every strip that was judged, side by side."""
    parts = []
    for strip in loaded.strips:
        share = paper_share(strip)
        if share is not None:
            low, high = round(100 * share.low), round(100 * share.high)
            parts.append(
                f"strip {strip.strip.label}: {share.count} of {share.total} can be used "
                f"({low} to {high} of 100)"
            )
    if not parts:
        return "No contact print was judged yet."
    return f"S{'; '.join(parts)[1:]}."
