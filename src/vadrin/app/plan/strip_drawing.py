"""The strips of a kind of test as a small drawing: what lies in each frame."""

from __future__ import annotations

from vadrin.app.descriptions import TestDescription
from vadrin.core.frames import FrameRole
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan

_INDEX = 100.0
_BLANKS = 2
_FOGGED_DENSITY = 2.4
_DENSITY_A_STOP = 0.2
_MOST_STRIPS, _MOST_FRAMES = 6, 24

LOST = -1.0
"""Stands for a frame that the leader or the holder takes."""

Drawing = tuple[tuple[float | None, ...], ...]
"""Strips of frames: a density to draw, None for a blank, `LOST` for none at all."""


def _density(frame: PlannedFrame) -> float | None:
    if frame.role is FrameRole.BLANK:
        return None
    if frame.role is FrameRole.LOST:
        return LOST
    if frame.role is FrameRole.FOGGED:
        return _FOGGED_DENSITY
    return min(2.4, max(0.1, 0.25 + _DENSITY_A_STOP * ((frame.stops or 0.0) + 6)))


def beginning_of(page: TestDescription) -> tuple[StripPlan, ...]:
    """The strips a kind begins with, before anything is known of film or camera."""
    return lay_out_plan(
        PlanRequest(
            page.key,
            _INDEX,
            page.first,
            page.last,
            page.step,
            _BLANKS,
            page.times,
            page.options_to_begin,
            arrangement=page.arrangement,
        )
    )


def drawing_of(page: TestDescription) -> Drawing:
    """The strips a kind begins with."""
    strips = beginning_of(page)[:_MOST_STRIPS]
    return tuple(tuple(_density(f) for f in s.frames[:_MOST_FRAMES]) for s in strips)
