"""Rolls that were shot by a finding, and how they came out: what the finding is worth in use."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.loaded.loaded_test import THE_FRAME, LoadedTest
from vadrin.core.judging.verdicts import USE_IT
from vadrin.core.planning.test_types.wrong_setting import WrongSetting
from vadrin.core.wording import counted
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook

_RIGHT = 0.5
"""Share of a roll's judged frames that are usable, from which it came out right."""


@dataclass(frozen=True)
class RollsSince:
    """Rolls of one film in one developer that were shot since it was decided on.

    Attributes
    ----------
    judged, right : int
        Those whose frames were given verdicts, and those of which at least half are usable.
    """

    judged: int
    right: int

    @property
    def words(self) -> str:
        """How they came out; empty where none was judged."""
        if not self.judged:
            return ""
        return f"{self.right} of {counted(self.judged, 'roll')} shot by it came out right"


def frames_usable(loaded: LoadedTest) -> tuple[int, int]:
    """How many frames of a roll are usable, of how many that were judged."""
    said = [f.verdict for _, f in loaded.frames() if f.verdict]
    return sum(verdict == USE_IT for verdict in said), len(said)


_VERDICTS = """
SELECT test.id, judgement.frame_id, judgement.answer FROM judgement
JOIN frame ON frame.id = judgement.frame_id JOIN strip ON strip.id = frame.strip_id
JOIN test ON test.id = strip.test_id
WHERE test.kind = :kind AND test.stock_id = :stock AND test.developer_id = :developer
AND test.created_at >= :since AND judgement.asked = :asked AND NOT judgement.left_out
ORDER BY judgement.id
"""


def rolls_since(notebook: Notebook, test: Test) -> RollsSince:
    """The rolls that were shot by a test's newest decision, counted, in one question."""
    decided = [f.decided_at for f in notebook.all(Finding, test_id=test.id)]
    if not decided:
        return RollsSince(0, 0)
    # What was said of a frame last is what counts.
    last: dict[int, dict[int, str]] = {}
    for roll, frame, answer in notebook.rows(
        _VERDICTS,
        kind=WrongSetting.key,
        stock=test.stock_id,
        developer=test.developer_id,
        since=max(decided),
        asked=THE_FRAME,
    ):
        last.setdefault(roll, {})[frame] = answer
    shares = [
        sum(said == USE_IT for said in frames.values()) / len(frames) for frames in last.values()
    ]
    return RollsSince(len(shares), sum(share >= _RIGHT for share in shares))
