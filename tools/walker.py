"""Walk the real window at random, and look after every step whether it still tells the truth.

``python tools/walker.py STEPS [SEED]`` walks so many steps, prints what they were, how long they
took and how many went over 100 ms twice in a row, and the shortest steps to each fault it met.
With ``--commas`` the region writes decimal commas and days in its own order; with ``--large`` the
type begins at 200 %.
The tests walk for a minute by the same rules.
"""

from __future__ import annotations

import argparse
import os
import re
import shutil
import sys
import tempfile
import time
import traceback
from collections import Counter
from pathlib import Path
from typing import Any

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

import hypothesis  # noqa: E402
from hypothesis import HealthCheck, Phase, settings  # noqa: E402
from hypothesis import strategies as st  # noqa: E402
from hypothesis.stateful import (  # noqa: E402
    RuleBasedStateMachine,
    invariant,
    precondition,
    rule,
    run_state_machine_as_test,
)

from tools.hand import Hand  # noqa: E402
from vadrin.app.decisions.cards_offered import WHOLE_FINDING  # noqa: E402
from vadrin.app.descriptions import own_answer  # noqa: E402
from vadrin.app.display.quantities import minutes_text  # noqa: E402
from vadrin.app.display.region import PLAIN, Region, local, region_here, set_region  # noqa: E402
from vadrin.app.document.state import answered  # noqa: E402
from vadrin.app.document.stations import PLACES, STATIONS  # noqa: E402
from vadrin.app.document.test_loading import load_test  # noqa: E402
from vadrin.app.pictures.beside_pictures import shown_pictures  # noqa: E402
from vadrin.app.pictures.exposed import ring_of  # noqa: E402
from vadrin.app.process.running_clocks import running_clocks  # noqa: E402
from vadrin.app.process.uptime import moment_now  # noqa: E402
from vadrin.app.results.rating import rating_of  # noqa: E402
from vadrin.core.planning.test_types import NAMES  # noqa: E402
from vadrin.notebook.records import Test  # noqa: E402
from vadrin.notebook.store import Notebook  # noqa: E402
from vadrin.ui.pictures.picture_tile import PictureTile  # noqa: E402
from vadrin.ui.theme import typeface  # noqa: E402
from vadrin.ui.widgets.buttons import Button  # noqa: E402
from vadrin.ui.widgets.line_field import Field  # noqa: E402

DEMO = ROOT / "src" / "vadrin" / "app" / "demo" / "demo.vadrin"
KEYS = (
    "Tab",
    "Shift+Tab",
    "Up",
    "Down",
    "Left",
    "Right",
    "Return",
    "Esc",
    "Space",
    "Home",
    "End",
    "1",
    "2",
    "3",
    "4",
    "5",
    "u",
    "s",
    "n",
    "b",
    "r",
    "y",
    "t",
    "x",
    "F1",
    "F2",
    "Ctrl+K",
    "Ctrl+Z",
    "Ctrl+Y",
    "Ctrl+D",
    "Ctrl+L",
    "Ctrl+N",
    "Ctrl+R",
    "Ctrl+F",
    "Del",
)
WORDS = (
    "8:00",
    "9,5",
    "banana",
    "+400",
    "-3",
    "+4",
    "1/125",
    "20.5",
    "21,5",
    "EI 400",
    "0.45",
    "12",
    "Kelda Pan 200",
    "Sable 1+1",
    "half stops",
    "contact",
    "0",
    "2026",
    "normal 9:30",
    "-1, 0, 1",
)
KINDS_OF_STEP: Counter[str] = Counter()
SLOW: Counter[str] = Counter()
GOAL_S = 0.1
COMMAS = Region(decimal_comma=True, day="%d.%m.%Y")
_POINT = re.compile(r"(?<![\w/.,-])\d+\.\d+(?!\.?\w)|\b\d{4}-\d\d-\d\d\b(?![\w.-])")
MOST_CRASHES = 3
"""In one walk: a start takes as long as twenty other steps."""


class FaultError(AssertionError):
    """Something that must hold did not."""


