"""Films, batches or developers against one reference, with the same exposures."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, strip_labels, usual_frames
from vadrin.core.planning.test_types.test_type import Asks, Foretold, TestType


class Compare(TestType):
    """How others differ from the reference."""

    key = "compare"
    repeats_on_every_strip = True
    asks = Asks.INDEX
    foretold = Foretold.EI_AND_DIFFERENCE
    materials_apart = True
    compares_materials = True

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """The reference first, then a strip for each other."""
        one, times = usual_frames(request), request.times
        return [
            StripPlan(
                name,
                one,
                times[min(place, len(times) - 1)],
                note="another" if place else "the reference",
            )
            for place, name in enumerate(strip_labels(1 + max(1, request.others)))
        ]


TYPE = Compare()
