"""The ways a film of unknown worth was looked at, side by side, each with the EI it tells."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.loaded.frame_index import index_of, within_half_a_step
from vadrin.app.loaded.loaded_test import THE_FRAME, LoadedTest
from vadrin.app.results.contact_prints import contact_answer
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.core.figure import Figure
from vadrin.core.judging.verdicts import USE_IT


@dataclass(frozen=True)
class Looked:
    """One way of looking, and the EI it tells."""

    way: str
    index: Figure


BY_DENSITY, ON_BOX = "by its densities", "on the light box"
ON_FILM = "the thinnest frame of use, on the film"
ON_CONTACT = "the thinnest frame of use, on its contact print"
PRINTS_BEST = "the frame that prints best"


def ways_of_looking(loaded: LoadedTest, measured: Figure | None) -> tuple[Looked, ...]:
    """Every way that tells an EI, in the order in which they would rate.

    Parameters
    ----------
    loaded : LoadedTest
    measured : Figure, optional
        What densities tell; None or absent where they tell nothing.
    """
    box, best = light_box_answer(loaded), contact_answer(loaded)
    told = (
        (BY_DENSITY, measured),
        (ON_BOX, box[1] if box is not None else None),
        (ON_FILM, _thinnest(loaded, on_paper=False)),
        (ON_CONTACT, _thinnest(loaded, on_paper=True)),
        (PRINTS_BEST, best[1] if best is not None else None),
    )
    return tuple(Looked(way, index) for way, index in told if index is not None and index.present)


def _thinnest(loaded: LoadedTest, on_paper: bool) -> Figure | None:
    """The highest EI of a frame that was judged of use, half a step of the bracket either way."""
    found = [
        index
        for _, frame in loaded.frames()
        if frame.readable and not frame.frame.blank and frame.said(THE_FRAME, on_paper) == USE_IT
        if (index := index_of(frame)) is not None
    ]
    return within_half_a_step(max(found), loaded.test.step) if found else None
