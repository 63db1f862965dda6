"""What stands on the cassettes of a test."""

from __future__ import annotations

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.test_sheet import StripSheet, TestSheet
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
            lines.append(", ".join(push_name(p) for p in pushes))
        lines.append(_to_develop(strips))
        first = strips[0]
        film = bool(first.strip.stock_id or first.strip.batch_id)
        lines.append(f"in {first.other}" if first.other and not film else sheet.process)
        title = first.other if film else f"{sheet.stock.name}{batch}"
        made.append(CassetteLabel(title, tuple(lines)))
    return tuple(made)


def _to_develop(strips: list[StripSheet]) -> str:
    """``whole roll: 7:50 min``, or which piece gets which time."""
    if len(strips) == 1:
        minutes = strips[0].minutes
        return f"whole roll: {minutes_text(minutes)} min" if minutes else "time not known yet"
    pieces = [
        f"{s.strip.label} {minutes_text(s.minutes)}" if s.minutes else s.strip.label for s in strips
    ]
    return f"cut in {len(strips)}: {', '.join(pieces)} min"
