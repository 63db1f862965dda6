"""``vadrin analyse``: a report from a table of readings."""

from __future__ import annotations

import argparse
import json
import math
import sys
from pathlib import Path

from vadrin.app.words import loss_text, minutes_text, push_name
from vadrin.commands import UsageError
from vadrin.core.analysis import Analysis, Settings, analyse
from vadrin.core.family import TARGETS, Target
from vadrin.core.figure import Figure
from vadrin.formats.readings_csv import read_readings_csv
from vadrin.formats.readings_table import FormatError, strips_of
from vadrin.formats.report_json import report_of


def target_of(text: str) -> Target:
    """Read ``KIND=VALUE``.

    Raises
    ------
    UsageError
        In one line, with the kinds there are.
    """
    kind, _, value = text.partition("=")
    if kind not in TARGETS:
        raise UsageError(f"--target: no kind “{kind}”; use one of {', '.join(TARGETS)}")
    try:
        number = float(value) if value else TARGETS[kind]
    except ValueError as error:
        raise UsageError(
            f"--target: “{value}” is not a number; try {kind}={TARGETS[kind]}"
        ) from error
    if not 0 < number < 30:
        raise UsageError(f"--target: {value} is out of reach; try {kind}={TARGETS[kind]}")
    return Target(kind, number)


def _pushes(text: str) -> tuple[float, ...]:
    try:
        pushes = tuple(float(part) for part in text.split(",") if part.strip())
    except ValueError as error:
        raise UsageError(f"--push: “{text}” is no list of stops; try -1,0,1,2") from error
    if not all(math.isfinite(p) and abs(p) <= 10 for p in pushes) or len(pushes) > 50:
        raise UsageError("--push: give up to 50 stops between -10 and 10, such as -1,0,1,2")
    return pushes


def _analysis(options: argparse.Namespace) -> Analysis:
    constant = options.meter_constant
    if not (math.isfinite(constant) and 0 < constant < 1000):
        raise UsageError("--meter-constant: give a number above 0, such as 8.125 or 10")
    settings = Settings(
        target_of(options.target), pushes=_pushes(options.push), meter_constant=constant
    )
    try:
        table = read_readings_csv(options.readings)
    except FormatError as error:
        raise UsageError(str(error)) from error
    if table.problems:
        more = len(table.problems) - 1
        rest = f" (and {more} more)" if more else ""
        raise UsageError(f"{table.source}, {table.problems[0].sentence()}{rest}")
    return analyse(strips_of(table, constant), settings)


def run_analyse(options: argparse.Namespace) -> int:
    """Print the report, or write it where asked."""
    analysis = _analysis(options)
    report = report_of(analysis, options.readings.name)
    text = json.dumps(report, ensure_ascii=False, indent=1, allow_nan=False)
    if options.out is not None:
        _write(options.out, text + "\n")
    if options.json:
        print(text)
    elif options.out is None:
        print("\n".join(tables_of(analysis)))
    else:
        print(f"{options.out} written", file=sys.stderr)
    return 0


def _write(path: Path, text: str) -> None:
    try:
        path.write_text(text, encoding="utf-8")
    except OSError as error:
        raise UsageError(f"{path}: {(error.strerror or 'cannot be written').lower()}; "
                         "choose another place") from error  # fmt: skip


def _shown(figure: Figure, places: int) -> str:
    if figure.value is None:
        return "—"
    if figure.low is None or figure.high is None:
        return f"{figure.value:.{places}f}"
    return f"{figure.value:.{places}f} ({figure.low:.{places}f}–{figure.high:.{places}f})"


def _time(figure: Figure) -> str:
    return figure.why if figure.value is None else minutes_text(figure.value)


def tables_of(analysis: Analysis) -> list[str]:
    """The report as lines for a terminal."""
    row = "{:<6}{:>7}  {:<20}{:<20}{:<22}{:<18}"
    lines = [row.format("strip", "min", "Zone I EI", "speed", "average gradient", "b+f")]
    for s in analysis.strips:
        time = "—" if s.time_min is None else f"{s.time_min:g}"
        cells = (
            _shown(s.zone_ei, 0),
            _shown(s.speed, 0),
            _shown(s.average_gradient, 3),
            _shown(s.base_fog, 2),
        )
        lines.append(row.format(s.label, time, *cells))
    finding = analysis.finding
    lines += [
        "",
        f"finding at {finding.target.kind} {finding.target.value:g}: "
        f"EI {_shown(finding.zone_ei, 0)}, time {_time(finding.time_min)}",
    ]
    if finding.rule_of_thumb_min.value is not None:
        lines.append(f"rule of thumb, not measured: {_time(finding.rule_of_thumb_min)}")
    for push in analysis.push:
        held = push.hold_highlight
        index = push.exposure_index.value
        loss = held.shadow_loss_stops.value
        cost = "" if loss is None else f", shadow lost: {loss_text(loss)}"
        shown = "—" if index is None else f"{index:.0f}"
        lines.append(f"{push_name(push.stops):<9} EI {shown:<6} {_time(held.time_min)}{cost}")
    lines += [f"{w.severity.value}: {w.sentence} {w.remedy}" for w in analysis.warnings]
    return lines
