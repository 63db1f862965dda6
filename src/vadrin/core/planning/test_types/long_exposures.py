"""The same exposure as a short bright one and as ever longer dim ones: reciprocity."""

from __future__ import annotations

from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan, blank_frames
from vadrin.core.planning.test_options import LongTimes, options_as
from vadrin.core.planning.test_types.test_type import Metering, TestType


class LongExposures(TestType):
    """Extra exposure that long times take."""

    key = "reciprocity"
    repeats_first = False
    bracketed = False
    metering = Metering.FIXED_TIMES
    options = LongTimes()

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A short frame, then each long time, also one and two stops longer."""
        frames = blank_frames(request.blanks)
        index = request.exposure_index
        frames.append(PlannedFrame(FrameRole.BRACKET, "short", index, 0.0))
        for seconds in options_as(request.options, LongTimes).seconds:
            for extra in (0.0, 1.0, 2.0):
                name, held = f"{seconds:g}s+{extra:g}", seconds * 2.0**extra
                frames.append(PlannedFrame(FrameRole.BRACKET, name, index, extra, held))
        return [StripPlan("A", tuple(frames), request.times[0])]


TYPE = LongExposures()
