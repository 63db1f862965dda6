"""Long exposures: what each time needed, the law through them, and a table to shoot by."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache
from math import log2
from typing import TYPE_CHECKING

import numpy as np

from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, OwnAnswer, Series
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.display.marks import shutter_name
from vadrin.app.document.state import State
from vadrin.app.entry.numbers import numbers_typed
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.working_steps import developed_steps
from vadrin.core.exposure.long_exposure_pairs import LongFrame, long_exposure_law
from vadrin.core.figure import Figure
from vadrin.core.planning.test_options import LongTimes
from vadrin.core.planning.test_types.long_exposures import LongExposures
from vadrin.errors import EntryError
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.exposure.long_exposure_pairs import LongExposureLaw

_NOISE = 0.012
"""Of a reading with a densitometer of which nothing is known, grain and place among it."""
_SEED = 3
_SHORT_S = 0.5
_TENTHS_COUNT_S = 10.0
"""Seconds under which a tenth of one is told."""
_NO_LOSS = 0.1
"""Stops below which nothing is lost that a shutter could make up."""


def _frames_read(loaded: LoadedTest) -> tuple[tuple[tuple[float, float, float], ...], float | None]:
    """Metered seconds, held seconds and density of each long frame; mean of the short ones."""
    long, short = [], []
    for _, frame in loaded.frames():
        if frame.density is None or frame.frame.blank or not frame.readable:
            continue
        held = frame.frame.seconds
        if held is None or held <= _SHORT_S:
            short.append(frame.density)
        else:
            metered = held / 2.0 ** (frame.frame.stops or 0.0)
            long.append((round(metered, 4), round(held, 4), round(frame.density, 4)))
    return tuple(sorted(long)), (sum(short) / len(short) if short else None)


@lru_cache(maxsize=32)
def _law(
    frames: tuple[tuple[float, float, float], ...], short: float, noise: float
) -> LongExposureLaw:
    made = tuple(LongFrame(*frame) for frame in frames)
    return long_exposure_law(short, made, noise, np.random.default_rng(_SEED))


def _noise_of(loaded: LoadedTest) -> float:
    """Standard deviation of a density: the instrument's, or what the readings say themselves,
    whichever is more."""
    own = [
        reading.deviation
        for _, frame in loaded.frames()
        for reading in frame.readings
        if reading.deviation and not reading.left_out
    ]
    told = float(np.sqrt(np.mean(np.square(own)))) if own else 0.0
    instrument = loaded.instrument.noise if loaded.instrument is not None else 0.0
    return max(_NOISE, told, instrument or 0.0)


def law_of(loaded: LoadedTest) -> LongExposureLaw | None:
    """What a test of long exposures comes to; None before it was read."""
    frames, short = _frames_read(loaded)
    if not frames or short is None:
        return None
    return _law(frames, short, _noise_of(loaded))


def _rows(law: LongExposureLaw) -> tuple[tuple[str, str, str], ...]:
    """A row for each time within what was tried; one for all that lies beyond."""
    known = [(s, f) for s, f in law.table if f.present]
    rows = [(_seconds(s), _spread(f), _stops(s, f)) for s, f in known]
    beyond = [s for s, f in law.table if not f.present]
    if known and beyond:
        rows.append((f"{_seconds(min(beyond))} and more", "not tried", ""))
    return tuple(rows or [(_seconds(s), _spread(f), "") for s, f in law.table])


def _seconds(seconds: float) -> str:
    if seconds < _TENTHS_COUNT_S and abs(seconds - round(seconds)) > 0.05:
        return f"{seconds:.1f} s"
    if seconds < 60:
        return shutter_name(seconds) if seconds in (1, 2, 4, 8, 15, 30) else f"{seconds:.0f} s"
    minutes, rest = divmod(round(seconds), 60)
    return f"{minutes}:{rest:02d} min"


def _spread(figure: Figure) -> str:
    if figure.value is None:
        return figure.why
    if figure.low is None or figure.high is None:
        return _seconds(figure.value)
    return f"{_seconds(figure.value)} ({_seconds(figure.low)} to {_seconds(figure.high)})"


def long_exposures_answer(state: State) -> OwnAnswer:
    """What a test of long exposures says."""
    loaded = state.loaded
    frames, short = _frames_read(loaded)
    law = law_of(loaded)
    if law is None:
        missing = "the short frame was" if short is None and frames else "its long frames were"
        words = f"Not known yet: {missing} not read."
        return OwnAnswer("", words, "Read the short frame, then each long one.")
    pairs = tuple((p.metered_s, p.needed_s.value) for p in law.pairs if p.needed_s.value)
    table = AnswerTable(("The meter says", "give", "stops more"), _rows(law))
    plot = AnswerPlot(
        "seconds by the meter",
        "seconds to give",
        (
            Series("needed", pairs, ()),
            Series("the law", (), tuple((s, f.value) for s, f in law.table if f.value)),
            Series("nothing lost", (), ((1.0, 1.0), (1800.0, 1800.0))),
        ),
        log_axes=True,
    )
    figures: dict[str, Figure | float | None] = {
        f"needed_{p.metered_s:g}s": p.needed_s for p in law.pairs
    }
    figures |= {f"corrected_{s:g}s": f for s, f in law.table}
    figures["contrast_change"] = law.contrast
    if law.law is None:
        why = next((p.needed_s.why for p in law.pairs if not p.needed_s.present), "")
        words = f"One pair gives no correction. {why[:1].upper()}{why[1:]}.".strip()
        return OwnAnswer("", words, "Expose and read another long time.", figures, table, (), plot)
    figures |= {"factor": law.law.factor, "exponent": law.law.exponent}
    says, words = _worded(law)
    steps = (
        ("Meter", "as usual; from a second on give what stands beside the meter's time"),
        *developed_steps(loaded),
    )
    return OwnAnswer(
        says,
        words + _contrast(law.contrast),
        _act(loaded, law),
        figures,
        table,
        (),
        plot,
        steps=steps,
    )


def _stops(metered: float, figure: Figure) -> str:
    return "" if figure.value is None else f"{log2(figure.value / metered):+.1f}"


def _lost(law: LongExposureLaw) -> tuple[float, float, float]:
    """The longest time that was tried, what it takes, and the stops lost at it."""
    known = [(s, f.value) for s, f in law.table if f.value is not None]
    seconds, needed = known[-1] if known else (1.0, 1.0)
    return seconds, needed, log2(needed / seconds)


def _worded(law: LongExposureLaw) -> tuple[str, str]:
    seconds, needed, lost = _lost(law)
    if law.law is None or lost < _NO_LOSS:
        return "Nothing lost", f"up to {_seconds(seconds)}: give what the meter says."
    return (
        f"{_seconds(seconds)} takes {_seconds(needed)}",
        f"the law t + {law.law.factor:.2g} t^{law.law.exponent:.2f}, from {len(law.pairs)} times "
        "tried; within what was tried and no further.",
    )


def _contrast(figure: Figure) -> str:
    if figure.value is None or figure.low is None or figure.high is None:
        return ""
    if figure.low <= 1 <= figure.high:
        return " No change of contrast is known."
    side = "higher" if figure.value > 1 else "lower"
    return f" Contrast gets {side} at long times: × {figure.value:.2f}."


def _act(loaded: LoadedTest, law: LongExposureLaw) -> str:
    typed = typed_law(law)
    if typed and loaded.stock.reciprocity == typed:
        return "Saved with this film: every plan of it uses this."
    return "Save the correction with this film, and every plan of it uses it."


def typed_law(law: LongExposureLaw | None) -> str:
    """The law as it is typed in the cupboard; empty where there is none, or nothing is lost."""
    if law is None or law.law is None or _lost(law)[2] < _NO_LOSS:
        return ""
    return f"+{law.law.factor:.3g} t^{law.law.exponent:.3g}"


def may_write_law(loaded: LoadedTest) -> bool:
    """Whether a test found a loss that its stock does not say yet."""
    if loaded.test.kind != LongExposures.key:
        return False
    typed = typed_law(law_of(loaded))
    return bool(typed) and typed != loaded.stock.reciprocity


def write_law(notebook: Notebook, loaded: LoadedTest) -> str:
    """Write the law into the stock, as one edit; says what was written.

    Raises
    ------
    EntryError
        If there is no law yet.
    """
    typed = typed_law(law_of(loaded))
    if not typed:
        raise EntryError("nothing to write: no loss was found, or too little was read")
    with notebook.change(f"long exposures of {loaded.stock.name}"):
        notebook.put(replace(loaded.stock, reciprocity=typed))
    return f"{loaded.stock.name} takes {typed} beyond a second from now on."


def _long_typed(words: str) -> tuple[float, ...]:
    seconds = numbers_typed(words, like="1, 4, 15, 60")
    if min(seconds) <= 0:
        raise EntryError("long times are seconds above 0, such as 1, 4, 15, 60")
    return seconds


DESCRIPTION = TestDescription(
    LongExposures.key,
    "How much extra exposure do long exposures need?",
    "One exposure, short and bright, then ever longer and dimmer.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.OWN),
    options=LongTimes((1.0, 4.0, 15.0, 60.0)),
    own_sentence="The same exposure as {long} s, each also one and two stops longer.",
    own_words={"long": option_word("long times in seconds", LongTimes, "seconds", _long_typed)},
    answer=long_exposures_answer,
)
