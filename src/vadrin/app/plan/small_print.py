"""What a plan takes for granted, in a line; what a tester changed of it stands as a sentence."""

from __future__ import annotations

from collections.abc import Mapping

from vadrin.app.descriptions import PlanSentence, description_of
from vadrin.app.plan.plan_edit import PlanEdit
from vadrin.app.plan.plan_sentences import Occasion
from vadrin.app.plan.plan_words import NOT_KNOWN
from vadrin.app.plan.starting_tests import USUAL_FILM
from vadrin.core.planning.plan_request import CameraControl
from vadrin.notebook.records import Test

FOLDED: tuple[Occasion | PlanSentence, ...] = (PlanSentence.ROLL, Occasion.PROCESS, Occasion.METER)
"""Sentences that fold away as long as a plan has them as it began."""


def _roll_changed(test: Test) -> bool:
    usual = test.film in (None, USUAL_FILM)
    kept = test.leader or test.holder
    return not usual or bool(kept) or test.arrangement is not description_of(test.kind).arrangement


def _meter_changed(plan: PlanEdit) -> bool:
    test = plan.test
    began = description_of(test.kind).metered_seconds, Test.aperture, CameraControl.SHUTTER, 0.0
    has = test.metered_seconds, test.aperture, test.turned_first, test.filter_stops
    return has != began or plan.reciprocity not in ("", NOT_KNOWN)


def folded_of(plan: PlanEdit, shown: set[Occasion | PlanSentence]) -> list[Occasion | PlanSentence]:
    """Which of the sentences of a plan nobody has changed."""
    changed = {
        PlanSentence.ROLL: _roll_changed(plan.test),
        Occasion.METER: _meter_changed(plan),
        Occasion.PROCESS: plan.test.process_id is not None,
    }
    return [needed for needed in FOLDED if needed in shown and not changed[needed]]


def small_print(folded: list[Occasion | PlanSentence], values: Mapping[str, str]) -> str:
    """What is assumed, in a line; empty where nothing is folded away.

    Parameters
    ----------
    folded : list of Occasion or PlanSentence
        As `folded_of` gives them.
    values : mapping of str to str
        What every word of the plan shows, by its key.
    """
    parts = []
    if PlanSentence.ROLL in folded:
        parts.append("film {supply}, {order}, first exposure {check}")
    if Occasion.METER in folded:
        parts.append("{camera} with {lens}, the meter at {shutter} and {aperture}")
    if Occasion.PROCESS in folded:
        parts.append("{process_steps}")
    return f"Assumed: {'; '.join(parts).format_map(values)}." if parts else ""
