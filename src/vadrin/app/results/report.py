"""The report as JSON, schema vadrin-report/1."""

from __future__ import annotations

from typing import Any

from vadrin.app.descriptions.answer_in_words import OwnAnswer
from vadrin.core.diagnostic import Diagnostic
from vadrin.core.figure import Basis, Figure
from vadrin.core.results.analysis_result import Analysis
from vadrin.core.results.finding import Finding
from vadrin.core.results.hold_rule import HoldRule
from vadrin.core.results.method_answers import MethodAnswer
from vadrin.core.results.next_step import NextStep
from vadrin.core.results.push import Push, PushRow, shadow_verdict
from vadrin.core.results.push_limits import PushLimits
from vadrin.core.results.strip_metrics import StripMetrics

REPORT_SCHEMA = "vadrin-report/1"
_MORE_TABLES = ("second_table", "third_table")


def figure(of: Figure) -> dict[str, Any]:
    """A figure as JSON: value with its interval, or null with the reason."""
    if of.value is None:
        return {"value": None, "why": of.why}
    basis = {} if of.basis is Basis.MEASURED else {"basis": of.basis.value}
    if of.low is None or of.high is None:
        return {"value": of.value, "low": None, "high": None, **basis}
    return {"value": of.value, "low": of.low, "high": of.high, **basis}


def _warning(of: Diagnostic) -> dict[str, Any]:
    return {
        "key": of.key,
        "severity": of.severity.value,
        "sentence": of.sentence,
        "remedy": of.remedy,
        "strip": of.strip,
        "frames": list(of.frames),
    }


def _sentences(diagnostics: tuple[Diagnostic, ...]) -> list[str]:
    return [f"{w.sentence} {w.remedy}" for w in diagnostics]


def _strip(of: StripMetrics, diagnostics: tuple[Diagnostic, ...]) -> dict[str, Any]:
    mine = tuple(w for w in diagnostics if w.strip == of.label)
    return {
        "time_min": of.time_min,
        "temperature_c": of.temperature_c,
        "restated_min": of.restated_min,
        "channel": of.channel,
        **{key: figure(found) for key, found in of.figures.items()},
        "iso_valid": of.iso_valid,
        "warnings": _sentences(mine),
    }


def _bound(nearest: float | None) -> dict[str, float]:
    return {} if nearest is None else {"nearest_tested_min": nearest}


def _finding(of: Finding) -> dict[str, Any]:
    report: dict[str, Any] = {
        "target": {"kind": of.target.kind, "value": of.target.value},
        "time_min": figure(of.time_min),
        "zone_ei": figure(of.zone_ei),
        "speed": figure(of.speed),
        "tested": of.tested,
        **_bound(of.nearest_tested_min),
    }
    if of.rule_of_thumb_min.present:
        report["rule_of_thumb_min"] = figure(of.rule_of_thumb_min)
    return report


def _push_row(of: PushRow) -> dict[str, Any]:
    lost = of.shadow_loss_stops.value
    words = {} if lost is None else {"verdict": shadow_verdict(lost).value}
    return {
        "time_min": figure(of.time_min),
        "shadow_loss_stops": figure(of.shadow_loss_stops),
        "average_gradient": figure(of.average_gradient),
        "tested": of.tested,
        "basis": of.basis.value,
        **_bound(of.nearest_tested_min),
        **words,
    }


def _push(of: Push) -> dict[str, Any]:
    return {
        "stops": of.stops,
        "exposure_index": of.exposure_index.value,
        "exposure_index_figure": figure(of.exposure_index),
        **{rule.value: _push_row(of.by(rule)) for rule in HoldRule},
        "hold_contrast": _push_row(of.hold_contrast),
        "makers_table": _push_row(of.makers_table),
        "fixed_share": _push_row(of.fixed_share),
    }


def _method(of: MethodAnswer) -> dict[str, Any]:
    return {
        "exposure_index": figure(of.exposure_index),
        "time_min": figure(of.time_min),
        "sentence": of.sentence,
    }


def _limits(of: PushLimits | None) -> dict[str, Any]:
    if of is None:
        return {}
    return {"last_usable": figure(of.last_usable), "last_salvageable": figure(of.last_salvageable)}


def _next_step(of: NextStep) -> dict[str, Any]:
    return {
        "act": of.act.value,
        "strip": of.strip,
        "frame": of.frame,
        "log_h": of.log_h,
        "time_min": of.time_min,
        "narrowing": of.narrowing,
    }


def answer_report(answer: OwnAnswer) -> dict[str, Any]:
    """What a kind says in its own words, as plain JSON data."""
    made: dict[str, Any] = {"says": answer.says, "words": answer.words, "next": answer.act}
    made["figures"] = {
        key: figure(value) if isinstance(value, Figure) else value
        for key, value in answer.figures.items()
    }
    if answer.table is not None:
        made["table"] = {
            "heads": list(answer.table.heads),
            "rows": [list(row) for row in answer.table.rows],
        }
    for name, table in zip(_MORE_TABLES, answer.more, strict=False):
        made[name] = {"heads": list(table.heads), "rows": [list(row) for row in table.rows]}
    return made


def report_of(analysis: Analysis, source: str) -> dict[str, Any]:
    """The whole report as plain JSON data.

    Parameters
    ----------
    analysis : Analysis
    source : str
        Name of the file or test it came from.
    """
    return {
        "schema": REPORT_SCHEMA,
        "source": source,
        "meter_constant": analysis.settings.meter_constant,
        "reading_noise": analysis.noise,
        "strips": {s.label: _strip(s, analysis.diagnostics) for s in analysis.strips},
        "iso": {
            "time_min": figure(analysis.iso.time_min),
            "speed": figure(analysis.iso.speed),
            "tested": analysis.iso.tested,
            **_bound(analysis.iso.nearest_tested_min),
        },
        "finding": _finding(analysis.finding),
        "push": [_push(p) for p in analysis.push],
        "schools": {a.method.key: _method(a) for a in analysis.methods},
        "push_limits": _limits(analysis.limits),
        "held_ei": {
            s.label: {"lowest": figure(h.lowest), "highest": figure(h.highest)}
            for s, h in zip(analysis.strips, analysis.held, strict=False)
        },
        "reversal_speed": figure(analysis.reversal_speed),
        "next_steps": [_next_step(n) for n in analysis.next_steps],
        "warnings": _sentences(analysis.diagnostics),
        "warning_details": [_warning(w) for w in analysis.diagnostics],
    }
