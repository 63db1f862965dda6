"""One development, from far under to far over: at which EI?"""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, usual_frames
from vadrin.core.planning.test_kinds.kind import Asks, Foretold, TestKind


class Speed(TestKind):
    """The EI of one development."""

    key = "speed"
    asks = Asks.INDEX
    foretold = Foretold.EI
    strips_alike = True

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """One strip."""
        return [StripPlan("A", usual_frames(request), request.times[0])]
