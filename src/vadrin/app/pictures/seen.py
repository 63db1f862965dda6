"""A picture of a scene on a test's film, point by point, ready for a screen."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache
from math import log2, log10

import numpy as np
from numpy.typing import NDArray

from vadrin.app.document.state import State
from vadrin.app.pictures.exposed import CHANNELS, Exposed, in_colour, paper_sees
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.measured_grain import grain_of
from vadrin.app.pictures.scenes import light_of, scene_named, spot_named
from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.pictures.developed_film import FilmCurve, alone, developed
from vadrin.core.pictures.film_grain import FilmGrain, grained
from vadrin.core.pictures.picture import (
    GROUNDS,
    Ground,
    PrintRule,
    Tones,
    looked_up,
    screen_levels,
    tones_of,
)
from vadrin.core.pictures.positive_film import PositiveFilm
from vadrin.core.pictures.scene import (
    CODES_A_STOP,
    LEAST_STOPS,
    Codes,
    light_at,
    log_h_of_codes,
    mean_light,
)
from vadrin.core.results.analysis_result import Analysis

_WORTH_A_WORD = 0.002
"""Share of a picture from which what is lost is named."""


@dataclass(frozen=True, eq=False)
class Seen:
    """One picture.

    Attributes
    ----------
    levels : ndarray of uint8, shape (rows, columns) or (rows, columns, 3)
        Of the display, in sRGB.
    layers : tuple of Tones
        Of the one layer, or of red, green and blue.
    codes : tuple of ndarray of uint16, shape (rows, columns)
        The light on each layer.
    unknown : ndarray of bool, shape (rows, columns), or None
        Where the light itself is not known.
    """

    levels: NDArray[np.uint8]
    layers: tuple[Tones, ...]
    codes: tuple[Codes, ...]
    unknown: NDArray[np.bool_] | None = None

    @property
    def tones(self) -> Tones:
        """Of the one layer, or of the green one."""
        return self.layers[len(self.layers) // 2]

    @cached_property
    def ground(self) -> NDArray[np.uint8]:
        """A place in `core.pictures.picture.GROUNDS` at every point, shape (rows, columns)."""
        return self.ground_of(slice(None))

    def ground_of(self, every: slice) -> NDArray[np.uint8]:
        """The same at some rows and columns alone; a picture that is dragged asks for few."""
        pairs = zip(self.layers, self.codes, strict=True)
        grounds = [looked_up(tones.ground, codes[every, every]) for tones, codes in pairs]
        ground = _ground_of_layers(grounds) if len(grounds) > 1 else grounds[0]
        if self.unknown is not None:
            ground = np.where(self.unknown[every, every], _UNREAD, ground)
        return ground

    def share(self, ground: Ground) -> float:
        """How much of the picture is of a kind, 0 to 1."""
        return float((self.ground == GROUNDS.index(ground)).mean())


_UNREAD = np.uint8(GROUNDS.index(Ground.UNREAD))

Film = FilmCurve | PositiveFilm
"""A layer that light falls on: a negative that is printed, or a positive."""


def film_of(analysis: Analysis, exposed: Exposed, channel: str | None) -> Film | None:
    """The film of a picture; None where its development was not tested."""
    if exposed.why:
        return None
    if analysis.stages:
        made = (s for s in analysis.stages if s.label == exposed.strip)
        return next((PositiveFilm(stages) for stages in made), None)
    if not exposed.strip:
        return developed(analysis, exposed.minutes, channel)
    strips = analysis.strips if channel is None else analysis.layers
    return next(
        (alone(s) for s in strips if s.label == exposed.strip and channel in (None, s.channel)),
        None,
    )


@lru_cache(maxsize=64)
def _light_met(scene: str, spot: str, layer: int | None = None) -> float:
    """The light where the meter is pointed, or one layer's part of it."""
    return light_at(scene_named(scene), spot_named(scene, spot), layer)


@lru_cache(maxsize=16)
def _mean_of(scene: str, layer: int | None) -> float:
    known = scene_named(scene)
    return mean_light(known.luminance if layer is None else known.layers[layer])


@dataclass(frozen=True, eq=False)
class OnFilm:
    """What light falls on, and what the meter stood at.

    Attributes
    ----------
    layers : tuple of FilmCurve or PositiveFilm
        One, or red, green and blue of colour film.
    exposure_index, meter_constant : float
    grain : FilmGrain or None
        Of the one layer, where it was measured.
    """

    layers: tuple[Film, ...]
    exposure_index: float
    meter_constant: float
    grain: FilmGrain | None = None


def on_film(state: State, exposed: Exposed) -> OnFilm | None:
    """The film of a picture; None where its development was not tested."""
    analysis = state.settled()
    channels: tuple[str | None, ...] = CHANNELS if in_colour(analysis) else (paper_sees(state),)
    films = [film_of(analysis, exposed, channel) for channel in channels]
    layers = tuple(film for film in films if film is not None)
    if len(layers) < len(films):
        return None
    grain = grain_of(state, exposed) if len(layers) == 1 else None
    return OnFilm(layers, exposed.exposure_index, state.loaded.test.meter_constant, grain)


