"""What tells how far a developer's evenings differ: control strips, films developed again."""

from __future__ import annotations

import numpy as np

from vadrin.app.learning.past_tests import PastTest
from vadrin.core.arrays import Array
from vadrin.core.learning.contrast_law import contrast_at
from vadrin.notebook.records import ControlStrip, Process
from vadrin.notebook.store import Notebook


def control_contrasts(notebook: Notebook, developer_id: int | None) -> Array:
    """Dense patch less thin patch of each control strip of the developer's processes."""
    processes = notebook.all(Process, developer_id=developer_id) if developer_id else []
    strips = notebook.all_of(ControlStrip, "process_id", [process.id for process in processes])
    return np.array([s.high - s.low for s in strips if s.high > s.low], dtype=float)


def films_again(tests: tuple[PastTest, ...]) -> tuple[Array, ...]:
    """Of each film that was decided on several times, agitated in one way: ln of its contrast at
    the time found last, by each test."""
    by: dict[tuple[int, str], list[PastTest]] = {}
    for past in tests:
        if past.finding_id:
            by.setdefault((past.stock_id, past.agitation), []).append(past)
    return tuple(
        np.array([contrast_at(past.seen, same[-1].minutes)[0] for past in same])
        for same in by.values()
        if len(same) > 1
    )
