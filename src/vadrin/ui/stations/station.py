"""What every station is to the window."""

from __future__ import annotations

from collections.abc import Callable, Generator, Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, TypeVar, cast

from PyQt6 import sip
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.state import State
from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.instruments import type_of_instrument
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.ui.actions import Action, bind
from vadrin.ui.ears import Ears
from vadrin.ui.jobs import Jobs
from vadrin.ui.stations.listen_button import ListenButton
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis


T = TypeVar("T")


@dataclass(frozen=True)
class ViewState:
    """Everything a station shows: the test, its answer, the selection and the look."""

    state: State | None
    frame_id: int | None
    look: Look
    in_full: bool = False
    """Whether what matters less than the answer is shown in full, not in a line."""

    @property
    def loaded(self) -> LoadedTest | None:
        """The test on the bench."""
        return self.state.loaded if self.state is not None else None

    @property
    def analysis(self) -> Analysis | None:
        """Its answer; None until it is worked out for the test as it is now."""
        return self.state.analysis if self.state is not None else None


@dataclass(frozen=True)
class StationContext:
    """What a station is given by the window beside the workbench."""

    bench: Workbench
    jobs: Jobs
    ears: Ears
    start_test: Callable[[], None]
    ask_import: Callable[[], None]
    ask_file: Callable[[str, str, Callable[[Path], object]], None]
    open_notebook: Callable[[Path], None]
    say: Callable[[str], None]
    """Says something to who does not see the screen."""


class Station(QWidget):
    """A station: it shows a scene and passes edits on to the workbench.

    Attributes
    ----------
    topics : Topic
        Changes it wants to hear of while it is shown; it always hears of being turned to.
    wants_finding : bool
        Whether the finding column stands beside it.
    side_panel : QWidget or None
        What stands in the finding's place as long as nothing is read.
    says_its_frame : bool
        Whether it tells who does not see the screen of the frame that is up.
    """

    topics = Topic.SHEET | Topic.SELECTION | Topic.ANALYSIS
    wants_finding = True
    says_its_frame = False

    def __init__(self, given: StationContext) -> None:
        super().__init__()
        self.given, self.bench = given, given.bench
        self.side_panel: QWidget | None = None
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(px(14), px(12), px(16), px(12))
        self.column.setSpacing(px(8))
        self.refusal = text("", Role.REFUSAL, wrap=True)
        self.refusal.hide()
        self._actions: tuple[Action, ...] = ()

    @property
    def actions_here(self) -> tuple[Action, ...]:
        """What can be done at this station by a key."""
        return self._actions

    def offer(self, *actions: Action) -> None:
        """Let keys do something while this station has the keyboard, and list them."""
        bind(self, actions, within=True)
        self._actions = (*self._actions, *actions)

    def hear_instruments(self, kinds: Iterable[str]) -> None:
        """Offer the instruments that are listened to here and have no place on a page."""
        for kind in kinds:
            if not type_of_instrument(kind).own_place:
                self.column.addWidget(ListenButton(kind, self.given.ears, self.refuse))

    def show_state(self, scene: ViewState) -> None:
        """Show a scene; never changes the workbench."""
        raise NotImplementedError

    def turn_to(self, _name: str) -> None:
        """Show one of its pages, where it has several."""

    def take_file(self, _path: Path) -> bool:
        """Take a file that was dropped; False where it means nothing here."""
        return False

    def put_away(self) -> None:
        """The window closes: let go of what is listened to."""

    def take_focus(self) -> None:
        """Put the keyboard where the work begins."""
        self.setFocus()

    def while_open(
        self, steps: Generator[tuple[int, int], None, tuple[T, ...]]
    ) -> Generator[tuple[int, int], None, tuple[T, ...]]:
        """What steps through a notebook comes to, or nothing once another lies open."""
        opened = self.bench.notebook
        while self.bench.notebook is opened:
            try:
                yield next(steps)
            except StopIteration as end:
                return cast("tuple[T, ...]", end.value)
        return ()

    @property
    def busy(self) -> bool:
        """Whether something it shows is still being worked out."""
        return False

    def take_key(self, _event: QKeyEvent) -> bool:
        """Take a key that nothing else took; False where it means nothing here."""
        return False

    def forget_words(self) -> None:
        """Drop what was said of a test that is left."""
        for field in self._refused_here():
            field.drop_refused()
        self.refuse("")

    def _refused_here(self) -> list[WordField]:
        there = [f for f in WordField.showing_refused if not sip.isdeleted(f)]
        return [f for f in there if self.isAncestorOf(f)]

    def refuse(self, words: str) -> None:
        """Say beside its cause why something typed was not taken.

        Empty clears it, but for what another field still shows and was refused for.
        """
        self.given.say(words)
        if not words:
            words = next((f.why_refused for f in self._refused_here()), "")
        self.refusal.setText(words)
        self.refusal.setVisible(bool(words))
