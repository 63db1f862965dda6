"""Rolls that were shot by a finding, and how they came out: what the finding is worth in use."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.document.test_loading import load_test
from vadrin.app.loaded.loaded_test import LoadedTest
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
    shot, judged, right : int
        Of all, those whose frames were given verdicts, and those of which at least half are
        usable.
    """

    shot: int
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


def rolls_since(notebook: Notebook, test: Test) -> RollsSince:
    """The rolls that were shot by a test's newest decision, counted."""
    decided = [f.decided_at for f in notebook.all(Finding, test_id=test.id)]
    if not decided:
        return RollsSince(0, 0, 0)
    rolls = [
        roll
        for roll in notebook.all(Test, stock_id=test.stock_id, developer_id=test.developer_id)
        if roll.kind == WrongSetting.key and roll.created_at >= max(decided)
    ]
    counts = [frames_usable(made) for roll in rolls if (made := load_test(notebook, roll.id))]
    judged = [(usable, of) for usable, of in counts if of]
    right = sum(usable >= _RIGHT * of for usable, of in judged)
    return RollsSince(len(rolls), len(judged), right)
