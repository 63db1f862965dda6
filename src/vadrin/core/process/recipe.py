"""What to measure out today: volumes, concentrate, weights, and the water that tempers them.

Dilution 1+n: concentrate = volume / (1 + n). The volume covers the reels and carries the least
concentrate each film needs; the larger wins.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from enum import Enum

LEAST_C, MOST_C = 5.0, 60.0
"""Degrees Celsius between which baths and the water for them lie."""
_PARTS = re.compile(r"\d+(?:[.,]\d+)?(?:\s*\+\s*\d+(?:[.,]\d+)?)+")
ML_OF_FLUID_OUNCE = 29.5735


class Governs(Enum):
    """What a volume was decided by."""

    TANK = "the tank and its reels"
    FILM = "the least concentrate the films need"


@dataclass(frozen=True)
class Mix:
    """A working solution for one run.

    Attributes
    ----------
    volume_ml : float
        Of working solution, all runs alike.
    parts_ml : tuple of float
        In the order of the dilution, water last; one entry for stock.
    governs : Governs
    runs : int
        More than one where the films' concentrate does not fit the tank.
    films_a_run : int
    """

    volume_ml: float
    parts_ml: tuple[float, ...]
    governs: Governs
    runs: int
    films_a_run: int


def dilution_parts(words: str) -> tuple[float, ...]:
    """Parts of a dilution: (1, 9) for ``1+9``; (1,) for stock.

    Raises
    ------
    ValueError
        In words for the person.
    """
    plain = words.strip().lower().replace(" ", "")
    if plain in ("", "stock", "1", "undiluted", "ready"):
        return (1.0,)
    if not _PARTS.fullmatch(plain):
        raise ValueError(f"“{words.strip()}” is no dilution; write 1+9, 1+1+10 or stock")
    parts = tuple(float(p.replace(",", ".")) for p in plain.split("+"))
    if min(parts) <= 0:
        raise ValueError("every part of a dilution is above 0; for the undiluted write stock")
    if sum(parts) / parts[0] > 1001:
        raise ValueError("dilutions weaker than 1+1000 are not accepted; check the dilution")
    return parts


def mix_for(
    parts: tuple[float, ...],
    tank_ml: float,
    films: int,
    least_ml: float = 0.0,
    reel_ml: float = 0.0,
) -> Mix:
    """How much of everything a run takes.

    Parameters
    ----------
    parts : tuple of float
        Of the dilution, concentrate first.
    tank_ml : float
        What the tank holds at most.
    films : int
    least_ml : float
        Concentrate each film needs at least; 0 where the maker names none.
    reel_ml : float
        What covers the reel of one film; 0 for the whole tank.

    Raises
    ------
    ValueError
        In words, where nothing can be mixed.
    """
    if not 0 < tank_ml <= 100_000:
        raise ValueError("a tank holds more than 0 ml, and at most 100 l")
    if not 1 <= films <= 1000:
        raise ValueError("at least one film")
    share = parts[0] / sum(parts)
    if least_ml / share > tank_ml:
        raise ValueError(
            f"one film needs {least_ml:g} ml of concentrate, which is {least_ml / share:.0f} ml at "
            f"this dilution; the tank holds {tank_ml:g}: take a stronger dilution or a larger tank"
        )
    most = films if least_ml <= 0 else int(tank_ml * share / least_ml + 1e-9)
    if reel_ml > 0:
        most = min(most, int(tank_ml / reel_ml + 1e-9))
    if most < 1:
        raise ValueError(f"a reel takes {reel_ml:g} ml; the tank holds {tank_ml:g}")
    runs = math.ceil(films / most)
    each = math.ceil(films / runs)
    covering = reel_ml * each if reel_ml > 0 else tank_ml
    needed = least_ml * each / share
    governs = Governs.FILM if needed > covering else Governs.TANK
    volume = min(max(covering, needed), tank_ml)
    return Mix(volume, tuple(volume * p / sum(parts) for p in parts), governs, runs, each)


def resolved(amount: float, step: float, least: float = 0.0) -> float:
    """An amount as a scale or a cylinder shows it: to the step, never under `least`."""
    shown = round(amount / step) * step
    while shown < least - 1e-9:
        shown += step
    return float(round(shown, 6))


def cylinder_step(volume_ml: float) -> float:
    """What a cylinder of a fitting size resolves, in millilitres."""
    return 0.1 if volume_ml < 10 else 0.5 if volume_ml < 50 else 1.0 if volume_ml < 250 else 5.0


def scale_step(grams: float) -> float:
    """What a darkroom scale resolves, in grams."""
    return 0.01 if grams < 1 else 0.1 if grams < 100 else 1.0


@dataclass(frozen=True)
class Ingredient:
    """One line of a recipe from raw chemicals.

    Attributes
    ----------
    amount : float
    unit : str
        ``g`` or ``ml``.
    name : str
    warmth_c : float or None
        Of water.
    up_to : bool
        Water that makes the volume up.
    """

    amount: float
    unit: str
    name: str
    warmth_c: float | None = None
    up_to: bool = False


_LINE = re.compile(
    r"(?P<amount>\d+(?:[.,]\d+)?)\s*(?P<unit>g|kg|mg|ml|l)\s+(?P<name>[^;\n]+?)"
    r"(?:\s+at\s+(?P<warmth>\d+(?:[.,]\d+)?)\s*(?:°?\s*c)?)?$",
    re.IGNORECASE,
)
_UP_TO = re.compile(r"water\s+to\s+(?P<amount>\d+(?:[.,]\d+)?)\s*(?P<unit>ml|l)$", re.IGNORECASE)
_IN_BASE = {
    "g": ("g", 1.0),
    "kg": ("g", 1000.0),
    "mg": ("g", 0.001),
    "ml": ("ml", 1.0),
    "l": ("ml", 1000.0),
}


def ingredients_of(words: str) -> tuple[Ingredient, ...]:
    """The lines of a recipe, in its order: ``750 ml water at 50; 2 g Osmel; water to 1 l``.

    Raises
    ------
    ValueError
        Naming the line.
    """
    made: list[Ingredient] = []
    for line in (part.strip() for part in re.split(r"[;\n]", words)):
        if not line:
            continue
        up_to, found = _UP_TO.fullmatch(line), _LINE.fullmatch(line)
        if not up_to and not found:
            raise ValueError(
                f"“{line[:40]}”: write an amount, a unit and a name, such as 2 g Tarn salt"
            )
        told = up_to or found
        assert told is not None
        unit, times = _IN_BASE[told["unit"].lower()]
        amount = float(told["amount"].replace(",", ".")) * times
        if amount <= 0:
            raise ValueError(f"“{line[:40]}”: an amount is above 0")
        if up_to or found is None:
            made.append(Ingredient(amount, unit, "water", None, True))
            continue
        warmth = float(found["warmth"].replace(",", ".")) if found["warmth"] else None
        if warmth is not None and not LEAST_C <= warmth <= 100.0:
            raise ValueError(f"“{line[:40]}”: water between {LEAST_C:g} and 100 °C")
        made.append(Ingredient(amount, unit, found["name"].strip(), warmth))
    return tuple(made)


def total_volume(ingredients: tuple[Ingredient, ...]) -> float:
    """Millilitres a recipe makes as it is written.

    Raises
    ------
    ValueError
        If it holds no water.
    """
    last = next((i.amount for i in ingredients if i.up_to), 0.0)
    volume = last or sum(i.amount for i in ingredients if i.unit == "ml")
    if volume <= 0:
        raise ValueError("a recipe says how much it makes: end it with “water to 1000 ml”")
    return volume


def scaled(ingredients: tuple[Ingredient, ...], volume_ml: float) -> tuple[Ingredient, ...]:
    """The same recipe for another volume, in the same order, unrounded."""
    times = volume_ml / total_volume(ingredients)
    return tuple(
        Ingredient(i.amount * times, i.unit, i.name, i.warmth_c, i.up_to) for i in ingredients
    )


def tempering_water(volume_ml: float, now_c: float, wanted_c: float, other_c: float) -> float:
    """Millilitres of hot or cold water that bring a volume to a temperature, if added to it.

    Raises
    ------
    ValueError
        If that water cannot do it.
    """
    if not (0 < volume_ml <= 100_000 and 0 <= now_c <= MOST_C + 40 and 0 <= other_c <= 100):
        raise ValueError("give a volume above 0 and temperatures between 0 and 100 °C")
    if not LEAST_C <= wanted_c <= MOST_C:
        raise ValueError(f"baths work between {LEAST_C:g} and {MOST_C:g} °C")
    if abs(now_c - wanted_c) < 1e-9:
        return 0.0
    if (other_c - wanted_c) * (wanted_c - now_c) <= 0:
        side = "warmer" if wanted_c > now_c else "colder"
        raise ValueError(f"take water {side} than {wanted_c:g} °C")
    return volume_ml * (wanted_c - now_c) / (other_c - wanted_c)
