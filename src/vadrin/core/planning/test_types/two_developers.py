"""One film in two developers: identical exposures in pairs, one after the other."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from vadrin.core.channels import Channel
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, usual_frames
from vadrin.core.planning.test_types.test_type import Asks, Foretold, TestType
from vadrin.errors import PlanError

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis_result import Analysis, Settings

PRINTING = (Channel.UV, Channel.BLUE)
"""Filters through which a stained negative has the density that paper sees, the better first."""


class TwoDevelopers(TestType):
    """What another developer changes, frame by frame, stain and all."""

    key = "two developers"
    repeats_on_every_strip = True
    asks = Asks.INDEX
    foretold = Foretold.EI_AND_DIFFERENCE
    materials_apart = True
    compares_materials = True
    channels_apart = True
    visual_too = True

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """The same exposures for both.

        Raises
        ------
        PlanError
            If more than one is named beside the reference.
        """
        if request.others > 1:
            raise PlanError(
                "one developer is set beside the reference here: name one, or ask how several "
                "differ from the one you know"
            )
        frames, times = usual_frames(request), request.times
        return [
            StripPlan("A", frames, times[0], note="the reference"),
            StripPlan("B", frames, times[-1], note="the other"),
        ]

    def analyse(self, strips: tuple[StripReadings, ...], settings: Settings) -> Analysis:
        """By printing density where both were read through blue or ultraviolet, else visual."""
        from vadrin.core.results.analysis import analyse

        labels = {s.label for s in strips}
        read = {c: {s.label for s in strips if s.channel == c} for c in Channel}
        main = next((c for c in PRINTING if labels and read[c] == labels), Channel.VISUAL)
        answer = analyse(tuple(s for s in strips if s.channel == main), settings)
        apart = [
            analyse(tuple(s for s in strips if s.channel == c), settings)
            for c in Channel
            if c != main and read[c]
        ]
        layers = (*answer.strips, *(m for a in apart for m in a.strips))
        return replace(answer, layers=layers)


TYPE = TwoDevelopers()
