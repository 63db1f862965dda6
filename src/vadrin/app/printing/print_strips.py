"""Test strips of paper: what to give, what was chosen, and what the next one should be."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.numbers import number_within, within
from vadrin.app.entry.times import seconds_typed
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.printing.print_setups import PrintRoom, lock_setup, present_room, seconds_text
from vadrin.app.stamps import now
from vadrin.core.limits import REFLECTION_DENSITY
from vadrin.core.printing.strip_exposures import (
    Covering,
    StepUnit,
    StripExposures,
    first_black,
    time_of_piece,
)
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.notebook.records import PrintStrip
from vadrin.notebook.store import Notebook

BLACK, TONES = "maximum black", "the right tones"
PURPOSES = (BLACK, TONES)
WAYS_TO_COVER = tuple(str(way) for way in Covering)
_USUAL = StripExposures(2.0, 0.5, StepUnit.STOPS, 8)
_FINE_ENOUGH = 1 / 3 + 0.02
BY_EYE, BY_READING = "by eye", "by reflection density"
_SAME_BLACK = 0.04


@dataclass(frozen=True)
class AskedStrip:
    """The strip that is to be made next."""

    exposures: StripExposures
    way: Covering
    purpose: str

    @property
    def given_words(self) -> str:
        """The times as they are given, in their order."""
        times = ", ".join(seconds_text(t) for t in self.exposures.given(self.way))
        if self.way is Covering.ADDING:
            return f"Expose the whole strip, then cover one more section each time: {times}."
        return f"A section each: {times}."

    @property
    def totals_words(self) -> str:
        """What each section has had in all."""
        named = (
            f"section {n} {seconds_text(t)}" for n, t in enumerate(self.exposures.totals(), start=1)
        )
        return "Total: " + ", ".join(named) + "."


def exposures_of(strip: PrintStrip) -> StripExposures:
    """The exposures of a strip that was kept.

    Raises
    ------
    ValueError
        Where a notebook from elsewhere holds none that can be.
    """
    return StripExposures(strip.base_s, strip.step, StepUnit(strip.step_unit), strip.pieces)


def next_strip(room: PrintRoom, purpose: str = BLACK) -> AskedStrip:
    """The strip that tells most now: coarse, then fine inside the two neighbours chosen."""
    made = [s for s in room.strips if s.purpose == purpose]
    way = Covering(made[-1].way) if made and made[-1].way in WAYS_TO_COVER else Covering.ADDING
    if not made or made[-1].chosen is None:
        return AskedStrip(exposures_of(made[-1]) if made else _USUAL, way, purpose)
    last, chosen = exposures_of(made[-1]), made[-1].chosen
    if chosen == last.pieces:
        return AskedStrip(last.further(darker=True), way, purpose)
    if chosen == 1:
        return AskedStrip(last.further(darker=False), way, purpose)
    return AskedStrip(last if _fine(last) else last.finer(chosen), way, purpose)


def _fine(strip: StripExposures) -> bool:
    return strip.unit is StepUnit.STOPS and strip.step <= _FINE_ENOUGH


def strip_typed(before: AskedStrip, name: str, words: str) -> AskedStrip:
    """The strip with one of its words changed.

    Raises
    ------
    EntryError
        In words, where it would be no strip.
    """
    made = before.exposures
    try:
        if name == "first section":
            return replace(before, exposures=replace(made, base_s=seconds_typed(words)))
        if name == "step":
            return replace(before, exposures=_step_typed(made, words))
        if name == "sections":
            refusal = "a strip has 2 to 24 sections"
            count = round(number_within(words, 2, 24, refusal, "8"))
            return replace(before, exposures=replace(made, pieces=count))
        if name == "covering":
            return replace(before, way=Covering(choice_typed(words, WAYS_TO_COVER, anywhere=True)))
        return replace(before, purpose=choice_typed(words, PURPOSES, anywhere=True))
    except EntryError:
        raise
    except ValueError as error:
        raise EntryError(str(error)) from error


def _step_typed(made: StripExposures, words: str) -> StripExposures:
    """``1/2 stop``, ``½ stop``, ``2 s``."""
    plain = words.strip().lower()
    for mark, plainly in (("½", "1/2"), ("⅓", "1/3"), ("¼", "1/4"), ("⅙", "1/6")):
        plain = plain.replace(mark, plainly)
    seconds = plain.endswith("s") and "stop" not in plain
    number = plain.replace("stops", "").replace("stop", "").rstrip("s").strip()
    if "/" in number:
        over, _, under = number.partition("/")
        above = number_within(over, 0.01, 100, "a step is above 0", "1/2")
        below = number_within(under, 0.01, 100, "a step is above 0", "1/2")
        value = above / below
    else:
        value = number_within(number, 0.01, 600, "a step is above 0, such as 1/2 stop or 2 s", "2")
    return replace(made, step=value, unit=StepUnit.SECONDS if seconds else StepUnit.STOPS)


def step_words(made: StripExposures) -> str:
    """A step as it is typed."""
    if made.unit is StepUnit.SECONDS:
        return f"{made.step:g} s"
    for words, value in (
        ("1/2 stop", 1 / 2),
        ("1/3 stop", 1 / 3),
        ("1/4 stop", 1 / 4),
        ("1/6 stop", 1 / 6),
        ("1 stop", 1.0),
    ):
        if abs(made.step - value) < 0.004:
            return words
    return f"{made.step:.2f} stop"


def make_strip(notebook: Notebook, loaded: LoadedTest, asked: AskedStrip) -> PrintStrip:
    """Write down that a strip was exposed; the set-up is locked from then on."""
    with notebook.change(f"a strip of paper for {asked.purpose}"):
        setup = lock_setup(notebook, loaded)
        made = asked.exposures
        count = len(notebook.all(PrintStrip, setup_id=setup.id))
        return notebook.add(
            PrintStrip(
                setup_id=setup.id,
                position=count,
                purpose=asked.purpose,
                base_s=made.base_s,
                step=made.step,
                step_unit=made.unit.value,
                pieces=made.pieces,
                way=asked.way.value,
                made_at=now(),
            )
        )


def choose_piece(notebook: Notebook, loaded: LoadedTest, piece: int) -> str:
    """Write down which section of the newest strip was chosen; says what that comes to.

    Raises
    ------
    EntryError
        If there is no strip, or no such section.
    """
    room = present_room(notebook, loaded)
    strips = [s for s in room.strips if s.purpose in PURPOSES]
    if not strips:
        raise EntryError("make a strip first")
    strip = strips[-1]
    with notebook.change(f"section {piece} of the strip"):
        notebook.put(replace(strip, chosen=_on(strip, piece)))
        if strip.purpose != BLACK:
            time = time_of_piece(exposures_of(strip), piece)
            return (
                f"{seconds_text(time.seconds)} looks best, within {seconds_text(time.low)} to "
                f"{seconds_text(time.high)}."
            )
        return _keep_black(notebook, loaded, strip, piece, BY_EYE)


def _on(strip: PrintStrip, piece: int) -> int:
    if not 1 <= piece <= strip.pieces:
        raise EntryError(f"the strip has sections 1 to {strip.pieces}")
    return piece


def _keep_black(
    notebook: Notebook, loaded: LoadedTest, strip: PrintStrip, piece: int, way: str
) -> str:
    room = present_room(notebook, loaded)
    asked, setup = exposures_of(strip), room.setup
    alike = (
        s.chosen
        for s in room.strips
        if s.purpose == BLACK and s.id < strip.id and s.chosen and exposures_of(s) == asked
    )
    looks = (*alike, piece)
    found = first_black(asked, *looks)
    if found.why:
        return f"{found.why[0].upper()}{found.why[1:]}."
    notebook.put(
        replace(
            setup,
            black_s=round(found.seconds, 3),
            black_low_s=round(found.low, 3),
            black_high_s=round(found.high, 3),
            black_way=way,
            base_fog=fog_of(loaded),
        )
    )
    said = f"Maximum black from {seconds_text(found.seconds)}"
    if len(looks) > 1:
        return f"{said}, by {counted(len(looks), 'strip')} alike."
    return f"{said}. The same strip once more makes it surer." if _fine(asked) else f"{said}."


def fog_of(loaded: LoadedTest) -> float | None:
    """Base plus fog of the film on the bench, by its blanks; None where none was read."""
    read = [
        f.density
        for s in loaded.strips
        for f in s.frames
        if f.frame.blank and f.density is not None
    ]
    return round(sum(read) / len(read), 3) if read else None


def type_densities(notebook: Notebook, loaded: LoadedTest, words: str) -> str:
    """Keep reflection densities of the newest strip's sections; the first that is within 0.04 of
    the next is maximum black.

    Raises
    ------
    EntryError
        If they are not as many as there are sections, or no densities.
    """
    strips = [s for s in present_room(notebook, loaded).strips if s.purpose == BLACK]
    if not strips:
        raise EntryError("make a strip for maximum black first")
    strip = strips[-1]
    read = [within(w, REFLECTION_DENSITY) for w in words.replace(";", " ").split()]
    if len(read) != strip.pieces:
        raise EntryError(f"the strip has {strip.pieces} sections, and {len(read)} were typed")
    black = next(
        (
            i
            for i in range(len(read) - 1)
            if read[i + 1] - read[i] < _SAME_BLACK and read[i] > 0.5 * max(read)
        ),
        None,
    )
    with notebook.change("densities of the strip"):
        chosen = len(read) if black is None else black + 1
        notebook.put(replace(strip, densities=tuple(read), chosen=chosen))
        return _keep_black(notebook, loaded, strip, chosen, BY_READING)
