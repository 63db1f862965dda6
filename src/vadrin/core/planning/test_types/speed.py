"""One development, from far under to far over: at which EI?"""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, blank_frames, series_frames, usual_frames
from vadrin.core.planning.test_options import IndexSeries, options_as
from vadrin.core.planning.test_types.test_type import Asks, Foretold, TestType


class Speed(TestType):
    """The EI of one development."""

    key = "speed"
    asks = Asks.INDEX
    foretold = Foretold.EI
    strips_alike = True
    options = IndexSeries()

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """One strip; a series of EIs where some are asked for, blanks on the same roll."""
        series = options_as(request.options, IndexSeries).exposure_indexes
        if series:
            frames = (*blank_frames(request.blanks), *series_frames(series))
            return [StripPlan("A", frames, request.times[0])]
        return [StripPlan("A", usual_frames(request), request.times[0])]


TYPE = Speed()
