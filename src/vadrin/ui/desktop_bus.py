"""The desktop over D-Bus: it stays awake while film is in the tank, and says when an act is due.

Everything is asked for and never waited for. A desktop without these services is told apart from
one that has them, so that the clock can say what it cannot do.
"""

from __future__ import annotations

import os
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QMetaType, QObject, QVariant, pyqtSignal
from PyQt6.QtDBus import (
    QDBusArgument,
    QDBusConnection,
    QDBusMessage,
    QDBusPendingCallWatcher,
    QDBusPendingReply,
)

_SAVER = ("org.freedesktop.ScreenSaver", "/org/freedesktop/ScreenSaver")
_POWER = ("org.freedesktop.PowerManagement.Inhibit", "/org/freedesktop/PowerManagement/Inhibit")
_NOTES = ("org.freedesktop.Notifications", "/org/freedesktop/Notifications")
_NAME = "Vadrin"
_UINT, _STRINGS = 3, 11
"""Numbers of two types of Qt, as D-Bus asks for them."""
ASLEEP = (
    "This desktop does not let the program keep it awake: switch its sleep and its screen lock "
    "off while film is in the tank."
)


def _there_is_a_bus() -> bool:
    """Whether a desktop's bus was started; asking for one would start it, and take a while."""
    usual = Path(os.environ.get("XDG_RUNTIME_DIR", "/nonexistent")) / "bus"
    return bool(os.environ.get("DBUS_SESSION_BUS_ADDRESS")) or usual.exists()


def _unsigned(number: int) -> QVariant:
    made = QVariant(number)
    made.convert(QMetaType(_UINT))
    return made


class DesktopBus(QObject):
    """Keeps the computer awake and notifies, where the desktop offers that.

    Attributes
    ----------
    trouble : str
        Why it may fall asleep, in words; empty while all is well, or nothing is asked.
    """

    changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.trouble = ""
        self._awake = False
        self._held: dict[tuple[str, str], int] = {}
        self._open: set[QDBusPendingCallWatcher] = set()
        self._bus: QDBusConnection | None = None

    def stay_awake(self, wanted: bool) -> None:
        """Ask the desktop not to sleep, nor to lock the screen; or no longer."""
        if wanted == self._awake:
            return
        self._awake = wanted
        if wanted:
            for service in (_SAVER, _POWER):
                why = [_NAME, "Film is in the developer."]
                self._call(service, "Inhibit", why, partial(self._inhibited, service))
            return
        for service, cookie in self._held.items():
            self._call(service, "UnInhibit", [_unsigned(cookie)], lambda _: None)
        self._held, self.trouble = {}, ""
        self.changed.emit()

    def _inhibited(self, service: tuple[str, str], told: list[Any] | None) -> None:
        """One of the services answered; the screen's keeper is the one that counts."""
        if told and isinstance(told[0], int):
            self._held[service] = told[0]
            if not self._awake:
                # The film was out before the answer was here.
                self._call(service, "UnInhibit", [_unsigned(told[0])], lambda _: None)
                self._held.pop(service)
        if service == _SAVER:
            self.trouble = "" if told or not self._awake else ASLEEP
            self.changed.emit()

    def notify(self, words: str) -> None:
        """Say that something is due, over whatever window is in front."""
        asked = [_NAME, _unsigned(0), "", words, "", QDBusArgument([], _STRINGS), {}, 15_000]
        self._call(_NOTES, "Notify", asked, lambda _: None)

    def _call(
        self,
        service: tuple[str, str],
        method: str,
        arguments: list[Any],
        then: Callable[[list[Any] | None], None],
    ) -> None:
        """Ask, and go on; `then` takes the answer, or None where there is none."""
        if not _there_is_a_bus():
            then(None)
            return
        if self._bus is None:
            self._bus = QDBusConnection.sessionBus()
        name, path = service
        message = QDBusMessage.createMethodCall(name, path, name, method)
        message.setArguments(arguments)
        if not self._bus.isConnected():
            then(None)
            return
        watcher = QDBusPendingCallWatcher(self._bus.asyncCall(message, 5000))
        self._open.add(watcher)

        def answered(done: QDBusPendingCallWatcher) -> None:
            self._open.discard(done)
            reply = QDBusPendingReply(done).reply()
            refused = reply.type() == QDBusMessage.MessageType.ErrorMessage
            then(None if refused else list(reply.arguments()))

        watcher.finished.connect(answered)
