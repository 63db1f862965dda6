"""A maker's data sheet, traced from a picture: a starting point, and nothing is shot for it."""

from __future__ import annotations

from vadrin.core.frames import FrameRole
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan, strip_labels
from vadrin.core.planning.test_options import SheetSource
from vadrin.core.planning.test_types.test_type import TestType


class DataSheet(TestType):
    """What a maker's sheet says, until a test of one's own says better."""

    key = "data sheet"
    beside_others = True
    needs_blank = False
    repeats_first = False
    bracketed = False
    scripted = False
    options = SheetSource()
    not_foretold = "No expected range: a data sheet is not measured here."

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A curve for each time the sheet draws; its points come when it is traced."""
        place = (PlannedFrame(FrameRole.LOST, "sheet"),)
        names = strip_labels(len(request.times))
        return [
            StripPlan(name, place, time, note="from the sheet")
            for name, time in zip(names, request.times, strict=True)
        ]


TYPE = DataSheet()
