"""How much faster a developer works when it is warmer, or agitated otherwise, by the past tests."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from vadrin.app.display.words import counted
from vadrin.app.findings.kept_report import KeptBasis, KeptReport
from vadrin.app.learning.past_tests import PastTest, strip_told
from vadrin.core.figure import Basis
from vadrin.core.learning.bath_effect import (
    AGITATION,
    WARMTH,
    BathSeen,
    LearntEffect,
    learnt_effect,
)
from vadrin.core.learning.contrast_law import BY_MINUTES, ContrastSeen
from vadrin.core.learning.offsets import Usual
from vadrin.core.restated_time import REFERENCE_TEMPERATURE_C

FEWEST = 3
"""Films that were developed in two baths under which nothing is said."""
_APART_K = 1.5
_HELD = 0.9


@dataclass(frozen=True)
class StripInBath:
    """A strip as it was developed, and what came of it; its evening is that of test and bath."""

    minutes: float
    temperature_c: float
    agitation: str
    contrast: float
    deviation: float
    evening: tuple[int, int]


def _strips(past: PastTest) -> Iterator[StripInBath]:
    finding = past.finding
    rested_on = KeptBasis.from_json(finding.basis) if finding is not None else None
    if finding is None or rested_on is None:
        return
    for label, strip in KeptReport.from_json(finding.report).strips.items():
        noted, told = rested_on.strips.get(label), strip_told(strip)
        if noted is None or told is None or not noted.time_min or strip.doubtful:
            continue
        if noted.temperature_c is not None:
            evening = past.test_id, round(noted.temperature_c)
            yield StripInBath(
                noted.time_min, noted.temperature_c, past.agitation, told[1], told[2], evening
            )


def _of_films(films: Iterable[PastTest]) -> list[list[StripInBath]]:
    """Strips of each film, whatever tests they are of."""
    by: dict[int, list[StripInBath]] = {}
    for past in films:
        by.setdefault(past.stock_id, []).extend(_strips(past))
    return list(by.values())


def _seen(strips: list[StripInBath], away: Callable[[StripInBath], float]) -> BathSeen:
    evenings = {each: number for number, each in enumerate({s.evening for s in strips})}
    columns = ((s.minutes, away(s), s.contrast, s.deviation, evenings[s.evening]) for s in strips)
    return BathSeen(*(np.array(column, dtype=float) for column in zip(*columns, strict=True)))


def _kelvins(strip: StripInBath) -> float:
    return (strip.temperature_c - REFERENCE_TEMPERATURE_C) / 10.0


def _believed(seen: tuple[BathSeen, ...], usual: Usual) -> LearntEffect | None:
    """What films tell; None where they are too few, or do not foretell each other."""
    if len(seen) < FEWEST:
        return None
    told = learnt_effect(seen, usual)
    return told if told.held >= _HELD * told.films else None


def _ways(here: tuple[PastTest, ...]) -> list[str]:
    """How films are agitated here, the usual way first."""
    return [way for way, _ in Counter(past.agitation for past in here).most_common()]


@lru_cache(maxsize=8)
def warmth_learnt(here: tuple[PastTest, ...]) -> LearntEffect | None:
    """How much faster a developer works for each 10 K; None where that is not told.

    Parameters
    ----------
    here : tuple of PastTest
        Those in the developer.
    """
    # Film agitated in another way would pass for a warmer bath.
    usual = _ways(here)[:1]
    warm = [
        strips
        for strips in _of_films(past for past in here if past.agitation in usual)
        if strips and max(map(_kelvins, strips)) - min(map(_kelvins, strips)) >= _APART_K / 10
    ]
    return _believed(tuple(_seen(strips, _kelvins) for strips in warm), WARMTH)


def _restated(strip: StripInBath, effect: float) -> StripInBath:
    return replace(strip, minutes=strip.minutes * float(np.exp(effect * _kelvins(strip))))


@lru_cache(maxsize=8)
def agitations_learnt(here: tuple[PastTest, ...]) -> tuple[tuple[str, str, LearntEffect], ...]:
    """Ways to agitate, the usual one beside each, and how much faster a developer works with it.

    Parameters
    ----------
    here : tuple of PastTest
        Those in the developer.
    """
    ways = [way for way in _ways(here) if way]
    if len(ways) < 2:
        return ()
    warmth = warmth_learnt(here)
    speed = warmth.middle if warmth is not None else WARMTH.middle
    films = [[_restated(s, speed) for s in strips] for strips in _of_films(here)]
    usual, *others = ways
    found = []
    for way in others:
        both = [[s for s in strips if s.agitation in (usual, way)] for strips in films]
        some = tuple(
            _seen(strips, lambda s, way=way: float(s.agitation == way))  # type: ignore[misc]
            for strips in both
            if {s.agitation for s in strips} == {usual, way}
        )
        told = _believed(some, AGITATION)
        if told is not None:
            found.append((way, usual, told))
    return tuple(found)


def bath_sentences(here: tuple[PastTest, ...]) -> tuple[str, ...]:
    """What is learnt of a developer's warmth and agitation, a sentence each."""
    made = []
    warmth = warmth_learnt(here)
    if warmth is not None:
        times, low, high = warmth.times
        made.append(
            f"It works {times:.2f} × as fast for each 10 °C ({low:.2f} to {high:.2f}), by "
            f"{counted(warmth.films, 'film')}: {Basis.ESTIMATED.value}."
        )
    for way, usual, told in agitations_learnt(here):
        times, low, high = told.times
        made.append(
            f"With «{way}» it works {times:.2f} × as fast as with «{usual}» "
            f"({low:.2f} to {high:.2f}), by {counted(told.films, 'film')}: "
            f"{Basis.ESTIMATED.value}."
        )
    return tuple(made)


def at_learnt_warmth(
    seen: ContrastSeen, kelvin_from_reference: np.ndarray, factor: float, learnt: LearntEffect
) -> ContrastSeen:
    """Strips restated by what is learnt of a developer's warmth, not by the usual factor.

    Parameters
    ----------
    seen : ContrastSeen
        Restated by the usual factor.
    kelvin_from_reference : ndarray, shape (n,)
    factor : float
        The usual one, for each 10 K.
    learnt : LearntEffect
    """
    tens = kelvin_from_reference / 10.0
    unsure = BY_MINUTES * learnt.deviation * np.abs(tens)
    return ContrastSeen(
        seen.minutes * np.exp((learnt.middle - np.log(factor)) * tens),
        seen.contrast,
        np.hypot(seen.deviation, unsure),
    )
