"""What comes in many is added in a copy of the program by as few files as the map says."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
NAMED = "import sys\nfrom pathlib import Path\nPATH = Path(sys.argv[1])\n"
OPENED = """
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QAbstractButton
from vadrin.commands.desktop import make_application, open_window
from vadrin.notebook.records import Instrument
from vadrin.notebook.store import Notebook
book = Notebook(PATH)
with book.change("an instrument"):
    book.add(Instrument(name="lux box", kind="light sensor", port="simulated"))
book.close()
app = make_application()
window = open_window(PATH)
window.show()
window.activateWindow()
assert QTest.qWaitForWindowActive(window)
window.bench.open_test(1)
app.processEvents()
def key(code, modifiers):
    QTest.keyClick(QApplication.focusWidget() or window, code, modifiers)
    app.processEvents()
CTRL = Qt.KeyboardModifier.ControlModifier
"""


class Copy:
    """The program's source in a folder of its own; counts the files that are changed."""

    def __init__(self, folder):
        self.folder, self.touched = folder, set()
        shutil.copy(ROOT / "tests/files/released/schema-11.vadrin", folder / "new.vadrin")
        shutil.copytree(ROOT / "src", folder / "src", ignore=shutil.ignore_patterns("*.pyc"))

    def write(self, name, text):
        """A new file."""
        path = self.folder / "src/vadrin" / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text, encoding="utf-8")
        self.touched.add(name)

    def line(self, name, after, added):
        """Words put behind others in a file that is there."""
        path = self.folder / "src/vadrin" / name
        before = path.read_text(encoding="utf-8")
        assert before.count(after) == 1, f"{after} in {name}"
        path.write_text(before.replace(after, after + added), encoding="utf-8")
        self.touched.add(name)

    def says(self, code):
        """What a fresh program with these files prints."""
        done = subprocess.run(
            [sys.executable, "-c", NAMED + code, str(self.folder / "new.vadrin")],
            capture_output=True,
            text=True,
            timeout=120,
            env={
                **os.environ,
                "PYTHONPATH": str(self.folder / "src"),
                "QT_QPA_PLATFORM": "offscreen",
                "XDG_STATE_HOME": str(self.folder),
                "XDG_DATA_HOME": str(self.folder),
            },
        )
        assert done.returncode == 0, done.stderr
        return done.stdout.strip()


@pytest.fixture
def copy(tmp_path):
    return Copy(tmp_path)


def test_a_station_takes_its_file_and_a_line(copy):
    copy.write(
        "ui/stations/attic/attic_station.py",
        '"""Attic: what is put away."""\n'
        "from vadrin.ui.stations.station import Station\n"
        "from vadrin.ui.theme.roles import Role\n"
        "from vadrin.ui.widgets.labels import text\n"
        "class AtticStation(Station):\n"
        '    """What is put away."""\n'
        "    def show_state(self, scene):\n"
        "        if not self.findChildren(type(text('', Role.BODY))):\n"
        "            self.column.addWidget(text('Nothing is put away yet', Role.BODY))\n",
    )
    copy.write("ui/stations/attic/__init__.py", '"""Attic."""\n')
    copy.line(
        "app/document/stations.py",
        '    StationPlace("cupboard", "the cupboard", "Ctrl+9"),\n',
        '    StationPlace("attic", "the attic", "Ctrl+J"),\n',
    )
    said = copy.says(
        OPENED + "key(Qt.Key.Key_J, CTRL)\n"
        "print(window.bench.station, [x.text() for x in window.station().findChildren(QLabel)])\n"
        "print([a.words for a in window.actions_everywhere if 'attic' in a.words])\n"
    )
    assert said.splitlines()[0] == "attic ['Nothing is put away yet']"
    assert "the attic" in said.splitlines()[1]
    assert len(copy.touched) == 3, "a folder of its own, and one line"


