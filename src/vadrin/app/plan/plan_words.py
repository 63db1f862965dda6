"""The words of a plan's sentences: what each is called, how it is stepped, typed and shown."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from vadrin.app.descriptions.plan_word import Word, numbers_text
from vadrin.app.display.marks import aperture_mark, marked_ei, shutter_name, stops_text
from vadrin.app.display.quantities import minutes_brief
from vadrin.app.display.words import counted, list_text
from vadrin.app.document.stations import key_to
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.exposures import aperture_typed, exposure_index_typed, stops_typed
from vadrin.app.entry.film_supply import (
    AS_MUCH,
    film_supply_text,
    film_supply_typed,
    name_typed,
    names_typed,
)
from vadrin.app.entry.numbers import count_typed, number_typed, number_within, numbers_typed
from vadrin.app.entry.reciprocity_entry import reciprocity_words
from vadrin.app.entry.stepping import StepWord, chooser
from vadrin.app.entry.times import minutes_typed, seconds_typed, times_typed
from vadrin.app.library.named_records import NO_DEVELOPER, NO_FILM
from vadrin.app.plan.compared_materials import MOST_COMPARED
from vadrin.app.plan.plan_edit import MOST_STRIPS, PlanEdit
from vadrin.app.plan.starting_tests import rolls_begun
from vadrin.app.sheets.reference_temperature import reference_words
from vadrin.app.sheets.test_sheet import TestSheet
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.planning.plan_request import Arrangement, CameraControl, Compared
from vadrin.errors import EntryError
from vadrin.notebook.records import Camera, Lens
from vadrin.notebook.records.film_test import TABLET_SUBJECT
from vadrin.notebook.store import Notebook

STEP_WORDS = {"whole stops": 1.0, "half stops": 0.5, "thirds": 1 / 3}
SUPPLIES = (
    "36 frames",
    "24 frames",
    "12 frames",
    "8 frames",
    "10 sheets",
    "5 m",
    "10 m cine",
    AS_MUCH,
)
ORDERS = {
    "one strip after the other": Arrangement.SEQUENTIAL,
    "each strip back to front": Arrangement.MIRRORED,
    "in pairs on twin cameras": Arrangement.INTERLEAVED,
}
CHECKS = {"repeated at the end": True, "not repeated": False}
SUBJECTS = (
    "plain target",
    "still scene",
    f"{TABLET_SUBJECT} by contact",
    "colour chart",
    "clear film",
)
LIGHTS = ("sun", "open shade", "window light", "lamp")
_ANY = "not named"
NOT_KNOWN = "nothing more"

_Edit = Callable[[PlanEdit, str], PlanEdit]


def times_text(times: tuple[float, ...]) -> str:
    """Minutes as typed."""
    return list_text([minutes_brief(t) for t in times])


def _field(field: str, read: Callable[[str], Any]) -> _Edit:
    return lambda plan, words: replace(plan, test=replace(plan.test, **{field: read(words)}))


def _bracket(field: str) -> _Edit:
    def edit(plan: PlanEdit, words: str) -> PlanEdit:
        value = stops_typed(words, -15, 15, "a bracket stays within 15 stops")
        changes: dict[str, Any] = {field: value}
        test = replace(plan.test, **changes)
        if test.first_stop >= test.last_stop:
            raise EntryError("the bracket runs from few stops to more, such as −6 to +5")
        return replace(plan, test=test)

    return edit


def _strips(plan: PlanEdit, words: str) -> PlanEdit:
    wanted = count_typed(words, 1, MOST_STRIPS, f"a test has 1 to {MOST_STRIPS} strips")
    times = list(plan.times)
    while len(times) < wanted:
        times.append(_longer(times[-1]))
    return replace(plan, times=tuple(times[:wanted]))


def _longer(minutes: float) -> float:
    return round(minutes * 1.4 * 2) / 2


def _times(plan: PlanEdit, words: str) -> PlanEdit:
    times = times_typed(words)
    if len(times) > MOST_STRIPS:
        raise EntryError(f"a test has at most {MOST_STRIPS} strips")
    return replace(plan, times=times)


def _step_times(shown: str, way: int) -> str:
    times = times_typed(shown)
    if way < 0:
        return times_text(times[:-1] or times)
    return times_text((*times, _longer(times[-1]))[:MOST_STRIPS])


def _by(step: float) -> StepWord:
    return lambda shown, way: stops_text(number_typed(shown) + way * step, signed=True)


def _third(shown: str, way: int) -> str:
    return str(marked_ei(number_typed(shown) * 2.0 ** (way / 3)))


def _count(shown: str, way: int) -> str:
    return str(max(0, int(shown.split()[0]) + way))


def _minutes(shown: str, way: int) -> str:
    return minutes_brief(max(0.5, minutes_typed(shown) + 0.5 * way))


def _step_of(test_step: float) -> str:
    names = [n for n, size in STEP_WORDS.items() if abs(size - test_step) < 0.01]
    return names[0] if names else f"{test_step:g} stops"


def _key_of(table: dict[str, Any], value: object) -> str:
    return next((k for k, v in table.items() if v == value), next(iter(table)))


def _compared_names(plan: PlanEdit, words: str) -> PlanEdit:
    names = names_typed(name_typed(words))
    if len(names) > MOST_COMPARED:
        raise EntryError(f"at most {MOST_COMPARED} beside the reference")
    return replace(plan, test=replace(plan.test, compared_names=names))


def _warmth(plan: PlanEdit, words: str) -> PlanEdit:
    """The temperature is the process's own; typed as it is, it stays."""
    raise EntryError(
        f"the process says its temperature: choose one at Process ({key_to('process')})"
    )


