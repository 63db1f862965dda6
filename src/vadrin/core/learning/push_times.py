"""How much longer a push takes than the normal, learnt from the films of a developer."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.figure import Basis, Figure, absent
from vadrin.core.learning.offsets import LearntOffset, Usual, learnt_offset

_A_STOP = 0.30
"""ln of how much longer, as usual for each stop."""
FEW = "fewer than three films in this developer were pushed so far"


def learnt_push(factors: Array, deviations: Array, stops: float) -> LearntOffset:
    """What films tell of the next one's push.

    Parameters
    ----------
    factors : ndarray, shape (n,)
        ln of each film's minutes for the push over those of its normal.
    deviations : ndarray, shape (n,)
    stops : float
        Of the push; less than 0 for a pull.
    """
    far = max(abs(stops), 1 / 3)
    usual = Usual(_A_STOP * stops, 0.15 * far, 0.08 * far)
    return learnt_offset(factors, deviations, usual)


def pushes_held(factors: Array, deviations: Array, stops: float) -> int:
    """How many films' pushes lie within what the others tell.

    Parameters
    ----------
    factors, deviations, stops
        As `learnt_push`.
    """
    held = 0
    for n in range(len(factors)):
        others = learnt_push(np.delete(factors, n), np.delete(deviations, n), stops)
        low, high = others.range(1.0, float(deviations[n]))
        held += low <= factors[n] <= high
    return held


def push_time(learnt: LearntOffset, normal: Figure) -> Figure:
    """Minutes of a push of a film whose normal time is known, or estimated, with a range."""
    if normal.value is None or normal.low is None or normal.high is None:
        return absent(normal.why)
    if learnt.films < 3:
        return absent(FEW)
    spread = float(np.log(normal.high / normal.low)) / (2 * 1.96)
    low, high = learnt.range(1.0, spread)
    minutes = normal.value
    return Figure(
        minutes * float(np.exp(learnt.middle)),
        minutes * float(np.exp(low)),
        minutes * float(np.exp(high)),
        basis=Basis.ESTIMATED,
    )
