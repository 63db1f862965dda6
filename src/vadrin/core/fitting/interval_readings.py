"""Readings found between two steps of a wedge, for the fit's likelihood.

A step says the same of every frame that lies in it: where film is flat, ten frames in one step
are worth one. Taken for ten they would make the range of base plus fog far too narrow.
"""

from __future__ import annotations

from collections import Counter

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.readings import StripReadings

_BOUNDED = 0.95 * np.sqrt(3.0) / 1.96
"""An error within a step is bounded: 95 of 100 lie nearer than 1.96 standard deviations."""
_ALONE = 0.8
"""Where all was read between steps no error of any frame has a tail, and sums have less of one."""
_A_STEP = 0.02
"""Standard deviation from which a reading was found between steps; a scan's is smaller."""


def own_deviations(strips: tuple[StripReadings, ...]) -> Array:
    """Standard deviation each reading brings itself, shape (N,), strip after strip.

    Those of one strip in the step of its blanks share what that step tells; ``tools/wedge.py``
    prints how ranges hold.
    """
    made: list[float] = []
    alone = all(r.deviation > _A_STEP for s in strips for r in s.readings)
    share = _BOUNDED * (_ALONE if alone else 1.0)
    for strip in strips:
        steps = [(r.density, r.deviation) for r in strip.readings]
        flat = {s for s, r in zip(steps, strip.readings, strict=True) if r.log_h is None}
        alike = Counter(steps)
        made += [share * step[1] * np.sqrt(alike[step] if step in flat else 1) for step in steps]
    return np.array(made)
