"""Today's recipe in words: what is measured out, in which order, with which cautions first."""

from __future__ import annotations

import re
from dataclasses import dataclass

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.units import METRIC, Units
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of, routine_of, temperature_factor_of
from vadrin.app.process.bath import bath_words, minutes_in_bath, too_far
from vadrin.app.process.darkroom_runs import process_steps
from vadrin.app.process.fixer_words import TRIED, tried_words
from vadrin.app.process.strip_chemistry import together
from vadrin.core.process.process_kinds import kind_of_process
from vadrin.core.process.recipe import (
    Governs,
    Mix,
    dilution_parts,
    ingredients_of,
    mix_for,
    resolved,
    scale_step,
    scaled,
    tempering_water,
    total_volume,
)
from vadrin.core.process.temperature import drifted_c, standing_worth
from vadrin.core.wording import counted
from vadrin.notebook.records import Bottle, Developer
from vadrin.notebook.store import Notebook

_ALWAYS = (
    "Gloves, eye protection and fresh air; keep chemicals from food, cups and children. The "
    "maker's safety sheet and local rules count: this page does not replace them."
)
_HELD = {
    r"\bacid": "Add acid to water, never water to acid.",
    r"caustic|hydroxide|\blye\b": "Caustic: burns skin and eyes and heats water strongly. Add it "
    "slowly to cold water; never add water to it.",
    r"pyro|catech": "Poisonous through the skin. Wear gloves throughout and avoid the dust.",
    r"peroxide|bleach|permanganate|dichromate": "Bleaches and strong oxidisers burn skin and "
    "eyes. Never let them mix with developer. Add acid only where the recipe says so.",
    r"fix": "Used fixer carries silver: hand it in as local rules say.",
}
_UNTRIED = (
    "Not tried yet: time how long a scrap takes to clear, and note it with the day in the "
    "cupboard, at the bottle."
)
_POWDER = "Do not breathe powders. Weigh them in still air and wear a dust mask."


@dataclass(frozen=True)
class Darkroom:
    """What the recipe is for: films, the tank, what covers a reel, and the water at hand."""

    films: int = 1
    tank_ml: float = 600.0
    reel_ml: float = 0.0
    bath_c: float | None = None
    tap_c: float = 50.0
    room_c: float | None = None
    units: Units = METRIC


@dataclass(frozen=True)
class RecipeToday:
    """A recipe as it is read at the bench.

    Attributes
    ----------
    cautions : tuple of str
        First.
    lines : tuple of (str, str)
        What it is for, and what to do.
    times : tuple of str
        Wanted times for the bath as it is now.
    """

    cautions: tuple[str, ...]
    lines: tuple[tuple[str, str], ...]
    times: tuple[str, ...]


def _mixed(chemistry: Developer, mix: Mix, parts: tuple[float, ...], units: Units) -> str:
    total = units.volume_text(mix.volume_ml)
    if len(parts) == 1:
        return f"{total} as it is"
    least = (chemistry.least_ml or 0.0) * mix.films_a_run
    shares = [units.volume_text(mix.parts_ml[0], least)]
    shares += [
        f"{units.volume_text(share)} of part {i}" for i, share in enumerate(mix.parts_ml[1:-1], 2)
    ]
    return f"{', '.join(shares)}, water to {total}"


def _weighed(chemistry: Developer, stock_ml: float, units: Units) -> str:
    """The weights of a recipe for the stock that is needed, in its order."""
    made = scaled(ingredients_of(chemistry.recipe), stock_ml)
    words = []
    for part in made:
        if part.up_to:
            words.append(f"water to {units.volume_text(part.amount)}")
            continue
        amount = (
            f"{resolved(part.amount, scale_step(part.amount)):g} g"
            if part.unit == "g"
            else units.volume_text(part.amount)
        )
        warmth = f" at {units.warmth_text(part.warmth_c)}" if part.warmth_c is not None else ""
        words.append(f"{amount} {part.name}{warmth}")
    return ", then ".join(words)


def _is_weighed(chemistry: Developer) -> bool:
    try:
        return total_volume(ingredients_of(chemistry.recipe)) > 0
    except ValueError:
        return False


def _lines_of(chemistry: Developer, room: Darkroom) -> list[tuple[str, str]]:
    what = chemistry.bath
    try:
        parts = dilution_parts(chemistry.dilution)
        mix = mix_for(parts, room.tank_ml, room.films, chemistry.least_ml or 0.0, room.reel_ml)
    except ValueError as error:
        return [(what, f"{error}.")]
    words = _mixed(chemistry, mix, parts, room.units)
    if mix.governs is Governs.FILM:
        words += f"; {mix.governs.value} decide the volume"
    if mix.runs > 1:
        words += f"; in {counted(mix.runs, 'run')} of {counted(mix.films_a_run, 'film')}"
    made = [(what, f"{words}.")]
    if _is_weighed(chemistry):
        weighed = _weighed(chemistry, mix.parts_ml[0], room.units)
        made.insert(0, (f"{chemistry.name}, the stock solution", f"{weighed}."))
    return made


