"""What to set and do for a frame, in words."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from vadrin.app.display.marks import (
    aperture_mark,
    aperture_name,
    marked_ei,
    shutter_mark,
    stops_text,
)
from vadrin.app.display.quantities import neutral_density_text
from vadrin.app.expose.film_words import FilmWords, film_words, shots_of
from vadrin.app.expose.meter_words import meter_first
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.core.exposure.arithmetic import stops_counted
from vadrin.core.frames import FrameRole, FrameState
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.formats.reports.script_pdf import ScriptRow

_AS_ASKED = 0.3
"""Stops within which a frame was taken as asked; marks miss by so much."""


@dataclass(frozen=True)
class Shot:
    """One frame of the script in words; parts that change from the frame before are named."""

    setting: str
    aperture: str
    offset: str
    turn: str
    changed: tuple[str, ...]


def setting_of(frame: LoadedFrame, film: FilmWords) -> str:
    """The shutter mark, or what is done instead."""
    role = frame.frame.role
    if frame.frame.blank or role in (FrameRole.BLANK, FrameRole.LOST):
        return film.kept_dark
    if role == FrameRole.FOGGED:
        return "wind on" if frame.name == "leader" else "fog it"
    if frame.frame.seconds is None:
        return stops_text(frame.frame.wanted_stops or 0.0, signed=True)
    return shutter_mark(film.given_s.get(frame.frame.id, frame.frame.seconds))[0]


def _shutter_note(frame: LoadedFrame) -> str:
    """What is to be known about the mark: its seconds, where it shares its name with another."""
    lit = frame.frame.wanted_stops is not None and frame.frame.seconds
    return shutter_mark(float(frame.frame.seconds or 1))[1] if lit else ""


def aperture_of(frame: LoadedFrame) -> str:
    """The aperture mark; empty where it does not matter."""
    lit = frame.frame.wanted_stops is not None and frame.frame.aperture
    return aperture_name(float(frame.frame.aperture or 0)) if lit else ""


def _filter_of(frame: LoadedFrame) -> str:
    stops = frame.frame.filter_stops
    return neutral_density_text(stops) if stops else ""


def offset_of(frame: LoadedFrame) -> str:
    """The offset from the meter in words."""
    kept = {
        FrameRole.BLANK: "blank frame",
        FrameRole.LOST: f"goes to the {frame.name}",
        FrameRole.FOGGED: "the leader" if frame.name == "leader" else "fogged to full light",
    }
    role = frame.frame.role
    if role in kept:
        return kept[role]
    if frame.frame.blank or frame.frame.wanted_stops is None:
        return "blank frame"
    stops = frame.frame.wanted_stops
    said = "as the meter says"
    if stops:
        said = f"{stops_counted(stops)} {'over' if stops > 0 else 'under'} the meter"
    if frame.frame.exposure_index:
        said += f" at EI {marked_ei(frame.frame.exposure_index)}"
    return f"{said}, the first once more" if role == FrameRole.CHECK else said


def _todo(frame: LoadedFrame, before: LoadedFrame | None, even: bool, film: FilmWords) -> str:
    role = frame.frame.role
    if role == FrameRole.LOST:
        return f"Cap on and wind on: this frame goes to the {frame.name}."
    if role == FrameRole.FOGGED and frame.name == "leader":
        return "Wind on: the leader, fogged as the film was loaded. Keep it for a clip."
    if role == FrameRole.FOGGED:
        return "Open the lens fully to bright light: expose this frame fully."
    if frame.frame.blank:
        return film.blank
    if before is None or before.frame.wanted_stops is None:
        if film.given_s:
            return "Draw the slide out as far as this cell: all that is open gets this exposure."
        return f"Cap off, {'focus at infinity, ' if even else ''}then set it."
    return ""


def _slide_words(frame: LoadedFrame, before: LoadedFrame | None, film: FilmWords) -> str:
    """What the slide covers for a cell, and what its exposures add up to; empty without one."""
    given, total = film.given_s.get(frame.frame.id), frame.frame.seconds
    if given is None or total is None or before is None:
        return ""
    return (
        f"Push the slide in over cell {before.number}: give {shutter_mark(given)[0]} more, "
        f"{shutter_mark(total)[0]} in all."
    )


def shot_of(
    frame: LoadedFrame, before: LoadedFrame | None, film: FilmWords, even: bool = False
) -> Shot:
    """A frame in words, with what to turn since the frame before.

    Only an `even` target is better out of focus.
    """
    setting, aperture, dark = setting_of(frame, film), aperture_of(frame), _filter_of(frame)
    turn = _todo(frame, before, even, film) or _slide_words(frame, before, film)
    changed: list[str] = []
    if not turn and before is not None:
        for name, new, old in (
            ("shutter", setting, setting_of(before, film)),
            ("aperture", aperture, aperture_of(before)),
            ("filter", dark, _filter_of(before)),
        ):
            if new != old:
                changed.append(name)
        parts = {
            "shutter": f"the shutter from {setting_of(before, film)} to {setting}",
            "aperture": f"the aperture from {aperture_of(before)} to {aperture}",
            "filter": f"the filter to {dark or 'none'}",
        }
        turn = f"Turn {' and '.join(parts[c] for c in changed)}." if changed else "Change nothing."
    note = _shutter_note(frame)
    if note:
        turn += f" {setting} here is {note}."
    if frame.frame.seconds and frame.frame.seconds >= 0.99 and not frame.frame.blank:
        turn += " Wait until the camera is still. Use a cable release."
    shown = f"{aperture}  {dark}".strip()
    return Shot(setting, shown, offset_of(frame), turn.strip(), tuple(changed))


def then_words(
    place: tuple[LoadedStrip, LoadedFrame] | None, here: LoadedStrip, film: FilmWords
) -> str:
    """What comes after, so that it can be made ready."""
    if place is None:
        return "This is the last frame."
    strip, frame = place
    words = f"Then {setting_of(frame, film)} {aperture_of(frame)}".rstrip()
    if strip.strip.roll != here.strip.roll:
        return f"{words}, on {film.piece} {strip.strip.roll}: {film.next_piece}."
    return f"{words}, on strip {strip.strip.label}." if strip is not here else f"{words}."


def _taken_words(frame: LoadedFrame) -> str:
    """What was set instead of what was asked for; empty where that was done, or nothing yet."""
    asked = frame.frame
    if not frame.taken or asked.wanted_stops is None or asked.state == FrameState.SKIPPED:
        return ""
    last = frame.taken[-1]
    if (
        last.seconds
        and last.aperture
        and (last.seconds, last.aperture) != (asked.seconds, asked.aperture)
    ):
        return f"taken at {shutter_mark(last.seconds)[0]}  {aperture_mark(last.aperture)}"
    if last.stops is not None and abs(last.stops - asked.wanted_stops) > _AS_ASKED:
        return f"taken at {stops_text(last.stops, signed=True)}"
    return ""


def _row_of(
    strip: LoadedStrip, frame: LoadedFrame, before: LoadedFrame | None, film: FilmWords
) -> ScriptRow:
    shot = shot_of(frame, before, film)
    lit = frame.frame.wanted_stops is not None
    note = _shutter_note(frame)
    mark = f"{shot.setting} ({note})" if note else shot.setting
    instead = _taken_words(frame)
    setting = f"{mark}  {shot.aperture}".strip() + (f", {instead}" if instead else "")
    fresh = lit and (before is None or before.frame.wanted_stops is None)
    turned = "all" if fresh else ", ".join(shot.changed)
    offset = frame.name if lit else shot.offset
    return frame.number, strip.strip.label, setting, offset, turned


def script_rows(notebook: Notebook, loaded: LoadedTest) -> list[ScriptRow]:
    """The whole script for paper: number, strip, what to set, offset, what to do.

    A row without a number heads a roll, or a strip that the meter is set anew for.
    """
    rows: list[ScriptRow] = []
    before: LoadedFrame | None = None
    shots = shots_of(loaded)
    rolls = len({s.strip.roll for s in loaded.strips})
    begun: set[int] = set()
    film = film_words(loaded)
    for number, (strip, frame) in enumerate(shots):
        roll = strip.strip.roll
        head = meter_first(notebook, loaded, shots, number).replace(" (M).", ".").strip()
        if roll not in begun and rolls > 1:
            piece = film.piece.capitalize()
            head = f"{piece} {roll}. {head.removeprefix(f'A new {film.piece}. ')}".strip()
        begun.add(roll)
        if head:
            rows.append(("", "", head, "", ""))
        rows.append(_row_of(strip, frame, before, film))
        before = frame
    return rows
