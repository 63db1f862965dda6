"""A report as lines for a terminal, from the same rows as the screen's."""

from __future__ import annotations

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.results.metric_rows import SHOWN_FIGURES, Cell, index_cell, strip_cell
from vadrin.app.results.push_rows import RULE_NAMES, PushLine, push_lines
from vadrin.app.results.target_words import target_text
from vadrin.core.results.analysis_result import Analysis
from vadrin.core.results.hold_rule import HoldRule

_SHOWN = ("zone_ei", "speed", "average_gradient", "base_fog")
_STRIP_ROW = "{:<6}{:>7}  " + "{:<24}" * len(_SHOWN)
_PUSH_ROW = "{:<9} EI {:<6} {:<28}{}"


def _plain(cell: Cell) -> str:
    return cell.with_spread


def _strip_lines(analysis: Analysis) -> list[str]:
    figures = [next(f for f in SHOWN_FIGURES if f.key == key) for key in _SHOWN]
    lines = [_STRIP_ROW.format("strip", "min", *(f.name for f in figures))]
    for strip in analysis.strips:
        time = "—" if strip.time_min is None else f"{strip.time_min:g}"
        cells = [_plain(strip_cell(strip, figure)) for figure in figures]
        lines.append(_STRIP_ROW.format(strip.label, time, *cells).rstrip())
    return lines


def _finding_lines(analysis: Analysis) -> list[str]:
    finding = analysis.finding
    time = finding.time_min
    shown = time.why if time.value is None else minutes_text(time.value)
    target = target_text(finding.target.kind, finding.target.value)
    lines = [f"finding at {target}: EI {_plain(index_cell(finding.zone_ei))}, time {shown}"]
    if finding.rule_of_thumb_min.value is not None:
        lines.append(
            f"rule of thumb, not measured: {minutes_text(finding.rule_of_thumb_min.value)}"
        )
    return lines


def _push_line(line: PushLine) -> str:
    cost = f"shadow detail: {line.loss} ({shadow_words(line.verdict)})" if line.verdict else ""
    time = line.time.why or line.time.with_spread
    return _PUSH_ROW.format(line.name, line.index, time, cost).rstrip()


def tables_of(analysis: Analysis) -> list[str]:
    """The report as lines for a terminal."""
    lines = [*_strip_lines(analysis), "", *_finding_lines(analysis)]
    if analysis.push:
        lines += [
            f"pushes, {RULE_NAMES[HoldRule.HIGHLIGHT]}:",
            *map(_push_line, push_lines(analysis)),
        ]
    return lines + [f"{d.severity.value}: {d.sentence} {d.remedy}" for d in analysis.diagnostics]
