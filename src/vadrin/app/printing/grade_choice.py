"""The grade for a negative, and the prints that were made of it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.document.state import State
from vadrin.app.document.stations import key_to
from vadrin.app.entry.times import seconds_typed
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.app.printing.half_covered import threshold_of
from vadrin.app.printing.print_setups import lock_setup, present_room, seconds_text, type_setup
from vadrin.app.stamps import now
from vadrin.core.curves.shape import net_density_at
from vadrin.core.figure import Basis, Figure, absent
from vadrin.core.printing.grades import (
    changed_time,
    nearest_grades,
    printed_tones,
    under_print_threshold,
)
from vadrin.core.results.strip_figures import RANGE_STOPS
from vadrin.errors import EntryError
from vadrin.notebook.records import Paper, PaperGrade, Workprint
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.printing.grades import GradeFit
    from vadrin.core.results.strip_metrics import StripMetrics

SCENE_STOPS = 7.0
_STOP = 0.30103
_SLACK_STOPS, _MOST_BEYOND = 0.1, 1.0
"""Stops past the densest frame that was read: not worth saying, and the most that is ventured."""


@dataclass(frozen=True)
class GradeLine:
    """One grade, in words: its scale, how it fits, and the time at it."""

    grade: str
    scale: str
    fit: str
    seconds: str


def negative_range(
    state: State, strip: LoadedStrip, scene_stops: float = SCENE_STOPS
) -> tuple[Figure, str]:
    """Density range of a strip's negatives over a scene, off its own curve between the shadow
    that prints first and so many stops above it, with what of it lies beyond the readings."""
    known = {s.label: s for s in state.analysis.strips} if state.analysis else {}
    mine = known.get(strip.strip.label)
    if mine is None:
        return absent("this strip has no curve yet"), ""
    shadow = mine.log_h_m.value
    if shadow is None:
        return absent(mine.log_h_m.why), ""
    bright = shadow + scene_stops * _STOP
    beyond = (bright - mine.last) / _STOP
    if beyond > _MOST_BEYOND:
        return absent(f"its readings end {beyond:.1f} stops before the highlights"), ""
    low, high = net_density_at(mine.curve, np.array([shadow, bright]))
    value = float(high - low)
    if beyond > _SLACK_STOPS:
        rest = f" (its last {beyond:.1f} stop is extrapolated)"
        return Figure(value, basis=Basis.EXTRAPOLATED), rest
    return _with_ends(value, mine, scene_stops), ""


def _with_ends(value: float, strip: StripMetrics, scene_stops: float) -> Figure:
    """A range with its ends, by those of the scenes nearest to this one, in the same share."""
    shares = []
    for stops in RANGE_STOPS:
        told = strip.figures[f"density_range_{stops}"]
        if told.value and told.low is not None and told.high is not None:
            shares.append((stops, told.low / told.value, told.high / told.value))
    if not shares:
        return Figure(value)
    at, low, high = (np.array(column) for column in zip(*shares, strict=True))
    return Figure(
        value,
        value * float(np.interp(scene_stops, at, low)),
        value * float(np.interp(scene_stops, at, high)),
    )


def grades_known(
    notebook: Notebook, loaded: LoadedTest, paper_id: int | None = None
) -> tuple[tuple[str, float, bool, float | None], ...]:
    """Grades of a paper, of the set-up's where none is named: its own where they are kept, else
    as its sheet says."""
    asked = paper_id or present_room(notebook, loaded).setup.paper_id
    paper = notebook.get(Paper, asked or 0)
    if paper is None:
        return ()
    kept = notebook.all(PaperGrade, paper_id=paper.id)
    made = tuple(
        (g.grade, g.exposure_scale, g.measured, g.factor) for g in kept if g.exposure_scale
    )
    if not made and paper.exposure_scale:
        made = ((paper.grade or paper.name, paper.exposure_scale, False, None),)
    return made


def grade_lines(
    notebook: Notebook, state: State, strip: LoadedStrip, scene_stops: float = SCENE_STOPS
) -> tuple[str, tuple[GradeLine, ...]]:
    """The nearest three grades with their times, under a sentence."""
    loaded = state.loaded
    found, beyond = negative_range(state, strip, scene_stops)
    reach = found.value
    if reach is None:
        return f"No grade can be named: {found.why}.", ()
    known = grades_known(notebook, loaded)
    words = (
        f"Over a scene of {scene_stops:g} stops the negative ranges over "
        f"{reach:.2f}{_ends_text(found)}{beyond}."
    )
    if not known:
        return (
            f"{words} Keep the paper's grades in the cupboard ({key_to('cupboard')}) to have one "
            "named.",
            (),
        )
    room = present_room(notebook, loaded)
    here = next((f for g, _, _, f in known if g == room.setup.grade), None)
    made = []
    for fit in nearest_grades(reach, known):
        seconds = None
        if room.setup.black_s is not None:
            seconds = changed_time(room.setup.black_s, here, fit.factor)
        shown = (
            seconds_text(seconds)
            if seconds is not None
            else "exposure factor unknown: make a test strip"
        )
        stated = "" if fit.measured else ", as its maker says"
        made.append(
            GradeLine(fit.grade, f"{fit.exposure_scale:.2f}{stated}", _fit_words(fit), shown)
        )
    return words, tuple(made)


def _ends_text(figure: Figure) -> str:
    if figure.low is None or figure.high is None:
        return ""
    return f" (95 % range {figure.low:.2f} to {figure.high:.2f})"


def _fit_words(fit: GradeFit) -> str:
    if abs(fit.over) < 0.06:
        return "fits"
    side = "softer" if fit.over > 0 else "harder"
    return f"{abs(fit.over):.2f} {side} than it asks for"


def strip_on_grade(notebook: Notebook, loaded: LoadedTest, line: GradeLine) -> str:
    """Put the set-up on a grade for its own test strip; gives what is to be said of that.

    Raises
    ------
    EntryError
    """
    closed = type_setup(notebook, loaded, "grade", line.grade)
    expected = f" Expect maximum black near {line.seconds}." if line.seconds[:1].isdigit() else ""
    said = closed or f"The set-up is on grade {line.grade}."
    return f"{said}{expected}"


def tones_of(
    notebook: Notebook, loaded: LoadedTest, frame: LoadedFrame, grade: str
) -> tuple[float | None, str]:
    """Reflection density of a frame on a grade at the time for maximum black, or what lacks."""
    fog = present_room(notebook, loaded).setup.base_fog
    scale = next((s for g, s, _, _ in grades_known(notebook, loaded) if g == grade), None)
    if frame.density is None or fog is None or scale is None:
        return None, "read the frame, find the time for maximum black, and keep the grade's scale"
    net = max(0.0, frame.density - fog)
    print_density = float(printed_tones(np.array([net]), scale)[0])
    below = under_print_threshold(net, threshold_of(notebook, loaded)[0])
    if below > 0:
        return print_density, f"it prints black: {below:.2f} under what prints lighter than black"
    return print_density, ""


def keep_print(notebook: Notebook, loaded: LoadedTest, frame: LoadedFrame, words: str) -> Workprint:
    """Keep a print: ``12 s``, ``12 s grade 3``, ``12 s grade 3, burn sky +1 stop: good``.

    Raises
    ------
    EntryError
        If it names no time.
    """
    made, _, verdict = words.partition(":")
    head, _, work = made.partition(",")
    time, _, grade = head.partition("grade")
    with notebook.change(f"a print of frame {frame.number}"):
        seconds = seconds_typed(time.strip())
        setup = lock_setup(notebook, loaded)
        return notebook.add(
            Workprint(
                setup_id=setup.id,
                frame_id=frame.frame.id,
                grade=grade.strip() or setup.grade,
                seconds=seconds,
                work=work.strip(),
                verdict=verdict.strip(),
                made_at=now(),
            )
        )


def picture_of_print(notebook: Notebook, loaded: LoadedTest, path: Path) -> None:
    """Remember where a picture of the newest print lies.

    Raises
    ------
    EntryError
        If nothing was printed yet.
    """
    prints = present_room(notebook, loaded).prints
    if not prints:
        raise EntryError("keep the print first: its seconds and what was done to it")
    with notebook.change("a picture of the print"):
        notebook.put(replace(prints[-1], picture=str(path.resolve())))


def print_lines(notebook: Notebook, loaded: LoadedTest) -> tuple[str, ...]:
    """The prints of the present series, the newest first."""
    frames = {f.frame.id: f for _, f in loaded.frames()}
    said = []
    for made in reversed(present_room(notebook, loaded).prints):
        frame = frames.get(made.frame_id or 0)
        words = f"{frame.called if frame else 'a frame'}: {seconds_text(made.seconds)}"
        words += f" on grade {made.grade}" if made.grade else ""
        words += f", {made.work}" if made.work else ""
        words += f": {made.verdict}" if made.verdict else ""
        words += f" (its picture: {Path(made.picture).name})" if made.picture else ""
        said.append(f"{words[0].upper()}{words[1:]}.")
    return tuple(said)
