"""A colour film at normal and at each push: what its colours do."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan
from vadrin.core.planning.test_kinds.kind import Asks, Foretold, TestKind
from vadrin.core.planning.test_kinds.push_test import pushed_strips


class ColourPush(TestKind):
    """Speed, layer balance and hue shift of each push."""

    key = "colour"
    asks = Asks.TIME
    foretold = Foretold.EI_AND_TIMES

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip a push."""
        return pushed_strips(request)
