"""The lights-off sheet: what to do in the dark, short enough to be memorised."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.region import local_all
from vadrin.app.entry.choices import choice_typed
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.process.bath import bath_words, minutes_in_bath
from vadrin.app.process.strip_chemistry import together
from vadrin.core.planning.plan_request import Arrangement, FilmUnit
from vadrin.core.process.development_order import (
    DevelopmentOrder,
    TakeOut,
    TimedStrip,
    loading_order,
    take_outs,
    tank_minutes,
)
from vadrin.core.wording import list_text
from vadrin.formats.whole_file import safe_name, write_whole
from vadrin.notebook.store import Notebook

WAYS = tuple(str(w) for w in DevelopmentOrder)


@dataclass(frozen=True)
class LightsOff:
    """What to do before the light goes out, and after."""

    before: tuple[str, ...]
    dark: tuple[str, ...]


def pull_way(loaded: LoadedTest) -> DevelopmentOrder:
    """How the strips of a test are pulled: as was said, else as their film suggests."""
    if loaded.test.pull_way in WAYS:
        return DevelopmentOrder(loaded.test.pull_way)
    if (
        loaded.test.film_unit is FilmUnit.SHEETS
        or loaded.test.arrangement is Arrangement.INTERLEAVED
    ):
        return (
            DevelopmentOrder.SHEETS
            if loaded.test.film_unit is FilmUnit.SHEETS
            else DevelopmentOrder.TANKS
        )
    rolls = len({s.strip.roll for s in loaded.strips})
    return (
        DevelopmentOrder.CUT if rolls == 1 and len(loaded.strips) > 1 else DevelopmentOrder.LIFTED
    )


def set_pull_way(notebook: Notebook, loaded: LoadedTest, words: str) -> None:
    """Say how the strips are pulled.

    Raises
    ------
    EntryError
        Listing the ways there are.
    """
    way = choice_typed(words, WAYS, anywhere=True)
    with notebook.change("how the strips are pulled"):
        notebook.put(replace(loaded.test, pull_way=way))


def _pulled(loaded: LoadedTest, strip: LoadedStrip) -> TimedStrip:
    turns = sorted(f.frame.turn for f in strip.frames)
    return TimedStrip(
        strip.strip.label,
        minutes_in_bath(loaded, strip.strip.planned_min or 8.0),
        tuple(t + 1 for t in turns),
    )


def lights_off(loaded: LoadedTest) -> LightsOff:
    """The sheet of the strips that wait to be developed, for the bath they go into."""
    made = _by_way(loaded)
    return replace(made, before=(bath_words(loaded), *made.before)) if made.dark else made


def _by_way(loaded: LoadedTest) -> LightsOff:
    way = pull_way(loaded)
    strips = tuple(_pulled(loaded, s) for s in together(loaded))
    if not strips:
        return LightsOff((), ())
    order = list_text(loading_order(strips, way))
    acts = take_outs(strips)
    if way is DevelopmentOrder.LIFTED:
        before = (f"Hang the strips from the front in this order: {order}.",)
        return LightsOff(before, tuple(_act_words(a, "lift", i) for i, a in enumerate(acts)))
    if way is DevelopmentOrder.CUT:
        before = (f"From the tail of the roll inwards lie {order}. Feel for the notch of each.",)
        return LightsOff(before, tuple(_act_words(a, "cut off", i) for i, a in enumerate(acts)))
    if way is DevelopmentOrder.TANKS:
        total = minutes_text(tank_minutes(strips))
        before = (f"Load all tanks before the first: {order}. Developing takes {total} in all.",)
        by_label = {s.label: s for s in strips}
        longest_first = loading_order(strips, way)
        dark = tuple(f"Tank {x}: {minutes_text(by_label[x].minutes)}, stop." for x in longest_first)
        return LightsOff(before, dark)
    return _loaded_tests(strips)


def _act_words(act: TakeOut, verb: str, place: int) -> str:
    """``5:00 lift A``, then by the gaps, which are what one counts."""
    gap = "" if place == 0 else f"{minutes_text(act.gap_min)} later, at "
    said = f"{gap}{minutes_text(act.at_min)} {verb} {list_text(act.labels)}, into the stop."
    return f"{said[0].upper()}{said[1:]}"


def _loaded_tests(strips: tuple[TimedStrip, ...]) -> LightsOff:
    """Sheets by the order they were exposed: the same place in each tank, notch up and right."""
    count = max(len(s.sheets) for s in strips)
    pairs = [
        " and ".join(str(s.sheets[place]) for s in strips if place < len(s.sheets))
        for place in range(count)
    ]
    before = (
        f"Sheets {list_text(pairs)} had the same exposure.",
        "Load in the order of exposure, code notch at top right with the emulsion facing you.",
    )
    named = [list_text([str(n) for n in s.sheets]) for s in strips]
    dark = tuple(
        f"Tank {s.label}, {minutes_text(s.minutes)}: sheets {sheets}."
        for s, sheets in zip(strips, named, strict=True)
    )
    return LightsOff(before, dark)


def write_lights_off(folder: Path, _notebook: Notebook, loaded: LoadedTest) -> Path:
    """Write the sheet as PDF in large print.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    from vadrin.formats.reports.lights_off_pdf import lights_off_pdf

    made = lights_off(loaded)
    target = folder / safe_name(f"lights off {loaded.title}", ".pdf")
    write_whole(
        target,
        lights_off_pdf(
            f"{loaded.title}, {loaded.process}", local_all(made.before), local_all(made.dark)
        ),
    )
    return target
