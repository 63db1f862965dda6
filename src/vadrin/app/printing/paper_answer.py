"""The answer of a paper test: its curve, ISO range, speed, black, and the time for full black."""

from __future__ import annotations

from functools import lru_cache
from math import log10
from typing import TYPE_CHECKING

from vadrin.app.kind_answer import AnswerTable, KindAnswer
from vadrin.app.test_sheet import TestSheet
from vadrin.core.figure import Figure
from vadrin.core.planning.test_kinds.paper import PaperTest
from vadrin.notebook.records import Reading, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.printing.paper_curve import PaperCurve

_NOISE = 0.01
_SEED = 2


def _steps(sheet: TestSheet) -> tuple[tuple[tuple[float, float], ...], float | None]:
    """Exposure and reflection density of every step that was read, and the paper's white."""
    steps, white = [], []
    for strip in sheet.strips:
        for frame in strip.frames:
            at = _log_exposure(sheet, frame.frame.seconds, frame.log_h(sheet.test.meter_constant))
            if frame.density is None or not frame.readable:
                continue
            if frame.frame.blank:
                white.append(frame.density)
            elif at is not None:
                steps.append((round(at, 4), round(frame.density, 4)))
    return tuple(sorted(steps)), (sum(white) / len(white) if white else None)


def _log_exposure(sheet: TestSheet, seconds: float | None, log_h: float | None) -> float | None:
    """Lg exposure of a step: through a tablet that of its density, else that of its seconds."""
    if sheet.test.by_contact and log_h is not None:
        return log_h
    return log10(seconds) if seconds else log_h


@lru_cache(maxsize=32)
def _curve(
    steps: tuple[tuple[float, float], ...], white: float | None, absolute: bool
) -> PaperCurve | str:
    import numpy as np

    from vadrin.core.printing.paper_curve import paper_curve

    if not steps:
        return "no step of the paper was read yet"
    x, dense = np.array(steps).T
    try:
        rng = np.random.default_rng(_SEED)
        return paper_curve(x, dense, _NOISE, rng, white, absolute)
    except ValueError as error:
        return str(error)


def paper_curve_of(sheet: TestSheet) -> PaperCurve | str:
    """The curve of a paper test, or why there is none."""
    # Steps through a tablet are in lux seconds where the light was measured.
    steps, white = _steps(sheet)
    return _curve(steps, white, sheet.test.by_contact)


def curve_of_paper(notebook: Notebook, paper_id: int | None) -> PaperCurve | None:
    """The newest curve that was measured of a paper in the cupboard; None for none."""
    from vadrin.app.sheet_loading import load_sheet

    if paper_id is None:
        return None
    for test in sorted(notebook.all(Test, paper_id=paper_id), key=lambda t: -t.id):
        if test.kind == PaperTest.key:
            sheet = load_sheet(notebook, test.id)
            made = paper_curve_of(sheet) if sheet is not None else ""
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


def paper_kind_answer(sheet: TestSheet) -> KindAnswer:
    """What a paper test says."""
    made = paper_curve_of(sheet)
    if isinstance(made, str):
        waits = any(isinstance(r, Reading) for _, f in sheet.frames() for r in f.readings)
        act = "Read the reflection densities of its steps, the paper's white first."
        return KindAnswer("", made, "" if waits else act)
    rows = [
        _figure_words("ISO range R", made.iso_range, digits=0),
        _figure_words("exposure scale, lg H", made.exposure_scale),
        _figure_words("black, D max", made.d_max),
        ("white, D min", f"{made.d_min:.2f}"),
        _figure_words("ISO speed P", made.speed, digits=0),
    ]
    figures = {"iso_range": made.iso_range, "exposure_scale": made.exposure_scale,
               "d_max": made.d_max, "paper_speed": made.speed}  # fmt: skip
    scale = made.exposure_scale.value
    says = "" if scale is None else f"R {100 * scale:.0f}"
    words = made.iso_range.why if scale is None else (
        f"a negative whose densities over the scene range over {scale:.2f} fills it"
    )  # fmt: skip
    act = made.iso_range.why.partition(": ")[2] if scale is None else ""
    return KindAnswer(says, words, f"{act[:1].upper()}{act[1:]}." if act else "", figures,
                      AnswerTable(("", ""), tuple(rows)))  # fmt: skip
