"""One window kept open, worked from the shell by real keys, words and clicks.

::

    python tools/hand.py start [NOTEBOOK | demo]    a window, offscreen, in the background
    python tools/hand.py key Ctrl+N Down Enter      real keys, to whatever has the keyboard
    python tools/hand.py type "Kelda Pan 200" Enter words, then keys
    python tools/hand.py click "Start the clock"    the first thing seen whose words begin so
    python tools/hand.py say                        what stands on the screen, top to bottom
    python tools/hand.py shot a.png | size 1024x700 | scale 2 | look dim | later 360 | count
    python tools/hand.py kill                       as the power going; start it again after it
    python tools/hand.py stop

Every command prints where the keyboard is and what the header says; several may follow each
other, parted by ``--``. Exit 0 when all was done, 2 when something named is not there.
"""

from __future__ import annotations

import json
import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from typing import Any

FOLDER = Path(os.environ.get("VADRIN_HAND", "/tmp/vadrin-hand"))
SOCKET, LAST = FOLDER / "socket", FOLDER / "last.json"
_WAIT_S = 60.0


class MissingError(Exception):
    """Something that was named is not on the screen."""


class Hand:
    """The window and what is done to it."""

    def __init__(self, notebook: str) -> None:
        from PyQt6.QtWidgets import QApplication

        from vadrin.app.demo.demo_copy import demo_notebook
        from vadrin.commands.desktop import make_application, open_window
        from vadrin.ui.frame.warm_up import warm_up

        self.app: Any = QApplication.instance() or make_application()
        path = demo_notebook() if notebook == "demo" else Path(notebook)
        self.window: Any = open_window(path)
        self.window.resize(1280, 800)
        self.window.show()
        self.window.activateWindow()
        self.window.notebook_opened()
        warm_up(self.window.jobs, self.window.bench, self.window.pages.make_ahead)
        self.path, self.keys = path, 0
        self.settle()

    def settle(self) -> None:
        """Until nothing shown is still being worked out."""
        from PyQt6.QtCore import QEventLoop, QTimer

        end = time.monotonic() + _WAIT_S
        while True:
            loop = QEventLoop()
            QTimer.singleShot(15, loop.quit)
            loop.exec()
            if not self.window.busy or time.monotonic() > end:
                # What the last turn put off, such as scrolling to the keyboard, comes in the next.
                self.app.processEvents()
                self.app.processEvents()
                return

    def seen(self) -> list[tuple[int, int, str]]:
        """Everything that shows words: where it is, and what it says."""
        from PyQt6.QtCore import QPoint
        from PyQt6.QtWidgets import QAbstractButton, QAbstractItemView, QLabel, QLineEdit, QWidget

        from vadrin.ui.widgets.keyboard import part_in_sight
        from vadrin.ui.widgets.sentence import FlowingSentence

        top = self.app.activeModalWidget() or self.window
        held, found = self.app.focusWidget(), []
        for part in top.findChildren(QWidget):
            if part_in_sight(part).isEmpty():
                continue
            at = part.mapTo(top, QPoint(0, 0))
            words = ""
            if isinstance(part, FlowingSentence):
                words = part.whole()
            elif isinstance(part, QLabel) and part.pixmap().isNull():
                words = part.text().replace("\u200b", "")
            elif isinstance(part, QAbstractButton) and part.text():
                words = f"<{part.text()}>" if part.isEnabled() else f"({part.text()})"
            elif isinstance(part, QLineEdit):
                words = f"[{part.accessibleName()}: {part.text()}]"
            elif isinstance(part, QAbstractItemView) and part.model() is not None:
                model = part.model()
                rows = (model.index(row, 0) for row in range(min(model.rowCount(), 40)))
                here = part.currentIndex().row()
                lines = [f"{'>' if i.row() == here else ' '} {i.data()}" for i in rows]
                words = "\n    ".join(lines)
            elif type(part).__module__.startswith("vadrin") and part.accessibleName():
                said = f"{part.accessibleName()} {part.accessibleDescription()}".strip()
                words = f"{{{said}}}"
            if words.strip():
                found.append((at.y() // 12, at.x(), f"{'▶ ' if part is held else ''}{words}"))
        return sorted(found)

    def say(self) -> str:
        """The screen in words, top to bottom."""
        return "\n".join(words for _, _, words in self.seen())

    def standing(self) -> str:
        """Where the keyboard is, and what the header says."""
        from PyQt6.QtWidgets import QLabel

        from vadrin.ui.widgets.keyboard import part_in_sight

        held = self.app.focusWidget()
        name = held.accessibleName() or type(held).__name__ if held is not None else "nowhere"
        seen = held is not None and not part_in_sight(held).isEmpty()
        labels = self.window.header.findChildren(QLabel)
        header = " · ".join(x.text() for x in labels if x.isVisible() and x.text())
        where = f"{self.window.bench.station}; keyboard: {name}{'' if seen else ' (NOT SEEN)'}"
        return f"-- {where}; {self.keys} keys; {header}"

    def press(self, keys: list[str]) -> None:
        """Real keys, one after the other."""
        from PyQt6.QtGui import QKeySequence
        from PyQt6.QtTest import QTest

        for words in keys:
            sequence = QKeySequence(words)
            if not sequence.count():
                raise MissingError(f"no key is called {words}")
            combined = sequence[0]
            target = self.app.focusWidget() or self.window
            self.keys += 1
            QTest.keyClick(target, combined.key(), combined.keyboardModifiers())
            self.settle()

    def type(self, words: str, *keys: str) -> None:
        """Words, letter by letter, then keys."""
        from PyQt6.QtTest import QTest

        self.keys += 1
        for letter in words:
            # A letter may move the keyboard: the next one goes to where it is then.
            QTest.keyClicks(self.app.focusWidget() or self.window, letter)
        self.settle()
        self.press(list(keys))

    def click(self, words: str) -> None:
        """Click on the first thing seen whose words or name begin so."""
        from PyQt6.QtCore import Qt
        from PyQt6.QtTest import QTest
        from PyQt6.QtWidgets import QAbstractButton, QLineEdit, QWidget

        top = self.app.activeModalWidget() or self.window
        for part in top.findChildren(QWidget):
            said = part.text() if isinstance(part, QAbstractButton) else part.accessibleName()
            fits = said.lower().startswith(words.lower())
            if fits and part.isVisible() and isinstance(part, QAbstractButton | QLineEdit):
                QTest.mouseClick(part, Qt.MouseButton.LeftButton)
                self.settle()
                return
        raise MissingError(f"nothing seen begins with “{words}”")

    def later(self, seconds: str) -> None:
        """Let time go by: every clock of the program is so much later from now on."""
        for module in list(sys.modules.values()):
            now = getattr(module, "moment_now", None)
            if now is not None and getattr(module, "__name__", "").startswith("vadrin"):
                module.moment_now = _shifted(now, float(seconds))
        self.settle()

    def do(self, words: list[str]) -> str:
        """One command."""
        from vadrin.ui.theme.look import LOOKS

        command, *rest = words
        acts: dict[str, Callable[[], object]] = {
            "key": lambda: self.press(rest),
            "type": lambda: self.type(*rest),
            "click": lambda: self.click(" ".join(rest)),
            "say": self.say,
            "count": lambda: f"{self.keys} keys",
            "shot": lambda: self.window.grab().save(rest[0]) and rest[0],
            "size": lambda: self.window.resize(*map(int, rest[0].split("x"))),
            "scale": lambda: self._scale(float(rest[0])),
            "look": lambda: self.window.set_look(next(x for x in LOOKS if x.name == rest[0])),
            "later": lambda: self.later(rest[0]),
        }
        if command not in acts:
            raise MissingError(f"no command is called {command}; there are {', '.join(acts)}")
        said = acts[command]()
        self.settle()
        return f"{said}\n{self.standing()}" if isinstance(said, str) else self.standing()

    def _scale(self, scale: float) -> None:
        from vadrin.ui.theme import typeface

        typeface.set_scale(scale)
        self.window.scale_type(0)


def _shifted(now: Callable[[], Any], seconds: float) -> Callable[[], Any]:
    def later() -> Any:
        moment = now()
        wall = moment.wall + timedelta(seconds=seconds)
        return replace(moment, wall=wall, uptime=moment.uptime + seconds)

    return later


def serve(notebook: str) -> None:
    """Keep the window and do what comes over the socket."""
    from PyQt6.QtCore import QSocketNotifier

    hand = Hand(notebook)
    SOCKET.unlink(missing_ok=True)
    server = socket.socket(socket.AF_UNIX)
    server.bind(str(SOCKET))
    server.listen(1)
    LAST.write_text(json.dumps({"pid": os.getpid(), "notebook": str(hand.path)}))

    def take() -> None:
        with server.accept()[0] as line:
            words = json.loads(line.makefile().readline())
            if words == ["stop"]:
                hand.window.close()
                hand.app.quit()
                answer = {"said": "closed", "failed": False}
            else:
                try:
                    answer = {"said": hand.do(words), "failed": False}
                except (MissingError, StopIteration, IndexError, ValueError) as error:
                    answer = {"said": f"{error}\n{hand.standing()}", "failed": True}
            line.sendall((json.dumps(answer) + "\n").encode())

    notifier = QSocketNotifier(server.fileno(), QSocketNotifier.Type.Read)
    notifier.activated.connect(take)
    hand.app.exec()
    SOCKET.unlink(missing_ok=True)


def start(notebook: str) -> int:
    """Open a window in the background, and wait until it takes commands."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    SOCKET.unlink(missing_ok=True)
    environment = {"QT_QPA_PLATFORM": "offscreen", "XDG_STATE_HOME": str(FOLDER), **os.environ}
    log = (FOLDER / "log.txt").open("w")
    subprocess.Popen(
        [sys.executable, __file__, "serve", notebook],
        env=environment,
        stdout=log,
        stderr=log,
        start_new_session=True,
    )
    end = time.monotonic() + _WAIT_S
    while not SOCKET.exists():
        if time.monotonic() > end:
            print((FOLDER / "log.txt").read_text())
            return 2
        time.sleep(0.05)
    print(ask(["say"])["said"])
    return 0


def ask(words: list[str]) -> dict[str, Any]:
    """Send one command, and what came of it."""
    with socket.socket(socket.AF_UNIX) as line:
        line.connect(str(SOCKET))
        line.sendall((json.dumps(words) + "\n").encode())
        answer: dict[str, Any] = json.loads(line.makefile().readline())
        return answer


def main(words: list[str]) -> int:
    """Run the commands of a line."""
    if words[:1] == ["serve"]:
        serve(words[1])
        return 0
    if words[:1] == ["start"]:
        again = json.loads(LAST.read_text())["notebook"] if LAST.exists() else "demo"
        return start(words[1] if len(words) > 1 else again)
    if words[:1] == ["kill"]:
        os.kill(json.loads(LAST.read_text())["pid"], signal.SIGKILL)
        SOCKET.unlink(missing_ok=True)
        return 0
    command: list[str] = []
    for word in [*words, "--"]:
        if word != "--":
            command.append(word)
            continue
        if command:
            answer = ask(command)
            print(answer["said"])
            if answer["failed"]:
                return 2
        command = []
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
