"""Edits made on the way: strips developed, densities read, a finding decided."""

from __future__ import annotations

import json
from dataclasses import replace

from vadrin.app.plan.planning import now
from vadrin.app.results.answer import answer_of
from vadrin.app.results.decision_basis import basis_text
from vadrin.app.test_sheet import FrameSheet, TestSheet
from vadrin.core.results.analysis import Analysis
from vadrin.formats.reports.report_json import report_of
from vadrin.notebook.records.all_records import Finding, Reading, Strip, Test
from vadrin.notebook.records.kit import Bottle
from vadrin.notebook.store import Notebook


def develop_strip(
    notebook: Notebook, strip: Strip, time_min: float | None, temperature_c: float | None
) -> None:
    """Write down what a strip really got, and what that took of the bottle."""
    with notebook.change(f"process strip {strip.label}"):
        notebook.put(replace(strip, time_min=time_min, temperature_c=temperature_c))
        done = (time_min is not None) - (strip.time_min is not None)
        test = notebook.get(Test, strip.test_id)
        bottle = notebook.get(Bottle, test.bottle_id) if test and test.bottle_id else None
        if bottle is not None and done:
            strips = notebook.all(Strip, test_id=strip.test_id)
            rolls = len({s.roll for s in strips})
            films = bottle.films_done + done * rolls / len(strips)
            notebook.put(replace(bottle, films_done=max(0.0, films)))


def next_to_read(sheet: TestSheet, after: int | None = None) -> FrameSheet | None:
    """The next frame without a reading, from a frame id on; then from the start."""
    frames = [f for _, f in sheet.frames() if f.readable]
    ids = [f.frame.id for f in frames]
    start = ids.index(after) + 1 if after in ids else 0
    turned = frames[start:] + frames[:start]
    return next((f for f in turned if not f.readings), None)


def add_reading(notebook: Notebook, sheet: FrameSheet, density: float, channel: str = "visual"
                ) -> Reading:  # fmt: skip
    """Write one more reading of a frame."""
    with notebook.change(f"read {density:.2f} on frame {sheet.frame.name}"):
        return notebook.add(
            Reading(
                frame_id=sheet.frame.id,
                position=len(sheet.readings),
                density=density,
                channel=channel,
                read_at=now(),
            )
        )


def replace_readings(notebook: Notebook, sheet: FrameSheet, density: float) -> None:
    """Put one reading in the place of all readings of a frame."""
    with notebook.change(f"read frame {sheet.frame.name} again"):
        for reading in sheet.readings:
            notebook.remove(reading)
        add_reading(notebook, replace(sheet, readings=()), density)


def leave_out(notebook: Notebook, sheet: FrameSheet, out: bool) -> None:
    """Leave all readings of a frame out of the curve, or take them in again."""
    words = "leave out" if out else "take in"
    with notebook.change(f"{words} frame {sheet.frame.name}"):
        for reading in sheet.readings:
            notebook.put(replace(reading, left_out=out))


def choose_target(notebook: Notebook, test: Test, kind: str, value: float) -> None:
    """Choose what contrast a test is judged by."""
    with notebook.change("change the target"):
        notebook.put(replace(test, target_kind=kind, target_value=value))


def choose_school(notebook: Notebook, test: Test, school: str) -> None:
    """Choose whose EI a film is rated by: ``shadow`` or ``standard``."""
    with notebook.change("change the school"):
        notebook.put(replace(test, school=school))


def sign(notebook: Notebook, finding: Finding, **words: str) -> None:
    """Write down who decided a finding (`decided_by`) and why (`note`)."""
    with notebook.change("sign the finding"):
        notebook.put(replace(finding, **words))  # type: ignore[arg-type]


def decide(notebook: Notebook, sheet: TestSheet, analysis: Analysis, when: str = "") -> Finding:
    """Write the finding down with the report it rests on.

    Raises
    ------
    ValueError
        If there is no EI or no time to decide on.
    """
    answer = answer_of(sheet, analysis)
    grounds = json.dumps(report_of(analysis, sheet.title))
    with notebook.change("decide the finding"):
        return notebook.add(
            Finding(
                test_id=sheet.test.id,
                decided_at=when or now(),
                exposure_index=answer.index.known(),
                time_min=answer.time_min.known(),
                target_kind=answer.target_kind,
                target_value=answer.target_value,
                grounds=grounds,
                question=basis_text(sheet),
            )
        )
