"""How strips that get different times go through the dark: lifted, cut, tank by tank, as sheets."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class DevelopmentOrder(StrEnum):
    """How several times are given."""

    LIFTED = "lifted from one tank at their times"
    CUT = "cut off one by one in the dark"
    TANKS = "developed one tank after another"
    SHEETS = "developed as sheets in tanks of their own"


@dataclass(frozen=True)
class TimedStrip:
    """One strip with its minutes, and the sheets it is made of by the order they were exposed."""

    label: str
    minutes: float
    sheets: tuple[int, ...] = ()


@dataclass(frozen=True)
class TakeOut:
    """One act: minutes since the first developer went in, the minutes since the act before, and
    the strips it is done to."""

    at_min: float
    gap_min: float
    labels: tuple[str, ...]


def take_outs(strips: tuple[TimedStrip, ...]) -> tuple[TakeOut, ...]:
    """When strips that went in together come out, the shortest time first.

    Raises
    ------
    ValueError
        For no strips.
    """
    if not strips:
        raise ValueError("there is no strip to pull")
    acts: list[TakeOut] = []
    for minutes in sorted({s.minutes for s in strips}):
        labels = tuple(s.label for s in strips if s.minutes == minutes)
        acts.append(TakeOut(minutes, minutes - (acts[-1].at_min if acts else 0.0), labels))
    return tuple(acts)


def loading_order(strips: tuple[TimedStrip, ...], way: DevelopmentOrder) -> tuple[str, ...]:
    """The order strips go onto the hooks, or from the tail of a roll inwards.

    What comes out first hangs nearest, or lies at the tail.
    """
    ordered = sorted(strips, key=lambda s: s.minutes)
    if way is DevelopmentOrder.TANKS:
        # The longest first: while it stands the others wait dry, and nothing wet waits.
        ordered.reverse()
    return tuple(s.label for s in ordered)


def tank_minutes(strips: tuple[TimedStrip, ...]) -> float:
    """Minutes of developing where one tank follows another."""
    return sum(s.minutes for s in strips)
