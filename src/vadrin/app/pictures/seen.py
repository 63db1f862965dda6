"""A picture of a scene on a test's film, point by point, ready for a screen."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import log2, log10

import numpy as np
from numpy.typing import NDArray

from vadrin.app.document.state import State
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.scenes import light_of, scene_named
from vadrin.core.pictures.developed_film import DevelopedFilm, developed
from vadrin.core.pictures.picture import (
    GROUNDS,
    USUAL_FLARE,
    Ground,
    PrintRule,
    Tones,
    looked_up,
    screen_levels,
    tones_of,
)
from vadrin.core.pictures.scene import (
    CODES_A_STOP,
    LEAST_STOPS,
    log_h_of_codes,
    mean_luminance,
    metered_luminance,
)
from vadrin.core.results.analysis_result import Analysis

CHANNELS = ("red", "green", "blue")
_WORTH_A_WORD = 0.002
"""Share of a picture from which what is lost is named."""


@dataclass(frozen=True, eq=False)
class Seen:
    """One picture.

    Attributes
    ----------
    levels : ndarray of uint8, shape (rows, columns) or (rows, columns, 3)
        Of the display, in sRGB.
    ground : ndarray of uint8, shape (rows, columns)
        A place in `core.pictures.picture.GROUNDS` at every point.
    tones : Tones
        Of the one layer, or of the green one.
    """

    levels: NDArray[np.uint8]
    ground: NDArray[np.uint8]
    tones: Tones

    def share(self, ground: Ground) -> float:
        """How much of the picture is of a kind, 0 to 1."""
        return float((self.ground == GROUNDS.index(ground)).mean())


def in_colour(analysis: Analysis) -> bool:
    """Whether pictures have three layers of their own."""
    return {s.channel for s in analysis.layers} >= set(CHANNELS)


def film_of(analysis: Analysis, exposed: Exposed, channel: str | None) -> DevelopedFilm | None:
    """The film of a picture; None where its development was not tested."""
    if exposed.why:
        return None
    if exposed.strip and channel is None:
        own = [s for s in analysis.strips if s.label == exposed.strip]
        return DevelopedFilm(own[0].restated_min, own[0].curve, own[0].curve, 0.0, own[0].first,
                             own[0].last) if own else None  # fmt: skip
    return developed(analysis, exposed.minutes, channel)


@lru_cache(maxsize=16)
def _light_met(scene: str, spot: str) -> tuple[float, float]:
    """What the meter reads there, and the mean of the scene."""
    known = scene_named(scene)
    return metered_luminance(known, known.spot(spot)), mean_luminance(known)


def tones_through(
    state: State, exposed: Exposed, looking: Looking, paper: PaperUsed, channel: str | None = None
) -> Tones | None:
    """Every code of light through film and paper; None where that was not tested."""
    analysis = state.settled()
    film = film_of(analysis, exposed, channel)
    if film is None:
        return None
    constant = state.loaded.test.meter_constant
    metered, mean = _light_met(looking.scene, looking.spot)
    log_h = log_h_of_codes(exposed.exposure_index, constant, metered, USUAL_FLARE, mean)
    middle = log10(constant / exposed.exposure_index * (1 + USUAL_FLARE * mean / metered))
    # Colour is printed so that what was metered is neutral: each layer by its own mid-tone.
    rule = PrintRule.MID_TONE_HELD if channel is not None else looking.rule
    return tones_of(film, log_h, paper.paper, rule, middle)


def seen(
    state: State, exposed: Exposed, looking: Looking, paper: PaperUsed, shrunk: int = 1
) -> Seen | None:
    """The picture of a scene on a test's film; None where its development was not tested."""
    if in_colour(state.settled()):
        return _in_layers(state, exposed, looking, paper, shrunk)
    tones = tones_through(state, exposed, looking, paper)
    if tones is None:
        return None
    light = light_of(looking.scene, shrunk, None)
    levels = looked_up(_levels(tones, looking), light)
    return Seen(levels, looked_up(tones.ground, light), tones)


def _in_layers(
    state: State, exposed: Exposed, looking: Looking, paper: PaperUsed, shrunk: int
) -> Seen | None:
    layers, grounds, kept = [], [], None
    for number, channel in enumerate(CHANNELS):
        tones = tones_through(state, exposed, looking, paper, channel)
        if tones is None:
            return None
        light = light_of(looking.scene, shrunk, number)
        layers.append(looked_up(_levels(tones, looking), light))
        grounds.append(looked_up(tones.ground, light))
        kept = tones if channel == "green" else kept
    assert kept is not None
    same = (grounds[0] == grounds[1]) & (grounds[1] == grounds[2])
    unread = np.any(np.stack(grounds) == GROUNDS.index(Ground.UNREAD), axis=0)
    ground = np.where(same, grounds[1], GROUNDS.index(Ground.SEEN))
    ground = np.where(unread, GROUNDS.index(Ground.UNREAD), ground).astype(np.uint8)
    return Seen(np.stack(layers, axis=-1), ground, kept)


def _levels(tones: Tones, looking: Looking) -> NDArray[np.uint8]:
    return screen_levels(tones.density if looking.negative else tones.reflection)


def lost_words(picture: Seen, looking: Looking) -> str:
    """What of the scene is lost, by the name of what it is."""
    scene = scene_named(looking.scene)
    things = scene.things[:: _step(scene.things, picture), :: _step(scene.things, picture)]
    said = []
    for ground, words in ((Ground.BLACK, "lost in black"), (Ground.WHITE, "without detail")):
        here = picture.ground == GROUNDS.index(ground)
        if here.mean() < _WORTH_A_WORD:
            continue
        rows, columns = (min(a, b) for a, b in zip(things.shape, here.shape, strict=True))
        met, hit = things[:rows, :columns], here[:rows, :columns]
        total = np.bincount(met.ravel(), minlength=len(scene.names))
        gone = np.bincount(met[hit].ravel(), minlength=len(scene.names))
        most = [
            name
            for name, all_of, of in zip(scene.names, total, gone, strict=True)
            if all_of > _WORTH_A_WORD * met.size
            and of > 0.5 * all_of
            and not name.startswith("wedge")
        ]
        if most:
            said.append(f"{words}: {', '.join(most[:4])}")
    return "; ".join(said)


def _step(things: NDArray[np.uint8], picture: Seen) -> int:
    return max(1, int(things.shape[0] // picture.ground.shape[0]))


_ZONES = ("0", "I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X")


def zone_name(stops: float) -> str:
    """The zone of a tone so many stops from the meter reading, which is Zone V."""
    return _ZONES[min(max(round(stops) + 5, 0), len(_ZONES) - 1)]


def point_words(picture: Seen, looking: Looking, shrunk: int, row: int, column: int) -> str:
    """What a point of a picture is: its thing, its zone, exposure, density and print."""
    light = light_of(looking.scene, shrunk, None)
    if not (0 <= row < light.shape[0] and 0 <= column < light.shape[1]):
        return ""
    code, tones = int(light[row, column]), picture.tones
    metered, _ = _light_met(looking.scene, looking.spot)
    stops = code / CODES_A_STOP + LEAST_STOPS - log2(metered)
    scene = scene_named(looking.scene)
    thing = scene.names[scene.things[row * shrunk, column * shrunk]]
    ground = GROUNDS[int(picture.ground[row, column])]
    what = "" if ground is Ground.SEEN else f", {ground}"
    return (
        f"{thing}: Zone {zone_name(stops)}, lg H {tones.log_h[code]:.2f}, density "
        f"{tones.density[code]:.2f} over base plus fog, print {tones.reflection[code]:.2f}{what}"
    )
