"""Old film is laid beside the newest finding of the same stock that was not old."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.findings.kept_report import KeptReport
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.notebook.records import Batch, Finding, Test
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class ReferenceFilm:
    """Another film of the same stock that was found: its base plus fog, and its EI."""

    name: str
    base_fog: float
    exposure_index: float | None


def ask(notebook: Notebook, test: Test) -> ReferenceFilm | None:
    """The newest finding of the same stock that was not old film; None for none."""
    same = {t.id: t for t in notebook.all(Test, stock_id=test.stock_id) if t.kind != Rescue.key}
    for finding in reversed(notebook.all_of(Finding, "test_id", list(same))):
        strips = KeptReport.from_json(finding.report).strips.values()
        fogs = [fog for s in strips if (fog := s.figure("base_fog").value)]
        batch = notebook.get(Batch, same[finding.test_id].batch_id or 0)
        if fogs:
            name = f"batch {batch.name}" if batch and batch.name else "the test that was decided"
            return ReferenceFilm(name, min(fogs), finding.exposure_index or None)
    return None
