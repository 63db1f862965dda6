"""Rules of thumb on trial: they predict first, are scored after, and carry their score along."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.stations import key_to
from vadrin.app.entry.numbers import number_typed
from vadrin.app.entry.times import minutes_typed
from vadrin.app.results.rule_scores import measured_pushes
from vadrin.app.stamps import now
from vadrin.core.process.rules_on_trial import (
    RuleFormula,
    Score,
    Trial,
    predicted_minutes,
    score_of,
)
from vadrin.errors import EntryError
from vadrin.notebook.records import Developer, Rule, RuleTrial, Test
from vadrin.notebook.store import Notebook

_SHARE = re.compile(r"\+?\s*(\d+(?:[.,]\d+)?)\s*%(?:\s*a\s*stop)?", re.IGNORECASE)
NOT_REACHED = "not reached"
"""Recorded in the place of a time, where no strip came so far."""
_MOST_PERCENT = 300.0

RuleOfThumb = Rule
"""A rule of thumb, as the screen knows it."""


def all_rules(notebook: Notebook) -> list[Rule]:
    """The rules in the cupboard."""
    return notebook.all(Rule)


def rule_score(notebook: Notebook, rule: Rule) -> Score:
    """What the trials of a rule say."""
    done = notebook.all(RuleTrial, rule_id=rule.id)
    return score_of(
        tuple(Trial(t.predicted_min, t.measured_min) for t in done if t.measured_min is not None)
    )


def by_developer(notebook: Notebook, rule: Rule) -> str:
    """By which developer a rule is off, and how; empty for fewer than two."""
    found: dict[str, list[Trial]] = {}
    for trial in notebook.all(RuleTrial, rule_id=rule.id):
        test = notebook.get(Test, trial.test_id or 0)
        bath = notebook.get(Developer, test.developer_id) if test else None
        if trial.measured_min is not None and bath is not None:
            known = found.setdefault(bath.bath, [])
            known.append(Trial(trial.predicted_min, trial.measured_min))
    if len(found) < 2:
        return ""
    parts = [f"{name} × {score_of(tuple(done)).ratio:.2f}" for name, done in sorted(found.items())]
    return f"By developer: {', '.join(parts)}."


def rule_typed(notebook: Notebook, words: str) -> Rule:
    """The rule called so; a share typed as ``25 %`` is a rule of its own, written if it is new.

    Raises
    ------
    EntryError
        If there is none in the cupboard, or no such share.
    """
    share = _SHARE.fullmatch(words.strip())
    if share is not None:
        return _rule_of_share(notebook, number_typed(share[1], "25 %"))
    found = next((r for r in notebook.all(Rule) if r.name.lower() == words.strip().lower()), None)
    if found is None:
        raise EntryError(
            f"there is no rule called “{words.strip()}” in the cupboard yet ({key_to('cupboard')})"
        )
    return found


def _rule_of_share(notebook: Notebook, percent: float) -> Rule:
    """The rule that adds a share of the time for each stop."""
    if not 0 < percent <= _MOST_PERCENT:
        raise EntryError(f"a share is a part of the time for each stop: 1 to {_MOST_PERCENT:g} %")
    of_shares = (r for r in notebook.all(Rule) if r.formula == RuleFormula.SHARE)
    known = next((r for r in of_shares if abs(100 * r.amount - percent) < 0.01), None)
    if known is not None:
        return known
    with notebook.change(f"a rule of {percent:g} % a stop"):
        return notebook.add(
            Rule(
                name=f"{percent:g} % a stop",
                takes="stops",
                formula=RuleFormula.SHARE,
                amount=percent / 100,
            )
        )


def prediction(rule: Rule, given: float, usual_min: float | None) -> float:
    """What a rule says, in minutes.

    Raises
    ------
    EntryError
        In words, where it says nothing.
    """
    try:
        return predicted_minutes(RuleFormula(rule.formula), rule.amount, given, usual_min)
    except ValueError as error:
        raise EntryError(str(error)) from error


def seal(
    notebook: Notebook, rule: Rule, given: float, usual_min: float | None, test: Test | None
) -> RuleTrial:
    """Write a prediction down before the run; it is not changed afterwards."""
    minutes = prediction(rule, given, usual_min)
    with notebook.change(f"what {rule.name} predicts"):
        return notebook.add(
            RuleTrial(
                rule_id=rule.id,
                test_id=test.id if test else None,
                given=given,
                usual_min=usual_min,
                predicted_min=minutes,
                predicted_at=now(),
            )
        )


def type_measured(notebook: Notebook, trial_id: int, words: str) -> None:
    """Set the measured answer beside a prediction; ``not reached`` where no strip came so far.

    Raises
    ------
    EntryError
        If it is no time.
    """
    trial = notebook.get(RuleTrial, trial_id)
    if trial is None:
        return
    plain = words.strip().lower()
    out_of_reach = plain == NOT_REACHED
    measured = None if plain in ("", "—", NOT_REACHED) else minutes_typed(words)
    with notebook.change("what was measured"):
        stamp = now() if measured is not None or out_of_reach else ""
        note = NOT_REACHED if out_of_reach else trial.note.replace(NOT_REACHED, "").strip()
        notebook.put(replace(trial, measured_min=measured, measured_at=stamp, note=note))


@dataclass(frozen=True)
class TrialLine:
    """One trial as it is shown."""

    trial_id: int
    rule: str
    when: str
    where: str
    given: str
    predicted: str
    measured: str
    ratio: str
    found: str = ""
    """What the test's own finding says the rule should have said; empty where it says nothing."""
    found_how: str = ""


def _found(notebook: Notebook, rule: Rule, trial: RuleTrial) -> tuple[float, str] | None:
    """What a rule of pushes should have said by the finding of its test, and how that comes.

    The rule goes by the usual time it was given; the test may have found another normal, so that
    what counts is how many times longer the push is.
    """
    test = notebook.get(Test, trial.test_id or 0)
    if test is None or rule.takes != "stops" or trial.usual_min is None:
        return None
    known = measured_pushes(notebook, [test])
    normal, pushed = known.get(0.0), known.get(trial.given)
    if normal is None or pushed is None:
        return None
    times = pushed / normal
    how = f"{minutes_text(pushed)} is {times:.2f} times the normal of {minutes_text(normal)} here"
    return trial.usual_min * times, how


def trial_lines(notebook: Notebook) -> list[TrialLine]:
    """All trials, the newest first."""
    rules = {r.id: r for r in notebook.all(Rule)}
    tests = {t.id: t for t in notebook.all(Test)}
    developers = {d.id: d for d in notebook.all(Developer)}
    made = []
    for trial in sorted(
        notebook.all(RuleTrial), key=lambda t: (t.predicted_at, t.id), reverse=True
    ):
        rule, test = rules[trial.rule_id], tests.get(trial.test_id or 0)
        bath = developers.get(test.developer_id) if test else None
        measured = trial.measured_min
        unit = rule.takes.removesuffix("s") if trial.given == 1 else rule.takes
        found = _found(notebook, rule, trial) if measured is None else None
        made.append(
            TrialLine(
                trial.id,
                rule.name,
                trial.predicted_at[:10],
                bath.bath if bath else "",
                f"{trial.given:g} {unit}",
                minutes_text(trial.predicted_min),
                (trial.note if trial.note == NOT_REACHED else "—")
                if measured is None
                else minutes_text(measured, exact=True),
                "" if measured is None else f"× {trial.predicted_min / measured:.2f}",
                minutes_text(found[0]) if found else "",
                found[1] if found else "",
            )
        )
    return made
