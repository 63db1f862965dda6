"""Cine film: single frames at a few apertures, in each light, along strips cut in pieces."""

from __future__ import annotations

from itertools import product

from vadrin.core.planning.plan_request import Arrangement, PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, strip_labels, usual_frames
from vadrin.core.planning.test_options import LightsInTurn, options_as
from vadrin.core.planning.test_types.test_type import Asks, TestType

LIGHTS = {1: "sun", 2: "open shade", 3: "lamp"}
"""Lights by the number they are asked for with."""
TWIN = ", twin"
"""Ends the note of a piece that the second camera shot."""


class Cine(TestType):
    """The EI at which a meter asks for the best frame's exposure, in each light."""

    key = "cine"
    repeats_first = False
    asks = Asks.INDEX
    materials_apart = True
    times_shared = True
    lights_in_turn = True
    options = LightsInTurn()
    not_foretold = "The best frame is picked by eye, so there is no expected range."

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A piece for every time and light, and for each of two cameras where there are twins."""
        lights = [n for n in options_as(request.options, LightsInTurn).lights if n in LIGHTS]
        cameras = (1, 2) if request.arrangement is Arrangement.INTERLEAVED else (1,)
        pieces = list(product(request.times, lights, cameras))
        frames = usual_frames(request)
        return [
            StripPlan(
                name,
                frames,
                time,
                note=LIGHTS[light] + (TWIN if camera == 2 else ""),
                metered_anew=light != lights[0],
            )
            for name, (time, light, camera) in zip(strip_labels(len(pieces)), pieces, strict=True)
        ]


TYPE = Cine()
