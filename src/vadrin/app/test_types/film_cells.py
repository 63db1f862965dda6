"""Frames of a test as cells of film that answers are shown on."""

from __future__ import annotations

from vadrin.app.descriptions.answer_in_words import FilmCell, FilmRow
from vadrin.app.display.marks import marked_ei
from vadrin.app.loaded.frame_index import index_of
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip
from vadrin.core.judging.verdicts import NOTHING_THERE, SALVAGED, TOO_DENSE, USE_IT

GOOD_ENOUGH = {USE_IT: 2, SALVAGED: 1, NOTHING_THERE: 0, TOO_DENSE: 0}
"""Verdicts on a frame, from worst to best."""


def by_index(strip: LoadedStrip) -> list[tuple[float, LoadedFrame]]:
    """The exposed frames of a strip with the EI each stands for, the slowest first."""
    placed = [(index_of(f), f) for f in strip.frames if f.readable and not f.frame.blank]
    return sorted(((i, f) for i, f in placed if i is not None), key=lambda pair: pair[0])


def row_by_index(strip: LoadedStrip, name: str, low: float | None, high: float | None) -> FilmRow:
    """A strip's frames in the order of their EIs; those from `low` to `high` are held."""
    slack = 2 ** (1 / 6)
    cells = tuple(
        FilmCell(
            f"EI {marked_ei(index)}",
            frame.density,
            frame.verdict,
            low is not None and high is not None and low / slack <= index <= high * slack,
        )
        for index, frame in by_index(strip)
    )
    return FilmRow(name, cells)


def usable_indexes(strip: LoadedStrip, least: str = USE_IT) -> tuple[float, float] | None:
    """Lowest and highest EI whose frames were judged as good as a verdict; None for none."""
    good = [i for i, f in by_index(strip) if GOOD_ENOUGH.get(f.verdict, -1) >= GOOD_ENOUGH[least]]
    return (good[0], good[-1]) if good else None
