"""Everything to be minded of a test: what its control strip says, then what its readings do."""

from __future__ import annotations

from typing import TYPE_CHECKING

from vadrin.app.kind_answer import own_answer
from vadrin.app.process.control_strips import control_diagnostics
from vadrin.app.results.next_act import mended
from vadrin.app.test_sheet import TestSheet
from vadrin.core.diagnostic import Diagnostic

if TYPE_CHECKING:
    from vadrin.core.results.analysis import Analysis


def warnings_of(sheet: TestSheet, analysis: Analysis | None) -> tuple[Diagnostic, ...]:
    """The warnings of a test, the gravest cause first."""
    # What readings say of an EI means nothing to a kind that asks for something else.
    own = own_answer(sheet, analysis)
    if analysis is None or (own is not None and not own.of_a_curve):
        return control_diagnostics(sheet)
    if own is not None:
        of_frames = tuple(w for w in analysis.diagnostics if w.frames)
        return control_diagnostics(sheet) + of_frames
    return control_diagnostics(sheet) + mended(sheet, analysis)