class Walker(RuleBasedStateMachine):
    """One window on a copy of the demo, and what is done to it."""

    scale = 1.0

    def __init__(self) -> None:
        super().__init__()
        self.folder = Path(tempfile.mkdtemp(prefix="vadrin-walk-"))
        # A word typed where a file is asked for is the name of a file, written where one works.
        self.place_before = Path.cwd()
        os.chdir(self.folder)
        self.raised: list[str] = []
        self.hook, sys.excepthook = sys.excepthook, self._raise
        typeface.set_scale(self.scale)
        self.hand = Hand(str(shutil.copy(DEMO, self.folder / "walk.vadrin")))
        self.begun = self.book.everything()
        self.slow_before = ""
        self.crashes = 0

    def _raise(self, kind: type[BaseException], error: BaseException, trace: Any) -> None:
        self.raised.append("".join(traceback.format_exception(kind, error, trace)))

    @property
    def window(self) -> Any:
        return self.hand.window

    @property
    def book(self) -> Notebook:
        book: Notebook = self.window.bench.notebook
        return book

    def _step(self, name: str, act: Any) -> None:
        KINDS_OF_STEP[name] += 1
        begun = time.process_time()
        act()
        late = name if time.process_time() - begun > GOAL_S else ""
        if late and late == self.slow_before:
            SLOW[name] += 1
        self.slow_before = late
        self.hand.settle()

    def _pressed(self, words: str) -> None:
        from PyQt6.QtGui import QKeySequence
        from PyQt6.QtTest import QTest

        combined = QKeySequence(words)[0]
        target = self.hand.app.focusWidget() or self.window
        QTest.keyClick(target, combined.key(), combined.keyboardModifiers())

    @rule(key=st.sampled_from(KEYS))
    def press(self, key: str) -> None:
        """Press a key, to whatever has the keyboard."""
        self._step(f"key {key}", lambda: self._pressed(key))

    @rule(words=st.sampled_from(WORDS), key=st.sampled_from(("Return", "Tab", "Return")))
    def write(self, words: str, key: str) -> None:
        """Type a word, right or wrong."""
        from PyQt6.QtTest import QTest

        target = self.hand.app.focusWidget() or self.window
        self._step("word", lambda: QTest.keyClicks(target, words))
        self._step(f"key {key}", lambda: self._pressed(key))
        held = self.hand.app.focusWidget()
        if key == "Return" and held is target and isinstance(held, Field):
            self.what_is_typed_next_replaces(held)

    def what_is_typed_next_replaces(self, held: Field) -> None:
        """A word that was taken, or refused, is not added to."""
        if held.selectedText() != held.text():
            name = held.accessibleName()
            raise FaultError(f"what is typed next is added to “{held.text()}” in “{name}”")

    @rule(letter=st.sampled_from("abcdefghijklmnopqrstuvwxyz"))
    def page(self, letter: str) -> None:
        """Turn to a page of the station, where the letter means one."""
        self._step("page", lambda: self._pressed(f"Alt+{letter}"))

    @rule(station=st.sampled_from([place.name for place in PLACES]))
    def go(self, station: str) -> None:
        """Go to a station."""
        self._step(f"to {station}", lambda: self.window.bench.go(station))

    @rule(place=st.integers(0, 200))
    def click(self, place: int) -> None:
        """Click on something that can be clicked: a button, or a field."""
        from PyQt6.QtCore import Qt
        from PyQt6.QtTest import QTest
        from PyQt6.QtWidgets import QAbstractButton, QLineEdit

        kinds = QAbstractButton, QLineEdit
        seen = [
            part
            for kind in kinds
            for part in self.window.centralWidget().findChildren(kind)
            if part.isVisible() and part.isEnabled() and not part.visibleRegion().isEmpty()
        ]
        if seen:
            part = seen[place % len(seen)]
            button = Qt.MouseButton.LeftButton
            self._step("click", lambda: QTest.mouseClick(part, button))

    @rule(place=st.integers(0, 50))
    def other_test(self, place: int) -> None:
        """Open another test: nothing that was said of the one before goes along."""
        ids = [t.id for t in self.book.all(Test)]
        if not ids:
            return
        test = ids[place % len(ids)]
        here = self.window.bench.loaded
        refused, said = self._refusal(), self._said()
        other = here is not None and here.test.id != test
        self._step("another test", lambda: self.window.bench.open_test(test))
        of_test = self.window.bench.station in STATIONS
        if other and of_test and refused and self._refusal() == refused:
            raise FaultError(f"refused in another test, and still shown: {refused}")
        if other and said and said not in ("all changes saved",) and self._said() == said:
            raise FaultError(f"said of another test, and still shown: {said}")

    @rule(way=st.sampled_from((1, -1)))
    @precondition(lambda self: self.window.bench.loaded is not None)
    def type_size(self, way: int) -> None:
        """Make the type larger, or smaller: nothing else changes."""
        before = self.window.bench.loaded
        self._step("type size", lambda: self.window.scale_type(way))
        if self.window.bench.loaded != before:
            raise FaultError("another type size changed the test")

    @rule()
    def look(self) -> None:
        """Change the look."""
        self._step("look", self.window.next_look)

    @rule(kind=st.sampled_from(NAMES))
    def new_test(self, kind: str) -> None:
        """Begin a test of a type by keys, from the question."""
        self._step("new test", lambda: self._pressed("Ctrl+N"))
        self.hand.type(kind.replace("_", " "), "Return")
        KINDS_OF_STEP[f"new: {self.window.bench.loaded.test.kind}"] += 1
        for words in ("Kelda Pan 200", "", "Sable", "1+1"):
            self.hand.type(words, "Tab")
        self.hand.type("200", "Return")

    @rule(strips=st.integers(1, 3))
    @precondition(lambda self: self.window.bench.loaded is not None)
    def read_strips(self, strips: int) -> None:
        """Type rising densities for whole strips, whether they were developed or not."""
        bench = self.window.bench
        self._step("to read", lambda: bench.go("read"))
        self._step("page", lambda: self.window.station().turn_to("densities"))
        for strip in bench.loaded.strips[:strips]:
            lit = [f for f in strip.frames if f.readable]
            for place, frame in enumerate(lit):
                self._step("frame", lambda frame=frame: bench.select(frame.frame.id))
                self.window.station().take_focus()
                # Of a film with a toe, so that it has an EI.
                density = 0.2 if frame.frame.blank else 0.2 + 0.02 * 1.35 ** min(place, 13)
                self.hand.type(f"{density:.2f}", "Return")

    @rule(key=st.sampled_from("BTWNFH"))
    @precondition(lambda self: self.window.bench.loaded is not None)
    def pictures(self, key: str) -> None:
        """Look at the finding's pictures in one way or another; they are of the answer as it is."""
        bench = self.window.bench
        self._step("to pictures", lambda: bench.go("finding"))
        self._step("pictures", lambda: self.window.station().turn_to("pictures"))
        self._step("look at pictures", lambda: self._pressed(key))
        self.hand.settle()
        if bench.state is None or bench.state.analysis is None:
            return
        shown = {e for _, e in shown_pictures(bench.notebook, bench.state)}
        shown |= {e for row in ring_of(bench.state) for e in row}
        tiles = self.window.station().findChildren(PictureTile)
        strange = [t for t in tiles if t.isVisible() and t.exposed not in shown]
        if strange:
            raise FaultError(f"a picture of no answer: {strange[0].accessibleName()}")

    @rule()
    def film_for_a_light(self) -> None:
        """Ask for a film for a light, and load the first there is."""
        self._step("tonight", lambda: self.window.bench.go("tonight"))
        self.hand.settle()
        words = [b.text() for b in self.window.station().findChildren(Button) if b.isVisible()]
        load = next((w for w in words if w.startswith("Load ")), None)
        if load is not None:
            self._step("load a film", lambda: self.hand.click(load))

    @rule()
    @precondition(lambda self: self.crashes < MOST_CRASHES)
    def crash(self) -> None:
        """The power goes: what lies in the file opens, with all that was done."""
        known, place = self.book.everything(), self.window.bench.notebook.path
        self.crashes += 1
        copy = Path(shutil.copy(place, self.folder / f"after{self.crashes}.vadrin"))
        self.window.close()
        self.hand.settle()
        self.hand = Hand(str(copy))
        if self.book.everything() != known:
            raise FaultError("a copy of the file does not hold what was done")
        self.begun = known  # What is taken back ends where the program was started.
        clocks = running_clocks(self.book, moment_now())
        if clocks and self.window.bench.station != "process":
            raise FaultError(f"a clock runs, and the program opens on {self.window.bench.station}")

    def _refusal(self) -> str:
        refusal = getattr(self.window.station(), "refusal", None)
        return str(refusal.text()) if refusal is not None and refusal.isVisible() else ""

    def _said(self) -> str:
        from PyQt6.QtWidgets import QLabel

        if not self.window.header._quiet.isActive():
            return ""
        labels = self.window.header.findChildren(QLabel)
        return next((x.text() for x in labels if x.objectName() == "state of saving"), "")

    @invariant()
    def it_tells_the_truth(self) -> None:
        """Everything that must hold after a step."""
        self.nothing_was_raised()
        self.the_keyboard_is_seen()
        self.fields_show_what_is_in_force()
        self.screen_and_file_agree()
        self.answers_are_of_this_test()
        self.words_are_of_the_region()

    def nothing_was_raised(self) -> None:
        """No exception came up."""
        if self.raised:
            raise FaultError(self.raised[0])

    def the_keyboard_is_seen(self) -> None:
        """What has the keyboard is on the screen, and can be used."""
        if self.hand.app.activeModalWidget() or self.hand.app.activePopupWidget():
            self._close_what_asks()
        from vadrin.ui.widgets.keyboard import part_in_sight

        held = self.hand.app.focusWidget()
        if held is None or held is self.window:
            raise FaultError(f"nothing has the keyboard at {self.window.bench.station}")
        name = held.accessibleName() or type(held).__name__
        if not held.isEnabled() or part_in_sight(held).isEmpty():
            raise FaultError(f"the keyboard is at “{name}”, which nobody sees; {_lies_in(held)}")

    def _close_what_asks(self) -> None:
        while asks := self.hand.app.activePopupWidget() or self.hand.app.activeModalWidget():
            asks.close()
            self.hand.settle()
        self.window.activateWindow()
        self.hand.settle()

    def fields_show_what_is_in_force(self) -> None:
        """A field shows its value, but for words that are being typed in it."""
        from vadrin.ui.widgets.fields import WordField

        for field in self.window.centralWidget().findChildren(WordField):
            if not field.isVisible() or (field.unsent and not field._shown):
                continue
            if field.text() != field._shown and not field.hasFocus():
                name = field.accessibleName()
                raise FaultError(f"“{name}” shows {field.text()!r}, in force is {field._shown!r}")

    def screen_and_file_agree(self) -> None:
        """The test on the bench is the test in the file, and shown anew it looks the same."""
        bench = self.window.bench
        if bench.loaded is not None and load_test(bench.notebook, bench.loaded.test.id) != (
            bench.loaded
        ):
            raise FaultError("the test on the bench is not the one in the file")

    def answers_are_of_this_test(self) -> None:
        """What stands as the answer, and on the card, is that to the test as it is in the file."""
        bench = self.window.bench
        if bench.loaded is None or bench.station not in ("finding", "cards"):
            return
        loaded = load_test(bench.notebook, bench.loaded.test.id)
        if loaded is None:
            raise FaultError("the test on the bench is not in the file")
        fresh = answered(loaded)
        if bench.state.settled() != fresh.settled():
            raise FaultError("the answer shown is not that to the test in the file")
        if bench.station != "cards" or not self.window.station()._pdf:
            return
        document = self.folder / "shown.pdf"
        document.write_bytes(self.window.station()._pdf)
        words = " ".join(self._words_of(document).split())
        for figure in self._must_stand_on_the_card(fresh):
            if local(figure) not in words:
                raise FaultError(f"the card does not say {figure}; it says {words[:300]}")

    def words_are_of_the_region(self) -> None:
        """Where commas are written, no point is left in a number that is shown."""
        if region_here() != COMMAS:
            return
        from PyQt6.QtWidgets import QAbstractButton, QLabel

        from vadrin.ui.widgets.sentence import FlowingSentence

        for part in self.window.findChildren((QLabel, QAbstractButton, FlowingSentence)):
            left = _POINT.search(part.text()) if part.isVisible() else None
            if left is not None:
                raise FaultError(f"{left[0]} stands in “{part.text()[:120]}”")

    def _must_stand_on_the_card(self, fresh: Any) -> list[str]:
        """What a card of the whole finding cannot do without, from the file alone."""
        of = self.window.station().card.text()
        if of != WHOLE_FINDING:
            return [fresh.loaded.stock.name]
        if fresh.loaded.findings:
            last = fresh.loaded.findings[-1]
            index = last.exposure_index
            return ["decided", *([f"{index:.3g}"] if index > 0 and not last.card else [])]
        own = own_answer(fresh)
        if own is not None:
            return ["not decided", own.says.split()[0]]
        found = rating_of(fresh)
        read = (s for s in fresh.loaded.strips if any(f.readings for f in s.frames))
        planned = [s for s in read if s.strip.time_min is None and s.strip.planned_min is not None]
        marks = ["planned"] if planned else []
        return ["not decided", minutes_text(found.time_min.known()), *marks]

    def _words_of(self, document: Path) -> str:
        from PyQt6.QtPdf import QPdfDocument

        pages = QPdfDocument(None)
        pages.load(str(document))
        return " ".join(pages.getAllText(i).text() for i in range(pages.pageCount()))

    def teardown(self) -> None:
        """Undo all, and redo all: first and last are as they were."""
        try:
            self._to_and_fro()
        finally:
            sys.excepthook = self.hook
            self.window.close()
            self.hand.settle()
            os.chdir(self.place_before)
            shutil.rmtree(self.folder, ignore_errors=True)

    def _to_and_fro(self) -> None:
        book, last = self.book, self.book.everything()
        count = 0
        while book.undo() is not None:
            count += 1
        if book.everything() != self.begun:
            what = _differing(self.begun, book.everything())
            raise FaultError(f"{count} edits undone did not give back the file: {what}")
        # What the walk itself took back and did not do again stays taken back.
        for _ in range(count):
            book.redo()
        if book.everything() != last:
            what = _differing(last, book.everything())
            raise FaultError(f"{count} edits done again are not as they were: {what}")


