"""Whether scans are read right, or doubted: ``python tools/scanner_trial.py [PICTURES] [SEED]``.

Pictures of `oracles.scanner`, every fault in turn and everything else at random strength, are
opened as the window opens them. A picture is wrong in silence where a frame reads off by more
than 0.05 and by more than four of its stated deviations, or is taken for another, and nothing is
doubted. Leaves with 1 where there is such a picture, or where more than 30 of 400 are refused or
warned of though they are right, or most of one condition's.
"""

from __future__ import annotations

import sys
import tempfile
import time
from collections import Counter, defaultdict
from dataclasses import replace
from pathlib import Path

import numpy as np

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from oracles.scanner import FAULTS, Picture, scanned  # noqa: E402
from vadrin.app.scans.scan_frames import Scan, other_way_round  # noqa: E402
from vadrin.app.scans.scan_reading import open_scan  # noqa: E402
from vadrin.app.scans.step_wedge import StepWedge  # noqa: E402
from vadrin.errors import VadrinError  # noqa: E402

_OFF, _DEVIATIONS = 0.05, 4.0
_READABLE = 0.8
"""Density that any picture shows, of eight bits and linear too."""
RIGHT, WRONG, WARNED, WARNED_RIGHT, REFUSED = (
    "right",
    "WRONG IN SILENCE",
    "warned, wrong",
    "warned, right",
    "refused",
)
AS_SEEN = ("none", "film fills", "skewed", "orange mask")
TO_BE_TOLD = tuple(f for f in FAULTS if f not in AS_SEEN)
"""Faults that may be told though what was read is right: something is wrong with the picture."""


def worst(scan: Scan, picture: Picture) -> tuple[float, int]:
    """The frame that is furthest off, as a share of what is allowed, and which one it is."""
    values = [scan.value_of(i) for i in range(scan.place.count)]
    off, which = 0.0, -1
    for place, value in enumerate(values):
        true = picture.truth[place] if place < len(picture.truth) else None
        if value.density is None:
            continue
        if true is None:
            continue
        allowed = max(_OFF, _DEVIATIONS * (value.deviation or 0.0))
        share = abs(value.density - true) / allowed
        if share > off:
            off, which = share, place
    if len(values) > len(picture.truth) and values[-1].density is not None:
        # A frame that is not there was read.
        return max(off, 9.9), len(values) - 1
    return off, which


def judged(picture: Picture) -> tuple[str, str]:
    """What became of a picture, and in which words."""
    try:
        scan = open_scan(picture.path, picture.script, StepWedge(picture.typed))
        # As the window does it, by the script: two blanks, and a bracket that rises.
        values = [v.density for v in scan.values]
        known = [(i, d) for i, d in enumerate(values) if d is not None]
        if len(known) > 2 and np.corrcoef(np.array(known).T)[0, 1] < 0:
            scan = other_way_round(scan)
        bracket = (None, None, *(float(n) for n in range(picture.script - 2)))
        scan = replace(scan, exposed=bracket)
    except VadrinError as error:
        return REFUSED, str(error)
    unread = [
        i
        for i, true in enumerate(picture.truth[: scan.place.count])
        if true is not None and true < _READABLE and scan.value_of(i).density is None
    ]
    if unread and not scan.doubts:
        return REFUSED, f"frames {unread} were not read: {scan.value_of(unread[0]).why}"
    off, which = worst(scan, picture)
    told = "; ".join(scan.doubts)
    words = f"off {off:.1f} at {which}; {told}"
    if off <= 1.0:
        return (WARNED_RIGHT if told else RIGHT), words
    return (WARNED if told else WRONG), words


def main(pictures: int = 95, seed: int = 1, *only: str) -> int:
    """Print the table by faults."""
    table: dict[str, Counter[str]] = defaultdict(Counter)
    slowest = 0.0
    with tempfile.TemporaryDirectory() as scratch:
        for number in range(pictures):
            fault = FAULTS[number % len(FAULTS)]
            if only and fault not in only:
                continue
            rng = np.random.default_rng((seed, number))
            picture = scanned(rng, fault, Path(scratch), f"{number}")
            begun = time.perf_counter()
            what, words = judged(picture)
            slowest = max(slowest, time.perf_counter() - begun)
            table[fault][what] += 1
            if what == WRONG or (only and what != RIGHT) or (fault == "none" and what != RIGHT):
                how = picture.conditions
                what += f" [{', '.join(sorted(how.faults))}]" if len(how.faults) > 1 else ""
                print(
                    f"{number} {fault}: {what}: {words} ({how.tone} {how.bits} {how.form} "
                    f"scatter {how.scatter:.3f} photons {how.photons:.0f})"[:230]
                )
            picture.path.unlink()
    for fault in FAULTS:
        if table[fault]:
            print(f"{fault:<28}" + ", ".join(f"{k} {v}" for k, v in sorted(table[fault].items())))
    every = sum(table.values(), Counter())
    needless = sum(t[WARNED_RIGHT] + t[REFUSED] for f, t in table.items() if f not in TO_BE_TOLD)
    print(f"in all: {dict(every)}; refused or warned for nothing: {needless}; {slowest:.1f} s")
    mostly = [
        f for f in AS_SEEN if 2 * (table[f][WARNED_RIGHT] + table[f][REFUSED]) > table[f].total()
    ]
    return int(every[WRONG] > 0 or needless > 30 / 400 * every.total() or bool(mostly))


if __name__ == "__main__":
    sys.exit(main(*(int(w) if w.isdigit() else w for w in sys.argv[1:])))  # type: ignore[arg-type]
