"""Short sounds for working without looking: next, turn the aperture, something is wrong."""

from __future__ import annotations

import math
import struct
import tempfile
import wave
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QUrl

_RATE = 22050
_TONES = {"next": (660.0,), "aperture": (660.0, 880.0), "error": (220.0, 180.0)}
"""One tone goes on, two rising mean the other ring, two falling mean look at the screen."""


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


class Cue:
    """Plays cues once they are turned on; silent where the machine has no sound."""

    def __init__(self) -> None:
        self.effects: dict[str, Any] = {}

    def toggle(self) -> str:
        """Turn the sounds on or off; what came of it in words."""
        if self.effects:
            self.effects = {}
            return "Sounds are off."
        try:
            from PyQt6.QtMultimedia import QMediaDevices, QSoundEffect
        except ImportError:
            return "No sound on this machine: its multimedia libraries are missing."
        if not QMediaDevices.audioOutputs():
            return "No sound on this machine: it has no output for it."
        folder = Path(tempfile.mkdtemp(prefix="vadrin-cues-"))
        for name in _TONES:
            effect = QSoundEffect()
            effect.setSource(QUrl.fromLocalFile(str(tone_file(folder, name))))
            self.effects[name] = effect
        return (
            "Sounds are on: one tone for next, two rising to turn the aperture, two falling to "
            "look at the screen."
        )

    def _play(self, name: str) -> None:
        if name in self.effects:
            self.effects[name].play()

    def next(self, turned: bool) -> None:
        """The next frame is up; `turned` where its aperture differs."""
        self._play("aperture" if turned else "next")

    def error(self) -> None:
        """Something needs a look."""
        self._play("error")