def _lies_in(part: Any) -> str:
    """What a part lies in, and how large each of it is."""
    words = []
    while part is not None:
        at = part.geometry()
        words.append(f"{type(part).__name__} {at.x()},{at.y()} {at.width()}x{at.height()}")
        part = part.parentWidget()
    return " in ".join(words)


def _differing(one: dict[Any, list[Any]], other: dict[Any, list[Any]]) -> str:
    """The records of two notebooks that differ."""
    lines = []
    for kind in one:
        lines += [f"only before: {r}" for r in one[kind] if r not in other[kind]]
        lines += [f"only after: {r}" for r in other[kind] if r not in one[kind]]
    return "\n".join(lines[:6])


def walk(examples: int, steps: int, seed: int | None = None, shrink: bool = False) -> None:
    """Walk; raises with the shortest steps to the first fault."""
    machine = Walker if seed is None else hypothesis.seed(seed)(Walker)
    run_state_machine_as_test(
        machine,
        settings=settings(
            max_examples=examples,
            stateful_step_count=steps,
            deadline=None,
            database=None,
            derandomize=seed is None,
            suppress_health_check=list(HealthCheck),
            phases=(Phase.generate, Phase.shrink) if shrink else (Phase.generate,),
        ),
    )


def main() -> int:
    """Walk as told, and print what was done."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("steps", type=int, nargs="?", default=500)
    parser.add_argument("seed", type=int, nargs="?", default=0)
    parser.add_argument("--commas", action="store_true")
    parser.add_argument("--large", action="store_true")
    told = parser.parse_args()
    from vadrin.commands.desktop import make_application

    application = make_application()
    set_region(COMMAS if told.commas else PLAIN)
    Walker.scale = 2.0 if told.large else 1.0
    begun, failed = time.time(), 0
    try:
        walk(max(1, told.steps // 50), 50, told.seed)
    except Exception as error:
        failed = 1
        traceback.print_exception(error)
    spent = time.time() - begun
    print(f"{sum(KINDS_OF_STEP.values())} steps in {spent:.0f} s")
    print("types begun:", {k: n for k, n in KINDS_OF_STEP.items() if k.startswith("new: ")})
    print("over 100 ms twice in a row:", dict(SLOW) or "none")
    del application
    return failed


if __name__ == "__main__":
    sys.exit(main())
