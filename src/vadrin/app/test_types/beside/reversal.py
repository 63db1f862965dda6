"""A sheet of cells is laid beside the best cells of its material, by light and bath."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.findings.kept_report import KeptReport
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class BestExposure:
    """The best cell of a sheet that was decided on."""

    decided_at: str
    light: str
    state: str
    best_ei: float
    says: str


def ask(notebook: Notebook, test: Test) -> tuple[BestExposure, ...]:
    """The decided sheets of the same material and developer, the newest first.

    A sheet that was decided anew counts once, as it was decided last.
    """
    same = {
        t.id: t
        for t in notebook.all(Test, stock_id=test.stock_id, developer_id=test.developer_id)
        if t.kind == test.kind and t.id != test.id
    }
    newest = {f.test_id: f for f in notebook.all_of(Finding, "test_id", list(same))}
    made = [_cell(same[finding.test_id], finding) for finding in newest.values()]
    # The later of two of one second stands first.
    known = [cell for cell in reversed(made) if cell is not None]
    return tuple(sorted(known, key=lambda cell: cell.decided_at, reverse=True))


def _cell(test: Test, finding: Finding) -> BestExposure | None:
    answer = KeptReport.from_json(finding.report).answer
    best = answer.figures.get("best_ei") if answer else None
    if answer is None or best is None or best.value is None:
        return None
    return BestExposure(finding.decided_at, test.light, test.process_state, best.value, answer.says)
