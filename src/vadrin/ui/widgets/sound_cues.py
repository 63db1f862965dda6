"""Short sounds for working without looking: next, turn the aperture, something is wrong."""

from __future__ import annotations

import math
import struct
import tempfile
import wave
from collections.abc import Callable
from pathlib import Path
from threading import Thread
from typing import Any

from PyQt6.QtCore import QLoggingCategory, QTimer, QUrl

from vadrin.app.library.kept_preferences import keep_preference, preference

_RATE = 22050
_TONES = {"next": (660.0,), "aperture": (660.0, 880.0), "error": (220.0, 180.0)}
"""One tone goes on, two rising mean the other ring, two falling mean look at the screen."""
_CHOICE = "sounds"
_ASK_MS = 30
_ON = (
    "Sounds are on: one tone for next, two rising to turn the aperture, two falling to look at "
    "the screen."
)


def tone_file(folder: Path, name: str) -> Path:
    """Write a cue as a sound file."""
    path = folder / f"{name}.wav"
    samples: list[int] = []
    for pitch in _TONES[name]:
        count = int(_RATE * 0.12)
        for i in range(count):
            fade = min(1.0, i / 400, (count - i) / 400)
            samples.append(int(12000 * fade * math.sin(2 * math.pi * pitch * i / _RATE)))
    with wave.open(str(path), "wb") as sound:
        sound.setnchannels(1)
        sound.setsampwidth(2)
        sound.setframerate(_RATE)
        sound.writeframes(struct.pack(f"<{len(samples)}h", *samples))
    return path


def _without_libraries() -> str:
    """Why there can be no sound; empty where the libraries for it are there."""
    # A library that says something while it is loaded waits for Python, if Python is told of it;
    # and Python may wait on another thread for the loading to be over.
    QLoggingCategory.setFilterRules("qt.multimedia.*=false")
    try:
        import PyQt6.QtMultimedia  # noqa: F401
    except ImportError:
        return "No sound on this machine: its multimedia libraries are missing."
    return ""


def _without_output() -> str:
    """Why the machine has no sound; empty where it has. Takes a quarter of a second at first."""
    from PyQt6.QtMultimedia import QMediaDevices

    if not QMediaDevices.audioOutputs():
        return "No sound on this machine: it has no output for it."
    return ""


class Cue:
    """Plays cues: at a clock that runs unless sounds were turned off, elsewhere once they are on.

    Silent where the machine has no sound.
    """

    def __init__(self) -> None:
        self.effects: dict[str, Any] = {}
        self.chosen = preference(_CHOICE)
        """On or off, as a person said last; None where they never said."""
        self._loader: Thread | None = None
        self._why_none = ""

    def toggle(self, said: Callable[[str], object], at_clock: bool = False) -> None:
        """Turn the sounds on or off, for good.

        Parameters
        ----------
        said : callable
            Given what came of it in words.
        at_clock : bool
            Whether it is asked at the clock, whose sounds are on where nothing was chosen.
        """
        on = not self._why_none and (at_clock if self.chosen is None else self.chosen)
        self._choose(not on)
        if on:
            said("Sounds are off.")
        else:
            self._load(lambda: said(self._why_none or _ON))

    def clock_runs(self) -> None:
        """Be ready for the acts of a clock."""
        if self.chosen is not False and self._loader is None:
            self._load(lambda: None)

    def _choose(self, on: bool) -> None:
        self.chosen = on
        keep_preference(_CHOICE, on)

    def _load(self, then: Callable[[], object]) -> None:
        """Ask for the machine's sound on a thread of its own; go on when it has answered."""
        if self._loader is None:
            self._why_none = _without_libraries()
            self._loader = Thread(target=self._ask, name="vadrin-sound", daemon=True)
            self._loader.start()
        if self._loader.is_alive():
            QTimer.singleShot(_ASK_MS, lambda: self._load(then))
            return
        if not self._why_none and not self.effects:
            self._make_effects()
        then()

    def _ask(self) -> None:
        self._why_none = self._why_none or _without_output()

    def _make_effects(self) -> None:
        from PyQt6.QtMultimedia import QSoundEffect

        self._folder = tempfile.TemporaryDirectory(prefix="vadrin-cues-")
        folder = Path(self._folder.name)
        for name in _TONES:
            effect = QSoundEffect()
            effect.setSource(QUrl.fromLocalFile(str(tone_file(folder, name))))
            self.effects[name] = effect

    def _play(self, name: str, on: bool) -> None:
        if on and name in self.effects:
            self.effects[name].play()
        elif on and self._loader is None:
            # Turned on in another session: from the next one on it is heard.
            self._load(lambda: None)

    def act(self) -> None:
        """An act of a clock is due."""
        self._play("aperture", self.chosen is not False)

    def next(self, turned: bool) -> None:
        """The next frame is up; `turned` where its aperture differs."""
        self._play("aperture" if turned else "next", self.chosen is True)

    def error(self) -> None:
        """Something needs a look."""
        self._play("error", self.chosen is True)
