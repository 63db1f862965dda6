"""The words of a plan's sentences: what each is called, how it is stepped, typed and shown."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from vadrin.app.display.quantities import list_text, minutes_typed, number_typed, times_typed
from vadrin.app.expose.script import aperture_name
from vadrin.app.library.cupboard import seconds_typed
from vadrin.app.plan.compared_materials import COMPARED, MOST, compared_names
from vadrin.app.plan.kind_pages import numbers_of
from vadrin.app.plan.planning import MOST_STRIPS, PlanEdit
from vadrin.app.test_sheet import TestSheet
from vadrin.core.exposure.arithmetic import (
    exact_aperture,
    exact_shutter,
    marked_ei,
    shutter_name,
    stops_text,
)
from vadrin.ui.widgets.parts import chooser

STEPS = {"whole stops": 1.0, "half stops": 0.5, "thirds": 1 / 3}
FORMS = ("36 frames", "24 frames", "12 frames", "8 frames", "10 sheets", "5 m", "10 m cine",
         "as much as it takes")  # fmt: skip
ORDERS = {"one strip after the other": "", "each strip back to front": "mirrored",
          "in pairs on twin cameras": "interleaved"}  # fmt: skip
CHECKS = {"repeated at the end": True, "not repeated": False}
SUBJECTS = ("plain target", "still scene", "step tablet by contact", "colour chart", "clear film")
LIGHTS = ("sun", "open shade", "window light", "lamp")
TURNED = ("shutter", "aperture")
_ANY = "not named"
NOT_KNOWN = "nothing more"

Edit = Callable[[PlanEdit, str], PlanEdit]


@dataclass(frozen=True)
class Word:
    """One underlined word of a plan."""

    name: str
    edit: Edit
    shown: Callable[[TestSheet, PlanEdit], str]
    step: Callable[[str, int], str] | None = None


def times_text(times: tuple[float, ...]) -> str:
    """Minutes as typed."""
    return list_text([f"{t:g}" for t in times])


def aperture_text(f_number: float) -> str:
    """The mark nearest an f-number, marked or exact."""
    return aperture_name(exact_aperture(f_number))


def aperture_typed(words: str) -> float:
    """An f-number as typed.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    value = number_typed(words.strip().lower().removeprefix("f").removeprefix("/"))
    return _within(value, 0.7, 128, "an aperture lies between f/0.7 and f/128")


def _within(value: float, low: float, high: float, words: str) -> float:
    if not low <= value <= high:
        raise ValueError(words)
    return value


def _named(words: str) -> str:
    if not words.strip():
        raise ValueError("it needs a name")
    return words.strip()


def _field(field: str, read: Callable[[str], Any]) -> Edit:
    return lambda plan, words: replace(plan, test=replace(plan.test, **{field: read(words)}))


def _bracket(field: str) -> Edit:
    def edit(plan: PlanEdit, words: str) -> PlanEdit:
        value = _within(number_typed(words), -15, 15, "a bracket stays within 15 stops")
        changes: dict[str, Any] = {field: value}
        test = replace(plan.test, **changes)
        if test.first_stop >= test.last_stop:
            raise ValueError("the bracket runs from few stops to more, such as −6 to +5")
        return replace(plan, test=test)

    return edit


def _strips(plan: PlanEdit, words: str) -> PlanEdit:
    wanted = round(_within(number_typed(words.split()[0]), 1, MOST_STRIPS,
                           f"a test has 1 to {MOST_STRIPS} strips"))  # fmt: skip
    times = list(plan.times)
    while len(times) < wanted:
        times.append(round(times[-1] * 1.4 * 2) / 2)
    return replace(plan, times=tuple(times[:wanted]))


def _times(plan: PlanEdit, words: str) -> PlanEdit:
    times = times_typed(words)
    if len(times) > MOST_STRIPS:
        raise ValueError(f"a test has at most {MOST_STRIPS} strips")
    return replace(plan, times=tuple(minutes_typed(f"{t}") for t in times))


