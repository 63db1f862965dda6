"""What is on a practice film: fixed when a developed strip is first looked at, and sealed.

What a tester writes down later about a strip changes the record, and nothing on the film.
"""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np

from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.practice.envelope import open_envelope, opened, sealed
from vadrin.app.practice.noted_strips import LIT, can_be_looked_at, on_paper, treated, waits_words
from vadrin.app.practice.practice_place import FILM, TRUTH
from vadrin.core.arrays import Array
from vadrin.core.channels import LAYERS, Channel
from vadrin.core.planning.test_types.clip import Clip
from vadrin.core.planning.test_types.colour_push import ColourPush
from vadrin.core.planning.test_types.compare import Compare
from vadrin.core.planning.test_types.long_exposures import LongExposures
from vadrin.core.planning.test_types.paper import PaperTest
from vadrin.core.planning.test_types.process_control import ProcessControl
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.core.planning.test_types.two_developers import TwoDevelopers
from vadrin.core.simulation.practice_drawing import DRAWS, Beside, draw_world
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_trap import OF_ALL, TrapKind
from vadrin.core.simulation.practice_world import PracticeWorld, TreatedStrip
from vadrin.errors import EntryError, FormatError
from vadrin.formats.whole_file import write_whole

NOTHING: dict[str, Any] = {"strips": {}, "base": {}, "worth": {}, "traps": []}
"""A film of which nothing was developed."""
_BESIDE = {
    LongExposures.key: Beside.LONG_EXPOSURES,
    TwoDevelopers.key: Beside.DEVELOPER,
    Compare.key: Beside.BATCH,
    ColourPush.key: Beside.LAYERS,
    Rescue.key: Beside.YEARS,
    Clip.key: Beside.OLD_BOTTLE,
    ProcessControl.key: Beside.RUNS,
    PaperTest.key: Beside.PAPER,
}


@lru_cache(maxsize=16)
def world_drawn(seed: int, level: Level, kind: str = "time", draws: int = DRAWS) -> PracticeWorld:
    """The film of a seed and level for a type of test, always the same."""
    rng = np.random.default_rng([seed, list(Level).index(level), 1])
    return draw_world(rng, level, _BESIDE.get(kind, Beside.NOTHING), draws)


def world_of(folder: Path) -> PracticeWorld:
    """The film that lies in a practice folder.

    Raises
    ------
    FormatError
        As `open_envelope`.
    """
    truth = open_envelope(folder)
    try:
        kind, draws = str(truth.get("kind", "time")), int(truth.get("draws", 1))
        return world_drawn(int(truth["seed"]), Level(truth["level"]), kind, draws)
    except (KeyError, ValueError, TypeError) as error:
        raise FormatError(f"{folder / TRUTH}: no practice film of this program") from error


def film_in(folder: Path) -> dict[str, Any]:
    """What is on the film by now: densities by strip and frame, and what went wrong.

    Raises
    ------
    FormatError
        If it was changed.
    """
    path = folder / FILM
    try:
        film = opened(path.read_text("utf-8"), str(path))
    except (OSError, UnicodeDecodeError) as error:
        raise FormatError(f"{path}: the film is gone; begin another") from error
    if not all(isinstance(film.get(name), type(empty)) for name, empty in NOTHING.items()):
        raise FormatError(f"{path}: no film of this program; begin another")
    return film


def put_film(folder: Path, film: dict[str, Any]) -> None:
    """Seal what is on the film.

    Raises
    ------
    FormatError
        If it cannot be written.
    """
    try:
        write_whole(folder / FILM, json.dumps(sealed(film)) + "\n")
    except OSError as error:
        raise FormatError(f"{folder / FILM}: cannot be written; free the disk") from error


def _lit(log_h: Array) -> list[int]:
    return [int(i) for i in np.flatnonzero(np.isfinite(log_h))]


