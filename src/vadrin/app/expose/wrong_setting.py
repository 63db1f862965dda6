"""What a roll shot at another setting is: a push or a pull, and the time for it."""

from __future__ import annotations

import json
from dataclasses import dataclass
from math import log2

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_text
from vadrin.app.results.push_rows import RULE_NAMES
from vadrin.app.results.rule_scores import score_words, share_score
from vadrin.app.test_sheet import TestSheet
from vadrin.core.exposure.arithmetic import nearest_third
from vadrin.core.frames import FrameRole
from vadrin.core.planning.test_kinds.push_test import PUSH_SHARE
from vadrin.core.results.hold_rule import HoldRule
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook

_BY_RULE = "a rule of thumb, not measured"


@dataclass(frozen=True)
class WrongSetting:
    """A whole roll that was shot at another EI than its film was found to have.

    Attributes
    ----------
    stops : float
        Above 0 for a push.
    minutes : float
        Time for the whole roll.
    basis : str
        What that time rests on.
    found_index : float
    """

    stops: float
    minutes: float
    basis: str
    found_index: float


def wrong_setting_of(notebook: Notebook, test: Test) -> WrongSetting | None:
    """What a roll is by the newest finding of its film and developer; None where it is normal."""
    same = notebook.all(Test, stock_id=test.stock_id, developer_id=test.developer_id)
    known = notebook.all_of(Finding, "test_id", [t.id for t in same])
    # A finding says 0 for an EI it has no answer to.
    found = [f for f in known if f.exposure_index > 0 and f.time_min > 0]
    if not found:
        return None
    finding = found[-1]
    stops = nearest_third(log2(test.exposure_index / finding.exposure_index))
    if stops == 0:
        return None
    chosen = next(t.push_rule for t in same if t.id == finding.test_id)
    minutes, basis = _push_time(finding, stops, chosen)
    if basis == _BY_RULE:
        basis += f"; that rule: {score_words(share_score(notebook))}"
    return WrongSetting(stops, minutes, basis, finding.exposure_index)


def roll_at_wrong_setting(notebook: Notebook, sheet: TestSheet) -> WrongSetting | None:
    """What a roll is that waits to be developed whole and was not planned as a bracket.

    A bracket that was planned holds every EI, whatever the meter stood at: it is no push.
    """
    entered = any(f.frame.role is FrameRole.PICTURE for _, f in sheet.frames()) or any(
        s.strip.push for s in sheet.strips
    )
    if len(sheet.strips) != 1 or sheet.processed() or not entered:
        return None
    return wrong_setting_of(notebook, sheet.test)


def wrong_setting_words(notebook: Notebook, sheet: TestSheet) -> str:
    """The same in a sentence; empty where the roll is neither a push nor a pull."""
    wrong = roll_at_wrong_setting(notebook, sheet)
    if wrong is None:
        return ""
    kind = "push" if wrong.stops > 0 else "pull"
    return (
        f"Shot at EI {marked_ei(sheet.test.exposure_index)}, this roll is a {kind} of "
        f"{stops_counted(wrong.stops)}: this film was found to be EI "
        f"{marked_ei(wrong.found_index)} here. Develop the whole roll "
        f"{minutes_text(wrong.minutes)} min ({wrong.basis})."
    )


def _push_time(finding: Finding, stops: float, rule: HoldRule) -> tuple[float, str]:
    """The time of a push by the rule of the test, from the finding's own table where it has it."""
    try:
        table = json.loads(finding.report)["push"]
    except (ValueError, KeyError, TypeError):
        table = []
    known = {
        row["stops"]: row[rule.value]["time_min"]["value"]
        for row in table
        if row.get(rule.value, {}).get("time_min", {}).get("value")
    }
    low = max((s for s in known if s <= stops), default=None)
    high = min((s for s in known if s >= stops), default=None)
    if low is not None and high is not None:
        share = 0.0 if high == low else (stops - low) / (high - low)
        return known[low] * (known[high] / known[low]) ** share, f"measured, {RULE_NAMES[rule]}"
    return finding.time_min * (1 + PUSH_SHARE) ** stops, _BY_RULE
