"""How rules of thumb fare beside what was measured in this notebook, wherever one is offered."""

from __future__ import annotations

from vadrin.app.findings.kept_report import KeptReport
from vadrin.core.figure import Basis
from vadrin.core.planning.test_types.push import PUSH_SHARE
from vadrin.core.process.rules_on_trial import RuleVerdict, Score, Trial, score_of
from vadrin.core.results.one_strip_rule import one_strip_minutes
from vadrin.core.wording import counted
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook

_VERDICTS = {
    RuleVerdict.HOLDS: "Holds",
    RuleVerdict.ROUGH: "Rough",
    RuleVerdict.FAILS: "Not reliable",
}
_NEWEST = 50
"""Findings looked through: a report takes a millisecond, and the screen waits for the line."""


def score_words(score: Score) -> str:
    """A score as it stands beside a rule wherever it is offered."""
    if score.verdict is RuleVerdict.UNTRIED or score.ratio is None:
        return score.verdict.value
    # Close every time, and only not often enough yet to be called more.
    few = score.verdict is RuleVerdict.ROUGH and score.close == score.count
    verdict = "Close so far" if few else _VERDICTS[score.verdict]
    words = f"{verdict}. Of {counted(score.count, 'trial')} {score.close} "
    words += f"{'was' if score.close == 1 else 'were'} within 10 % and {score.rough} within 25 % "
    words += f"of the measured time. Typical prediction: {score.ratio:.2f} × measured"
    return words + (f" (spread {100 * score.spread:.0f} %)" if score.spread else "")


def measured_pushes(notebook: Notebook, tests: list[Test]) -> dict[float, float]:
    """Minutes that the findings of tests name for each push; those of the newest stand."""
    rules = {t.id: t.push_rule for t in tests}
    found = notebook.all_of(Finding, "test_id", list(rules))
    known: dict[float, float] = {}
    for finding in found:
        if finding.time_min > 0:
            known[0.0] = finding.time_min
    for finding in found:
        known |= dict(_pushes_of(finding.report, rules[finding.test_id].value))
    return known


def _pushes_of(text: str, rule: str) -> tuple[tuple[float, float], ...]:
    """Stops and measured minutes of the pushes of one report, by one rule; none where it is of
    another form."""
    known = (
        (p.stops, p.minutes[rule].value)
        for p in KeptReport.from_json(text).pushes
        if rule in p.minutes
    )
    return tuple((stops, minutes) for stops, minutes in known if stops and minutes)


def share_score(notebook: Notebook) -> Score:
    """How a fixed share for each stop fares beside the pushes that were measured."""
    trials = []
    rules = {t.id: t.push_rule for t in notebook.all(Test)}
    for finding in notebook.all(Finding)[-_NEWEST:]:
        if finding.test_id in rules and finding.time_min > 0:
            for stops, minutes in _pushes_of(finding.report, rules[finding.test_id].value):
                said = finding.time_min * (1 + PUSH_SHARE) ** stops
                trials.append(Trial(said, minutes))
    return score_of(tuple(trials))


def one_strip_score(notebook: Notebook) -> Score:
    """How the rule that guesses a time from one strip would have fared on the strips of tests
    that found theirs by several."""
    newest = notebook.all(Finding)[-_NEWEST:]
    return score_of(tuple(trial for f in newest for trial in _one_strip_trials(f.report)))


def _one_strip_trials(text: str) -> tuple[Trial, ...]:
    """What the rule says of each strip of a report, beside the time that all of them found; none
    where the report is of another form, or of a test that found no time."""
    report = KeptReport.from_json(text)
    measured, target = report.time_min.value, report.target_value
    if report.target_kind != "average_gradient" or len(report.strips) < 3:
        return ()
    if measured is None or target is None:
        return ()
    read = ((s.time_min, s.figure("average_gradient").value) for s in report.strips.values())
    return tuple(
        Trial(one_strip_minutes(minutes, gradient, target), measured)
        for minutes, gradient in read
        if minutes and gradient
    )


def one_strip_fares(notebook: Notebook) -> str:
    """The rule of one strip with its score, as a sentence."""
    score = one_strip_score(notebook)
    of = f"{Basis.RULE.value.capitalize()} from one strip"
    if score.verdict is RuleVerdict.UNTRIED:
        return f"{of}: not tried on any film of this notebook yet."
    return f"{of}, tried on the strips of this notebook: {score_words(score)}."
