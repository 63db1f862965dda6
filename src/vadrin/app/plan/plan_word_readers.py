"""How the words of a plan are read, and stepped."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from vadrin.app.display.marks import marked_ei, stops_text
from vadrin.app.display.quantities import minutes_brief
from vadrin.app.display.words import list_text
from vadrin.app.document.stations import key_to
from vadrin.app.entry.exposures import stops_typed
from vadrin.app.entry.film_supply import film_supply_typed, name_typed, names_typed
from vadrin.app.entry.numbers import count_typed, number_typed
from vadrin.app.entry.reciprocity_entry import reciprocity_words
from vadrin.app.entry.stepping import StepWord
from vadrin.app.entry.times import minutes_typed, times_typed
from vadrin.app.plan.compared_materials import MOST_COMPARED
from vadrin.app.plan.plan_edit import MOST_STRIPS, PlanEdit
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_types import type_of
from vadrin.errors import EntryError

_Edit = Callable[[PlanEdit, str], PlanEdit]
STEP_WORDS = {"whole stops": 1.0, "half stops": 0.5, "thirds": 1 / 3}


def times_text(times: tuple[float, ...]) -> str:
    """Minutes as typed."""
    return list_text([minutes_brief(t) for t in times])


def field_read(field: str, read: Callable[[str], Any]) -> _Edit:
    return lambda plan, words: replace(plan, test=replace(plan.test, **{field: read(words)}))


def end_of_bracket(field: str) -> _Edit:
    def edit(plan: PlanEdit, words: str) -> PlanEdit:
        value = stops_typed(words, -15, 15, "a bracket stays within 15 stops")
        changes: dict[str, Any] = {field: value}
        test = replace(plan.test, **changes)
        if test.first_stop >= test.last_stop:
            raise EntryError("the bracket runs from few stops to more, such as −6 to +5")
        return replace(plan, test=test)

    return edit


def count_of_strips(plan: PlanEdit, words: str) -> PlanEdit:
    wanted = count_typed(words, 1, MOST_STRIPS, f"a test has 1 to {MOST_STRIPS} strips")
    times = list(plan.times)
    while len(times) < wanted:
        times.append(_longer(times[-1]))
    return replace(plan, times=tuple(times[:wanted]))


def _longer(minutes: float) -> float:
    return round(minutes * 1.4 * 2) / 2


def times_of_strips(plan: PlanEdit, words: str) -> PlanEdit:
    times = times_typed(words)
    if len(times) > MOST_STRIPS:
        raise EntryError(f"a test has at most {MOST_STRIPS} strips")
    return replace(plan, times=times)


def step_times(shown: str, way: int) -> str:
    times = times_typed(shown)
    if way < 0:
        return times_text(times[:-1] or times)
    return times_text((*times, _longer(times[-1]))[:MOST_STRIPS])


def step_by(step: float) -> StepWord:
    return lambda shown, way: stops_text(number_typed(shown) + way * step, signed=True)


def step_third(shown: str, way: int) -> str:
    return str(marked_ei(number_typed(shown) * 2.0 ** (way / 3)))


def step_count(shown: str, way: int) -> str:
    return str(max(0, int(shown.split()[0]) + way))


def step_minutes(shown: str, way: int) -> str:
    return minutes_brief(max(0.5, minutes_typed(shown) + 0.5 * way))


def step_word(test_step: float) -> str:
    names = [n for n, size in STEP_WORDS.items() if abs(size - test_step) < 0.01]
    return names[0] if names else f"{test_step:g} stops"


def word_of(table: dict[str, Any], value: object) -> str:
    return next((k for k, v in table.items() if v == value), next(iter(table)))


def others_typed(plan: PlanEdit, words: str) -> PlanEdit:
    names = names_typed(name_typed(words))
    if len(names) > MOST_COMPARED:
        raise EntryError(f"at most {MOST_COMPARED} beside the reference")
    test = replace(plan.test, compared_names=names)
    if len(names) > 1 and test.arrangement is Arrangement.INTERLEAVED:
        # Pairs take one roll in each of two cameras: several follow each other.
        test = replace(test, arrangement=Arrangement.SEQUENTIAL)
    return replace(plan, test=test)


def warmth_refused(plan: PlanEdit, words: str) -> PlanEdit:
    """The temperature is the process's own; typed as it is, it stays."""
    raise EntryError(
        f"the process says its temperature: choose one at Process ({key_to('process')})"
    )


def law_typed(plan: PlanEdit, words: str) -> PlanEdit:
    return replace(plan, reciprocity=reciprocity_words(words))


def blanks_typed(plan: PlanEdit, words: str) -> PlanEdit:
    kind = type_of(plan.test.kind)
    least = 1 if kind is not None and kind.needs_blank else 0
    blanks = count_typed(words, least, 6, f"keep {least} to 6 frames blank")
    return replace(plan, test=replace(plan.test, blanks=blanks))


def kept_frames_typed(words: str) -> int:
    return count_typed(words, 0, 6, "keep 0 to 6 frames for it")


def supply_typed(plan: PlanEdit, words: str) -> PlanEdit:
    film = film_supply_typed(words)
    if film is None:
        return replace(plan, test=replace(plan.test, film_amount=None, film_taken=0))
    test = replace(plan.test, film_amount=film.amount, film_unit=film.unit, film_taken=film.taken)
    return replace(plan, test=test)
