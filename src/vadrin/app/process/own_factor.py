"""A process's own temperature factor: found from a test's strips, and kept."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.display.words import counted
from vadrin.app.document.analysis_input import readings_of, settings_of
from vadrin.app.learning.bath_learnt import warmth_learnt
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.past_tests import past_tests
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.core.figure import Basis, Figure
from vadrin.core.results.process_factor import process_factor
from vadrin.errors import EntryError
from vadrin.notebook.store import Notebook

_APART_K = 1.5


def two_temperatures(loaded: LoadedTest) -> bool:
    """Whether strips of a test were read that had been developed at two temperatures."""
    reference = reference_of(loaded)
    read = [
        s.strip.temperature_c
        for s in loaded.strips
        if s.strip.temperature_c is not None and any(f.density is not None for f in s.frames)
    ]
    near = any(abs(t - reference) < _APART_K for t in read)
    return near and any(abs(t - reference) >= _APART_K for t in read)


def measured_factor(loaded: LoadedTest) -> Figure:
    """How many times faster the process goes for each 10 °C, by the strips of a test."""
    return process_factor(readings_of(loaded), settings_of(loaded))


@dataclass(frozen=True)
class LearntFactor:
    """How many times faster the developer of a test goes for each 10 °C, by other tests."""

    figure: Figure
    films: int

    @property
    def words(self) -> str:
        """The factor in a sentence."""
        return (
            f"By {counted(self.films, 'film')} in this developer: {self.figure.known():.2f} × as "
            f"fast for each 10 °C ({self.figure.low:.2f} to {self.figure.high:.2f}), "
            f"{self.figure.basis.value}."
        )


def learnt_factor(notebook: Notebook, loaded: LoadedTest) -> LearntFactor | None:
    """The factor for a process that has none of its own; None where nobody knows."""
    if estimates_left_out() or loaded.routine is None or loaded.routine.q10:
        return None
    every = past_tests(notebook, loaded.test.id)
    told = warmth_learnt(tuple(p for p in every if p.developer_id == loaded.test.developer_id))
    if told is None:
        return None
    return LearntFactor(Figure(*told.times, basis=Basis.ESTIMATED), told.films)


def factor_words(found: Figure) -> str:
    """The factor in a sentence."""
    if found.value is None:
        return f"No factor of its own yet: {found.why}."
    if found.low is None or found.high is None:
        return f"From these strips: {found.value:.2f} × as fast for each 10 °C."
    return (
        f"From these strips: {found.value:.2f} × as fast for each 10 °C "
        f"({found.low:.2f} to {found.high:.2f})."
    )


def keep_factor(notebook: Notebook, loaded: LoadedTest, found: Figure) -> None:
    """Let the process of a test go by the factor that was found.

    Raises
    ------
    EntryError
        If the test follows no process, or none was found.
    """
    if loaded.routine is None:
        raise EntryError("name the process of this test first; the factor is the process's")
    if found.value is None:
        raise EntryError(found.why)
    with notebook.change(f"the temperature factor of {loaded.routine.name}"):
        notebook.put(replace(loaded.routine, q10=round(found.value, 2)))
