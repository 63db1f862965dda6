"""What stands on a darkroom card, taken from a test and its analysis."""

from __future__ import annotations

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import ei_range_text, minutes_range_text, minutes_text
from vadrin.app.display.words import counted, date_text
from vadrin.app.results.answer import answer_of
from vadrin.app.results.push_rows import push_lines
from vadrin.app.results.target_words import target_text
from vadrin.app.test_sheet import TestSheet
from vadrin.core.diagnostic import Severity
from vadrin.core.results.analysis import Analysis
from vadrin.formats.reports import card_pdf
from vadrin.formats.reports.card_pdf import CARD_SIZES, Card, CardRow

CARE = "Follow the makers' sheets and local rules for every chemical; gloves, eye protection, air."

__all__ = ["CARD_SIZES", "card_document", "card_of"]


def card_document(card: Card, size: str) -> bytes:
    """A card as a PDF page of a size."""
    return card_pdf.card_pdf(card, size)


def _rows(analysis: Analysis) -> tuple[CardRow, ...]:
    return tuple(
        CardRow(
            line.name, line.index, line.time.shown, line.loss, line.verdict or "", line.normal
        )
        for line in push_lines(analysis)
        if line.known
    )  # fmt: skip


def _basis(sheet: TestSheet, analysis: Analysis) -> str:
    readings = sum(len(f.readings) for _, f in sheet.frames())
    strips = len(analysis.strips)
    words = f"Rests on {counted(strips, 'strip')}, {counted(readings, 'reading')}"
    times = [s.time_min for s in analysis.strips if s.time_min]
    if times:
        words += f", {min(times):g} to {max(times):g} min tested"
    answer = answer_of(sheet, analysis)
    target = target_text(answer.target_kind, answer.target_value)
    return words + f"; judged by {target}, {analysis.settings.school} school."


def card_of(sheet: TestSheet, analysis: Analysis) -> Card | None:
    """The darkroom card of a test; None while there is no EI and time to print."""
    answer = answer_of(sheet, analysis)
    if answer.index.value is None or answer.time_min.value is None:
        return None
    batch = f", batch {sheet.batch.name}" if sheet.batch and sheet.batch.name else ""
    decided = sheet.findings[-1].decided_at if sheet.findings else sheet.test.created_at
    return Card(
        film=sheet.stock.name + batch,
        developer=f"{sheet.developer.name} {sheet.developer.dilution}".strip(),
        exposure_index=str(marked_ei(answer.index.value)),
        index_range=ei_range_text(answer.index),
        time=minutes_text(answer.time_min.value),
        time_range=minutes_range_text(answer.time_min),
        temperature="at 20 °C",
        agitation=sheet.test.agitation,
        rows=_rows(analysis),
        basis=_basis(sheet, analysis),
        tested_on=date_text(decided),
        diagnostics=tuple(
            w.sentence for w in analysis.diagnostics if w.severity is Severity.SERIOUS
        ),
        care=CARE,
    )
