"""Strips exposed alike at one time, one of them to go with every run."""

from __future__ import annotations

from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan, blank_frames, strip_labels
from vadrin.core.planning.test_options import ControlStrips, options_as
from vadrin.core.planning.test_types.test_type import TestType

LOW, HIGH = "low", "high"
_STEPS = ((LOW, -2.0), ("middle", 0.0), (HIGH, 3.0))


class ProcessControl(TestType):
    """Is the process still in control?"""

    key = "process control"
    repeats_first = False
    bracketed = False
    options = ControlStrips()

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """As many strips as were asked for."""
        count = options_as(request.options, ControlStrips).count
        shots = [
            PlannedFrame(FrameRole.BRACKET, name, request.exposure_index, stops)
            for name, stops in _STEPS
        ]
        frames = tuple(blank_frames(max(1, request.blanks)) + shots)
        return [StripPlan(name, frames, request.times[0]) for name in strip_labels(count)]


TYPE = ProcessControl()
