"""What a picture on a maker's sheet can be, and what its axes are marked with."""

from __future__ import annotations

from dataclasses import dataclass, field

from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.numbers import number_typed
from vadrin.app.read.data_sheet_axes import AXIS_ENDS
from vadrin.errors import EntryError


@dataclass(frozen=True)
class SheetPicture:
    """One sort of picture.

    Attributes
    ----------
    title : str
    along, up : str
        What its axes carry.
    usual : dict of str to float
        What often stands at each end.
    low, high, refusal : tuple
        Limits of a value along and up, and why one past them is refused.
    in_stops : bool
        Whether equal heights are equal stops.
    times : bool
        Whether it gives a maker's times, rather than the points of a strip.
    least_points : int
    """

    title: str
    along: str
    up: str
    usual: dict[str, float]
    low: tuple[float, float]
    high: tuple[float, float]
    refusal: str
    in_stops: bool = False
    times: bool = False
    least_points: int = 6
    asked: dict[str, str] = field(init=False)

    def __post_init__(self) -> None:
        """What is asked for at each end."""
        axes = (self.along, self.along, self.up, self.up)
        asked = {
            end: f"Point at the {end} mark of the {axis} axis"
            for end, axis in zip(AXIS_ENDS, axes, strict=True)
        }
        object.__setattr__(self, "asked", asked)

    def value_typed(self, end: str, words: str) -> float:
        """What stands at a mark of an axis.

        Raises
        ------
        EntryError
        """
        value = number_typed(words.replace("−", "-"))
        axis = int(AXIS_ENDS.index(end) > 1)
        if not self.low[axis] <= value <= self.high[axis]:
            raise EntryError(self.refusal)
        return value


def _ends(*values: float) -> dict[str, float]:
    return dict(zip(AXIS_ENDS, values, strict=True))


CURVE = SheetPicture(
    "characteristic curve",
    "exposure",
    "density",
    _ends(-3.0, 1.0, 0.0, 3.0),
    (-8.0, -8.0),
    (8.0, 8.0),
    "an axis runs within −8 and 8: log exposure along, density up",
)
_CHART = (
    _ends(4.0, 16.0, 100.0, 1600.0),
    (0.1, 0.5),
    (600.0, 102_400.0),
    "the axes carry minutes along, 0.1 to 600, and EIs up, 0.5 to 102400",
)
SHEET_PICTURES = (
    CURVE,
    SheetPicture("chart of EI over time in even stops", "time", "EI", *_CHART, True, True, 2),
    SheetPicture("chart of EI over time in even numbers", "time", "EI", *_CHART, False, True, 2),
)
"""In the order they are stepped through."""


def sheet_picture_typed(words: str) -> SheetPicture:
    """The sort of picture that words name.

    Raises
    ------
    EntryError
    """
    by_title = {picture.title: picture for picture in SHEET_PICTURES}
    return by_title[choice_typed(words, by_title, anywhere=True)]
