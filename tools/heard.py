"""What a screen reader hears of the program: a listener on the accessibility bus.

``python tools/heard.py`` does a test by keys from its plan to the decision, as somebody who does
not see the screen: what is typed for a frame follows from what was heard of it. It prints all that
was said, and leaves with 1 where something that matters was not heard, was said twice, or more was
said than anybody listens to; with 2 where an X server without a screen, a bus or the service of
accessibility is not on the machine. The listener knows nothing of the program: it reads names,
roles, states and values off the bus, as a reader of any desktop does.
"""

from __future__ import annotations

import math
import os
import re
import shutil
import subprocess
import sys
import tempfile
import time
from collections import deque
from contextlib import ExitStack
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

sys.path[:0] = [str(Path(__file__).parents[1]), str(Path(__file__).parents[1] / "src")]

from jeepney import DBusAddress, MatchRule, message_bus, new_method_call  # noqa: E402
from jeepney.io.blocking import DBusConnection, open_dbus_connection  # noqa: E402
from jeepney.wrappers import unwrap_msg  # noqa: E402

from oracles.closed_form import ClosedForm  # noqa: E402

_NEEDED = ("Xvfb", "dbus-daemon")
_LAUNCHER = Path("/usr/libexec/at-spi-bus-launcher")
_ATSPI = "org.a11y.atspi"
_FOCUSED, _CHECKED, _SELECTED, _ENABLED = 12, 4, 23, 8
"""Places of states in the two words of bits that the bus gives."""
_EVENTS = (
    "object:state-changed:focused",
    "object:property-change:accessible-name",
    "object:property-change:accessible-description",
    "object:property-change:accessible-value",
    "object:announcement",
    "object:active-descendant-changed",
    "object:selection-changed",
    "window:activate",
)


_MINUTES = (5.0, 8.0, 12.5)
_MOST_FRAMES = 70
_FRAME = r"strip ([ABC]), frame \d+, (blank|[^,]*?)(?: stops?)?, waits for a reading"
_PARTS = {"½": 1 / 2, "⅓": 1 / 3, "⅔": 2 / 3}


def missing() -> list[str]:
    """What of the machine is not there."""
    found = [name for name in _NEEDED if shutil.which(name) is None]
    return found if _LAUNCHER.exists() else [*found, str(_LAUNCHER)]


@dataclass(frozen=True)
class Part:
    """A part of the program on the bus."""

    sender: str
    path: str


@dataclass
class Listener:
    """Listens to the accessibility bus and says what a reader would.

    Attributes
    ----------
    said : list of str
        Every line that was spoken.
    events : int
        How many changes came at all.
    """

    bus: DBusConnection
    said: list[str] = field(default_factory=list)
    events: int = 0
    focus: Part | None = None
    changed: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        self._coming: deque[Any] = deque()
        registry = DBusAddress(
            "/org/a11y/atspi/registry", f"{_ATSPI}.Registry", f"{_ATSPI}.Registry"
        )
        for event in _EVENTS:
            call = new_method_call(registry, "RegisterEvent", "sass", (event, [], ""))
            self.bus.send_and_get_reply(call, timeout=5)
        for kind in ("Object", "Window"):
            rule = MatchRule(type="signal", interface=f"{_ATSPI}.Event.{kind}")
            self.bus.send_and_get_reply(message_bus.AddMatch(rule), timeout=5)

    def ask(
        self, part: Part, interface: str, method: str, signature: str = "", body: Any = ()
    ) -> Any:
        """One answer off the bus; None where the part is gone, or knows nothing of it."""
        address = DBusAddress(part.path, part.sender, interface)
        call = new_method_call(address, method, signature or None, body)
        serial = next(self.bus.outgoing_serial)
        self.bus.send_message(call, serial=serial)
        end = time.monotonic() + 5
        while time.monotonic() < end:
            came = self.bus.receive(timeout=5)
            if came.header.fields.get(5) == serial:
                try:
                    return unwrap_msg(came)
                except Exception:
                    return None
            self._coming.append(came)
        return None

    def property(self, part: Part, name: str, interface: str = f"{_ATSPI}.Accessible") -> Any:
        """A property of a part."""
        got = self.ask(part, "org.freedesktop.DBus.Properties", "Get", "ss", (interface, name))
        return got[0][1] if got else None

    def role(self, part: Part) -> str:
        """A part's role by its name."""
        got = self.ask(part, f"{_ATSPI}.Accessible", "GetRoleName")
        return str(got[0]) if got else "gone"

    def states(self, part: Part) -> int:
        """A part's states as bits."""
        got = self.ask(part, f"{_ATSPI}.Accessible", "GetState")
        return int(got[0][0] | got[0][1] << 32) if got else 0

    def children(self, part: Part) -> list[Part]:
        """What a part holds."""
        got = self.ask(part, f"{_ATSPI}.Accessible", "GetChildren")
        return [Part(*child) for child in got[0]] if got else []

    def text(self, part: Part) -> str:
        """The words typed into a field; empty for what is none."""
        got = self.ask(part, f"{_ATSPI}.Text", "GetText", "ii", (0, -1))
        return str(got[0]) if got else ""

    def spoken(self, part: Part) -> str:
        """All a reader says of a part that it comes to."""
        name = self.property(part, "Name") or ""
        role = self.role(part)
        said = [name, role]
        if role in ("text", "entry"):
            said.append(self.text(part))
        if role in ("list", "table"):
            got = self.ask(part, f"{_ATSPI}.Selection", "GetSelectedChild", "i", (0,))
            said.append(self.property(Part(*got[0]), "Name") if got else "")
        value = self.property(part, "CurrentValue", f"{_ATSPI}.Value")
        if role in ("slider", "progress bar", "spin button") and value is not None:
            said.append(f"{value:g}")
        states = self.states(part)
        if role in ("check box", "radio button", "toggle button"):
            said.append("checked" if states >> _CHECKED & 1 else "not checked")
        description = self.property(part, "Description") or ""
        return ", ".join(words for words in (*said, description) if words)

    def _say(self, words: str) -> None:
        # What was read with the part a moment ago is not read again.
        if words and not (self.said and self.said[-1].endswith(words)):
            self.said.append(words)

    def hear(self, quiet_s: float = 0.5) -> list[str]:
        """Take what came until nothing comes for a while; gives what was said."""
        begun = len(self.said)
        end = time.monotonic() + quiet_s
        while time.monotonic() < end:
            if self._coming:
                came = self._coming.popleft()
            else:
                try:
                    came = self.bus.receive(timeout=max(0.01, end - time.monotonic()))
                except TimeoutError:
                    break
            if self._take(came):
                end = time.monotonic() + quiet_s
        return self.said[begun:]

    def _take(self, message: Any) -> bool:
        """Whether a message was a change of something."""
        fields = message.header.fields
        interface, member = fields.get(2, ""), fields.get(3, "")
        if not str(interface).startswith(f"{_ATSPI}.Event"):
            return False
        self.events += 1
        part = Part(fields[7], fields[1])
        what, on = message.body[0], message.body[1]
        if member == "StateChanged" and what == "focused" and on:
            self.focus = part
            self._say(self.spoken(part))
        elif member == "PropertyChange":
            self.changed.append(f"{what} of {part.path}")
            if part == self.focus and what in ("accessible-name", "accessible-description"):
                # What came with the event: by now it may say something else.
                self._say(str(message.body[3][1]))
        elif member == "Announcement":
            self._say(str(message.body[3][1]))
        elif member == "ActiveDescendantChanged":
            inner = message.body[3][1]
            self._say(self.spoken(Part(*inner)))
        return True


