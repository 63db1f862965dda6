"""The first practice film: what comes next, and why, from the question to the envelope."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.document.stations import key_to
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.core.frames import FrameState

STEPS = 7


@dataclass(frozen=True)
class HourStep:
    """One step: which, what to do, and why it is done."""

    number: int
    act: str
    why: str

    @property
    def words(self) -> str:
        """As it is shown."""
        return f"{self.number} of {STEPS}. {self.act} {self.why}"


def hour_step(loaded: LoadedTest | None, station: str, opened: bool) -> HourStep:
    """What comes next in the first hour.

    Parameters
    ----------
    loaded : LoadedTest or None
    station : str
        Where one is.
    opened : bool
        Whether the envelope is open.
    """
    if opened:
        return HourStep(
            7,
            f"The envelope is open: read it at Practice ({key_to('practice')}).",
            "Then begin a film of the plain level.",
        )
    if loaded is None:
        return HourStep(1, f"Open the test from the shelf ({key_to('shelf')}).", "")
    shots = [f for _, f in loaded.shots()]
    if any(f.frame.state == FrameState.PLANNED for f in shots):
        if station != "expose" and all(f.frame.state == FrameState.PLANNED for f in shots):
            return HourStep(
                1,
                f"Read the plan, then go to Expose ({key_to('expose')}).",
                "Two strips get the same exposures and two times, so that EI and time both show.",
            )
        return HourStep(
            2,
            "Press Space for each frame: the camera fires.",
            "Frames a stop and a half apart show where film begins; the blank shows its own fog.",
        )
    if any(s.strip.time_min is None for s in loaded.strips):
        return HourStep(
            3,
            f"Develop: at Process ({key_to('process')}), What they got, record all as planned.",
            "Time and temperature make the contrast, so what really happened is noted.",
        )
    unread = [f for s in loaded.strips for f in s.frames if f.readable and not f.readings]
    if unread:
        return HourStep(
            4,
            f"Read ({key_to('read')}): F6 connects the densitometer, each further F6 reads a "
            f"frame. {len(unread)} left.",
            "Density is what the film has kept of the light.",
        )
    if not loaded.findings:
        if station in ("curves", "finding"):
            return HourStep(
                6,
                f"Go to Finding ({key_to('finding')}) and record the decision (Ctrl+D).",
                "The range says how far the truth may lie from each number.",
            )
        return HourStep(
            5,
            f"Look at Curves ({key_to('curves')}).",
            "A longer time makes the curve steeper; the mark shows where shadows begin.",
        )
    return HourStep(
        7,
        f"At Practice ({key_to('practice')}) say your EI and time, each with the range you are "
        "nine in ten sure of, and open the envelope.",
        "No other film ever shows you the truth.",
    )
