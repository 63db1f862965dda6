"""What stands on a darkroom card, taken from a test and its analysis."""

from __future__ import annotations

from vadrin.app.display.quantities import (
    date_text,
    ei_range_text,
    loss_text,
    minutes_range_text,
    minutes_text,
    push_name,
)
from vadrin.app.results.answer import AS_DEVELOPED, answer_of
from vadrin.app.test_sheet import TestSheet
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.results.analysis import Analysis
from vadrin.core.results.push import verdict
from vadrin.formats.reports.card_pdf import Card, CardRow

TARGET_WORDS = {
    "average_gradient": "average gradient {:.2f}",
    "zone8": "Zone VIII density {:.2f}",
    "iso": "the standard's contrast, delta D {:.2f}",
    "contrast_index": "contrast index {:.2f}",
    "scene": "a scene of {:g} stops",
    AS_DEVELOPED: "this development, as it was",
}
CARE = "Follow the makers' sheets and local rules for every chemical; gloves, eye protection, air."


def target_text(kind: str, value: float) -> str:
    """A target in words."""
    return TARGET_WORDS.get(kind, kind + " {:g}").format(value)


def _rows(analysis: Analysis) -> tuple[CardRow, ...]:
    rows = []
    for push in analysis.push:
        index = push.exposure_index.value
        held = push.hold_highlight
        if index is None:
            continue
        name = push_name(push.stops)
        if held.time_min.value is None or held.shadow_loss_stops.value is None:
            rows.append(CardRow(name, str(marked_ei(index)), "not tested", "", ""))
            continue
        loss = held.shadow_loss_stops.value
        rows.append(
            CardRow(
                name,
                str(marked_ei(index)),
                minutes_text(held.time_min.value),
                loss_text(loss),
                verdict(loss),
            )
        )
    return tuple(rows)


def _grounds(sheet: TestSheet, analysis: Analysis) -> str:
    readings = sum(len(f.readings) for _, f in sheet.frames())
    strips = len(analysis.strips)
    words = f"Rests on {strips} strip{'s' if strips != 1 else ''}, {readings} readings"
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
        grounds=_grounds(sheet, analysis),
        tested_on=date_text(decided),
        diagnostics=tuple(
            w.sentence for w in analysis.diagnostics if w.severity.value == "serious"
        ),
        care=CARE,
    )
