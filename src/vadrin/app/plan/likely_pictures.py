"""The picture a plan is likely to lead to, and those at the ends of how sure it will be."""

from __future__ import annotations

from dataclasses import dataclass
from math import log2

from vadrin.app.display.marks import marked_ei
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.seen import OnFilm
from vadrin.app.plan.expected_curves import Expected
from vadrin.core.pictures.developed_film import DevelopedFilm
from vadrin.core.planning.film_prior import prior_curve
from vadrin.core.planning.forecast import Forecast

_USUAL_MIN = 8.0
_SAME = 1.02
"""Ratio of EIs under which two pictures are one."""


@dataclass(frozen=True, eq=False)
class LikelyPicture:
    """A film that is expected, not measured, at the EI a plan is likely to find."""

    exposed: Exposed
    film: OnFilm


def likely_pictures(
    loaded: LoadedTest, film: Expected, told: Forecast
) -> tuple[LikelyPicture, ...]:
    """The film as slow as the range has it, as is likely, and as fast; none where not foretold.

    All are set to the likely EI: the ends show what being off by so much costs.
    """
    index, low, high = told.zone_ei.value, told.zone_ei.low, told.zone_ei.high
    if index is None or low is None or high is None:
        return ()
    minutes = told.time_min.value or _USUAL_MIN
    curve = prior_curve(film.prior, minutes)
    constant = loaded.test.meter_constant
    xs = [x for _, f in loaded.frames() if (x := f.log_h(constant)) is not None]
    ends = (min(xs), max(xs)) if xs else (-9.0, 9.0)
    made = []
    for true in (low, index, high):
        if true != index and max(true / index, index / true) < _SAME:
            continue
        # A film of half the speed, set to the same EI, is one that got half the light.
        on_film = OnFilm(
            (DevelopedFilm(minutes, curve, curve, 0.0, *ends),), index * index / true, constant
        )
        exposed = Exposed(index, minutes, name=_name(index, true), normal=true == index)
        made.append(LikelyPicture(exposed, on_film))
    return tuple(made)


def _name(index: float, true: float) -> str:
    if true == index:
        return f"likely: EI {marked_ei(index)}"
    away = abs(log2(true / index))
    return f"if {away:.2f} stop {'slower' if true < index else 'faster'}"
