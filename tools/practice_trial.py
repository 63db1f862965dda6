"""Practice films by the hundred, worked out as the program does: how often its ranges hold.

::

    python tools/practice_trial.py [FILMS] [LEVEL …]

Exit 0 where, on plain and usual films, 90 to 98 of 100 ranges of EI and of time hold the truth.
"""

from __future__ import annotations

import sys
from collections import Counter

from vadrin.app.practice.envelope_words import holds
from vadrin.app.practice.practice_folder import practice_test, rows_of
from vadrin.app.practice.practice_truth import truth_of
from vadrin.core.results.analysis import analyse
from vadrin.core.simulation.practice_level import Level
from vadrin.formats.readings.readings_table import ReadingsTable, strips_of

_FEWEST, _MOST = 0.90, 0.99
_FILMS = 200


def _of_level(level: Level, films: int) -> bool:
    """Print what came of a level; whether its ranges held as often as they say."""
    held: dict[str, list[bool]] = {"EI": [], "time": []}
    missed: Counter[str] = Counter()
    for seed in range(films):
        test = practice_test(seed, level)
        found = truth_of(test, seed, level)["finding"]
        told = analyse(strips_of(ReadingsTable("", tuple(rows_of(test))))).finding
        pairs = {"EI": (told.zone_ei, "zone_ei"), "time": (told.time_min, "time_min")}
        for name, (figure, key) in pairs.items():
            inside = holds(figure, found[key])
            if inside is not None:
                held[name].append(inside)
                missed[test.film.shape] += not inside
    shares = {name: sum(many) / max(len(many), 1) for name, many in held.items()}
    counts = ", ".join(f"{name} {sum(m)} of {len(m)}" for name, m in held.items())
    print(f"{level.value}: {counts} held; missed by shape: {dict(missed.most_common(5))}")
    return level is Level.HARD or all(_FEWEST <= share <= _MOST for share in shares.values())


def main() -> int:
    """Try the levels that are named, or all."""
    films = int(sys.argv[1]) if len(sys.argv) > 1 else _FILMS
    levels = [Level(word) for word in sys.argv[2:]] or list(Level)
    kept = [_of_level(level, films) for level in levels]
    return 0 if all(kept) else 1


if __name__ == "__main__":
    sys.exit(main())
