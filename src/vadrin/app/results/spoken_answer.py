"""A test's answer as it is heard: one sentence for whoever does not see the screen."""

from __future__ import annotations

from vadrin.app.display.quantities import ei_range_text, minutes_range_text
from vadrin.app.document.state import State
from vadrin.app.loaded.once import once
from vadrin.app.results.headline import headline_of
from vadrin.app.results.rating import rating_of

NO_ANSWER = "no answer yet"


@once
def spoken_answer(state: State) -> str:
    """What was found so far: ``EI 80, between 64 and 100; 7:35 min, 7:20 to 7:50``.

    ``no answer yet`` before there is one; empty while it is being worked out.
    """
    if state.analysis is None:
        return ""
    found = headline_of(state)
    if not (found.index or found.time):
        return NO_ANSWER
    if found.own:
        parts = [found.index, found.index_note]
    else:
        rated = rating_of(state)
        index = ", ".join(w for w in (found.index, ei_range_text(rated.index)) if w)
        between = "" if rated.as_developed else minutes_range_text(rated.time_min)
        time = ", ".join(w for w in (found.time, between) if w)
        parts = [index or found.index_note, time]
    return "; ".join(part.rstrip(".") for part in parts if part)