class Desktop:
    """A desktop of its own: an X server, a session bus, accessibility, and the program on it."""

    def __init__(self, stack: ExitStack, notebook: str) -> None:
        self.folder = Path(stack.enter_context(tempfile.TemporaryDirectory()))
        number = next(n for n in range(90, 190) if not Path(f"/tmp/.X11-unix/X{n}").exists())
        self._run(stack, ["Xvfb", f":{number}", "-screen", "0", "1400x900x24", "-nolisten", "tcp"])
        address = f"unix:path={self.folder}/bus"
        self._run(stack, ["dbus-daemon", "--session", "--nofork", f"--address={address}"])
        _until(
            lambda: (self.folder / "bus").exists() and Path(f"/tmp/.X11-unix/X{number}").exists()
        )
        self.environment = {
            **os.environ,
            "DISPLAY": f":{number}",
            "DBUS_SESSION_BUS_ADDRESS": address,
            "QT_QPA_PLATFORM": "xcb",
            "QT_LINUX_ACCESSIBILITY_ALWAYS_ON": "1",
            "VADRIN_HAND": str(self.folder / "hand"),
            **{f"XDG_{name}_HOME": str(self.folder / name) for name in ("STATE", "DATA", "CONFIG")},
        }
        self.session = stack.enter_context(open_dbus_connection(address))
        self.bus = stack.enter_context(open_dbus_connection(self._accessibility()))
        self.listener = Listener(self.bus)
        self.do("start", notebook)
        stack.callback(self.do, "stop")

    @staticmethod
    def _run(stack: ExitStack, command: list[str]) -> None:
        process = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        stack.callback(process.wait)
        stack.callback(process.terminate)

    def _accessibility(self) -> str:
        """The address of the accessibility bus; asking for it starts it."""
        bus = DBusAddress("/org/a11y/bus", "org.a11y.Bus", "org.a11y.Bus")
        got = unwrap_msg(
            self.session.send_and_get_reply(new_method_call(bus, "GetAddress"), timeout=20)
        )
        status = DBusAddress("/org/a11y/bus", "org.a11y.Bus", "org.freedesktop.DBus.Properties")
        for name in ("IsEnabled", "ScreenReaderEnabled"):
            body = ("org.a11y.Status", name, ("b", True))
            self.session.send_and_get_reply(new_method_call(status, "Set", "ssv", body), timeout=20)
        return str(got[0])

    def do(self, *words: str) -> str:
        """One command to the window (tools/hand.py)."""
        done = subprocess.run(
            [sys.executable, str(Path(__file__).with_name("hand.py")), *words],
            env=self.environment,
            capture_output=True,
            text=True,
            timeout=180,
        )
        return done.stdout

    def keys(self, *words: str) -> list[str]:
        """Press keys; gives what was said."""
        self.do("key", *words)
        return self.listener.hear()

    def type(self, *words: str) -> list[str]:
        """Type words, then keys; gives what was said."""
        self.do("type", *words)
        return self.listener.hear()


