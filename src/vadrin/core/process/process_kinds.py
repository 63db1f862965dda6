"""Kinds of process, with the steps each usually has; a person's own steps take their place."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class StepTemplate:
    """A step as it usually is; `seconds` 0 where the test decides."""

    name: str
    seconds: float
    agitation: str = "first 30 s, then 10 s every minute"
    develops: bool = False
    may_pause: bool = False
    tolerance_k: float | None = None


@dataclass(frozen=True)
class ProcessKind:
    """One kind of process.

    Attributes
    ----------
    key, title : str
    temperature_c : float
        The reference its times are stated at.
    tolerance_k : float
        How far the developer may be from it.
    q10 : float
        How much faster it goes for each 10 K warmer, until the person's own runs tell.
    steps : tuple of StepTemplate
    """

    key: str
    title: str
    temperature_c: float
    tolerance_k: float
    q10: float
    steps: tuple[StepTemplate, ...]


_WASH = StepTemplate("Wash", 600.0, "continuous", may_pause=True)
_STOP = StepTemplate("Stop", 60.0, "continuous")
_FIX = StepTemplate("Fix", 300.0, may_pause=True)
_DEVELOP = StepTemplate("Develop", 0.0, develops=True, tolerance_k=0.5)


def _tray(name: str, seconds: float, develops: bool = False) -> StepTemplate:
    return StepTemplate(name, seconds, "continuous", develops, not develops)


KINDS: dict[str, ProcessKind] = {
    kind.key: kind
    for kind in (
        ProcessKind(
            "negative", "black-and-white negative", 20.0, 0.5, 2.5, (_DEVELOP, _STOP, _FIX, _WASH)
        ),
        ProcessKind(
            "stand",
            "stand",
            20.0,
            2.0,
            2.5,
            (
                StepTemplate("Develop", 0.0, "first 60 s, then stand", True, False, 2.0),
                _STOP,
                _FIX,
                _WASH,
            ),
        ),
        ProcessKind(
            "semi-stand",
            "semi-stand",
            20.0,
            2.0,
            2.5,
            (
                StepTemplate("Develop", 0.0, "first 60 s, then 10 s at 30 min", True, False, 2.0),
                _STOP,
                _FIX,
                _WASH,
            ),
        ),
        ProcessKind(
            "monobath",
            "monobath",
            24.0,
            0.5,
            2.5,
            (StepTemplate("Monobath", 0.0, "10 s every 30 s", True, False, 0.5), _WASH),
        ),
        ProcessKind(
            "colour negative",
            "colour negative",
            37.8,
            0.15,
            2.0,
            (
                StepTemplate("Develop", 0.0, "first 30 s, then 5 s every 30 s", True, False, 0.15),
                StepTemplate("Bleach", 390.0, "first 30 s, then 5 s every 30 s", may_pause=True),
                StepTemplate("Wash", 195.0, "continuous", may_pause=True),
                StepTemplate("Fix", 390.0, "first 30 s, then 5 s every 30 s", may_pause=True),
                StepTemplate("Wash", 195.0, "continuous", may_pause=True),
                StepTemplate("Stabilise", 60.0, "first 15 s"),
            ),
        ),
        ProcessKind(
            "colour reversal",
            "colour reversal",
            38.0,
            0.3,
            2.0,
            (
                StepTemplate(
                    "First developer", 0.0, "first 15 s, then 5 s every 30 s", True, False, 0.3
                ),
                StepTemplate("Wash", 120.0, "continuous"),
                StepTemplate("Reversal", 120.0, "first 15 s"),
                StepTemplate("Colour developer", 360.0, "first 15 s, then 5 s every 30 s"),
                StepTemplate("Bleach", 360.0, may_pause=True),
                _FIX,
                _WASH,
            ),
        ),
        ProcessKind(
            "reversal",
            "black-and-white reversal",
            20.0,
            0.5,
            2.5,
            (
                StepTemplate("First developer", 0.0, develops=True, tolerance_k=0.5),
                StepTemplate("Wash", 120.0, "continuous"),
                StepTemplate("Bleach", 240.0),
                StepTemplate("Clear", 120.0, "continuous"),
                StepTemplate("Second exposure", 60.0, "stand", may_pause=True),
                StepTemplate("Second developer", 240.0),
                _FIX,
                _WASH,
            ),
        ),
        ProcessKind(
            "direct positive",
            "direct-positive paper in trays",
            20.0,
            1.0,
            2.5,
            (
                _tray("First developer", 0.0, True),
                _tray("Rinse", 30.0),
                _tray("Bleach", 90.0),
                _tray("Clear", 30.0),
                _tray("Second exposure", 30.0),
                _tray("Second developer", 60.0),
                _tray("Fix", 60.0),
                _tray("Wash", 300.0),
            ),
        ),
        ProcessKind(
            "paper",
            "paper in trays",
            20.0,
            1.0,
            2.5,
            (
                _tray("Develop", 0.0, True),
                _tray("Stop", 20.0),
                _tray("Fix", 60.0),
                _tray("Wash", 300.0),
            ),
        ),
    )
}
NEGATIVE = KINDS["negative"]


def kind_of_process(key: str) -> ProcessKind:
    """The kind called so; the black-and-white negative for words nobody knows."""
    return KINDS.get(key.strip().lower(), NEGATIVE)
