"""``vadrin analyse``: a report from a table of readings."""

from __future__ import annotations

import argparse
import json
import math
import sys
import time
from pathlib import Path
from typing import Any

import numpy as np

from vadrin.app.results.report import figure, report_of
from vadrin.commands.terminal_tables import tables_of
from vadrin.core.checks.setting_checks import stained
from vadrin.core.interruption import interruptible
from vadrin.core.materials.colour import colour_negative_speed
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import MEASURES, Target
from vadrin.core.wording import counted
from vadrin.errors import FormatError, UsageError
from vadrin.formats.readings.any_file import read_readings
from vadrin.formats.readings.readings_table import CHANNELS, ReadingsTable, strips_of
from vadrin.formats.whole_file import write_whole

PROGRESS_EVERY_S = 2.0


def target_of(text: str) -> Target:
    """Read ``KIND=VALUE``.

    Raises
    ------
    UsageError
        In one line, with the kinds there are.
    """
    kind, _, value = text.partition("=")
    if kind not in MEASURES:
        raise UsageError(f"--target: no kind “{kind}”; use one of {', '.join(MEASURES)}")
    try:
        number = float(value) if value else MEASURES[kind].usual
    except ValueError as error:
        raise UsageError(
            f"--target: “{value}” is not a number; try {kind}={MEASURES[kind].usual}"
        ) from error
    if not 0 < number < 30:
        raise UsageError(f"--target: {value} is out of reach; try {kind}={MEASURES[kind].usual}")
    return Target(kind, number)


def _pushes(text: str) -> tuple[float, ...]:
    try:
        pushes = tuple(float(part) for part in text.split(",") if part.strip())
    except ValueError as error:
        raise UsageError(f"--push: “{text}” is no list of stops; try -1,0,1,2") from error
    if not all(math.isfinite(p) and abs(p) <= 10 for p in pushes) or len(pushes) > 50:
        raise UsageError("--push: give up to 50 stops between -10 and 10, such as -1,0,1,2")
    return pushes


def _other_channels(
    table: ReadingsTable, main: str, settings: Settings
) -> dict[str, dict[str, Any]]:
    """A report for every channel but the main one, each on its own."""
    present = [c for c in CHANNELS if any(r.channel == c for r in table.rows)]
    return {
        channel: report_of(
            analyse(strips_of(table, settings.meter_constant, channel), settings), table.source
        )
        for channel in present
        if channel != main
    }


def _colour_speeds(table: ReadingsTable, settings: Settings) -> dict[str, Any]:
    """Colour negative speed of every strip whose three layers were read."""
    by_channel = {
        channel: {s.label: s for s in strips_of(table, settings.meter_constant, channel)}
        for channel in ("green", "red", "blue")
    }
    rng = np.random.default_rng(settings.seed)
    return {
        label: figure(
            colour_negative_speed(strip, (by_channel["red"][label], by_channel["blue"][label]), rng)
        )
        for label, strip in by_channel["green"].items()
        if label in by_channel["red"] and label in by_channel["blue"]
    }


def _stain(table: ReadingsTable) -> list[str]:
    """What stain does to the visual readings, where blue ones stand beside them."""
    keyed: dict[tuple[str, str], dict[str, float]] = {}
    for row in table.rows:
        keyed.setdefault((row.strip, row.frame), {})[row.channel] = row.density
    both = [(k["visual"], k["blue"]) for k in keyed.values() if {"visual", "blue"} <= set(k)]
    seen, printed = np.array(both).reshape(-1, 2).T
    return [f"{w.sentence} {w.remedy}" for w in stained(seen, printed)]


def _table(options: argparse.Namespace) -> ReadingsTable:
    try:
        table = read_readings(options.readings)
    except FormatError as error:
        raise UsageError(str(error)) from error
    if table.problems:
        more = len(table.problems) - 1
        rest = f" (and {more} more)" if more else ""
        raise UsageError(f"{table.source}, {table.problems[0].sentence()}{rest}")
    if table.left_out:
        print(table.left_out_words, file=sys.stderr)
    return table


def _settings(options: argparse.Namespace) -> Settings:
    constant = options.meter_constant
    if not (math.isfinite(constant) and 0 < constant < 1000):
        raise UsageError("--meter-constant: give a number above 0, such as 8.125 or 10")
    return Settings(
        target_of(options.target), pushes=_pushes(options.push), meter_constant=constant
    )


class _Progress:
    """A line on a terminal that says that long work goes on; nothing where it is read by a file."""

    def __init__(self, strips: int) -> None:
        self._strips, self._begun, self._told = strips, time.monotonic(), 0.0

    def tick(self) -> None:
        """Called often; says so once in a while."""
        passed = time.monotonic() - self._begun
        if passed - self._told >= PROGRESS_EVERY_S and sys.stderr.isatty():
            self._told = passed
            said = f"{counted(self._strips, 'strip')}, working for {passed:.0f} s; Ctrl+C stops it"
            print(said, file=sys.stderr, flush=True)


def run_analyse(options: argparse.Namespace) -> int:
    """Print the report, or write it where asked."""
    settings, table = _settings(options), _table(options)
    strips = strips_of(table, settings.meter_constant)
    with interruptible(_Progress(len(strips)).tick):
        analysis = analyse(strips, settings)
        report = report_of(analysis, options.readings.name)
        report["channels"] = _other_channels(table, strips[0].channel, settings)
        report["colour_negative_speed"] = _colour_speeds(table, settings)
    report["warnings"] += _stain(table)
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
        write_whole(path, text)
    except OSError as error:
        raise UsageError(
            f"{path}: {(error.strerror or 'cannot be written').lower()}; choose another place"
        ) from error