def _until(done: Any, patience_s: float = 20.0) -> None:
    end = time.monotonic() + patience_s
    while not done():
        if time.monotonic() > end:
            raise TimeoutError("a part of the desktop did not start")
        time.sleep(0.02)


class Walk:
    """A test done by ear.

    Attributes
    ----------
    faults : list of str
        What a listener would complain of.
    """

    def __init__(self, desktop: Desktop) -> None:
        self.desktop, self.faults = desktop, list[str]()
        self.film = ClosedForm()

    def heard(self, act: str, said: list[str], wanted: str = "", most: int = 3) -> str:
        """Print what was said at an act and hold it against what matters."""
        print(f"{act}")
        for words in said:
            print(f"    “{words}”")
        if wanted and not any(re.search(wanted, words, re.IGNORECASE) for words in said):
            self.faults.append(f"{act}: nothing like “{wanted}” was heard")
        if len(said) > most:
            self.faults.append(f"{act}: {len(said)} things were said")
        if len(set(said)) < len(said):
            self.faults.append(f"{act}: something was said twice")
        return " ".join(said)

    def key(self, *keys: str, wanted: str = "", most: int = 3) -> str:
        """Press keys."""
        return self.heard(" ".join(keys), self.desktop.keys(*keys), wanted, most)

    def type(self, *words: str, wanted: str = "", most: int = 3) -> str:
        """Type words, then keys."""
        return self.heard(" ".join(words), self.desktop.type(*words), wanted, most)

    def plan(self) -> None:
        """A development-time test of three strips."""
        self.key("Ctrl+N", wanted="list|question")
        self.key("Return", wanted="film, text")
        for words, then in (
            ("Merrow Pan 125", "batch"),
            ("M3", "developer"),
            ("Sable", "dilution"),
            ("1+1", "EI on the meter"),
            ("125", "number of strips"),
        ):
            self.type(words, "Tab", wanted=f"{then}, text")
        self.key("Tab", wanted="development times")
        self.type("soon", "Return", wanted="not a number")
        self.type("5; 8; 12,5", "Return", wanted="")

    def expose(self) -> None:
        """Every frame is heard, once."""
        said = self.key("Ctrl+2", wanted="frame 1")
        for _ in range(_MOST_FRAMES):
            said = self.key("Space", wanted="frame|All frames are taken")
            if "All frames are taken" in said:
                break

    def read(self) -> list[str]:
        """Type what each frame that is heard must have; gives the answers that were heard."""
        said = self.key("Ctrl+4", wanted="density of the selected frame.*frame 1")
        answers = []
        self.type("9.9.9", "Return", wanted="density|number")
        self.desktop.do("key", "Escape")
        self.desktop.listener.hear()
        for _ in range(_MOST_FRAMES):
            found = re.findall(_FRAME, said)
            if not found:
                break
            strip, stops = found[-1]
            said = self.type(f"{self._density(strip, stops):.2f}", "Return", most=3)
            answers += re.findall(r"EI \d+[^“”]*", said)
        return answers

    def _density(self, strip: str, stops: str) -> float:
        """What the film has under so many stops from the meter reading at EI 125."""
        minutes = _MINUTES["ABC".index(strip)]
        if stops == "blank":
            return float(self.film.density(None, minutes))
        sign = -1.0 if stops.startswith("minus") else 1.0
        number = stops.removeprefix("minus ").removeprefix("plus ")
        whole = "".join(c for c in number if c.isdigit())
        at = sign * (float(whole or 0) + sum(_PARTS.get(c, 0.0) for c in number))
        log_h = math.log10(8.125 / 125.0) + math.log10(2.0) * at
        return float(self.film.density(log_h, minutes))


def main() -> int:
    """Walk; 0 where all that matters was heard."""
    lacking = missing()
    if lacking:
        print(f"not on this machine: {', '.join(lacking)}")
        return 2
    with ExitStack() as stack:
        folder = Path(stack.enter_context(tempfile.TemporaryDirectory()))
        walk = Walk(Desktop(stack, str(folder / "winter.vadrin")))
        walk.heard("the window opens", walk.desktop.listener.hear(1.0))
        walk.plan()
        walk.expose()
        walk.key("Ctrl+3", wanted="")
        walk.key("Ctrl+Return", wanted="")
        answers = walk.read()
        if not answers:
            walk.faults.append("no answer was heard while densities were typed")
        walk.key("Ctrl+7", wanted="Finding")
        walk.key("Ctrl+D", wanted="decided|recorded|EI")
    print(f"{len(walk.desktop.listener.said)} lines were said, {len(answers)} answers among them")
    print("\n".join(f"FAULT {fault}" for fault in walk.faults))
    return 1 if walk.faults else 0


if __name__ == "__main__":
    sys.exit(main())
