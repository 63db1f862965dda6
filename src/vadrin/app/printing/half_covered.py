"""Half-covered strips: one half for the black time, the other twice; can the frame be told?"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import ei_range_text, ei_stops_text
from vadrin.app.printing.print_setups import lock_setup, print_rooms
from vadrin.app.results.light_box_ei import exposures_of
from vadrin.app.stamps import now
from vadrin.app.test_sheet import FrameSheet, StripSheet, TestSheet
from vadrin.core.figure import Figure
from vadrin.errors import EntryError
from vadrin.notebook.records import PrintStrip
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.judging.light_box import EyeAnswer, LightBox

COVERED = "half covered"
PRINT_TOLD = ("yes", "no", "can't tell")
_SEED = 5
_CLOSE = 1e-3
_USUAL_THRESHOLD = (0.06, 0.02)


@dataclass(frozen=True)
class CoveredQuestion:
    """The half-covered strip to make next.

    Attributes
    ----------
    frame : FrameSheet or None
        None where nothing more is asked.
    words, result : str
    """

    frame: FrameSheet | None
    words: str
    result: str


@lru_cache(maxsize=16)
def _box(log_h: tuple[float, ...], meter_constant: float, threshold: tuple[float, float]
         ) -> LightBox:  # fmt: skip
    import numpy as np

    from vadrin.core.judging.light_box import LightBox, Viewing

    rng = np.random.default_rng(_SEED)
    return LightBox(np.array(log_h), Viewing.SIDE_BY_SIDE, rng, meter_constant, threshold)


def covered_strips(notebook: Notebook, sheet: TestSheet, strip: StripSheet) -> list[PrintStrip]:
    """The half-covered strips of a strip of film, in every series, the oldest first."""
    return [
        made
        for room in print_rooms(notebook, sheet)
        for made in room.strips
        if made.purpose == COVERED and made.strip_id == strip.strip.id
    ]


def _answers(
    notebook: Notebook, sheet: TestSheet, strip: StripSheet
) -> tuple[tuple[EyeAnswer, ...], tuple[float, float]]:
    from vadrin.core.judging.light_box import EyeAnswer, Told

    frames = {f.frame.id: f for f in strip.frames}
    told = {t.value: t for t in Told}
    threshold, made = threshold_of(notebook, sheet), []
    for kept in covered_strips(notebook, sheet, strip):
        frame = frames.get(kept.frame_id or 0)
        at = frame.log_h(sheet.test.meter_constant) if frame is not None else None
        if at is not None and kept.answer in told:
            made.append(EyeAnswer(at, told[kept.answer], threshold))
    return tuple(made), threshold


def threshold_of(notebook: Notebook, sheet: TestSheet) -> tuple[float, float]:
    """Net density whose print is just lighter than black on the paper of the set-up."""
    from vadrin.app.printing.paper_answer import curve_of_paper
    from vadrin.core.printing.paper_curve import print_threshold

    rooms = print_rooms(notebook, sheet)
    paper_id = rooms[-1].setup.paper_id if rooms else sheet.test.paper_id
    curve = curve_of_paper(notebook, paper_id)
    return print_threshold(curve) if curve is not None else _USUAL_THRESHOLD


def print_index(notebook: Notebook, sheet: TestSheet, strip: StripSheet) -> Figure | None:
    """The EI of the paper school; None before anything was judged."""
    answers, threshold = _answers(notebook, sheet, strip)
    exposures = exposures_of(sheet, strip)
    if not answers or len(exposures) < 3:
        return None
    return _box(exposures, sheet.test.meter_constant, threshold).told_index(answers)


def print_answer(notebook: Notebook, sheet: TestSheet) -> tuple[StripSheet, Figure] | None:
    """The strip of film that was judged on paper, with its EI; None where none was."""
    for strip in sheet.strips:
        index = print_index(notebook, sheet, strip)
        if index is not None:
            return strip, index
    return None


def print_index_words(index: Figure) -> str:
    """The EI of the paper school in a sentence."""
    if index.value is None:
        return f"On paper: {index.why}."
    return (
        f"On paper: EI {marked_ei(index.value)}, {ei_range_text(index)} ({ei_stops_text(index)})."
    )


def covered_question(notebook: Notebook, sheet: TestSheet, strip: StripSheet) -> CoveredQuestion:
    """The frame whose half-covered strip tells most now, and what came of those before."""
    index = print_index(notebook, sheet, strip)
    said = print_index_words(index) if index is not None else ""
    rooms = print_rooms(notebook, sheet)
    setup = rooms[-1].setup if rooms else None
    if setup is None or setup.black_s is None:
        words = "Find the shortest time for full black first: the half is given that, and it twice."
        return CoveredQuestion(None, words, said)
    exposures = exposures_of(sheet, strip)
    if len(exposures) < 3:
        return CoveredQuestion(None, "Fewer than three frames of known exposure.", said)
    answers, threshold = _answers(notebook, sheet, strip)
    box = _box(exposures, sheet.test.meter_constant, threshold)
    wanted = box.next_frame(answers, blanks=False)
    constant = sheet.test.meter_constant
    frame = next((f for f in strip.frames if wanted is not None and f.counts
                  and abs((f.log_h(constant) or 99.0) - wanted) < _CLOSE), None)  # fmt: skip
    if frame is None:
        return CoveredQuestion(None, "One more strip would hardly narrow it.", said)
    words = (
        f"Frame {frame.number} ({frame.name}): give the whole strip {setup.black_s:.1f} s, cover "
        "half, and give it that once more. Can the frame's half be told from the black one?"
    )
    return CoveredQuestion(frame, words, said)


def answer_covered(
    notebook: Notebook, sheet: TestSheet, strip: StripSheet, frame: FrameSheet, told: str
) -> None:
    """Keep what was seen of a half-covered strip.

    Raises
    ------
    EntryError
        If there is no time for full black to make it at.
    """
    if told not in PRINT_TOLD:
        raise EntryError(f"say {', '.join(PRINT_TOLD)}")
    with notebook.change(f"half-covered strip of frame {frame.number}: {told}"):
        setup = lock_setup(notebook, sheet)
        if setup.black_s is None:
            raise EntryError("find the shortest time for full black first")
        notebook.add(
            PrintStrip(
                setup_id=setup.id, position=len(covered_strips(notebook, sheet, strip)),
                purpose=COVERED, strip_id=strip.strip.id, frame_id=frame.frame.id,
                base_s=setup.black_s, step=1.0, pieces=2, answer=told, made_at=now(),
            )
        )  # fmt: skip
