"""``vadrin practice``: a film nobody knows, and the truth in an envelope."""

from __future__ import annotations

import argparse
import math

from vadrin.app.entry.times import minutes_typed
from vadrin.app.practice.envelope import open_envelope
from vadrin.app.practice.envelope_words import Committed, envelope_lines
from vadrin.app.practice.practice_folder import write_practice
from vadrin.app.practice.practice_place import READINGS, TRUTH
from vadrin.core.results.analysis import analyse
from vadrin.core.simulation.practice_level import Level
from vadrin.core.wording import counted
from vadrin.errors import EntryError, FormatError, UsageError
from vadrin.formats.readings.any_file import read_readings
from vadrin.formats.readings.readings_table import strips_of

_MOST_SEED = 2**63


def run_practice_command(options: argparse.Namespace) -> int:
    """Write a practice film, or open the envelope of one.

    Raises
    ------
    UsageError
        In one line, with the remedy.
    """
    try:
        return _open(options) if options.open is not None else _write(options)
    except FormatError as error:
        raise UsageError(str(error)) from error


def seed_given(seed: int | None) -> int:
    """The number a film was asked for by.

    Raises
    ------
    UsageError
        If it is none.
    """
    if seed is None or not 0 <= seed < _MOST_SEED:
        raise UsageError("practice: give a whole number from 0 with --seed N")
    return seed


def _write(options: argparse.Namespace) -> int:
    made = write_practice(options.out, seed_given(options.seed), Level(options.level), options.json)
    print(
        f"{made.readings}: {counted(made.strips, 'strip')}, {counted(made.frames, 'reading')}, "
        f"{made.box_speed:g} on its box."
    )
    print(f"{options.out / TRUTH}: the truth, sealed. Digest {made.digest[:16]}.")
    print("Decide on an EI and a time for average gradient 0.58, and then:")
    print(f"vadrin practice --open {options.out} --ei EI --time M:SS")
    return 0


def _open(options: argparse.Namespace) -> int:
    truth = open_envelope(options.open)
    table = read_readings(options.open / READINGS)
    for line in envelope_lines(truth, _committed(options), analyse(strips_of(table))):
        print(line)
    return 0


def _committed(options: argparse.Namespace) -> Committed:
    index = options.ei
    if index is not None and not (math.isfinite(index) and 0 < index <= 100_000):
        raise UsageError("practice: --ei is an EI above 0, such as 125")
    try:
        minutes = minutes_typed(options.time) if options.time else None
    except EntryError as error:
        raise UsageError(f"practice: --time: {error}") from error
    return Committed(index, minutes)
