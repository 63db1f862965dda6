"""Enlarging paper: steps of time through clear film."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, bracket_frames
from vadrin.core.planning.test_types.test_type import Metering, TestType


class PaperTest(TestType):
    """The shortest time for maximum black."""

    key = "paper"
    stock_kind = "paper"
    needs_blank = False
    repeats_first = False
    bracketed = False
    edge_to_edge = True
    metering = Metering.ENLARGER

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """One strip of paper."""
        frames = tuple(bracket_frames(request, request.exposure_index))
        return [StripPlan("A", frames, None, note="through clear film")]


TYPE = PaperTest()