def test_an_instrument_takes_its_file_and_a_word(copy):
    copy.write(
        "app/instruments/light_sensor.py",
        '"""A light sensor: what it says is told."""\n'
        "from vadrin.app.instruments.instrument_line import InstrumentLine, instrument_on_a_line\n"
        "from vadrin.app.instruments.instrument_type import InstrumentType\n"
        "from vadrin.instruments.simulated import SimulatedThermometer\n"
        "class LightSensor:\n"
        "    def __init__(self, kept):\n"
        "        self.name = kept.name\n"
        "        make = lambda rng: SimulatedThermometer(20.0, 20.0, 9.0, rng, every_s=0.05)\n"
        "        self._line = InstrumentLine(kept, 'T= {20.0} C', make)\n"
        "    def hear(self, bench):\n"
        "        news = self._line.take_all()\n"
        "        for each in news:\n"
        "            bench.said.emit(f'the light is {each.value:.0f}')\n"
        "        return bool(news)\n"
        "    @property\n"
        "    def trouble(self):\n"
        "        return self._line.trouble('read it yourself')\n"
        "    def close(self):\n"
        "        self._line.close()\n"
        "TYPE = InstrumentType('light sensor', 'Read the light', 'Disconnect {name}',\n"
        "    lambda bench: LightSensor(instrument_on_a_line(bench.notebook, 'light sensor')))\n",
    )
    copy.line(
        "app/document/stations.py",
        '"expose", "Expose", "Ctrl+2", True, "process"',
        ', ("light sensor",)',
    )
    said = copy.says(
        OPENED + "from vadrin.app.library.forms import FORMS\n"
        "from PyQt6.QtCore import QEventLoop\n"
        "form = next(fields for kind, fields in FORMS.values() if kind is Instrument)\n"
        "print('light sensor' in next(f for f in form if f.name == 'kind').choices)\n"
        "window.bench.go('expose'); app.processEvents()\n"
        "link = next(b for b in window.station().findChildren(QAbstractButton)\n"
        "            if b.text() == 'Read the light')\n"
        "link.click(); print(link.text())\n"
        "said, loop = [], QEventLoop()\n"
        "window.bench.said.connect(lambda words: (said.append(words), loop.quit()))\n"
        "loop.exec(); print(said[0])\n"
        "link.click(); print(link.text(), window.ears.listening.lines); window.close()\n"
    )
    assert said.splitlines() == [
        "True",
        "Disconnect lux box",
        "the light is 20",
        "Read the light {}",
    ]
    assert len(copy.touched) == 2, "one file, and one word at its station"


def test_a_field_of_kit_takes_its_record_its_form_and_its_migration(copy):
    copy.line("notebook/records/kit.py", '    expiry: str = ""\n', '    shelf: str = ""\n')
    copy.line("app/library/forms.py", '            FormField("expiry", "expires"),\n', "")
    copy.line(
        "app/library/forms.py",
        '            FormField("storage", "stored"),\n',
        '            FormField("shelf", "lies on shelf"),\n',
    )
    copy.line("notebook/inspection.py", "SCHEMA_VERSION = 17", " + 1")
    copy.write(
        "notebook/migrations/versions/0018_shelf.py",
        '"""Where a batch lies."""\n'
        "from alembic import op\n"
        'revision, down_revision = "0018", "0017"\n'
        "def upgrade():\n"
        "    op.execute(\"ALTER TABLE batch ADD COLUMN shelf TEXT NOT NULL DEFAULT ''\")\n",
    )
    said = copy.says(
        "from vadrin.notebook.records import Batch\n"
        "from vadrin.notebook.store import Notebook\n"
        "from vadrin.app.library.forms import FORMS\n"
        "from dataclasses import replace\n"
        "book = Notebook(PATH)\n"
        "with book.change('shelf'):\n"
        "    first = book.put(replace(book.all(Batch)[0], shelf='the upper'))\n"
        "book.close(); book = Notebook(PATH)\n"
        "labels = [f.label for kind, fields in FORMS.values() if kind is Batch for f in fields]\n"
        "print(book.get(Batch, first.id).shelf, 'lies on shelf' in labels)\n"
    )
    assert said == "the upper True"
    assert len(copy.touched) == 4, "the record, its line in the form, the version, the migration"
