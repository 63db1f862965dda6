"""A reported number: its value and range, or why there is none."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum


class Basis(Enum):
    """What a figure rests on."""

    MEASURED = "measured"
    EXTRAPOLATED = "extrapolated"
    RULE = "rule of thumb"
    ESTIMATED = "estimated from your other tests"


@dataclass(frozen=True)
class Figure:
    """A value with its 95 % interval, or an absent value with the reason.

    Attributes
    ----------
    value, low, high : float or None
        All None when absent. The interval is None where it was not asked for.
    why : str
        The reason for absence, in words; empty for a present figure.
    basis : Basis
    """

    value: float | None
    low: float | None = None
    high: float | None = None
    why: str = ""
    basis: Basis = Basis.MEASURED

    @property
    def present(self) -> bool:
        """Whether there is a value."""
        return self.value is not None

    def known(self) -> float:
        """The value of a present figure.

        Raises
        ------
        ValueError
            If the figure is absent.
        """
        if self.value is None:
            raise ValueError(self.why)
        return self.value


def absent(why: str) -> Figure:
    """A figure that could not be reached, and why."""
    return Figure(None, why=why)
