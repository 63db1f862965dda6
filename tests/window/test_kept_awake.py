"""While film is in the tank the desktop stays awake, and is told when an act is due."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]

STAND_IN = """
import sys
from PyQt6.QtCore import QCoreApplication, QVariant, QMetaType, pyqtClassInfo, pyqtSlot, QObject
from PyQt6.QtDBus import QDBusAbstractAdaptor, QDBusConnection

app = QCoreApplication(sys.argv)
bus = QDBusConnection.sessionBus()

@pyqtClassInfo("D-Bus Interface", "org.freedesktop.ScreenSaver")
class Saver(QDBusAbstractAdaptor):
    @pyqtSlot(str, str, result="uint")
    def Inhibit(self, name, why):
        print("inhibit", name, why, flush=True)
        return 41
    @pyqtSlot("uint")
    def UnInhibit(self, cookie):
        print("uninhibit", cookie, flush=True)

@pyqtClassInfo("D-Bus Interface", "org.freedesktop.Notifications")
class Notes(QDBusAbstractAdaptor):
    @pyqtSlot(str, "uint", str, str, str, "QStringList", "QVariantMap", int, result="uint")
    def Notify(self, name, replaces, icon, summary, body, actions, hints, timeout):
        print("notify", summary, flush=True)
        return 1

held = []
for service, path, kind in (
    ("org.freedesktop.ScreenSaver", "/org/freedesktop/ScreenSaver", Saver),
    ("org.freedesktop.Notifications", "/org/freedesktop/Notifications", Notes),
):
    thing = QObject(); held += [thing, kind(thing)]
    assert bus.registerObject(path, thing) and bus.registerService(service)
print("ready", flush=True)
app.exec()
"""

WINDOW = """
import sys, os, pathlib
sys.path[:0] = [ROOT, ROOT + "/src"]
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication
from vadrin.commands.desktop import make_application, open_window
app = make_application()
import shutil
path = shutil.copy(ROOT + "/src/vadrin/app/demo/demo.vadrin", sys.argv[1] + "/film.vadrin")
window = open_window(pathlib.Path(path)); window.show()
from tests.notebooks import developed_test, new_test
book = window.bench.notebook
test = new_test(book, "Kelda Pan", "Sable", "1+1", times=(6.0,))
window.bench.open_test(test.id); window.bench.go("process"); window.updates.flush()
from vadrin.app.process.darkroom_runs import RunEventType, begin_run, note_event
from vadrin.app.process.uptime import moment_now
begun = window.bench.edit(lambda b: begin_run(b, window.bench.loaded, moment_now()))
QTest.qWait(400)
for _ in range(50):
    if sys.argv[2] == "True" or window.ears.desktop.trouble:
        break
    QTest.qWait(100)
print("trouble", window.ears.desktop.trouble, flush=True)
window.ears.tell_due("Kelda Pan: agitate")
QTest.qWait(200)
window.bench.edit(lambda b: note_event(b, begun, moment_now(), RunEventType.STOP))
QTest.qWait(400)
window.close()
"""


def run_with(tmp_path, stand_in):
    """What the desktop heard, and what the window said of it, on a bus of their own."""
    (tmp_path / "desktop.py").write_text(STAND_IN)
    (tmp_path / "window.py").write_text(WINDOW.replace("ROOT", repr(str(ROOT))))
    desktop = f"{sys.executable} desktop.py > heard.txt & sleep 1.2;" if stand_in else ""
    command = f"{desktop} {sys.executable} window.py {tmp_path} {stand_in} > said.txt 2> errors.txt"
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    subprocess.run(
        ["dbus-run-session", "--", "sh", "-c", command],
        cwd=tmp_path,
        env=environment,
        timeout=120,
        check=False,
    )
    heard = tmp_path / "heard.txt"
    said = (tmp_path / "said.txt").read_text()
    assert "trouble" in said, (tmp_path / "errors.txt").read_text()
    return heard.read_text().splitlines() if heard.exists() else [], said


pytestmark = pytest.mark.skipif(
    shutil.which("dbus-run-session") is None, reason="this machine has no D-Bus to start"
)


def test_the_desktop_is_kept_awake_until_the_clock_stops_and_is_told_what_is_due(tmp_path):
    heard, said = run_with(tmp_path, stand_in=True)
    assert said.strip() == "trouble"
    assert heard[1:] == [
        "inhibit Vadrin Film is in the developer.",
        "notify Kelda Pan: agitate",
        "uninhibit 41",
    ]


def test_a_desktop_that_offers_nothing_is_told_apart(tmp_path):
    _, said = run_with(tmp_path, stand_in=False)
    assert "switch its sleep and its screen lock off" in said