_ROLE_OF_STEP = (
    ("stop", "stop bath"),
    ("bleach", "bleach"),
    ("fix", "fixer"),
    ("wash", "wash aid"),
)
"""What a step's name tells of the chemistry it takes."""


def chemistry_for(notebook: Notebook, loaded: LoadedTest) -> list[Developer]:
    """The developers of the strips, then what the steps of the process take, in their order."""
    made = [loaded.developer]
    for strip in loaded.strips:
        other = notebook.get(Developer, strip.strip.developer_id or 0)
        if other is not None and other not in made:
            made.append(other)
    known: dict[str, Developer] = {}
    for each in notebook.all(Developer):
        known.setdefault(each.role, each)
    for step in process_steps(notebook, loaded):
        name = step.name.lower()
        for mark, role in _ROLE_OF_STEP:
            if mark in name and role in known and known[role] not in made:
                made.append(known[role])
    return made


def recipe_today(notebook: Notebook, loaded: LoadedTest, room: Darkroom) -> RecipeToday:
    """The recipe of a test for today's tank and bath."""
    chemistry = chemistry_for(notebook, loaded)
    lines = [line for each in chemistry for line in _lines_of(each, room)]
    lines += [line for each in chemistry for line in _tried_lines(notebook, each)]
    held = " ".join(f"{c.name} {c.recipe} {c.role} {c.note}".lower() for c in chemistry)
    cautions = [words for marks, words in _HELD.items() if re.search(marks, held)]
    if any(_is_weighed(c) for c in chemistry):
        cautions.insert(0, _POWDER)
    return RecipeToday((_ALWAYS, *cautions), tuple(lines), tuple(_times(loaded, room)))


def _tried_lines(notebook: Notebook, chemistry: Developer) -> list[tuple[str, str]]:
    """What a scrap and a drop said of the bottles of a fixer or bleach; how to try, if nothing."""
    if chemistry.role not in TRIED:
        return []
    made = []
    for bottle in notebook.all(Bottle, developer_id=chemistry.id):
        name = f"{chemistry.bath} {bottle.name}".strip()
        said = tried_words(bottle, chemistry.role)
        made.append((f"{name}, tried", f"{said[:1].upper()}{said[1:]}." if said else _UNTRIED))
    return made


def _times(loaded: LoadedTest, room: Darkroom) -> list[str]:
    if room.bath_c is None:
        waiting = any(s.strip.time_min is None for s in loaded.strips)
        return [bath_words(loaded)] if waiting else []
    now = together(loaded)
    first = now[0] if now else None
    reference, factor = reference_of(loaded, first), temperature_factor_of(loaded, first)
    away = too_far(loaded)
    words: list[str] = []
    if away is not None:
        words.append(
            f"The bath is {room.units.difference_text(away)} from "
            f"{room.units.warmth_text(reference)}, too far to correct the time. Bring it to "
            "temperature."
        )
    else:
        words += [
            f"Strip {strip.strip.label}: develop {minutes_text(minutes_in_bath(loaded, wanted))} "
            f"in this bath (equal to {minutes_text(wanted)} at "
            f"{room.units.warmth_text(reference)})."
            for strip in now
            if (wanted := strip.strip.planned_min) is not None
        ]
    words += _standing(loaded, room, reference, factor)
    routine = routine_of(loaded, first)
    kind = kind_of_process(routine.kind if routine else "")
    if abs(room.bath_c - reference) > kind.tolerance_k + 1e-9:
        words.append(_tempered(room, reference, kind.tolerance_k))
    return words


def _standing(loaded: LoadedTest, room: Darkroom, reference: float, factor: float) -> list[str]:
    """What the longest time is worth in a tank that drifts to the room meanwhile."""
    longest = max((s.strip.planned_min or 0.0 for s in loaded.strips), default=0.0)
    if room.room_c is None or room.bath_c is None or longest <= 0:
        return []
    end = drifted_c(room.bath_c, room.room_c, longest, room.tank_ml)
    worth = standing_worth(longest, room.bath_c, room.room_c, room.tank_ml, reference, factor)
    return [
        f"After {minutes_text(longest)} in this room the tank will be at about "
        f"{room.units.warmth_text(round(end, 1))}. Estimated equivalent at "
        f"{room.units.warmth_text(reference)}: {minutes_text(worth)}. Note the real temperature."
    ]


def _tempered(room: Darkroom, reference: float, tolerance: float) -> str:
    """What brings the bath to its temperature."""
    assert room.bath_c is not None
    try:
        water = tempering_water(room.tank_ml, room.bath_c, reference, room.tap_c)
    except ValueError as error:
        return f"To temper it: {error}."
    units = room.units
    beyond = "adding water would dilute it too far: use a water bath"
    tap = f"{units.volume_text(water)} at {units.warmth_text(room.tap_c)}"
    kept = f"stand it in water, or mix in {tap} before the last water of the recipe"
    act = beyond if water > room.tank_ml / 4 else kept
    within = f"{units.difference_text(tolerance)} of {units.warmth_text(reference)}"
    return f"It should be within {within}: {act}."
