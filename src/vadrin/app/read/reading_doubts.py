"""Questions a reading raises the moment it is typed."""

from __future__ import annotations

from vadrin.app.test_sheet import FrameSheet, StripSheet, TestSheet
from vadrin.core.results.analysis import Analysis

_FALL = 0.04
_JUMP = 1.3


def _neighbours(sheet: TestSheet, strip: StripSheet, frame: FrameSheet
                ) -> tuple[FrameSheet | None, FrameSheet | None]:  # fmt: skip
    """The read frames of the strip with the next smaller and next larger exposure."""
    constant = sheet.test.meter_constant
    here = frame.log_h(constant)
    read = [(f.log_h(constant), f) for f in strip.frames if f.density is not None]
    placed = [(x, f) for x, f in read if x is not None]
    if here is None:
        return None, None
    below = max((p for p in placed if p[0] < here), key=lambda p: p[0], default=None)
    above = min((p for p in placed if p[0] > here), key=lambda p: p[0], default=None)
    return (below[1] if below else None), (above[1] if above else None)


def reading_doubt(sheet: TestSheet, frame: FrameSheet, analysis: Analysis | None) -> str:
    """Why a frame's reading looks wrong, in a sentence; empty if it does not."""
    place = sheet.place_of(frame.frame.id)
    density = frame.density
    if place is None or density is None:
        return ""
    strip = place[0]
    for warning in analysis.diagnostics if analysis else ():
        if warning.strip == strip.strip.label and frame.number in warning.frames:
            return f"{warning.sentence} {warning.remedy}"
    below, above = _neighbours(sheet, strip, frame)
    if below is not None and density < (below.density or 0.0) - _FALL:
        return (
            f"Thinner than {below.called}, which had less exposure. Misread, or two "
            "frames changed places? Ctrl+Enter replaces the reading."
        )
    if above is not None and density > (above.density or 9.0) + _FALL:
        return (
            f"Denser than {above.called}, which had more exposure. Misread, or two "
            "frames changed places? Ctrl+Enter replaces the reading."
        )
    if below is not None and density > (below.density or 0.0) + _JUMP:
        return f"Far denser than {below.called}: is the first digit right?"
    return ""
