"""The control strips that ran in a developer: how far its evenings differ."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.notebook.records import ControlStrip, Process
from vadrin.notebook.store import Notebook


def control_contrasts(notebook: Notebook, developer_id: int | None) -> Array:
    """Dense patch less thin patch of each control strip of the developer's processes."""
    processes = notebook.all(Process, developer_id=developer_id) if developer_id else []
    strips = notebook.all_of(ControlStrip, "process_id", [process.id for process in processes])
    return np.array([s.high - s.low for s in strips if s.high > s.low], dtype=float)
