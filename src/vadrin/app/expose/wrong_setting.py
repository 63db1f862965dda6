"""What a roll shot at another setting is: a push or a pull, and the time for it."""

from __future__ import annotations

import json
from math import log2

from vadrin.app.display.marks import marked_ei, stops_text
from vadrin.app.display.quantities import minutes_text
from vadrin.app.test_sheet import TestSheet
from vadrin.core.exposure.arithmetic import nearest_third
from vadrin.core.planning.test_kinds.push_test import PUSH_SHARE
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


def wrong_setting_words(notebook: Notebook, sheet: TestSheet) -> str:
    """What a roll is, by a finding of the same film and developer: a push, a pull, or normal."""
    same = notebook.all(Test, stock_id=sheet.test.stock_id, developer_id=sheet.test.developer_id)
    found = notebook.all_of(Finding, "test_id", [t.id for t in same])
    if not found:
        return ""
    finding = found[-1]
    stops = nearest_third(log2(sheet.test.exposure_index / finding.exposure_index))
    if stops == 0:
        return ""
    kind = "push" if stops > 0 else "pull"
    minutes, basis = _push_time(finding, stops)
    return (
        f"Shot at EI {marked_ei(sheet.test.exposure_index)}, this roll is a {kind} of "
        f"{stops_text(abs(stops))}: this film was found to be EI "
        f"{marked_ei(finding.exposure_index)} here. Develop the whole roll "
        f"{minutes_text(minutes)} ({basis})."
    )


def _push_time(finding: Finding, stops: float) -> tuple[float, str]:
    """The time of a push, from the finding's own table where it holds it."""
    try:
        table = json.loads(finding.report)["push"]
    except (ValueError, KeyError, TypeError):
        table = []
    known = {
        row["stops"]: row["hold_midtone"]["time_min"]["value"]
        for row in table
        if row.get("hold_midtone", {}).get("time_min", {}).get("value")
    }
    low = max((s for s in known if s <= stops), default=None)
    high = min((s for s in known if s >= stops), default=None)
    if low is not None and high is not None:
        share = 0.0 if high == low else (stops - low) / (high - low)
        return known[low] * (known[high] / known[low]) ** share, "measured, mid-tone held"
    return finding.time_min * (1 + PUSH_SHARE) ** stops, "a rule of thumb, not measured"
