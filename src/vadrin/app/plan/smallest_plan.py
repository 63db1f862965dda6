"""The smallest plan for a wanted sureness: in words, and as an edit of the plan."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.display.words import counted, list_text
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.expected_curves import Expected
from vadrin.app.plan.plan_edit import PlanEdit
from vadrin.app.plan.plan_forecast import forecast_input
from vadrin.core.exposure.arithmetic import stops_text
from vadrin.core.planning.minimal_plan import BracketLayout, minimal_layout
from vadrin.core.process.minutes import minutes_brief

_STEP_WORDS = {1.0: "whole stops", 0.5: "half stops", 1 / 3: "thirds"}


@dataclass(frozen=True)
class Smallest:
    """What was asked for, and the layout found for it, if there is one."""

    sentence: str
    layout: BracketLayout | None = None

    def taken(self, request: PlanEdit) -> PlanEdit:
        """The plan changed to this layout."""
        if self.layout is None:
            return request
        test = replace(
            request.test,
            first_stop=self.layout.first,
            last_stop=self.layout.last,
            step=self.layout.step,
        )
        return replace(request, test=test, times=self.layout.times)


def smallest_plan(loaded: LoadedTest, film: Expected, stops: float) -> Smallest:
    """The fewest frames that would give the EI to within some stops, 95 in 100."""
    test = loaded.test
    times = tuple(s.strip.planned_min or 8.0 for s in loaded.strips)
    if film.found is not None and len(times) > 1:
        times = (film.found.minutes, *times[1:-1], film.found.minutes)
    widest = BracketLayout(times, test.first_stop, test.last_stop, test.step, test.blanks)
    question = forecast_input(loaded, film)
    settings = replace(question.settings, pushes=())
    known = film.found is not None
    index, noise = test.exposure_index, question.noise
    found = minimal_layout(film.prior, index, widest, noise, settings, stops, known)
    if found is None:
        return Smallest("no plan within this bracket reaches that precision. Widen the bracket.")
    layout, half = found
    count = len(layout.times)
    minutes = list_text([minutes_brief(t) for t in layout.times])
    span = f"{stops_text(layout.first, True)} to {stops_text(layout.last, True)}"
    strips = f"{counted(count, 'strip')} of {minutes} min"
    return Smallest(
        f"{counted(layout.frames, 'frame')} do, {strips}, {span} in {_STEP_WORDS[layout.step]}: "
        f"± {half:.2f}.",
        layout,
    )
