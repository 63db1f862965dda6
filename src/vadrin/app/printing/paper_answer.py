"""The answer of a paper test: its curve, ISO range, speed, black, time for maximum black."""

from __future__ import annotations

from functools import lru_cache
from math import log10
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, OwnAnswer, Series
from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.numbers import number_within
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.stamps import now
from vadrin.core.figure import Figure
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.core.printing.paper_curve import paper_curve, scale_by_eye
from vadrin.errors import EntryError
from vadrin.notebook.records import Judgement, Reading, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.printing.paper_curve import PaperCurve

PAPER = PaperTest.key
FIRST_GREY_STEP, FIRST_BLACK_STEP = "first grey step", "first black step"
_NOISE = 0.01


def _steps(loaded: LoadedTest) -> tuple[tuple[tuple[float, float], ...], float | None]:
    """Exposure and reflection density of every step that was read, and the paper's white."""
    steps, white = [], []
    for strip in loaded.strips:
        for frame in strip.frames:
            at = _log_exposure(loaded, frame.frame.seconds, frame.log_h(loaded.test.meter_constant))
            if frame.density is None or not frame.readable:
                continue
            if frame.frame.blank:
                white.append(frame.density)
            elif at is not None:
                steps.append((round(at, 4), round(frame.density, 4)))
    return tuple(sorted(steps)), (sum(white) / len(white) if white else None)


def _log_exposure(loaded: LoadedTest, seconds: float | None, log_h: float | None) -> float | None:
    """Lg exposure of a step: through a tablet that of its density, else that of its seconds."""
    if loaded.test.by_contact and log_h is not None:
        return log_h
    return log10(seconds) if seconds else log_h


@lru_cache(maxsize=32)
def _curve(
    steps: tuple[tuple[float, float], ...], white: float | None, absolute: bool
) -> PaperCurve | str:
    if not steps:
        return "no step of the paper was read yet"
    x, dense = np.array(steps).T
    try:
        return paper_curve(x, dense, _NOISE, white, absolute)
    except ValueError as error:
        return str(error)


def paper_curve_of(loaded: LoadedTest) -> PaperCurve | str:
    """The curve of a paper test, or why there is none."""
    # Steps through a tablet are in lux seconds where the light was measured.
    steps, white = _steps(loaded)
    return _curve(steps, white, loaded.test.by_contact)


def curve_of_paper(notebook: Notebook, paper_id: int | None) -> PaperCurve | None:
    """The newest curve that was measured of a paper in the cupboard; None for none."""
    if paper_id is None:
        return None
    for test in sorted(notebook.all(Test, paper_id=paper_id), key=lambda t: -t.id):
        if test.kind == PaperTest.key:
            loaded = load_test(notebook, test.id)
            made = paper_curve_of(loaded) if loaded is not None else ""
            if not isinstance(made, str):
                return made
    return None


def _figure_words(name: str, figure: Figure, unit: str = "", digits: int = 2) -> tuple[str, str]:
    if figure.value is None:
        return name, figure.why
    words = f"{figure.value:.{digits}f}{unit}"
    if figure.low is not None and figure.high is not None:
        words += f" ({figure.low:.{digits}f} to {figure.high:.{digits}f})"
    return name, words


def type_eye_step(notebook: Notebook, loaded: LoadedTest, asked: str, words: str) -> None:
    """Keep which step is the first grey, or the first black, counted from the lightest.

    Raises
    ------
    EntryError
        If there is no such step.
    """
    count = len(_step_exposures(loaded))
    refusal = f"the strip has steps 1 to {count}"
    step = number_within(words, 1, max(count, 1), refusal, "4")
    if not loaded.strips or step != int(step):
        raise EntryError(refusal)
    with notebook.change(f"{asked} by eye"):
        notebook.add(
            Judgement(
                strip_id=loaded.strips[0].strip.id,
                asked=asked,
                answer=str(int(step)),
                way="by eye",
                value=float(step),
                judged_at=now(),
            )
        )


def eye_step(loaded: LoadedTest, asked: str) -> int | None:
    """The step an eye found; None before it was asked."""
    said = loaded.judged(asked)
    return int(said[-1].value) if said and said[-1].value else None


def _step_exposures(loaded: LoadedTest) -> list[float]:
    """Lg exposures of a paper's steps, the lightest first."""
    placed = {
        round(x, 4)
        for _, f in loaded.frames()
        if f.readable
        and not f.frame.blank
        and (x := _log_exposure(loaded, f.frame.seconds, f.log_h(loaded.test.meter_constant)))
        is not None
    }
    return sorted(placed)


def _by_eye(loaded: LoadedTest) -> OwnAnswer | None:
    """The range of a paper by eye alone; None before both steps were found."""
    grey, black = eye_step(loaded, FIRST_GREY_STEP), eye_step(loaded, FIRST_BLACK_STEP)
    exposures = _step_exposures(loaded)
    if grey is None or black is None or len(exposures) < 3:
        return None
    step = (exposures[-1] - exposures[0]) / (len(exposures) - 1)
    try:
        found = scale_by_eye(np.array(exposures), grey, black, step)
    except ValueError as error:
        return OwnAnswer("", f"{str(error).capitalize()}.", "Look at the strip again.")
    row = _figure_words("ISO range R, by eye", found, digits=0)
    return OwnAnswer(
        f"R {found.known():.0f}",
        "by eye, from the first grey step to the first black one",
        "Read the steps, or scan them, for a curve and a surer range.",
        {"iso_range": found},
        AnswerTable(("", ""), (row,)),
    )


def paper_answer(loaded: LoadedTest) -> OwnAnswer:
    """What a paper test says."""
    made = paper_curve_of(loaded)
    seen = _by_eye(loaded) if isinstance(made, str) else None
    if seen is not None:
        return seen
    if isinstance(made, str):
        waits = any(isinstance(r, Reading) for _, f in loaded.frames() for r in f.readings)
        act = "Read the reflection densities of its steps, the paper's white first."
        return OwnAnswer("", made, "" if waits else act)
    rows = [
        _figure_words("ISO range R", made.iso_range, digits=0),
        _figure_words("exposure scale, log H", made.exposure_scale),
        _figure_words("black, D max", made.d_max),
        ("white, D min", f"{made.d_min:.2f}"),
        _figure_words("ISO speed P", made.speed, digits=0),
    ]
    figures = {
        "iso_range": made.iso_range,
        "exposure_scale": made.exposure_scale,
        "d_max": made.d_max,
        "paper_speed": made.speed,
    }
    scale = made.exposure_scale.value
    says = "" if scale is None else f"R {100 * scale:.0f}"
    words = (
        made.iso_range.why
        if scale is None
        else (f"a negative whose densities over the scene range over {scale:.2f} fills it")
    )
    act = made.iso_range.why.partition(": ")[2] if scale is None else ""
    line = tuple(zip(made.log_h.tolist(), made.density.tolist(), strict=True))
    plot = AnswerPlot(
        "log exposure", "reflection density over white", (Series("the paper", line, line),)
    )
    next_act = f"{act[:1].upper()}{act[1:]}." if act else ""
    return OwnAnswer(says, words, next_act, figures, AnswerTable(("", ""), tuple(rows)), (), plot)
