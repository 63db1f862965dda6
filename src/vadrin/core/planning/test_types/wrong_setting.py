"""A roll of pictures that was shot at another film's EI: no bracket, one development."""

from __future__ import annotations

from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan
from vadrin.core.planning.test_types.test_type import TestType

_USUAL_FRAMES = 36


class WrongSetting(TestType):
    """Which push or pull a roll is."""

    key = "wrong setting"
    beside_others = True
    needs_blank = False
    repeats_first = False
    bracketed = False
    not_foretold = (
        "What the roll is follows from what this film was found to be: there is no expected range."
    )

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """One roll of pictures, as long as the film is."""
        count = request.film.capacity if request.film else _USUAL_FRAMES
        frames = tuple(
            PlannedFrame(FrameRole.PICTURE, str(n + 1), request.exposure_index)
            for n in range(max(1, count))
        )
        return [StripPlan("A", frames, None, note="pictures")]


TYPE = WrongSetting()