def _reciprocity(plan: PlanEdit, words: str) -> PlanEdit:
    return replace(plan, reciprocity=reciprocity_words(words))


def _kept(words: str) -> int:
    return count_typed(words, 0, 6, "keep 0 to 6 frames for it")


def _film(plan: PlanEdit, words: str) -> PlanEdit:
    film = film_supply_typed(words)
    if film is None:
        return replace(plan, test=replace(plan.test, film_amount=None, film_taken=0))
    test = replace(plan.test, film_amount=film.amount, film_unit=film.unit, film_taken=film.taken)
    return replace(plan, test=test)


WORDS: dict[str, Word] = {
    "film": Word(
        "film stock",
        lambda p, w: replace(p, stock_name=name_typed(w)),
        lambda s, p: p.stock_name or NO_FILM,
    ),
    "batch": Word(
        "batch",
        lambda p, w: replace(p, batch_name=w.replace(_ANY, "").strip()),
        lambda s, p: s.batch.name if s.batch else _ANY,
    ),
    "developer": Word(
        "developer",
        lambda p, w: replace(p, developer_name=name_typed(w)),
        lambda s, p: p.developer_name or NO_DEVELOPER,
    ),
    "dilution": Word(
        "dilution",
        lambda p, w: replace(p, dilution=w.strip()),
        lambda s, p: p.dilution or "undiluted",
    ),
    "compared": Word(
        "what is compared",
        _field("compared", lambda w: Compared(choice_typed(w, Compared))),
        lambda s, p: p.test.compared,
        chooser(list(Compared)),
    ),
    "others": Word(
        "what is set beside the reference",
        _compared_names,
        lambda s, p: ", ".join(p.test.compared_names) or "not named yet",
    ),
    "ei": Word(
        "EI on the meter",
        _field("exposure_index", exposure_index_typed),
        lambda s, p: f"{p.test.exposure_index:g}",
        _third,
    ),
    "strips": Word(
        "number of strips", _strips, lambda s, p: counted(len(p.times), "strip"), _count
    ),
    "times": Word(
        "development times in minutes", _times, lambda s, p: times_text(p.times), _step_times
    ),
    "time": Word(
        "development time in minutes",
        lambda p, w: replace(p, times=(minutes_typed(w),)),
        lambda s, p: minutes_brief(p.times[0]) if p.times else "8",
        _minutes,
    ),
    "warmth": Word("temperature of the process", _warmth, lambda s, p: reference_words(s)),
    "factor": Word(
        "factor of the filter that stays on",
        _field(
            "filter_factor",
            lambda w: number_within(
                w.replace("×", ""), 1, 1000, "a filter's factor lies between 1 and 1000", "1.6"
            ),
        ),
        lambda s, p: f"{p.test.filter_factor:g}",
    ),
    "state": Word(
        "how fresh the bleach is",
        _field("process_state", lambda w: w.strip()),
        lambda s, p: p.test.process_state or "of an age not said",
        chooser(("fresh", "half used", "at its last sheets")),
    ),
    "first": Word(
        "thinnest exposure in stops",
        _bracket("first_stop"),
        lambda s, p: stops_text(p.test.first_stop, signed=True),
        _by(1.0),
    ),
    "last": Word(
        "densest exposure in stops",
        _bracket("last_stop"),
        lambda s, p: stops_text(p.test.last_stop, signed=True),
        _by(1.0),
    ),
    "step": Word(
        "step of the bracket",
        _field("step", lambda w: STEP_WORDS[choice_typed(w, STEP_WORDS)]),
        lambda s, p: _step_of(p.test.step),
        chooser(list(STEP_WORDS)),
    ),
    "blanks": Word(
        "blank frames",
        _field("blanks", lambda w: count_typed(w, 0, 6, "keep 0 to 6 frames blank")),
        lambda s, p: counted(p.test.blanks, "frame"),
        _count,
    ),
    "leader": Word(
        "frames of the leader",
        _field("leader", _kept),
        lambda s, p: counted(p.test.leader, "frame"),
        _count,
    ),
    "holder": Word(
        "frames in the holder",
        _field("holder", _kept),
        lambda s, p: counted(p.test.holder, "frame"),
        _count,
    ),
    "reciprocity": Word(
        "law of long exposures", _reciprocity, lambda s, p: p.reciprocity or NOT_KNOWN
    ),
    "subject": Word(
        "target", _field("subject", name_typed), lambda s, p: p.test.subject, chooser(SUBJECTS)
    ),
    "tablet": Word(
        "densities of the tablet",
        _field("tablet", numbers_typed),
        lambda s, p: numbers_text(p.test.tablet) or "0.05, 0.20, 0.35 …",
    ),
    "light": Word(
        "light",
        _field("light", lambda w: w.strip()),
        lambda s, p: p.test.light or "any light",
        chooser(LIGHTS),
    ),
    "supply": Word("film there is", _film, lambda s, p: film_supply_text(p.test.film)),
    "order": Word(
        "order of the exposures",
        _field("arrangement", lambda w: ORDERS[choice_typed(w, ORDERS)]),
        lambda s, p: _key_of(ORDERS, p.test.arrangement),
        chooser(list(ORDERS)),
    ),
    "check": Word(
        "repeat of the first exposure",
        _field("repeat_first", lambda w: CHECKS[choice_typed(w, CHECKS)]),
        lambda s, p: _key_of(CHECKS, p.test.repeat_first),
        chooser(list(CHECKS)),
    ),
    "shutter": Word(
        "metered shutter time",
        _field("metered_seconds", seconds_typed),
        lambda s, p: shutter_name(p.test.metered_seconds),
        lambda s, way: shutter_name(exact_shutter(seconds_typed(s)) * 2.0**way),
    ),
    "aperture": Word(
        "metered aperture",
        _field("aperture", aperture_typed),
        lambda s, p: aperture_mark(p.test.aperture),
        lambda s, way: aperture_mark(aperture_typed(s) * 2 ** (way / 2)),
    ),
    "camera": Word(
        "camera",
        lambda p, w: replace(p, camera_name=w.strip()),
        lambda s, p: p.camera_name or "any camera",
    ),
    "twin": Word(
        "twin camera",
        lambda p, w: replace(p, twin_name=w.strip()),
        lambda s, p: p.twin_name or "one just like it",
    ),
    "lens": Word(
        "lens", lambda p, w: replace(p, lens_name=w.strip()), lambda s, p: p.lens_name or "its lens"
    ),
    "turned": Word(
        "what is turned first",
        _field("turned_first", lambda w: CameraControl(choice_typed(w, CameraControl))),
        lambda s, p: p.test.turned_first,
        chooser(list(CameraControl)),
    ),
    "filter": Word(
        "neutral density at hand in stops",
        _field(
            "filter_stops", lambda w: number_within(w, 0, 10, "neutral density: 0 to 10 stops", "3")
        ),
        lambda s, p: f"{p.test.filter_stops:g}",
        lambda s, way: f"{max(0.0, number_typed(s) + way):g}",
    ),
}
"""Every word a plan's sentences can hold."""


def kit_step(key: str, here: Callable[[], tuple[Notebook, TestSheet | None]]) -> StepWord | None:
    """How a word is stepped whose choices lie in the notebook; None where it is only typed.

    Parameters
    ----------
    key : str
        Of a word.
    here : callable
        The open notebook, and the test that is planned.
    """
    kinds: dict[str, type[Camera] | type[Lens]] = {"camera": Camera, "twin": Camera, "lens": Lens}

    def supplies() -> list[str]:
        """Film as it is sold, and rolls other tests have begun and left room on."""
        book, sheet = here()
        return [*SUPPLIES, *(rolls_begun(book, sheet) if sheet else [])]

    if key == "supply":
        return chooser(supplies)
    if key not in kinds:
        return None
    return chooser(lambda: [r.name for r in here()[0].all(kinds[key])])
