"""Verdicts on frames: short ordered scales, and faults with their usual causes."""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt

CANT_TELL = "can't tell"
NOTHING_THERE, SALVAGED, USE_IT = "nothing there", "can be salvaged", "use it"
TOO_DENSE = "too dense"
_Z = 1.959964


@dataclass(frozen=True)
class Scale:
    """One question with its answers from least to most, and the key each is given by."""

    asked: str
    answers: tuple[str, ...]
    keys: tuple[str, ...]


SCALES: tuple[Scale, ...] = (
    Scale("shadows", ("nothing", "trace", "thin", "full"), ("1", "2", "3", "4")),
    Scale("mid-tones", ("dark", "right", "light"), ("5", "6", "7")),
    Scale("highlights", ("blocked", "separated"), ("8", "9")),
    Scale("the frame", (NOTHING_THERE, TOO_DENSE, SALVAGED, USE_IT), ("N", "D", "S", "U")),
)
"""What is asked of a picture; one can print well in one and not in another."""
THE_FRAME = SCALES[-1]


@dataclass(frozen=True)
class Fault:
    """A fault of processing or handling: its usual causes, and the one thing to change first."""

    name: str
    causes: str
    change: str


FAULTS: tuple[Fault, ...] = (
    Fault(
        "drag from the perforations",
        "developer streams through the holes while film rests",
        "agitate more gently, a little more often",
    ),
    Fault(
        "halo at an edge",
        "developer spent beside a dense part diffuses into its neighbour",
        "agitate once more midway, or use a stronger dilution",
    ),
    Fault(
        "mottle",
        "too little agitation, or spent products that settle",
        "agitate evenly through the first minute",
    ),
    Fault(
        "streaks",
        "agitation always the same way, or the pour took too long",
        "pour faster, and turn the tank between inversions",
    ),
    Fault(
        "uneven",
        "film partly out of the bath, or agitation too seldom",
        "fill the tank until the reel is covered",
    ),
    Fault(
        "stain",
        "fixer spent, wash too short, or an oxidised developer",
        "fix for twice the clearing time in a fresh bath",
    ),
    Fault(
        "fog from an edge",
        "light at the lid, the slot or the dark slide",
        "load in the dark elsewhere, and look at the seals",
    ),
    Fault(
        "scratch",
        "grit in the slot, on the pressure plate or on the squeegee",
        "clean the slot; do not wipe the film",
    ),
    Fault("foam", "wetting agent left in tank or reel", "wash both with hot water before use"),
    Fault(
        "light leak", "bellows, hinge or back of the camera", "shoot one roll with the back taped"
    ),
    Fault(
        "out of focus",
        "the camera moved, or the lens was stopped down after focusing",
        "focus again at the stop it is shot at",
    ),
    Fault(
        "shaken",
        "a time too long for the hand, or a stand in the wind",
        "use a faster shutter speed or a cable release",
    ),
)


def fault_named(words: str) -> Fault | None:
    """The fault that a phrase begins or holds; None for none."""
    plain = words.strip().lower()
    begun = [f for f in FAULTS if plain and f.name.startswith(plain.split()[0])]
    whole = [f for f in FAULTS if f.name in plain]
    found = whole or [f for f in begun if plain.startswith(f.name[: len(plain)])] or begun
    return found[0] if found else None


@dataclass(frozen=True)
class Share:
    """A count out of a number, with the range of the true share.

    Attributes
    ----------
    count, total : int
    low, high : float
        Wilson's 95 % interval (E. B. Wilson, JASA 22, 1927).
    """

    count: int
    total: int
    low: float
    high: float


def share_of(count: int, total: int) -> Share:
    """A count with its range.

    Raises
    ------
    ValueError
        For nothing counted, or more than there is.
    """
    if not 0 <= count <= total or total < 1:
        raise ValueError("a share needs at least one frame, and no more than there are")
    part, square = count / total, _Z * _Z
    middle = (part + square / (2 * total)) / (1 + square / total)
    reach = _Z * sqrt(part * (1 - part) / total + square / (4 * total * total))
    reach /= 1 + square / total
    return Share(count, total, max(0.0, middle - reach), min(1.0, middle + reach))
