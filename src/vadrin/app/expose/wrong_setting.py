"""What a roll shot at another setting is: a push or a pull, and the time for it."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_text
from vadrin.app.findings.latest_finding import LatestFinding, latest_finding
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.push_rows import RULE_NAMES
from vadrin.app.results.rule_scores import score_words, share_score
from vadrin.core.exposure.arithmetic import nearest_third
from vadrin.core.frames import FrameRole
from vadrin.core.planning.test_types.push import PUSH_SHARE
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook

_BY_RULE = "a rule of thumb, not measured"


@dataclass(frozen=True)
class MisratedRoll:
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
    batch : str
        The batch that was found so, where it is not known to be the roll's own.
    """

    stops: float
    minutes: float
    basis: str
    found_index: float
    batch: str = ""


def wrong_setting_of(notebook: Notebook, test: Test) -> MisratedRoll | None:
    """What a roll is by the newest finding of its film and developer; None where it is normal."""
    found = latest_finding(notebook, test)
    if found is None:
        return None
    stops = nearest_third(log2(test.exposure_index / found.exposure_index))
    if stops == 0:
        return None
    minutes, basis = _push_time(found, stops)
    if basis == _BY_RULE:
        basis += f"; that rule: {score_words(share_score(notebook))}"
    return MisratedRoll(stops, minutes, basis, found.exposure_index, found.batch)


def roll_at_wrong_setting(notebook: Notebook, loaded: LoadedTest) -> MisratedRoll | None:
    """What a roll is that waits to be developed whole and was not planned as a bracket.

    A bracket that was planned holds every EI, whatever the meter stood at: it is no push.
    """
    entered = any(f.frame.role is FrameRole.PICTURE for _, f in loaded.frames()) or any(
        s.strip.push for s in loaded.strips
    )
    if len(loaded.strips) != 1 or loaded.processed() or not entered:
        return None
    return wrong_setting_of(notebook, loaded.test)


def wrong_setting_words(notebook: Notebook, loaded: LoadedTest) -> str:
    """The same in a sentence; empty where the roll is neither a push nor a pull."""
    wrong = roll_at_wrong_setting(notebook, loaded)
    if wrong is None:
        return ""
    kind = "push" if wrong.stops > 0 else "pull"
    return (
        f"Shot at EI {marked_ei(loaded.test.exposure_index)}, this roll is a {kind} of "
        f"{stops_counted(wrong.stops)}: this film was found to be EI "
        f"{marked_ei(wrong.found_index)} here{of_batch(wrong.batch, loaded)}. "
        f"Develop the whole roll {minutes_text(wrong.minutes)} min ({wrong.basis})."
    )


def of_batch(batch: str, loaded: LoadedTest) -> str:
    """What has to be said of a finding of another batch; empty where it is the roll's own."""
    if not batch:
        return ""
    own = loaded.batch.name if loaded.batch else ""
    mine = f"this roll is batch {own}" if own else "which batch this roll is nobody said"
    return f" in batch {batch} ({mine})"


def _push_time(found: LatestFinding, stops: float) -> tuple[float, str]:
    """The time of a push by the rule of the test, from the finding's own table where it has it."""
    measured = found.minutes(stops, found.rule.value)
    if measured.value is not None:
        return measured.value, f"measured, {RULE_NAMES[found.rule]} kept"
    return found.time_min * (1 + PUSH_SHARE) ** stops, _BY_RULE