def _step_times(shown: str, way: int) -> str:
    times = times_typed(shown)
    if way < 0:
        return times_text(times[:-1] or times)
    return times_text((*times, round(times[-1] * 1.4 * 2) / 2)[:MOST_STRIPS])


def _one_of(choices: list[str]) -> Callable[[str], str]:
    def read(words: str) -> str:
        found = [c for c in choices if words.strip() and c.startswith(words.strip().lower())]
        if len(found) != 1:
            raise ValueError(f"one of: {', '.join(choices)}")
        return found[0]

    return read


def _by(step: float) -> Callable[[str, int], str]:
    return lambda shown, way: stops_text(number_typed(shown) + way * step, signed=True)


def _third(shown: str, way: int) -> str:
    return str(marked_ei(number_typed(shown) * 2.0 ** (way / 3)))


def _count(shown: str, way: int) -> str:
    return str(max(0, int(shown.split()[0]) + way))


def _minutes(shown: str, way: int) -> str:
    return f"{max(0.5, minutes_typed(shown) + 0.5 * way):g}"


def _step_of(test_step: float) -> str:
    names = [n for n, size in STEPS.items() if abs(size - test_step) < 0.01]
    return names[0] if names else f"{test_step:g} stops"


def _key_of(table: dict[str, Any], value: object) -> str:
    return next((k for k, v in table.items() if v == value), next(iter(table)))


def _second(words: str) -> str:
    values = numbers_of(words)
    if not 1 <= len(values) <= 31:
        raise ValueError("type one to 31 numbers, such as 0, 1, 2")
    return words.strip()


def _against(plan: PlanEdit, words: str) -> PlanEdit:
    test = replace(plan.test, against=_named(words))
    if len(compared_names(test)) > MOST:
        raise ValueError(f"at most {MOST} beside the reference")
    return replace(plan, test=test)


def _law(plan: PlanEdit, words: str) -> PlanEdit:
    from vadrin.app.entry.reciprocity_entry import law_words

    return replace(plan, reciprocity=law_words(words))


def _kept(words: str) -> int:
    return round(_within(number_typed(words.split()[0]), 0, 6, "keep 0 to 6 frames for it"))


def _frames(count: int) -> str:
    return f"{count} frame{'s' if count != 1 else ''}"


def _form(words: str) -> str:
    from vadrin.core.planning.layout import capacity_of, taken_before

    plain = "" if words.strip().startswith("as much") else words.strip()
    capacity_of(plain)
    taken_before(plain)
    return plain


