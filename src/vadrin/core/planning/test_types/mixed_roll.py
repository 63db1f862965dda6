"""One roll carrying several EIs, left long without agitation, beside its twin."""

from __future__ import annotations

from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan, blank_frames
from vadrin.core.planning.test_options import SharedIndexes, options_as
from vadrin.core.planning.test_types.test_type import Asks, TestType

_STAND = "first 60 s, then stand"


class MixedRoll(TestType):
    """The range of EIs each of two processes holds."""

    key = "mixed roll"
    repeats_first = False
    own_rolls = True
    bracketed = False
    asks = Asks.INDEX
    options = SharedIndexes()
    materials_apart = True

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """The same EIs on twin rolls."""
        tried = tuple(request.exposure_index * 2.0**s for s in range(-2, 4))
        asked = options_as(request.options, SharedIndexes).exposure_indexes
        frames = blank_frames(request.blanks) + [
            PlannedFrame(FrameRole.BRACKET, f"EI {marked_ei(index)}", index, 0.0)
            for index in asked or tried
        ]
        times = (*request.times, request.times[-1])[:2]
        still, moved = times
        return [
            StripPlan("A", tuple(frames), still, note="the stand process", agitation=_STAND),
            StripPlan("B", tuple(frames), moved, roll=2, note="the normal process"),
        ]


TYPE = MixedRoll()
