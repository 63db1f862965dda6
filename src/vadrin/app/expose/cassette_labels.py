"""What stands on the cassettes of a test."""

from __future__ import annotations

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.expose.wrong_setting import MisratedRoll
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import reference_words, routine_of
from vadrin.core.process.process_kinds import kind_of_process
from vadrin.formats.reports.script_pdf import CassetteLabel


def labels_of(loaded: LoadedTest, wrong: MisratedRoll | None = None) -> tuple[CassetteLabel, ...]:
    """A label for every roll: stock, EI as shot, push or pull, how to develop it.

    Parameters
    ----------
    loaded : LoadedTest
    wrong : MisratedRoll, optional
        What the roll is, where its meter stood at another film's speed: its push and the time of
        that push go before the planned ones.
    """
    made = []
    for roll in sorted({s.strip.roll for s in loaded.strips}):
        strips = [s for s in loaded.strips if s.strip.roll == roll]
        indexes = sorted(
            {f.frame.exposure_index for s in strips for f in s.frames if f.frame.exposure_index}
        )
        shot = ", ".join(str(marked_ei(i)) for i in indexes[:4])
        batch = f" {loaded.batch.name}" if loaded.batch and loaded.batch.name else ""
        lines = [f"EI {shot} as shot" if shot else "not exposed by a meter"]
        pushes = [wrong.stops] if wrong else [s.strip.push for s in strips if s.strip.push]
        if pushes:
            lines.append(", ".join(push_name(p) for p in pushes))
        lines.append(_to_develop(strips, wrong))
        first = strips[0]
        film = bool(first.strip.stock_id or first.strip.batch_id)
        ways = [(s.strip.label, _process_of(loaded, s, film)) for s in strips]
        if len({way for _, way in ways}) == 1:
            ways = [("", ways[0][1])]
        lines += [f"{label}: {way}" if label else way for label, way in ways]
        title = first.other if film else f"{loaded.stock.name}{batch}"
        made.append(CassetteLabel(title, tuple(lines)))
    return tuple(made)


def _process_of(loaded: LoadedTest, strip: LoadedStrip, film: bool) -> str:
    """``in Sable 1+1 at 20 °C, stand``: what the roll goes into."""
    bath = f"in {strip.other}" if strip.other and not film else loaded.process
    moved = strip.strip.agitation or loaded.test.agitation
    routine = routine_of(loaded, strip)
    kind = kind_of_process(routine.kind if routine else "")
    how = moved or (kind.title if routine and kind.key != "negative" else "")
    return f"{bath} at {reference_words(loaded, strip)}{f', {how}' if how else ''}"


def _to_develop(strips: list[LoadedStrip], wrong: MisratedRoll | None) -> str:
    """``whole roll: 7:50 min``, or which strip gets which time."""
    if len(strips) == 1:
        minutes = wrong.minutes if wrong else strips[0].minutes
        return f"whole roll: {minutes_text(minutes)} min" if minutes else "time not known yet"
    times = [
        f"{s.strip.label} {minutes_text(s.minutes)}" if s.minutes else s.strip.label for s in strips
    ]
    return f"strips {', '.join(times)} min"
