"""What a plan's times for pushes have to do with the maker's table."""

from __future__ import annotations

from vadrin.app.display.quantities import minutes_text, push_name
from vadrin.app.display.words import list_text
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.makers_told import makers_of_test
from vadrin.core.process.makers_table import makers_minutes

_ROUNDED_MIN = 0.13
"""Plans are laid out to the quarter of a minute."""
_UNMEASURED = "not measured here"


def makers_advice(loaded: LoadedTest) -> str:
    """Whether the pushes of a plan get the maker's times; empty where no table speaks of them."""
    table = makers_of_test(loaded)
    planned = [
        (s.strip.push or 0.0, s.strip.planned_min, told)
        for s in loaded.strips
        if s.strip.planned_min and (told := makers_minutes(table, s.strip.push or 0.0)) is not None
    ]
    if not table or not any(push for push, _, _ in planned):
        return ""
    if all(abs(mine - told) < _ROUNDED_MIN for _, mine, told in planned):
        return f"The times of the pushes are as the maker's table has them: {_UNMEASURED}."
    there = list_text([f"{minutes_text(told)} for {_called(push)}" for push, _, told in planned])
    normal = next(((mine, told) for push, mine, told in planned if not push), None)
    if normal is not None and all(
        abs(mine - normal[0] * told / normal[1]) < _ROUNDED_MIN for _, mine, told in planned
    ):
        return (
            f"The pushes are as much longer than the normal as in the maker's table, which has "
            f"{there}: {_UNMEASURED}."
        )
    way = (
        f"Type {minutes_text(normal[1])} as the time to plan by it"
        if normal
        else ("Step a word of the plan to plan by it")
    )
    return f"The maker's table has {there}; this plan does not go by it. {way}."


def _called(push: float) -> str:
    return "the normal" if push == 0 else push_name(push)
