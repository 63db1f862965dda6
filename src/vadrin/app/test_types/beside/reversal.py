"""A sheet of cells is laid beside the best cells of its material, by light and bath."""

from __future__ import annotations

import json
from dataclasses import dataclass

from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class KeptCell:
    """The best cell of a sheet that was decided on."""

    decided_at: str
    light: str
    state: str
    best_ei: float
    says: str


def ask(notebook: Notebook, test: Test) -> tuple[KeptCell, ...]:
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


def _cell(test: Test, finding: Finding) -> KeptCell | None:
    try:
        answer = json.loads(finding.report)["answer"]
        best, says = float(answer["figures"]["best_ei"]), str(answer["says"])
    except (ValueError, KeyError, TypeError):
        return None
    return KeptCell(finding.decided_at, test.light, test.process_state, best, says)
