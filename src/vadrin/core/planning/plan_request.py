"""What a tester asks a plan for, as plain data."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import floor

from vadrin.core.planning.test_options import NO_OPTIONS, TestOptions

_FRAME_M, _CINE_FRAME_M, _LEADER_M = 0.038, 0.00762, 0.15


class Arrangement(StrEnum):
    """In which order the strips of a test are shot."""

    SEQUENTIAL = "sequential"
    MIRRORED = "mirrored"
    """Every other strip backwards, so that drift is met from both ends."""
    INTERLEAVED = "interleaved"
    """Pairs on twin cameras: each exposure on both before the next."""


class Compared(StrEnum):
    """What a comparison sets beside its reference."""

    DEVELOPERS = "developers"
    STOCKS = "stocks"
    BATCHES = "batches"


class CameraControl(StrEnum):
    """Which control of a camera is turned first."""

    SHUTTER = "shutter"
    APERTURE = "aperture"


class FilmUnit(StrEnum):
    """What an amount of film is counted in."""

    FRAMES = "frames"
    SHEETS = "sheets"
    METRES = "metres"
    CINE_METRES = "cine metres"


@dataclass(frozen=True)
class FilmSupply:
    """Film as it comes.

    Attributes
    ----------
    amount : float
        Of frames, sheets or metres, for each roll.
    unit : FilmUnit
    taken : int
        Frames at the head of the first roll that another test has.
    """

    amount: float
    unit: FilmUnit = FilmUnit.FRAMES
    taken: int = 0

    @property
    def capacity(self) -> int:
        """Frames each piece of film holds."""
        if self.unit in (FilmUnit.FRAMES, FilmUnit.SHEETS):
            return int(self.amount)
        size = _CINE_FRAME_M if self.unit is FilmUnit.CINE_METRES else _FRAME_M
        return max(0, floor((self.amount - _LEADER_M) / size))


@dataclass(frozen=True)
class PlanRequest:
    """What a tester asks a plan for.

    Attributes
    ----------
    kind : str
        Key of a registered kind of test.
    exposure_index : float
    first, last, step : float
        The bracket in stops.
    blanks : int
    times : tuple of float
        Minutes; as many strips as times where development is the question.
    options : TestOptions
        What its type asks for besides.
    repeat_first : bool
        Repeat the first exposure at the end.
    arrangement : Arrangement
    film : FilmSupply or None
        None for as much as it takes.
    tablet : tuple of float
        Densities of a step wedge in contact with the film: each step gets the last exposure
        of the bracket less its density.
    leader : int
        Frames at the head of every roll that loading fogs; they serve for a clip.
    holder : int
        Frames at the head of every strip that the reel or clip holds.
    others : int
        How many materials are compared with the reference.
    own_rolls : bool
        Whether each strip is on a roll of its own, as different films are.
    makers : tuple of (float, float)
        Stops and minutes of a maker's table, as `makers_times` has them.
    """

    kind: str
    exposure_index: float
    first: float
    last: float
    step: float
    blanks: int
    times: tuple[float, ...]
    options: TestOptions = NO_OPTIONS
    repeat_first: bool = False
    arrangement: Arrangement = Arrangement.SEQUENTIAL
    film: FilmSupply | None = None
    tablet: tuple[float, ...] = ()
    leader: int = 0
    holder: int = 0
    others: int = 1
    own_rolls: bool = False
    makers: tuple[tuple[float, float], ...] = ()
