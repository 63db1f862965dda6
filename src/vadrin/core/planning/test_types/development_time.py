"""The same exposures on several strips, each developed for another time."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, strips_for_times, usual_frames
from vadrin.core.planning.test_types.test_type import Asks, Foretold, TestType


class DevelopmentTime(TestType):
    """The time for each contrast, and the EI at each time."""

    key = "time"
    asks = Asks.TIME
    foretold = Foretold.EI_AND_TIMES
    strips_alike = True

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip a time."""
        return strips_for_times(request, usual_frames(request))


TYPE = DevelopmentTime()
