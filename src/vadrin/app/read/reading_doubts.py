"""Questions a reading raises the moment it is typed."""

from __future__ import annotations

from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.core.frames import FrameRole
from vadrin.core.planning.test_types import type_of

_FALL = 0.04
_JUMP = 1.3
_BLANKS_APART, _JUST_LESS, _HIGHEST_BASE = 0.06, 0.1, 1.0


def _neighbours(
    loaded: LoadedTest, strip: LoadedStrip, frame: LoadedFrame
) -> tuple[LoadedFrame | None, LoadedFrame | None]:
    """The read frames of the strip with the next smaller and next larger exposure."""
    constant = loaded.test.meter_constant
    here = frame.log_h(constant)
    read = [(f.log_h(constant), f) for f in strip.frames if f.density is not None]
    placed = [(x, f) for x, f in read if x is not None]
    if here is None:
        return None, None
    below = max((p for p in placed if p[0] < here), key=lambda p: p[0], default=None)
    above = min((p for p in placed if p[0] > here), key=lambda p: p[0], default=None)
    return (below[1] if below else None), (above[1] if above else None)


def _read(strip: LoadedStrip, but: LoadedFrame) -> list[tuple[LoadedFrame, float]]:
    return [(f, f.density) for f in strip.frames if f.density is not None and f is not but]


def _beside_the_blanks(strip: LoadedStrip, frame: LoadedFrame, density: float) -> str:
    """What base plus fog and full light say of a reading: nothing is thinner, nothing denser."""
    read = _read(strip, frame)
    blanks = [(f, d) for f, d in read if f.frame.blank]
    fogged = [(f, d) for f, d in read if f.frame.role == FrameRole.FOGGED]
    lit = [(f, d) for f, d in read if f.counts and not f.frame.blank]
    if frame.frame.blank:
        return _doubt_of_blank(density, blanks, fogged, lit)
    if frame.frame.role == FrameRole.FOGGED:
        denser = max(lit + blanks, key=lambda p: p[1], default=None)
        if denser and density < denser[1] - _JUST_LESS:
            return f"Full light, and thinner than {denser[0].called} at {denser[1]:.2f}?"
        return ""
    thinnest = min(blanks, key=lambda p: p[1], default=None)
    if thinnest and density < thinnest[1] - _FALL:
        return f"Thinner than the blank, {thinnest[0].called}, at {thinnest[1]:.2f}?"
    return ""


def _doubt_of_blank(
    density: float,
    blanks: list[tuple[LoadedFrame, float]],
    fogged: list[tuple[LoadedFrame, float]],
    lit: list[tuple[LoadedFrame, float]],
) -> str:
    for other, base in blanks:
        if abs(density - base) > _BLANKS_APART:
            return f"{other.called.capitalize()} reads {base:.2f}: blanks of a strip are alike."
    thinner = min(lit, key=lambda p: p[1], default=None)
    if thinner and density > thinner[1] + _FALL:
        return f"A blank, and denser than {thinner[0].called} at {thinner[1]:.2f}, which had light?"
    piece = min(fogged, key=lambda p: p[1], default=None)
    if piece and density > piece[1]:
        return f"A blank, and denser than a clip exposed to full light at {piece[1]:.2f}?"
    return "" if density < _HIGHEST_BASE else "A blank so dense: base plus fog is seldom above 1."


def reading_doubt(state: State, frame: LoadedFrame) -> str:
    """Why a frame's reading looks wrong, in a sentence; empty if it does not."""
    loaded = state.loaded
    place = loaded.place_of(frame.frame.id)
    density = frame.density
    if place is None or density is None:
        return ""
    strip = place[0]
    for warning in state.analysis.diagnostics if state.analysis else ():
        if warning.strip == strip.strip.label and frame.number in warning.frames:
            return f"{warning.sentence} {warning.remedy}"
    kind = type_of(loaded.test.kind)
    doubt = "" if kind and kind.density_falls else _beside_the_blanks(strip, frame, density)
    if doubt:
        return f"{doubt} Ctrl+Enter replaces the reading."
    if kind and kind.density_falls:
        return ""
    below, above = _neighbours(loaded, strip, frame)
    if below is not None and density < (below.density or 0.0) - _FALL:
        return (
            f"Thinner than {below.called}, which had less exposure. Misread, or two "
            "frames swapped? Ctrl+Enter replaces the reading."
        )
    if above is not None and density > (above.density or 9.0) + _FALL:
        return (
            f"Denser than {above.called}, which had more exposure. Misread, or two "
            "frames swapped? Ctrl+Enter replaces the reading."
        )
    if below is not None and density > (below.density or 0.0) + _JUMP:
        return f"Far denser than {below.called}: is the first digit right?"
    return ""
