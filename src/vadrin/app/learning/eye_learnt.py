"""What the tester's own eye tells, by the frames it judged that were read as well."""

from __future__ import annotations

import numpy as np

from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.loaded.light_boxes import TOLD_FROM_BLANK
from vadrin.core.figure import Basis
from vadrin.core.judging.eye_answers import EyeVerdict, Viewing
from vadrin.core.learning.known_eye import KnownEye, known_eye
from vadrin.core.wording import counted
from vadrin.notebook.store import Notebook

_FEWEST = 12
_KNOWN = 0.006
"""A deviation from which on an eye is known as well as one that was measured with a wedge."""
_NEWEST = 400
# Frame by frame, which the file finds by its indexes: readings are very many, looks are few.
_LOOKS = """
SELECT judgement.answer,
  (SELECT avg(reading.density) FROM reading
   WHERE reading.frame_id = frame.id AND NOT reading.left_out
     AND reading.channel IN ('', 'visual')) -
  (SELECT avg(reading.density) FROM frame AS blank JOIN reading ON reading.frame_id = blank.id
   WHERE blank.strip_id = frame.strip_id AND blank.role = 'blank' AND NOT reading.left_out
     AND reading.channel IN ('', 'visual')) AS net
FROM judgement JOIN frame ON frame.id = judgement.frame_id
WHERE judgement.asked = :asked AND NOT judgement.left_out AND judgement.way = :way
  AND frame.role <> 'blank' AND net IS NOT NULL
ORDER BY judgement.id DESC LIMIT :most
"""


def eye_learnt(notebook: Notebook, way: str) -> KnownEye | None:
    """The eye as it is known from its looks in one way; None where that is not well enough."""
    if estimates_left_out():
        return None
    rows = notebook.rows(_LOOKS, asked=TOLD_FROM_BLANK, way=way, most=_NEWEST)
    told = [(EyeVerdict(answer), net) for answer, net in rows if answer in set(EyeVerdict)]
    if len(told) < _FEWEST:
        return None
    answers = np.array([answer.value for answer, _ in told])
    made = known_eye(
        np.array([net for _, net in told], dtype=float),
        answers == EyeVerdict.YES.value,
        answers == EyeVerdict.NO.value,
        Viewing(way),
    )
    return made if made.deviation <= _KNOWN else None


def eye_words(eye: KnownEye) -> str:
    """What is known of the eye, in a sentence."""
    return (
        f"By {counted(eye.looks, 'look')} at frames that were read as well, the smallest density "
        f"you see is {eye.threshold:.3f} ± {1.96 * eye.deviation:.3f}: {Basis.ESTIMATED.value}."
    )