def _tones(film: OnFilm, layer: int | None, looking: Looking, paper: PaperUsed) -> Tones:
    """Every code of light through a layer and paper."""
    constant, index = film.meter_constant, film.exposure_index
    metered, mean = _light_met(looking.scene, looking.spot), _mean_of(looking.scene, layer)
    log_h = log_h_of_codes(index, constant, metered, looking.flare, mean)
    own = _light_met(looking.scene, looking.spot, layer)
    middle = log10(constant / index * (own + looking.flare * mean) / metered)
    layered = film.layers[layer or 0]
    if isinstance(layered, PositiveFilm):
        return layered.tones(log_h)
    # Colour is printed so that what was metered is neutral: each layer by its own mid-tone.
    rule = looking.rule if layer is None else PrintRule.MID_TONE_HELD
    longer = STOP * looking.longer
    return tones_of(layered, log_h, paper.paper, rule, middle, longer)


def seen_on(film: OnFilm, looking: Looking, paper: PaperUsed, shrunk: int = 1) -> Seen:
    """The picture of a scene on a film."""
    colour = len(film.layers) > 1
    layers: list[int | None] = [0, 1, 2] if colour else [None]
    tones = tuple(_tones(film, layer, looking, paper) for layer in layers)
    codes = tuple(light_of(looking.scene, shrunk, layer) for layer in layers)
    levels = [
        _shown(film, made, light, looking, paper) for made, light in zip(tones, codes, strict=True)
    ]
    unknown = _unknown_light(looking.scene, shrunk, codes[0].shape)
    return Seen(np.stack(levels, axis=-1) if colour else levels[0], tones, codes, unknown)


def _unknown_light(name: str, shrunk: int, shape: tuple[int, ...]) -> NDArray[np.bool_] | None:
    """Where a sensor could not say which light there was."""
    scene = scene_named(name)
    if not scene.unknown:
        return None
    numbers = [scene.names.index(thing) for thing in scene.unknown]
    unknown = np.isin(scene.things[::shrunk, ::shrunk], numbers)
    return unknown[: shape[0], : shape[1]]


def seen(
    state: State, exposed: Exposed, looking: Looking, paper: PaperUsed, shrunk: int = 1
) -> Seen | None:
    """The picture of a scene on a test's film; None where its development was not tested."""
    film = on_film(state, exposed)
    return None if film is None else seen_on(film, looking, paper, shrunk)


def _ground_of_layers(grounds: list[NDArray[np.uint8]]) -> NDArray[np.uint8]:
    """Lost where all three are; outside the readings where one is."""
    red, green, blue = grounds
    same = (red == green) & (green == blue)
    unread = np.any(np.stack(grounds) == _UNREAD, axis=0)
    ground = np.where(same, green, GROUNDS.index(Ground.SEEN))
    return np.where(unread, _UNREAD, ground).astype(np.uint8)


def _shown(
    film: OnFilm, tones: Tones, light: Codes, looking: Looking, paper: PaperUsed
) -> NDArray[np.uint8]:
    """Levels of the display of one layer, with its grain where that was measured."""
    as_film = looking.negative or isinstance(film.layers[0], PositiveFilm)
    if film.grain is None:
        return looked_up(screen_levels(tones.density if as_film else tones.reflection), light)

    def levels_of(density: Array) -> NDArray[np.uint8]:
        if as_film:
            return screen_levels(density)
        return screen_levels(paper.paper.print_density(tones.over_black - density))

    return grained(light, tones.density, film.grain, levels_of)


_NOT_SEEN = (
    (Ground.BLACK, "lost in black"),
    (Ground.WHITE, "without detail"),
    (Ground.UNREAD, "outside what was read"),
)


def lost_words(picture: Seen, looking: Looking) -> str:
    """What of the scene is lost or not known, by the name of what it is."""
    scene = scene_named(looking.scene)
    things = scene.things[:: _step(scene.things, picture), :: _step(scene.things, picture)]
    said = []
    for ground, words in _NOT_SEEN:
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
    return max(1, int(things.shape[0] // picture.levels.shape[0]))


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
    metered = _light_met(looking.scene, looking.spot)
    stops = code / CODES_A_STOP + LEAST_STOPS - log2(metered)
    scene = scene_named(looking.scene)
    thing = scene.names[scene.things[row * shrunk, column * shrunk]]
    ground = GROUNDS[int(picture.ground[row, column])]
    what = "" if ground is Ground.SEEN else f", {ground}"
    return (
        f"{thing}: Zone {zone_name(stops)}, log H {tones.log_h[code]:.2f}, density "
        f"{tones.density[code]:.2f} over base plus fog, print {tones.reflection[code]:.2f}{what}"
    )
