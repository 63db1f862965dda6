"""Half-covered strips: the frame on one half, a blank on the other, both for the black time."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.loaded.light_boxes import exposures_of
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.printing.paper_answer import curve_of_paper
from vadrin.app.printing.print_setups import lock_setup
from vadrin.app.results.print_ei import (
    COVERED,
    beside_black_words,
    covered_strips,
    print_answers,
    print_box,
    print_index,
    print_index_words,
)
from vadrin.app.stamps import now
from vadrin.core.judging.eye_answers import PRINTS
from vadrin.core.printing.print_threshold import USUAL_STEP, print_threshold
from vadrin.core.printing.strip_exposures import step_of_range
from vadrin.errors import EntryError
from vadrin.notebook.records import PrintStrip
from vadrin.notebook.store import Notebook

PRINT_TOLD = ("yes", "no", "can't tell")
_CLOSE = 1e-3


@dataclass(frozen=True)
class CoveredQuestion:
    """The half-covered strip to make next.

    Attributes
    ----------
    frame : LoadedFrame or None
        None where nothing more is asked.
    words, result : str
    """

    frame: LoadedFrame | None
    words: str
    result: str


def threshold_of(notebook: Notebook, loaded: LoadedTest) -> tuple[float, float]:
    """Net density whose print is just lighter than a blank's, on the paper of the set-up at its
    time for maximum black."""
    setup = loaded.setups[-1] if loaded.setups else None
    paper_id = setup.paper_id if setup is not None else loaded.test.paper_id
    step = step_of_range(setup.black_low_s, setup.black_high_s) if setup is not None else None
    return print_threshold(curve_of_paper(notebook, paper_id), step or USUAL_STEP)


def covered_question(notebook: Notebook, loaded: LoadedTest, strip: LoadedStrip) -> CoveredQuestion:
    """The frame whose half-covered strip tells most now, and what came of those before."""
    index = print_index(loaded, strip)
    said = print_index_words(index) if index is not None else ""
    said = f"{said} {beside_black_words(loaded, strip)}".strip()
    setup = loaded.setups[-1] if loaded.setups else None
    if setup is None or setup.black_s is None:
        words = "Find the shortest time for maximum black first: both halves are given that."
        return CoveredQuestion(None, words, said)
    exposures = exposures_of(loaded, strip)
    if len(exposures) < 3:
        return CoveredQuestion(None, "Fewer than three frames of known exposure.", said)
    box = print_box(exposures, loaded.test.meter_constant, threshold_of(notebook, loaded))
    answers = print_answers(loaded, strip)
    wanted = box.next_frame(answers, blanks=False, looks=PRINTS)
    constant = loaded.test.meter_constant
    frame = next(
        (
            f
            for f in strip.frames
            if wanted is not None
            and f.counts
            and abs((f.log_h(constant) or 99.0) - wanted) < _CLOSE
        ),
        None,
    )
    if frame is None:
        return CoveredQuestion(None, "One more strip would hardly narrow it.", said)
    blank = next((f for f in strip.frames if f.frame.blank), None)
    zero = f"frame {blank.number}, a blank" if blank is not None else "clear film of this roll"
    words = (
        f"Print {zero}, on half a strip: {setup.black_s:.1f} s. On the other half frame "
        f"{frame.number} ({frame.name}), as long. Is that half lighter than the blank's?"
    )
    return CoveredQuestion(frame, words, said)


def answer_covered(
    notebook: Notebook, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame, told: str
) -> None:
    """Keep what was seen of a half-covered strip.

    Raises
    ------
    EntryError
        If there is no time for maximum black to make it at.
    """
    if told not in PRINT_TOLD:
        raise EntryError(f"say {', '.join(PRINT_TOLD)}")
    with notebook.change(f"half-covered strip of frame {frame.number}: {told}"):
        setup = lock_setup(notebook, loaded)
        if setup.black_s is None:
            raise EntryError("find the shortest time for maximum black first")
        notebook.add(
            PrintStrip(
                setup_id=setup.id,
                position=len(covered_strips(loaded, strip)),
                purpose=COVERED,
                strip_id=strip.strip.id,
                frame_id=frame.frame.id,
                base_s=setup.black_s,
                step=1.0,
                pieces=2,
                answer=told,
                densities=threshold_of(notebook, loaded),
                made_at=now(),
            )
        )
