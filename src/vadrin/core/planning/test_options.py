"""What only some types of test ask for, beside times and exposures: typed, and kept as JSON.

A type names the options it takes (`TestType.options`); a test holds them as one value. They live
together so that reading a test from a notebook loads nothing else.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass, fields
from enum import StrEnum
from math import isfinite
from typing import Any, TypeVar


class SheetAxis(StrEnum):
    """What the exposure axis of a maker's curve is: lux seconds, or steps from somewhere."""

    ABSOLUTE = "published curve, absolute axis"
    RELATIVE = "published curve, relative axis"


@dataclass(frozen=True)
class TestOptions:
    """Nothing beside what every plan has."""

    __test__ = False


NO_OPTIONS = TestOptions()


@dataclass(frozen=True)
class Pushes(TestOptions):
    """Stops that the strips are pushed by, a strip each."""

    stops: tuple[float, ...] = (0.0, 1.0, 2.0)

    def __post_init__(self) -> None:
        """Refuse none."""
        _some(self.stops)


class SheetUse(StrEnum):
    """What the cells of a sheet of two factors lie on."""

    STRIPS = "a strip each"
    DARK_SLIDE = "bands of one sheet under the dark slide"


class SecondFactor(StrEnum):
    """What varies beside the camera's exposure."""

    SECOND_EXPOSURE = "second exposure"
    FLASH = "flash"
    BLEACH = "bleach"


@dataclass(frozen=True)
class SecondSteps(TestOptions):
    """Steps of what varies beside the camera's exposure, in stops.

    Attributes
    ----------
    steps : tuple of float
    sheet : SheetUse
    factor : SecondFactor
    base_s : float
        Seconds of step 0; 0 where nobody said.
    """

    steps: tuple[float, ...] = (-1.0, 0.0, 1.0)
    sheet: SheetUse = SheetUse.STRIPS
    factor: SecondFactor = SecondFactor.SECOND_EXPOSURE
    base_s: float = 0.0

    @property
    def of_light(self) -> bool:
        """Whether it is light, whose exposures add up under a mask."""
        return self.factor is not SecondFactor.BLEACH

    def seconds(self, step: float) -> float:
        """Seconds of a step; 0 where nobody said those of step 0."""
        return float(self.base_s * 2.0**step)

    def __post_init__(self) -> None:
        """Refuse none."""
        _some(self.steps)


@dataclass(frozen=True)
class IndexSeries(TestOptions):
    """EIs that are shot in threes in the bracket's place; none where it is a bracket."""

    exposure_indexes: tuple[float, ...] = ()


@dataclass(frozen=True)
class SharedIndexes(TestOptions):
    """EIs that lie on one roll; none for two under the meter's to three over it."""

    exposure_indexes: tuple[float, ...] = ()


@dataclass(frozen=True)
class LightsInTurn(TestOptions):
    """Lights it is shot in, by their numbers."""

    lights: tuple[int, ...] = (1, 2)

    def __post_init__(self) -> None:
        """Refuse none."""
        _some(self.lights)


@dataclass(frozen=True)
class ControlStrips(TestOptions):
    """How many strips are exposed alike."""

    count: int = 6

    def __post_init__(self) -> None:
        """Refuse none."""
        _some(range(self.count))


@dataclass(frozen=True)
class LongTimes(TestOptions):
    """Seconds that the same exposure is made as."""

    seconds: tuple[float, ...] = (1.0, 4.0, 15.0, 60.0, 240.0)

    def __post_init__(self) -> None:
        """Refuse none."""
        _some(self.seconds)


@dataclass(frozen=True)
class SheetSource(TestOptions):
    """What a maker's sheet says of its picture, and of how its speed was found, in its words."""

    axis: SheetAxis = SheetAxis.ABSOLUTE
    speed_found: str = ""


_BY_NAME: dict[str, type[TestOptions]] = {
    "pushes": Pushes,
    "second steps": SecondSteps,
    "index series": IndexSeries,
    "shared indexes": SharedIndexes,
    "lights in turn": LightsInTurn,
    "control strips": ControlStrips,
    "long times": LongTimes,
    "sheet source": SheetSource,
}
"""Names they are kept under; never changed once released."""

OptionsType = TypeVar("OptionsType", bound=TestOptions)


def options_as(options: TestOptions, wanted: type[OptionsType]) -> OptionsType:
    """Options of the wanted sort; the usual ones where a test has others."""
    return options if isinstance(options, wanted) else wanted()


def options_to_plain(options: TestOptions) -> dict[str, Any]:
    """Options as JSON has them: ``{"pushes": {"stops": [0.0, 1.0]}}``, empty for none."""
    name = next((n for n, known in _BY_NAME.items() if type(options) is known), "")
    return {name: {f.name: getattr(options, f.name) for f in fields(options)}} if name else {}


def options_from_plain(held: object) -> TestOptions:
    """Options from JSON.

    Raises
    ------
    ValueError
        If they are of a sort nobody knows, or hold what theirs cannot.
    """
    if held == {}:
        return NO_OPTIONS
    if not isinstance(held, dict) or len(held) != 1:
        raise ValueError("options of a test of no known sort")
    ((name, values),) = held.items()
    known = _BY_NAME.get(name)
    if known is None or not isinstance(values, dict):
        raise ValueError(f"options of a test of no known sort: {str(name)[:40]}")
    kinds = {f.name: str(f.type) for f in fields(known)}
    if not set(values) <= set(kinds):
        raise ValueError(f"options with fields that {name} does not have")
    return known(**{field: _READ[kinds[field]](value) for field, value in values.items()})


def options_to_json(options: TestOptions) -> str:
    """Options as the file keeps them; empty for none."""
    plain = options_to_plain(options)
    return json.dumps(plain, ensure_ascii=False) if plain else ""


def options_from_json(text: str) -> TestOptions:
    """Options from the file.

    Raises
    ------
    ValueError
        As `options_from_plain`.
    """
    return options_from_plain(json.loads(text) if text else {})


def _some(values: object) -> None:
    if not values:
        raise ValueError("there is nothing to choose from")


def _number(value: object) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not isfinite(value):
        raise ValueError(f"{str(value)[:30]!r} is no number")
    return float(value)


def _whole(value: object) -> int:
    if isinstance(value, bool) or not isinstance(value, int):
        raise ValueError(f"{str(value)[:30]!r} is no whole number")
    return value


def _words(value: object) -> str:
    if not isinstance(value, str):
        raise ValueError(f"{str(value)[:30]!r} is no text")
    return value


def _each(read: Callable[[object], Any]) -> Callable[[object], tuple[Any, ...]]:
    def several(value: object) -> tuple[Any, ...]:
        if not isinstance(value, list | tuple):
            raise ValueError(f"{str(value)[:30]!r} is no list")
        return tuple(read(v) for v in value)

    return several


_READ: dict[str, Callable[[object], Any]] = {
    "tuple[float, ...]": _each(_number),
    "tuple[int, ...]": _each(_whole),
    "int": _whole,
    "str": _words,
    "SheetAxis": lambda value: SheetAxis(_words(value)),
    "SheetUse": lambda value: SheetUse(_words(value)),
    "SecondFactor": lambda value: SecondFactor(_words(value)),
    "float": _number,
}
