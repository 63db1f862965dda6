"""A colour film at normal and at each push: what its colours do."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan
from vadrin.core.planning.test_options import Pushes
from vadrin.core.planning.test_types.push import pushed_strips
from vadrin.core.planning.test_types.test_type import Asks, Foretold, TestType

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis_result import Analysis, Settings


class ColourPush(TestType):
    """Speed, layer balance and hue shift of each push."""

    key = "colour"
    asks = Asks.TIME
    foretold = Foretold.EI_AND_TIMES
    options = Pushes()

    channels_apart = True
    stock_kind = "colour negative"

    def analyse(self, strips: tuple[StripReadings, ...], settings: Settings) -> Analysis:
        """Each channel by itself; the finding is that of green, or of the first there is."""
        from vadrin.core.results.analysis import analyse

        channels = list(dict.fromkeys(s.channel for s in strips))
        if not channels:
            return analyse(strips, settings)
        main = "green" if "green" in channels else channels[0]
        quick = replace(settings, draws=0)
        answer = analyse(tuple(s for s in strips if s.channel == main), settings)
        others = [c for c in channels if c != main]
        apart = [analyse(tuple(s for s in strips if s.channel == c), quick) for c in others]
        layers = (*answer.strips, *(m for a in apart for m in a.strips))
        return replace(answer, layers=layers)

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip a push."""
        return pushed_strips(request)


TYPE = ColourPush()