WORDS: dict[str, Word] = {
    "film": Word("film stock", lambda p, w: replace(p, stock_name=_named(w)),
                 lambda s, p: p.stock_name or "a film"),
    "batch": Word("batch", lambda p, w: replace(p, batch_name=w.replace(_ANY, "").strip()),
                  lambda s, p: s.batch.name if s.batch else _ANY),
    "developer": Word("developer", lambda p, w: replace(p, developer_name=_named(w)),
                      lambda s, p: p.developer_name or "a developer"),
    "dilution": Word("dilution", lambda p, w: replace(p, dilution=w.strip()),
                     lambda s, p: p.dilution or "undiluted"),
    "compared": Word("what is compared", _field("compared", _one_of(list(COMPARED))),
                     lambda s, p: p.test.compared, chooser(COMPARED)),
    "against": Word("what is set beside the reference", _against,
                    lambda s, p: p.test.against or "not named yet"),
    "ei": Word("EI on the meter",
               _field("exposure_index", lambda w: float(_within(
                   number_typed(w), 0.1, 100000, "an EI lies between 0.1 and 100000"))),
               lambda s, p: f"{p.test.exposure_index:g}", _third),
    "strips": Word("number of strips", _strips,
                   lambda s, p: f"{len(p.times)} strip{'s' if len(p.times) != 1 else ''}", _count),
    "times": Word("development times in minutes", _times, lambda s, p: times_text(p.times),
                  _step_times),
    "time": Word("development time in minutes", lambda p, w: replace(p, times=(minutes_typed(w),)),
                 lambda s, p: f"{p.times[0]:g}" if p.times else "8", _minutes),
    "second": Word("the other factor", _field("second", _second), lambda s, p: p.test.second),
    "first": Word("thinnest exposure in stops", _bracket("first_stop"),
                  lambda s, p: stops_text(p.test.first_stop, signed=True), _by(1.0)),
    "last": Word("densest exposure in stops", _bracket("last_stop"),
                 lambda s, p: stops_text(p.test.last_stop, signed=True), _by(1.0)),
    "step": Word("step of the bracket",
                 _field("step", lambda w: STEPS[_one_of(list(STEPS))(w)]),
                 lambda s, p: _step_of(p.test.step), chooser(list(STEPS))),
    "blanks": Word("blank frames",
                   _field("blanks", lambda w: round(_within(
                       number_typed(w.split()[0]), 0, 6, "keep 0 to 6 frames blank"))),
                   lambda s, p: _frames(p.test.blanks), _count),
    "leader": Word("frames of the leader", _field("leader", _kept),
                   lambda s, p: _frames(p.test.leader), _count),
    "holder": Word("frames in the holder", _field("holder", _kept),
                   lambda s, p: _frames(p.test.holder), _count),
    "law": Word("law of long exposures", _law, lambda s, p: p.reciprocity or NOT_KNOWN),
    "subject": Word("target", _field("subject", _named), lambda s, p: p.test.subject,
                    chooser(list(SUBJECTS))),
    "tablet": Word("densities of the tablet", _field("tablet", _second),
                   lambda s, p: p.test.tablet or "0.05, 0.20, 0.35 …"),
    "light": Word("light", _field("light", lambda w: w.strip()),
                  lambda s, p: p.test.light or "any light", chooser(list(LIGHTS))),
    "form": Word("film there is", _field("film_form", _form),
                 lambda s, p: p.test.film_form or FORMS[-1]),
    "order": Word("order of the exposures",
                  _field("arrangement", lambda w: ORDERS[_one_of(list(ORDERS))(w)]),
                  lambda s, p: _key_of(ORDERS, p.test.arrangement), chooser(list(ORDERS))),
    "check": Word("repeat of the first exposure",
                  _field("check_last", lambda w: CHECKS[_one_of(list(CHECKS))(w)]),
                  lambda s, p: _key_of(CHECKS, p.test.check_last), chooser(list(CHECKS))),
    "shutter": Word("metered shutter time", _field("metered_seconds", seconds_typed),
                    lambda s, p: shutter_name(p.test.metered_seconds),
                    lambda s, way: shutter_name(exact_shutter(seconds_typed(s)) * 2.0**way)),
    "aperture": Word("metered aperture", _field("aperture", aperture_typed),
                     lambda s, p: aperture_text(p.test.aperture),
                     lambda s, way: aperture_text(aperture_typed(s) * 2 ** (way / 2))),
    "camera": Word("camera", lambda p, w: replace(p, camera_name=w.strip()),
                   lambda s, p: p.camera_name or "any camera"),
    "twin": Word("twin camera", lambda p, w: replace(p, twin_name=w.strip()),
                 lambda s, p: p.twin_name or "one just like it"),
    "lens": Word("lens", lambda p, w: replace(p, lens_name=w.strip()),
                 lambda s, p: p.lens_name or "its lens"),
    "prefer": Word("what is turned first", _field("prefer", _one_of(list(TURNED))),
                   lambda s, p: p.test.prefer, chooser(list(TURNED))),
    "filter": Word("neutral density at hand in stops",
                   _field("filter_stops", lambda w: _within(
                       number_typed(w), 0, 10, "neutral density: 0 to 10 stops")),
                   lambda s, p: f"{p.test.filter_stops:g}",
                   lambda s, way: f"{max(0.0, number_typed(s) + way):g}"),
}  # fmt: skip
"""Every word a plan's sentences can hold."""
