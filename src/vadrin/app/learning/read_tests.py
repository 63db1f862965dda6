"""Tests that were read and that nobody decided on: what they come to, once that was worked out.

Kept beside an open notebook and never in the file: the next opening works them out anew.
"""

from __future__ import annotations

from weakref import WeakKeyDictionary

from vadrin.app.learning.left_out import others_count
from vadrin.core.planning.test_types.development_time import DevelopmentTime
from vadrin.core.planning.test_types.push import PushTest
from vadrin.notebook.records import Finding
from vadrin.notebook.store import Notebook

LEARNING_KINDS = (DevelopmentTime.key, PushTest.key)
_NEWEST = 24
_MOST_FRAMES = 1_500
"""Of a test that is taken from the file in one turn of the window; longer ones are left."""
_READ = """
SELECT test.id FROM test
WHERE test.kind IN (:time, :push) AND test.id <> :but AND (:others OR test.taken_from = '')
AND NOT EXISTS (SELECT 1 FROM finding WHERE finding.test_id = test.id)
AND EXISTS (SELECT 1 FROM strip JOIN frame ON frame.strip_id = strip.id
            JOIN reading ON reading.frame_id = frame.id
            WHERE strip.test_id = test.id AND strip.position > 0)
AND (SELECT count(*) FROM strip JOIN frame ON frame.strip_id = strip.id
     WHERE strip.test_id = test.id) <= :frames
ORDER BY test.id DESC LIMIT :most
"""

_come_to: WeakKeyDictionary[Notebook, dict[int, Finding | None]] = WeakKeyDictionary()


def _read(notebook: Notebook, but: int) -> list[int]:
    time, push = LEARNING_KINDS
    most = {"most": _NEWEST, "frames": _MOST_FRAMES}
    rows = notebook.rows(_READ, time=time, push=push, but=but, others=others_count(), **most)
    return [int(test_id) for (test_id,) in rows]


def tests_to_work_out(notebook: Notebook, but: int) -> list[int]:
    """The newest tests that were read and not decided on, but one; those not known yet."""
    known = _come_to.get(notebook, {})
    return [test_id for test_id in _read(notebook, but) if test_id not in known]


def keep_read_test(notebook: Notebook, test_id: int, come_to: Finding | None) -> None:
    """Keep what a test comes to as it would be decided on; None where that is nothing."""
    _come_to.setdefault(notebook, {})[test_id] = come_to


def forget_read_test(notebook: Notebook, test_id: int) -> None:
    """A test is on the bench: what it comes to may change."""
    _come_to.get(notebook, {}).pop(test_id, None)


def read_tests(notebook: Notebook, but: int) -> list[Finding]:
    """What is known of the tests nobody decided on, as findings that are in no file."""
    known = _come_to.get(notebook)
    if not known:
        return []
    return [told for test_id in _read(notebook, but) if (told := known.get(test_id)) is not None]


def read_tests_known(notebook: Notebook) -> int:
    """How many of them are worked out so far."""
    return len(_come_to.get(notebook, {}))
