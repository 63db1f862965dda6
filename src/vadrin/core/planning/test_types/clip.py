"""A clip exposed to full light, judged beside a known good one, before a roll is risked."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, blank_frames, fogged_frames
from vadrin.core.planning.test_types.test_type import TestType


class Clip(TestType):
    """Go, or change the time."""

    key = "clip"
    repeats_first = False
    bracketed = False

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """The good clip, and the one in question."""
        frames = tuple(blank_frames(max(1, request.blanks)) + fogged_frames(2))
        return [
            StripPlan("A", frames, request.times[0], note="a clip known to be good"),
            StripPlan("B", frames, request.times[0], note="the clip in question"),
        ]


TYPE = Clip()
