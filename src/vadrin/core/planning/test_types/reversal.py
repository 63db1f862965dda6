"""Direct positive or reversal-processed material: camera exposure against a second factor."""

from __future__ import annotations

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan, strip_labels, usual_frames
from vadrin.core.planning.test_options import SecondSteps, SheetUse, TestOptions, options_as
from vadrin.core.planning.test_types.test_type import TestType


def _step_words(options: SecondSteps, step: float) -> str:
    """A step of the second factor: ``second exposure +1 stop, 60 s``."""
    signed = f"{step:+g}".replace("-", "−") if step else "±0"
    words = f"{options.factor} {signed} {'stop' if abs(step) <= 1 else 'stops'}"
    return f"{words}, {options.seconds(step):.3g} s" if options.base_s else words


class Reversal(TestType):
    """The best cell of a grid of two factors."""

    key = "reversal"
    beside_others = True
    density_falls = True
    options = SecondSteps()
    process_kind = "reversal"

    def on_one_sheet(self, options: TestOptions) -> bool:
        """Whether the cells lie on one sheet."""
        return options_as(options, SecondSteps).sheet is SheetUse.DARK_SLIDE

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """A strip for each step of what varies beside the camera's exposure."""
        options = options_as(request.options, SecondSteps)
        return [
            StripPlan(
                name, usual_frames(request), request.times[0], note=_step_words(options, step)
            )
            for name, step in zip(strip_labels(len(options.steps)), options.steps, strict=True)
        ]


TYPE = Reversal()
