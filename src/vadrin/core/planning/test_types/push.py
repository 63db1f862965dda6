"""A film at its EI and pushed: what each push costs."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, blank_frames, bracket_frames, strip_labels
from vadrin.core.planning.test_options import Pushes, options_as
from vadrin.core.planning.test_types.test_type import Asks, Foretold, TestType
from vadrin.core.process.makers_table import makers_minutes

PUSH_SHARE = 0.3
"""Share of time a stop of push is planned with, before anything was measured."""


def push_minutes(request: PlanRequest, push: float) -> float:
    """Minutes of a push before anything was measured: as much longer than the normal as the
    maker's table says, or by the usual share a stop where it says nothing."""
    normal, told = request.times[0], makers_minutes(request.makers, push)
    makers_normal = makers_minutes(request.makers, 0.0)
    if told is None:
        return float(normal * (1 + PUSH_SHARE) ** push)
    return told if makers_normal is None else normal * told / makers_normal


def pushed_strips(request: PlanRequest) -> list[StripPlan]:
    """A strip a push, each bracketed about its own EI and developed longer."""
    pushes = options_as(request.options, Pushes).stops
    strips = []
    for name, push in zip(strip_labels(len(pushes)), pushes, strict=True):
        index = request.exposure_index * 2.0**push
        frames = tuple(blank_frames(request.blanks) + bracket_frames(request, index))
        time = push_minutes(request, push)
        strips.append(StripPlan(name, frames, round(time * 4) / 4, push))
    return strips


class PushTest(TestType):
    """Times and shadow lost of each push."""

    key = "push"
    asks = Asks.TIME
    foretold = Foretold.EI_AND_TIMES
    options = Pushes()

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip a push."""
        return pushed_strips(request)


TYPE = PushTest()
