"""A tester with a film of known truth at the keyboard, from a question to the card."""

import json
import re
from pathlib import Path

import numpy as np
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from tests.window.pages import CTRL, DOWN, ENTER, SPACE, TAB, UP, Hands, pdf_words, words_of
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.notebook.records import Finding

ALT = Qt.KeyboardModifier.AltModifier


def documented_keys(kind):
    """What matches the keys that the documents name for a kind."""
    text = (Path(__file__).parents[2] / "docs" / "kind-answers.md").read_text(encoding="utf-8")
    row = next(line for line in text.splitlines() if line.startswith(f"| {kind} |"))
    keys = [k for k in re.findall(r"`([^`]+)`", row) if k[:1] not in "_ "]
    keys += [f".+{k}" for k in re.findall(r"`( [^`]+)`", row)]
    if "the same with" in row:
        keys += [
            k.replace("_gradient", end)
            for k in keys
            if k.endswith("_gradient")
            for end in ("_base", "_speed")
        ]
    wild = {"X": "[A-Z]\\d?", "N": "[0-9.]+", "P": "[a-z -]+"}
    return "|".join(
        re.sub("(?<![A-Za-z])[XNP](?![A-Za-mo-rt-z])", lambda m: wild[m[0]], k) for k in keys
    )


class FilmTester(Hands):
    """A tester with a film of known truth, who never touches the mouse."""

    def __init__(self, qtbot, window, folder):
        super().__init__(qtbot, window)
        self.bench, self.folder = window.bench, folder
        self.rng = np.random.default_rng(3)

    @property
    def loaded(self):
        return self.bench.loaded

    def to(self, name):
        """Go on to a field by its name."""
        for _ in range(60):
            widget = QApplication.focusWidget()
            if name in (widget.accessibleName(), getattr(widget, "text", str)()):
                return
            self.press(TAB)
        raise AssertionError(f"no field is called {name}")

    def plan(self, kind, film="Kelda Pan 200", index="200", **words):
        self.press(Qt.Key.Key_N, CTRL)
        self.qtbot.keyClicks(QApplication.focusWidget(), kind)
        self.press(ENTER)
        for typed in (film, "", "Sable", "1+1"):
            self.write(typed, TAB)
        self.write(index)
        for name, typed in words.items():
            self.to(name.replace("_s_", "'s ").replace("_", " "))
            self.write(typed)
        self.settle()
        assert self.loaded.test.kind == kind

    def shoot_and_develop(self):
        self.press(Qt.Key.Key_2, CTRL)
        with self.unseen():
            self.press(SPACE, times=len(self.loaded.frames()))
        assert self.loaded.exposed() == len(self.loaded.frames())
        self.press(Qt.Key.Key_3, CTRL)
        self.press(ENTER, CTRL)
        assert self.loaded.processed() == len(self.loaded.strips)

    def read(self, density, channel="", noise=0.006):
        """Type what a densitometer says of every frame, one after the other."""
        self.press(Qt.Key.Key_4, CTRL)
        with self.unseen():
            self.press(UP, times=len(self.loaded.frames()))
            before = None
            while (place := self.bench.selected())[1].frame.id != before:
                strip, frame = place
                before = frame.frame.id
                dense = density(strip, frame) if frame.readable else None
                if dense is None:
                    self.press(DOWN)
                else:
                    seen = np.atleast_1d(dense)
                    seen = np.maximum(0.0, seen + noise * self.rng.standard_normal(len(seen)))
                    self.write(" ".join([*(f"{d:.2f}" for d in seen), channel]).strip())
        self.settle()

    def judge(self, key_of):
        """Give frames the verdicts that stand behind their keys."""
        self.press(Qt.Key.Key_4, CTRL)
        self.press(Qt.Key.Key_J, ALT)
        with self.unseen():
            self.press(UP, times=len(self.loaded.frames()))
            for strip, frame in self.loaded.frames():
                key = key_of(strip, frame)
                if key:
                    self.press(key)
                self.press(DOWN)
        self.settle()

    def at(self, frame):
        return frame.log_h(self.loaded.test.meter_constant)

    def decide_and_print(self):
        """Decide, and save the card and the data; gives both, and what the shelf says."""
        self.press(Qt.Key.Key_7, CTRL)
        self.settle()
        shown = words_of(self.window)
        self.press(Qt.Key.Key_D, CTRL)
        assert len(self.bench.notebook.all(Finding, test_id=self.loaded.test.id)) == 1, shown
        self.press(Qt.Key.Key_8, CTRL)
        self.settle()
        card, data = self.folder / "card.pdf", self.folder / "answer.json"
        for path in (card, data):
            self.press(Qt.Key.Key_A, CTRL)
            self.write(str(path))
        pages, words = pdf_words(card)
        assert pages <= 2
        assert "decided" in words
        told = json.loads(data.read_text(encoding="utf-8"))
        line = next(x for x in shelf_lines(self.bench.notebook) if x.test_id == self.loaded.test.id)
        return words, told, line

    def own_answer(self):
        """The same, of a kind that answers in its own words: they stand everywhere alike."""
        words, told, line = self.decide_and_print()
        allowed = documented_keys(self.loaded.test.kind)
        assert [k for k in told["answer"]["figures"] if not re.fullmatch(allowed, k)] == []
        says = told["answer"]["says"]
        assert says
        assert says.split()[0] in words
        assert line.index == says or line.index == says.partition(",")[0]
        return words, told["answer"]["figures"], says
