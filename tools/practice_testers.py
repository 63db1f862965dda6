"""Scripted testers at practice films, through the notebook as a person goes through it.

::

    PYTHONPATH=src python tools/practice_testers.py [FILMS] [LEVEL …]

Four testers take turns: a careful one reads every frame twice and says what went wrong; a hasty
one develops two strips; one rates everything a third of a stop too high; one never looks at the
thermometer. Of each the envelope must say what is true of it: its row's error is what the film's
own physics say, what went wrong is what was drawn. Exit 0 where it does, and where 90 to 98 of 100
of the program's ranges held on plain and usual films for those who treat film as they note it.
"""

from __future__ import annotations

import sys
import tempfile
from collections import Counter
from dataclasses import dataclass, replace
from math import log2
from pathlib import Path

import numpy as np

from vadrin.app.document.state import State, answered
from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.plan_edit import apply_plan, plan_edit_of
from vadrin.app.practice.commitment import Belief, Commitment
from vadrin.app.practice.envelope_report import compared
from vadrin.app.practice.practice_notebook import begin_practice
from vadrin.app.practice.practised_film import densities_under_aperture, film_in, world_of
from vadrin.app.process.development import develop_strip
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.results.rating import rating_of
from vadrin.core.channels import Channel
from vadrin.core.frames import FrameState
from vadrin.core.simulation.practice_level import Level
from vadrin.errors import EntryError
from vadrin.notebook.records import MakerTime
from vadrin.notebook.store import Notebook

_FEWEST, _MOST = 0.90, 0.99
_FILMS = 200


@dataclass(frozen=True)
class Tester:
    """How somebody tests.

    Attributes
    ----------
    name : str
    shares : tuple of float
        Times of the strips, beside the maker's.
    repeats : int
        Readings of each frame.
    bias_stops : float
        By which what they say of the EI is off from what they found.
    warmth_c : float
        By which a strip's bath is off from what they note, each strip another way.
    """

    name: str
    shares: tuple[float, ...] = (0.6, 0.85, 1.2, 1.8)
    repeats: int = 1
    bias_stops: float = 0.0
    warmth_c: float = 0.0


TESTERS = (
    Tester("careful", repeats=2),
    Tester("hasty", shares=(0.7, 1.5)),
    Tester("biased", bias_stops=1 / 3),
    Tester("careless", warmth_c=1.5),
)


@dataclass
class Played:
    """One film played to the envelope: what came of it."""

    index_held: bool | None
    time_held: bool | None
    faults: list[str]


def tested(book: Notebook, test_id: int, tester: Tester, seed: int) -> State:
    """A practice film planned, shot, developed and read; gives its answer."""
    loaded = _plan(book, test_id, tester)
    _develop(book, loaded, tester, np.random.default_rng(seed))
    _read(book, book.path, _loaded(book, test_id), tester, np.random.default_rng(seed + 1))
    return answered(_loaded(book, test_id))


def play(place: Path, seed: int, level: Level, tester: Tester) -> Played:
    """One film, from the plan to the envelope."""
    begun = begin_practice(place, level, "time", seed)
    book = Notebook(begun.notebook)
    try:
        return _held_against(begun.notebook, tested(book, begun.test_id, tester, seed), tester)
    finally:
        book.close()


def _loaded(book: Notebook, test_id: int) -> LoadedTest:
    loaded = load_test(book, test_id)
    assert loaded is not None
    return loaded


def _plan(book: Notebook, test_id: int, tester: Tester) -> LoadedTest:
    loaded = _loaded(book, test_id)
    (makers,) = book.all(MakerTime)
    times = tuple(round(12 * makers.time_min * share) / 12 for share in tester.shares)
    apply_plan(book, replace(plan_edit_of(book, loaded), times=times), "its times")
    loaded = _loaded(book, test_id)
    with book.change("shot"):
        for _, frame in loaded.frames():
            mark_frame(book, frame.frame, FrameState.EXPOSED)
    return _loaded(book, test_id)


