"""What pages have in common on which a picture is opened and then pointed at, step by step."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Generic, Protocol, Self, TypeVar

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.scans.picture_files import PICTURES
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.read.pointed_picture import PointedPicture
from vadrin.ui.stations.station import StationContext
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text

if TYPE_CHECKING:
    from vadrin.app.read.trace_steps import Place


class PointingSteps(Protocol):
    """A picture, and how far the pointing has come."""

    @property
    def asks(self) -> str:
        """What to do next."""

    def placed(self, at: Place) -> Self:
        """With the next place pointed at.

        Raises
        ------
        EntryError
            In words, if the place will not do.
        """

    def back(self) -> Self:
        """Without the last place."""


Steps = TypeVar("Steps", bound=PointingSteps)


class PointingPage(QWidget, Generic[Steps]):
    """A page with a picture that is pointed at, by mouse or crosshair.

    Parameters
    ----------
    given : StationContext
    refuse : callable
        Says why something was not taken.
    into_view : callable
        Scrolls to a part of the page.
    subject : str
        What the picture is of.
    choose, take : str
        What the buttons say that open a picture, and that take what was pointed at.
    """

    _pointed: OfTest[dict[int, Steps]] = OfTest(dict)

    def __init__(
        self,
        given: StationContext,
        refuse: Callable[[str], None],
        into_view: Callable[[QWidget], None],
        subject: str,
        choose: str,
        take: str,
    ) -> None:
        super().__init__()
        self.bench, self._jobs, self._refuse = given.bench, given.jobs, refuse
        self._into_view, self._subject = into_view, subject
        self._strip: LoadedStrip | None = None
        self._look: Look = DAY
        self.view: PointedPicture | None = None
        ask = partial(given.ask_file, f"Open the picture of the {subject}", PICTURES, self.open)
        self.choose = button(choose, ask)
        self.undo = button("Undo last point", self._back)
        self.take = button(take, self.keep, primary=True)
        self._head, self._asks = text("", Role.HEADING), text("", Role.LEAD_STRONG, wrap=True)
        self._keys = text("", Role.CAPTION, wrap=True)
        self._place = QVBoxLayout()

    @property
    def steps(self) -> Steps | None:
        """How far the pointing has come on the selected strip."""
        return self._pointed.get(self._strip.strip.id) if self._strip is not None else None

    @steps.setter
    def steps(self, steps: Steps | None) -> None:
        if self._strip is None:
            return
        if steps is None:
            self._pointed.pop(self._strip.strip.id, None)
        else:
            self._pointed[self._strip.strip.id] = steps

    @property
    def pointing(self) -> bool:
        """Whether the arrows move the crosshair of a picture."""
        return self.steps is not None

    def opened_from(self, path: Path) -> Steps:
        """Read a picture that nothing was pointed at on yet; not on the screen's thread."""
        raise NotImplementedError

    def show_steps(self) -> None:
        """Show how far the pointing has come."""
        raise NotImplementedError

    def keep(self) -> None:
        """Take what was pointed at."""
        raise NotImplementedError

    def acts(self) -> dict[Qt.Key, Callable[[], None]]:
        """Keys of this page beside the arrows and Enter."""
        return {Qt.Key.Key_Backspace: self._back}

    def open(self, path: Path) -> None:
        """Open a picture; what was pointed at on another is left."""
        self._refuse("")
        self._jobs.run(
            self._subject, lambda _said: self.opened_from(path), self._opened, self._failed
        )

    def _opened(self, steps: Steps) -> None:
        self.steps = steps
        self.show_steps()
        self._into_view(self._asks)
        if self.view is not None:
            self._into_view(self.view)
            if self.isVisible():
                # Else the arrows walk along the buttons, from the one that asked for the file.
                self.view.setFocus()

    def _failed(self, error: Exception) -> None:
        if not isinstance(error, VadrinError):
            raise error
        self._refuse(str(error))

    def the_view(self) -> PointedPicture:
        """The picture's place on the page; made when it is first shown."""
        if self.view is None:
            point = partial(self._step_to, lambda steps, at: steps.placed(at))
            self.view = PointedPicture(f"picture of the {self._subject}", point)
            self._place.addWidget(self.view, 1)
        return self.view

    def _step_to(self, step: Callable[[Steps, Place], Steps], at: Place) -> None:
        """Go a step on by a place, or say why not."""
        if self.steps is None:
            return
        try:
            self.steps = step(self.steps, at)
            self._refuse("")
        except EntryError as error:
            self._refuse(str(error))
        self.show_steps()

    def _back(self) -> None:
        if self.steps is not None:
            self.steps = self.steps.back()
            self.show_steps()

    def take_key(self, event: QKeyEvent) -> bool:
        """Arrows move the cross, Enter points; the page's own keys do what it says."""
        if self.steps is None or self.view is None:
            return False
        return self.view.take_key(event, self.acts())