def _develop(folder: Path, loaded: LoadedTest) -> dict[str, Any]:
    """The film with every strip on it that was developed since it was looked at last."""
    film, world = film_in(folder), world_of(folder)
    fresh = [
        treated(loaded, s)
        if can_be_looked_at(loaded, s) and str(s.strip.id) not in film["strips"]
        else None
        for s in loaded.strips
    ]
    if not any(fresh):
        return film
    brought_out = world.printed(fresh) if on_paper(loaded) else world.developed(fresh)
    for strip, made in zip(loaded.strips, brought_out, strict=True):
        if made is None:
            continue
        layers = {"": (made.densities, made.base_fog), **made.layers}
        for channel, (dense, base) in layers.items():
            film["strips"][_key(strip, channel)] = {
                str(f.frame.id): None if np.isnan(d) else round(float(d), 5)
                for f, d in zip(strip.frames, dense, strict=True)
            }
            film["base"][_key(strip, channel)] = round(base, 5)
        film["worth"][str(strip.strip.id)] = round(made.minutes_at_20, 5)
    _note_traps(film, world, loaded, fresh)
    put_film(folder, film)
    return film


def _note_traps(
    film: dict[str, Any], world: PracticeWorld, loaded: LoadedTest, fresh: list[TreatedStrip | None]
) -> None:
    for trap in world.traps:
        place = trap.strip_of(len(fresh))
        mine, after = fresh[place], fresh[place + 1] if place + 1 < len(fresh) else None
        happened = mine is not None or (trap.kind in OF_ALL and any(fresh))
        if trap.kind is TrapKind.LABELS:
            happened = mine is not None and after is not None
        if not happened or not world.happens(trap, len(fresh)):
            continue
        strip, frame = loaded.strips[place], ""
        if mine is not None:
            lit = _lit(mine.log_h)
            frame = strip.frames[lit[trap.frame_of(len(lit))]].called if lit else ""
        said = {
            "kind": trap.kind.value,
            "strip": "" if trap.kind in OF_ALL else strip.strip.label,
            "words": trap.words(strip.strip.label, frame),
        }
        if said not in film["traps"]:
            film["traps"].append(said)


def _key(strip: LoadedStrip, channel: str = "") -> str:
    """Under which the densities of a strip are kept, those of a layer of colour film apart."""
    return f"{strip.strip.id} {channel}".strip()


def density_on(
    notebook: Path, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame, channel: str = ""
) -> float:
    """True density of a frame of the practice film; of colour film that of green, or of a layer.

    Raises
    ------
    EntryError
        If its strip is not developed yet, or there is no film there.
    """
    if not can_be_looked_at(loaded, strip):
        raise EntryError(waits_words(loaded, strip))
    mine = _develop(notebook.parent, loaded)["strips"].get(_key(strip, channel), {})
    density = mine.get(str(frame.frame.id))
    if density is None:
        raise EntryError(f"there is no film at {frame.called} of strip {strip.strip.label}")
    return float(density)


def densities_under_aperture(
    notebook: Path, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> dict[Channel, float]:
    """Densities under the densitometer's aperture, which may be laid wrongly the first time; of
    colour film three.

    Raises
    ------
    EntryError
        As `density_on`.
    """
    world, off = world_of(notebook.parent), _laid_wrongly(notebook, loaded, strip, frame)
    if not world.layers:
        return {Channel.VISUAL: density_on(notebook, loaded, strip, frame) + off}
    kept = {Channel.GREEN: "", **{Channel(name): name for name in world.layers}}
    return {
        channel: density_on(notebook, loaded, strip, frame, kept[channel]) + off
        for channel in LAYERS
    }


def _laid_wrongly(
    notebook: Path, loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> float:
    """By how much the first reading of a frame is off."""
    lit = [f.frame.id for f in strip.frames if f.frame.state in LIT and not f.frame.blank]
    if frame.readings or frame.frame.id not in lit:
        return 0.0
    world, at = world_of(notebook.parent), loaded.strips.index(strip)
    return world.misread(at, len(loaded.strips), lit.index(frame.frame.id), len(lit))


def base_on(notebook: Path, loaded: LoadedTest, strip: LoadedStrip) -> float:
    """True base plus fog of a developed strip.

    Raises
    ------
    EntryError
        If it is not developed yet.
    """
    if not can_be_looked_at(loaded, strip):
        raise EntryError(waits_words(loaded, strip))
    return float(_develop(notebook.parent, loaded)["base"].get(str(strip.strip.id), 0.0))
