"""Stand-ins for instruments, each on a pseudo-terminal that is read like a serial line."""

from __future__ import annotations

import math
import os
import pty
import threading
import time
import tty
from collections.abc import Callable, Mapping

import numpy as np

from vadrin.core.channels import Channel

SIMULATED = "simulated"
"""Stands in the place of a port for a stand-in that ships with the program."""
THERMOMETER_LINE = "T= {20.0} C"
DENSITOMETER_LINE = "[V] D {0.30}"


class _Terminal:
    """A pseudo-terminal: what is written at one end is read at the other."""

    def __init__(self) -> None:
        self._ours, self._theirs = pty.openpty()
        tty.setraw(self._theirs)
        self.port = os.ttyname(self._theirs)
        """Where the program opens it."""

    def say(self, line: str) -> None:
        """Send a line of text."""
        os.write(self._ours, f"{line}\r\n".encode("ascii"))

    def close(self) -> None:
        """Take it away."""
        for end in (self._ours, self._theirs):
            os.close(end)


class SimulatedThermometer:
    """A bath that drifts to the room, told once in a while.

    Parameters
    ----------
    bath_c, room_c : float
        Where it begins, and what it drifts to.
    minutes : float
        Time constant of the drift.
    rng : Generator
        Of its noise.
    every_s : float
        How often it speaks.
    clock : callable
        Seconds that never jump.
    """

    def __init__(
        self,
        bath_c: float,
        room_c: float,
        minutes: float,
        rng: np.random.Generator,
        every_s: float = 1.0,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self._terminal = _Terminal()
        self.port = self._terminal.port
        self._bath, self._room, self._minutes = bath_c, room_c, minutes
        self._rng, self._clock, self._began = rng, clock, clock()
        self._closing = threading.Event()
        self._every = every_s
        self._thread = threading.Thread(target=self._run, daemon=True, name="thermometer")
        self._thread.start()

    def bath_c(self) -> float:
        """How warm the bath is now."""
        passed = (self._clock() - self._began) / 60
        return self._room + (self._bath - self._room) * math.exp(-passed / self._minutes)

    def _run(self) -> None:
        while True:
            said = self.bath_c() + float(self._rng.normal(0, 0.02))
            self._terminal.say(f"T= {said:.1f} C")
            if self._closing.wait(self._every):
                return

    def close(self) -> None:
        """Take it away."""
        self._closing.set()
        self._thread.join(1.0)
        self._terminal.close()


class SimulatedDensitometer:
    """Reads the film it is given, with noise and a zero that drifts.

    Parameters
    ----------
    rng : Generator
    noise : float
        Standard deviation of a reading.
    drift : float
        By which the zero moves with each reading.
    """

    def __init__(self, rng: np.random.Generator, noise: float = 0.006, drift: float = 0.0) -> None:
        self._terminal = _Terminal()
        self.port = self._terminal.port
        self._rng, self._noise, self._drift = rng, noise, drift
        self.zero = 0.0

    def press(self, densities: Mapping[Channel, float]) -> None:
        """Measure a patch of film: lines are sent as an instrument's button would send them.

        Parameters
        ----------
        densities : mapping of Channel to float
            Colour film is told in three lines.
        """
        for channel, density in densities.items():
            said = density + self.zero + float(self._rng.normal(0, self._noise))
            self._terminal.say(f"{channel[0].upper()} D {said:.2f}")
        self.zero += self._drift

    def close(self) -> None:
        """Take it away."""
        self._terminal.close()
