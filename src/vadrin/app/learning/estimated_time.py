"""A film of which too little was read, estimated from the other tests; kept apart from what was."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import ei_range_text, minutes_range_text, minutes_text, push_name
from vadrin.app.display.words import capital, counted
from vadrin.app.document.state import State
from vadrin.app.learning.bath_learnt import at_learnt_warmth, warmth_learnt
from vadrin.app.learning.control_contrasts import control_contrasts, films_again
from vadrin.app.learning.developer_learnt import (
    NEAR_ENOUGH,
    Learnt,
    how_many_held,
    index_fares,
    index_of,
    learnt,
    trusted,
    usual_width,
)
from vadrin.app.learning.film_seen import contrast_seen, speeds_seen, temperatures_seen
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.past_tests import MEASURE
from vadrin.app.learning.read_tests import LEARNING_KINDS
from vadrin.app.loaded.reference_temperature import reference_of, temperature_factor_of
from vadrin.app.results.report import figure
from vadrin.app.results.target_words import target_text
from vadrin.core.figure import Basis, Figure
from vadrin.core.learning.contrast_law import ContrastSeen, evening_of, time_for_contrast
from vadrin.core.wording import list_text
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook

ESTIMATED = f"{capital(Basis.ESTIMATED.value)}, not measured"


@dataclass(frozen=True)
class Estimate:
    """What other tests tell of a film whose own strips tell no time.

    Attributes
    ----------
    time, index : Figure
        For the target; the EI absent where the past tests do not bear it out.
    pushes : tuple of (float, Figure)
        Stops and minutes, those that can be told.
    target : str
        In words.
    learnt : Learnt
    controls, again : int
        Control strips, and films developed again, by which evenings are known to differ.
    """

    time: Figure
    index: Figure
    pushes: tuple[tuple[float, Figure], ...]
    target: str
    learnt: Learnt
    controls: int = 0
    again: int = 0
    warmth: str = ""
    """By what strips of another warmth were restated, where that is learnt, too."""

    @property
    def films(self) -> str:
        """What it is learnt from, in words."""
        return f"{counted(self.learnt.law.films, 'film')} in this developer"

    @property
    def evenings(self) -> str:
        """What tells how far evenings differ, in words; empty where that is taken as usual."""
        told = [counted(self.controls, "control strip")] if self.controls > 1 else []
        if self.again:
            told.append(f"{counted(self.again, 'film')} developed again")
        return list_text(told)

    @property
    def lines(self) -> tuple[str, ...]:
        """The figures in words, a line each, and what they rest on."""
        made = [
            f"About {minutes_text(self.time.known())} min, {minutes_range_text(self.time)}, would "
            f"meet {self.target}, if this film develops like {self.films}."
        ]
        if self.index.value is not None:
            made.append(f"EI {marked_ei(self.index.value)} then, {ei_range_text(self.index)}.")
        pushed = [
            f"{push_name(stops)} {minutes_text(time.known())}, {minutes_range_text(time)}"
            for stops, time in self.pushes
        ]
        if pushed:
            made.append(f"{capital('; '.join(pushed))}.")
        if self.evenings:
            made.append(f"Evenings differ as {self.evenings} did.")
        if self.warmth:
            made.append(self.warmth)
        return (*made, self.learnt.fares)

    def report(self) -> dict[str, Any]:
        """The figures as plain JSON data."""
        return {
            "basis": Basis.ESTIMATED.value,
            "films": self.learnt.law.films,
            "time_min": figure(self.time),
            "zone_ei": figure(self.index),
            "push": [{"stops": stops, "time_min": figure(time)} for stops, time in self.pushes],
        }


def estimate_of(notebook: Notebook, state: State) -> Estimate | str:
    """The estimate of a test whose own strips tell no time; else why there is none, which is
    empty where none is asked for."""
    analysis = state.analysis
    if analysis is None or analysis.finding.time_min.present or estimates_left_out():
        return ""
    target, test = analysis.settings.target, state.loaded.test
    if target.kind != MEASURE:
        return ""
    told = learnt(notebook, test.developer_id, test.id)
    if told is None:
        return ""
    if not told.trusted:
        return (
            f"in this developer only {how_many_held(told.by_one)} of "
            f"{counted(len(told.by_one), 'range')} held when each was foretold by the others"
        )
    mine = contrast_seen(state)
    if mine is None:
        return ""
    mine, warmth = _at_learnt_warmth(state, told, mine)
    controls = control_contrasts(notebook, test.developer_id)
    again = films_again(told.tests)
    time = time_for_contrast(told.law, mine, target.value, evening_of(controls, again))
    if time.value is None:
        return time.why
    near = int(np.argmin(np.abs(np.log(mine.contrast / target.value))))
    index = index_of(told, speeds_seen(state), target.value, float(mine.deviation[near]))
    rule = test.push_rule.value
    asked = (
        (push.stops, told.push(rule, push.stops, time)) for push in analysis.push if push.stops
    )
    pushes = tuple((stops, minutes) for stops, minutes in asked if minutes.present)
    aim = target_text(target.kind, target.value)
    return Estimate(time, index, pushes, aim, told, len(controls), len(again), warmth)


def _at_learnt_warmth(state: State, told: Learnt, mine: ContrastSeen) -> tuple[ContrastSeen, str]:
    """Strips of another warmth restated by what this developer does, and that in words."""
    loaded = state.loaded
    away = temperatures_seen(state) - reference_of(loaded)
    if (loaded.routine is not None and loaded.routine.q10) or not away.any():
        return mine, ""
    learnt = warmth_learnt(told.tests)
    if learnt is None:
        return mine, ""
    times = learnt.times[0]
    words = f"Restated with {times:.2f} × as fast for each 10 °C, as these films tell."
    return at_learnt_warmth(mine, away, temperature_factor_of(loaded), learnt), words


def why_no_estimate(why: str) -> str:
    """That nothing is estimated, in a sentence."""
    return f"No time is {Basis.ESTIMATED.value}: {why}." if why else ""


def few_strips_words(notebook: Notebook, test: Test) -> str:
    """What one strip, and what two, would tell of a film nobody tested in this developer, by how
    the past tests would have been foretold; empty where nothing is claimed."""
    if test.kind not in LEARNING_KINDS or estimates_left_out():
        return ""
    told = learnt(notebook, test.developer_id, test.id)
    if told is None or not told.trusted:
        return ""
    ways = []
    for name, some in (("one strip", told.by_one), ("two", told.by_two)):
        if trusted(some):
            fared = f"± {100 * usual_width(some):.0f} % ({how_many_held(some)} of {len(some)} held)"
            ways.append(f"{name} would have told the time within {fared}")
    said = f"By your {counted(told.law.films, 'film')} in this developer {', '.join(ways)}"
    if trusted(told.indices):
        said += f"; one strip the EI {index_fares(told)}"
    return f"{said}.{_will_do(told)}"


def _will_do(told: Learnt) -> str:
    """How few strips are enough by what is known; empty where it takes three or more."""
    for strips, some in ((1, told.by_one), (2, told.by_two)):
        if trusted(some) and usual_width(some) <= NEAR_ENOUGH:
            return (
                f" With what you know, {counted(strips, 'strip')} will do where "
                f"± {100 * NEAR_ENOUGH:.0f} % of the time is enough."
            )
    return ""
