"""What stands on the cassettes of a test."""

from __future__ import annotations

from vadrin.app.display.marks import marked_ei, stops_text
from vadrin.app.test_sheet import TestSheet
from vadrin.formats.reports.script_pdf import CassetteLabel


def labels_of(sheet: TestSheet) -> tuple[CassetteLabel, ...]:
    """A label for every roll: stock, EI as shot, push or pull, how to develop it."""
    made = []
    for roll in sorted({s.strip.roll for s in sheet.strips}):
        strips = [s for s in sheet.strips if s.strip.roll == roll]
        indexes = sorted({f.frame.exposure_index for s in strips for f in s.frames
                          if f.frame.exposure_index})  # fmt: skip
        shot = ", ".join(str(marked_ei(i)) for i in indexes[:4])
        batch = f" {sheet.batch.name}" if sheet.batch and sheet.batch.name else ""
        lines = [f"EI {shot} as shot" if shot else "not exposed by a meter"]
        pushes = [s.strip.push for s in strips if s.strip.push]
        if pushes:
            lines.append("push " + ", ".join(stops_text(p) for p in pushes))
        whole = len(strips) == 1
        minutes = ", ".join(f"{s.minutes:g}" for s in strips if s.minutes)
        lines.append(f"{'whole roll' if whole else f'cut in {len(strips)}'}: {minutes} min")
        first = strips[0]
        film = bool(first.strip.stock_id or first.strip.batch_id)
        lines.append(f"in {first.other}" if first.other and not film else sheet.process)
        title = first.other if film else f"{sheet.stock.name}{batch}"
        made.append(CassetteLabel(title, tuple(lines)))
    return tuple(made)
