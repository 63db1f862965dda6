"""Everything to be minded of a test: what its control strip says, then what its readings do."""

from __future__ import annotations

from vadrin.app.descriptions import own_answer
from vadrin.app.document.state import State
from vadrin.app.loaded.once import once
from vadrin.app.process.control_strips import control_diagnostics
from vadrin.app.results.conditions import assumed_diagnostics, planned_diagnostics
from vadrin.app.results.next_act import mended
from vadrin.core.diagnostic import Diagnostic


@once
def warnings_of(state: State) -> tuple[Diagnostic, ...]:
    """The warnings of a test, the gravest cause first."""
    loaded, analysis = state.loaded, state.analysis
    # What readings say of an EI means nothing to a kind that asks for something else.
    own = own_answer(state)
    if analysis is None or (own is not None and not own.of_a_curve):
        return control_diagnostics(loaded)
    planned = planned_diagnostics(loaded)
    if own is not None:
        of_frames = tuple(w for w in analysis.diagnostics if w.frames)
        return planned + control_diagnostics(loaded) + of_frames
    return planned + control_diagnostics(loaded) + mended(state) + assumed_diagnostics(loaded)
