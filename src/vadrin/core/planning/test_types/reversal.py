"""Direct positive or reversal-processed material: camera exposure against a second factor."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, strip_labels, usual_frames
from vadrin.core.planning.test_types.test_type import TestType


def _signed(factor: float) -> str:
    return f"{factor:+g}".replace("-", "−") if factor else "0"


class Reversal(TestType):
    """The best cell of a grid of two factors."""

    key = "reversal"
    beside_others = True
    density_falls = True

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip for each step of the second factor."""
        factors = request.second_factor or (-1.0, 0.0, 1.0)
        return [
            StripPlan(
                name,
                usual_frames(request),
                request.times[0],
                note=f"second factor {_signed(factor)}",
            )
            for name, factor in zip(strip_labels(len(factors)), factors, strict=True)
        ]


TYPE = Reversal()