def _develop(book: Notebook, loaded: LoadedTest, tester: Tester, rng: np.random.Generator) -> None:
    """What is noted is what is done, but by the careless: the film gets their real bath first."""
    for strip in loaded.strips:
        off = tester.warmth_c * float(rng.choice((-1.0, 1.0)))
        develop_strip(book, strip.strip, strip.strip.planned_min, 20.0 + off)
    if not tester.warmth_c:
        return
    # Looked at once, the film is as it is; what is noted afterwards changes nothing on it.
    warm = _loaded(book, loaded.test.id)
    densities_under_aperture(book.path, warm, warm.strips[0], warm.strips[0].frames[0])
    for strip in warm.strips:
        develop_strip(book, strip.strip, strip.strip.time_min, 20.0)


def _read(
    book: Notebook, path: Path, loaded: LoadedTest, tester: Tester, rng: np.random.Generator
) -> None:
    noise = world_of(path.parent).noise
    with book.change("read"):
        for turn in range(tester.repeats):
            # The second time there is a reading already, and the aperture lies right.
            now = loaded if turn == 0 else _loaded(book, loaded.test.id)
            for strip in now.strips:
                for frame in strip.frames:
                    try:
                        true = densities_under_aperture(path, now, strip, frame)[Channel.VISUAL]
                    except EntryError:
                        continue
                    read = max(0.0, true + noise * float(rng.standard_normal()))
                    add_reading(book, frame, round(read, 2), Channel.VISUAL)


def _held_against(path: Path, state: State, tester: Tester) -> Played:
    rating = rating_of(state)
    mine = None if rating.index.value is None else rating.index.value * 2.0**tester.bias_stops
    said = Commitment({"index": Belief(mine), "time_min": Belief(rating.time_min.value)})
    rows, traps = compared(path, state, said)
    film, faults = world_of(path.parent).film, []
    normal = film.time_for_gradient()
    true = film.zone_ei(normal) if normal is not None else None
    by_name = {row.name: row for row in rows}
    if mine is not None and true is not None and "time" in by_name:
        off = by_name["EI"].off(mine)
        if off is None or abs(off - log2(mine / true)) > 1e-9:
            faults.append("the error of the EI is not that of the film")
    drawn = {trap.kind for trap in world_of(path.parent).traps}
    if {t["kind"] for t in film_in(path.parent)["traps"]} - {k.value for k in drawn}:
        faults.append("something went wrong that was not drawn")
    if len(traps) != len(film_in(path.parent)["traps"]):
        faults.append("the envelope does not say all that went wrong")
    time = by_name.get("time")
    return Played(by_name["EI"].found_holds, time.found_holds if time is not None else None, faults)


def main() -> int:
    """Let every tester play films of the levels that are named, or of plain, usual and hard."""
    films = int(sys.argv[1]) if len(sys.argv) > 1 else _FILMS
    levels = [Level(word) for word in sys.argv[2:]] or [Level.PLAIN, Level.USUAL, Level.HARD]
    good = True
    for level in levels:
        held: dict[str, list[bool]] = {"EI": [], "time": []}
        faults: Counter[str] = Counter()
        for seed in range(films):
            tester = TESTERS[seed % len(TESTERS)]
            with tempfile.TemporaryDirectory() as place:
                played = play(Path(place), seed, level, tester)
            faults.update(played.faults)
            if tester.warmth_c:
                continue
            for name, inside in (("EI", played.index_held), ("time", played.time_held)):
                if inside is not None:
                    held[name].append(inside)
        counts = ", ".join(f"{name} {sum(many)} of {len(many)}" for name, many in held.items())
        print(
            f"{level.value}: {counts} held; {dict(faults) or 'the envelopes are true'}", flush=True
        )
        shares = [sum(many) / max(len(many), 1) for many in held.values()]
        good &= not faults
        good &= level is Level.HARD or all(_FEWEST <= share <= _MOST for share in shares)
    return 0 if good else 1


if __name__ == "__main__":
    sys.exit(main())
