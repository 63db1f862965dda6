"""Old stock of unknown storage: from the marked speed downward over one still scene."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, strips_for_times, usual_frames
from vadrin.core.planning.test_types.test_type import Asks, TestType


class Rescue(TestType):
    """Today's EI of old film, and its fog."""

    key = "rescue"
    beside_others = True
    asks = Asks.INDEX
    not_foretold = (
        "What has become of an old film is not known before it is tested: there is no "
        "expected range."
    )

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip a time, the last frames fogged for a clip."""
        return strips_for_times(request, usual_frames(request, fogged=2))


TYPE = Rescue()
