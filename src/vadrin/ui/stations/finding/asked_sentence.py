"""What the finding is asked: contrast, EI method, rule of pushes, channel, in one sentence."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.decisions.decision import (
    channel_shown,
    choose_channel,
    choose_method,
    choose_push_rule,
    choose_target,
)
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.results.method_rows import RATING_METHOD_NAMES, method_typed
from vadrin.app.results.push_rows import RULE_NAMES, rule_typed
from vadrin.app.results.target_words import (
    TARGET_NAMES,
    target_name,
    target_typed,
    target_value_stepped,
    target_value_text,
    target_value_typed,
    usual_value,
)
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.sentence import sentence


class AskedSentence(QWidget):
    """Five words of a sentence, each changed in place.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self.kind = WordField("measure of contrast", self._set_kind, chooser(TARGET_NAMES))
        self.value = WordField("wanted value", self._set_value, self._step_value)
        self.method = WordField("EI method", self._set_method, chooser(RATING_METHOD_NAMES))
        self.rule = WordField("rule of pushes", self._set_rule, chooser(list(RULE_NAMES.values())))
        self.channel = WordField("channel", self._set_channel, chooser(self._channels))
        for field in (self.channel, self.kind, self.value, self.method, self.rule):
            field.refused.connect(refuse)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(
            sentence(
                "Target contrast:",
                self.kind,
                self.value,
                ". EI method:",
                self.method,
                ". Push times keep:",
                self.rule,
                ". Readings:",
                self.channel,
                ".",
            )
        )

    def show_asked(self, loaded: LoadedTest) -> None:
        """Show what a test is asked."""
        test = loaded.test
        self.kind.show_value(target_name(test.target_kind))
        self.value.show_value(target_value_text(test.target_kind, test.target_value))
        self.method.show_value(test.school)
        self.rule.show_value(RULE_NAMES[test.push_rule])
        self.channel.show_value(channel_shown(loaded)[0])

    def _set_kind(self, words: str) -> None:
        kind, loaded = target_typed(words)[0], self.bench.loaded
        if loaded is not None:
            self._choose(kind, usual_value(kind, loaded))

    def _set_value(self, words: str) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            kind = loaded.test.target_kind
            self._choose(kind, target_value_typed(kind, words))

    def _choose(self, kind: str, value: float) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            test = loaded.test
            self.bench.edit(lambda book: choose_target(book, test, kind, value))

    def _step_value(self, shown: str, way: int) -> str:
        kind = self.bench.loaded.test.target_kind if self.bench.loaded else ""
        return target_value_stepped(kind, shown, way)

    def _set_method(self, words: str) -> None:
        loaded, method = self.bench.loaded, method_typed(words)
        if loaded is not None:
            test = loaded.test
            self.bench.edit(lambda book: choose_method(book, test, method))

    def _set_rule(self, words: str) -> None:
        loaded, rule = self.bench.loaded, rule_typed(words)
        if loaded is not None:
            test = loaded.test
            self.bench.edit(lambda book: choose_push_rule(book, test, rule))

    def _channels(self) -> list[str]:
        loaded = self.bench.loaded
        return channel_shown(loaded)[1] if loaded is not None else []

    def _set_channel(self, words: str) -> None:
        loaded = self.bench.loaded
        if loaded is not None:
            self.bench.edit_or_raise(lambda book: choose_channel(book, loaded, words))
