"""A finding keeps the readings and settings it rested on, and tells when they have changed."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from vadrin.app.descriptions import own_answer
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.state import State
from vadrin.app.findings.decided_words import decided_text
from vadrin.app.findings.kept_report import KeptBasis, KeptReadings
from vadrin.app.loaded.light_boxes import judged_of
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.once import once
from vadrin.app.results.contact_prints import BEST, paper_verdict
from vadrin.app.results.rating import rating_of
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.results.rating_method import CONTACT, PAPER
from vadrin.notebook.records import Finding

_PLACES = 6


def decision_basis(loaded: LoadedTest) -> dict[str, Any]:
    """The readings that count and the settings a test is worked out with, as plain data."""
    test = loaded.test
    strips: dict[str, Any] = {}
    for strip in loaded.strips:
        rows = [
            [
                f.frame.name,
                None if x is None else round(x, _PLACES),
                *[[r.channel, r.density] for r in f.readings if not r.left_out],
            ]
            for f in strip.frames
            if f.counts and any(not r.left_out for r in f.readings)
            for x in [f.log_h(test.meter_constant)]
        ]
        if rows:
            strips[strip.strip.label] = {
                "time_min": strip.minutes,
                "temperature_c": strip.strip.temperature_c,
                "readings": rows,
            }
            other = loaded.material_of(strip)
            if other:
                strips[strip.strip.label]["material"] = other
    judged = {s.strip.label: [[j.frame_id, j.answer] for j in judged_of(s)] for s in loaded.strips}
    judged = {label: rows for label, rows in judged.items() if rows}
    printed = _printed(loaded) if test.school in (PAPER.key, CONTACT.key) else []
    return {
        **({"judged": judged} if judged else {}),
        **({"on_paper": printed} if printed else {}),
        "target": [test.target_kind, test.target_value],
        "school": test.school,
        "push_rule": test.push_rule.value,
        "meter_constant": test.meter_constant,
        "strips": strips,
    }


def _printed(loaded: LoadedTest) -> list[list[Any]]:
    """What was seen of half-covered strips, and which contact prints are best."""
    covered = [[s.frame_id, s.answer] for s in loaded.covered]
    best = [[f.frame.id, BEST] for _, f in loaded.frames() if paper_verdict(f, BEST)]
    return covered + best


@once
def basis_text(loaded: LoadedTest) -> str:
    """The same as text, equal where it rests on the same."""
    return json.dumps(decision_basis(loaded), sort_keys=True)


@dataclass(frozen=True)
class DecisionChanges:
    """What changed under a finding since it was decided."""

    finding: Finding
    changes: tuple[str, ...]

    def sentence(self) -> str:
        """What was decided, and what is different now."""
        return f"Decided: {decided_text(self.finding)}. Changed since: {'; '.join(self.changes)}."


def _time_said(minutes: float | None) -> str:
    return "not noted" if minutes is None else f"{minutes_text(minutes, True)} min"


def _warmth_said(degrees: float | None) -> str:
    return "not noted" if degrees is None else f"{degrees:g} °C"


def _strip_changes(label: str, before: KeptReadings, after: KeptReadings) -> list[str]:
    words = []
    for name, then, now, said in (
        ("time", before.time_min, after.time_min, _time_said),
        ("temperature", before.temperature_c, after.temperature_c, _warmth_said),
    ):
        if then != now:
            words.append(f"strip {label}'s {name} went from {said(then)} to {said(now)}")
    old, new = set(before.lines), set(after.lines)
    if old != new:
        count = max(len(old - new), len(new - old))
        frames = "frame differs" if count == 1 else "frames differ"
        words.append(f"{count} {frames} on strip {label}")
    return words


@once
def changes_since_decision(loaded: LoadedTest) -> DecisionChanges | None:
    """What changed under the newest finding; None where nothing did, or there is none."""
    if not loaded.findings or not loaded.findings[-1].basis:
        return None
    finding = loaded.findings[-1]
    now, then = KeptBasis.from_json(basis_text(loaded)), KeptBasis.from_json(finding.basis)
    if now is None or then is None:
        return None
    words = _settled_changes(then.settled, now.settled)
    for label in sorted(set(then.strips) | set(now.strips)):
        if label not in now.strips:
            words.append(f"strip {label} has no readings any more")
        elif label not in then.strips:
            words.append(f"strip {label} was read")
        else:
            words += _strip_changes(label, then.strips[label], now.strips[label])
    return DecisionChanges(finding, tuple(words)) if words else None


def _settled_changes(then: dict[str, Any], now: dict[str, Any]) -> list[str]:
    """The settings and judgements that are not as they were."""
    words = [
        f"the {name} changed"
        for key, name in (
            ("target", "target"),
            ("school", "EI method"),
            ("push_rule", "rule of pushes"),
            ("meter_constant", "meter constant"),
        )
        if then.get(key, now[key]) != now[key]
    ]
    if then.get("judged", {}) != now.get("judged", {}):
        words.append("what was seen on the light box changed")
    if then.get("school") == now["school"] and then.get("on_paper") != now.get("on_paper"):
        words.append("what was seen on paper changed")
    return words


def present_answer(state: State) -> str:
    """The present answer in a phrase."""
    own = own_answer(state)
    if own is not None:
        return own.says or f"without an answer: {own.words}"
    answer = rating_of(state)
    index, time = answer.index.value, answer.time_min.value
    if index is None or time is None:
        return f"without a finding: {answer.time_min.why or answer.index.why}"
    return f"EI {marked_ei(index)}, {minutes_text(time)} min"
