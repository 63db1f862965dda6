"""What a test is judged by, and the finding that is decided."""

from __future__ import annotations

import json
from dataclasses import replace

from vadrin.app.results.answer import answer_of
from vadrin.app.results.decision_basis import basis_text
from vadrin.app.results.report import report_of
from vadrin.app.stamps import now
from vadrin.app.test_sheet import TestSheet
from vadrin.core.results.analysis import Analysis
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


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
    report = json.dumps(report_of(analysis, sheet.title))
    with notebook.change("decide the finding"):
        return notebook.add(
            Finding(
                test_id=sheet.test.id,
                decided_at=when or now(),
                exposure_index=answer.index.known(),
                time_min=answer.time_min.known(),
                target_kind=answer.target_kind,
                target_value=answer.target_value,
                report=report,
                basis=basis_text(sheet),
            )
        )
