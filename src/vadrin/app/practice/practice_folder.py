"""A practice film as a folder: readings as a tester would have them, the truth sealed beside."""

from __future__ import annotations

import json
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from vadrin.app.practice.envelope import sealed
from vadrin.app.practice.practice_place import READINGS, TRUTH
from vadrin.app.practice.practice_truth import truth_of
from vadrin.core.simulation.practice_film import draw_film
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_run import PracticeTest, Practised, run_practice
from vadrin.errors import FormatError
from vadrin.formats.readings.any_file import write_readings
from vadrin.formats.readings.readings_table import ReadingsTable, TableRow
from vadrin.formats.whole_file import write_whole


@dataclass(frozen=True)
class PracticeFolder:
    """What was written: the readings, the box speed, and the digest of the envelope."""

    readings: Path
    strips: int
    frames: int
    box_speed: float
    digest: str


def practice_test(seed: int, level: Level) -> PracticeTest:
    """The practice film of a seed and level, always the same."""
    rng = np.random.default_rng([seed, list(Level).index(level)])
    return run_practice(draw_film(rng), level, rng)


def rows_of(test: PracticeTest) -> list[TableRow]:
    """The readings of a practice test, frame by frame."""
    return [
        TableRow(
            0,
            strip.label,
            _name(place, stops),
            density,
            time_min=strip.time_min,
            temperature_c=strip.temperature_c,
            ei=None if stops is None else test.film.box_speed,
            stops=stops,
        )
        for strip in test.strips
        for place, (stops, density) in enumerate(_frames(strip), start=1)
    ]


def _frames(strip: Practised) -> list[tuple[float | None, float]]:
    return list(zip(strip.stops, strip.densities, strict=True))


def _name(place: int, stops: float | None) -> str:
    return f"b{place}" if stops is None else str(place)


def write_practice(folder: Path, seed: int, level: Level, as_json: bool = False) -> PracticeFolder:
    """Write a practice film into a folder; what stands there is never written over.

    Parameters
    ----------
    folder : Path
        Made where it is not there yet.
    seed : int
    level : Level
    as_json : bool
        Whether the readings are written as JSON, too, for other programs.

    Raises
    ------
    FormatError
        If something of the kind is there already, or it cannot be written.
    """
    names = (READINGS, TRUTH, *(("readings.json",) if as_json else ()))
    there = next((name for name in names if (folder / name).exists()), None)
    if there is not None:
        raise FormatError(f"{folder / there}: is there already; choose another folder")
    test = practice_test(seed, level)
    envelope = sealed(truth_of(test, seed, level))
    table = ReadingsTable(READINGS, tuple(rows_of(test)))
    try:
        folder.mkdir(parents=True, exist_ok=True)
        write_readings(table, folder / READINGS)
        if as_json:
            write_readings(table, folder / "readings.json")
        write_whole(folder / TRUTH, json.dumps(envelope, indent=1) + "\n")
    except OSError as error:
        raise FormatError(f"{folder}: {(error.strerror or 'cannot be written').lower()}") from error
    frames = sum(len(strip.densities) for strip in test.strips)
    return PracticeFolder(
        folder / READINGS, len(test.strips), frames, test.film.box_speed, envelope["sha256"]
    )
