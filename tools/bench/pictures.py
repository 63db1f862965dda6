"""A picture of a scene, from a changed EI, time or print rule to the screen's pixels."""

from __future__ import annotations

import time
from dataclasses import replace

import numpy as np

from oracles.closed_form import ClosedForm
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.scenes import SCENE_NAMES, light_of, scene_named
from vadrin.app.pictures.seen import OnFilm, seen_on
from vadrin.core.pictures.developed_film import developed
from vadrin.core.pictures.film_grain import FilmGrain
from vadrin.core.pictures.picture import PrintRule
from vadrin.core.pictures.printing_paper import typical_paper
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Analysis
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.theme.look import DAY

_TIMES = (4.0, 5.75, 8.0, 11.0, 15.5)
_ROUNDS = 40


def picture_rows() -> list[str]:
    """Median and worst of forty changes, 1,280 by 853 points, on one core."""
    begun = time.perf_counter()
    for name in SCENE_NAMES:
        scene_named(name)
    loaded = (time.perf_counter() - begun) * 1000 / len(SCENE_NAMES)
    answer = analyse(ClosedForm().strips(_TIMES))
    paper, looking = PaperUsed(typical_paper(), ""), Looking()
    light_of(looking.scene, 1, None)
    spent, drawn = _changed(answer, paper, looking, None)
    grain = FilmGrain(np.array([0.3, 1.0]), np.array([8.0, 12.0]))
    _, grainy = _changed(answer, paper, looking, grain)
    rows = (
        ("a scene read, the first time", [loaded]),
        ("EI, time or print rule changed: to tones", spent),
        ("the same to an image of the screen (goal 16)", drawn),
        ("the same with grain", grainy),
    )
    lines = [f"{'1,280 by 853 points of a scene':<58}{'median':>9}{'worst':>10}  ms"]
    return lines + [f"{name:<58}{np.median(ms):>9.1f}{max(ms):>10.1f}" for name, ms in rows]


def _changed(
    answer: Analysis, paper: PaperUsed, looking: Looking, grain: FilmGrain | None
) -> tuple[list[float], list[float]]:
    """Milliseconds to tones, and to the screen's pixels."""
    spent, drawn = [], []
    for number in range(-2, _ROUNDS):
        minutes = 4.0 + 11.0 * max(number, 0) / _ROUNDS
        rule = list(PrintRule)[number % 2]
        begun = time.perf_counter()
        film = developed(answer, minutes)
        assert film is not None
        on = OnFilm((film,), 80.0 + 10 * number, 8.125, grain)
        picture = seen_on(on, replace(looking, rule=rule), paper, 1)
        spent.append((time.perf_counter() - begun) * 1000)
        image_of(picture, DAY, marked=False)
        drawn.append((time.perf_counter() - begun) * 1000)
    # The first two make room that the others use again.
    return spent[2:], drawn[2:]
