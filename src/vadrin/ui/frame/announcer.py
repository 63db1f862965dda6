"""Says to a screen reader what came while something else has the keyboard."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtWidgets import QApplication, QWidget

from vadrin.app.display.region import local

_AFTER_MS = 200
"""What the field that has the keyboard says of itself is heard first."""


class Announcer(QObject):
    """Speaks from whatever has the keyboard: its description changes, and is its own again when
    the keyboard goes elsewhere. What comes at the same time is one sentence."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._waiting: list[str] = []
        self._speaker: QWidget | None = None
        self._own = self._said = ""
        self._turn = QTimer(self)
        self._turn.setSingleShot(True)
        self._turn.timeout.connect(self._speak)
        app = QApplication.instance()
        if isinstance(app, QApplication):
            app.focusChanged.connect(self._moved)

    def say(self, words: str) -> None:
        """Say something in a moment; the same again within it is one."""
        words = local(words)
        if words and words not in self._waiting:
            self._waiting.append(words)
            self._turn.start(_AFTER_MS)

    def _speak(self) -> None:
        words, self._waiting = ". ".join(w.rstrip(".") for w in self._waiting), []
        held = QApplication.focusWidget()
        if held is None or not words:
            return
        now = held.accessibleDescription()
        told = held is self._speaker and now == self._said
        if now.rstrip(".") == words and not told:
            # It says so itself.
            return
        if held is not self._speaker:
            self._give_back()
            self._speaker, self._own = held, now
        elif told and now == words:
            # The same once more is no change, and would not be heard.
            held.setAccessibleDescription("")
        elif now != self._said:
            self._own = now
        self._said = words
        held.setAccessibleDescription(words)

    def _moved(self, before: QWidget | None, _now: QWidget | None) -> None:
        # Once the reader has heard that the keyboard is elsewhere: else it says this change, too.
        if before is not None and before is self._speaker:
            QTimer.singleShot(0, self._give_back_left)

    def _give_back_left(self) -> None:
        if self._speaker is not QApplication.focusWidget():
            self._give_back()

    def _give_back(self) -> None:
        speaker, self._speaker = self._speaker, None
        if speaker is None or sip.isdeleted(speaker):
            return
        if speaker.accessibleDescription() == self._said:
            speaker.setAccessibleDescription(self._own)
