"""Read: by densitometer or wedge, on the light box, and by verdict."""

from __future__ import annotations

from functools import cached_property, partial
from pathlib import Path
from typing import TYPE_CHECKING, ClassVar, Protocol, cast

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QWidget

from vadrin.app.read.data_sheet_axes import is_data_sheet
from vadrin.app.read.patch_entry import takes_patches
from vadrin.app.scans.picture_files import is_picture
from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.paged_station import PagedStation
from vadrin.ui.stations.read.density_page import DensityPage
from vadrin.ui.stations.read.light_box_page import LightBoxPage
from vadrin.ui.stations.read.pointing_page import PointingPage
from vadrin.ui.stations.read.verdict_page import VerdictPage
from vadrin.ui.stations.station import StationContext, ViewState
from vadrin.ui.widgets.line_field import Field

if TYPE_CHECKING:
    from vadrin.ui.stations.read.paired_page import PairedPage
    from vadrin.ui.stations.read.patch_page import PatchPage
    from vadrin.ui.stations.read.scan_page import ScanPage
    from vadrin.ui.stations.read.trace_page import TracePage


class _WayOfReading(Protocol):
    """What every page of the station can do."""

    def show_state(self, scene: ViewState) -> None: ...

    def take_key(self, event: QKeyEvent) -> bool: ...


_PAGES = {
    "densities": ("Densities", "densities"),
    "scan": ("Scan", "scan"),
    "light box": ("Light box", "light_box"),
    "verdicts": ("Verdicts and faults", "verdicts"),
    "side by side": ("Side by side", "paired"),
    "patches": ("Patches", "patches"),
    "trace": ("Trace", "trace"),
}
"""Words of each page's link, and its name here; all but the first are made when turned to."""


class ReadStation(PagedStation):
    """Three ways to read a frame; what each says is kept beside what the others say."""

    links: ClassVar[dict[str, str]] = {name: words for name, (words, _) in _PAGES.items()}
    first_page = "densities"

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.densities = DensityPage(self.bench, given.ears, self.refuse, self.refusal)
        self._offer_all()
        self._put_up()

    @cached_property
    def scan(self) -> ScanPage:
        """Strips read off a picture."""
        from vadrin.ui.stations.read.scan_page import ScanPage

        return ScanPage(self.bench, self.refuse, self.given.jobs, self.given.ask_file)

    @cached_property
    def light_box(self) -> LightBoxPage:
        """Frames told from the blank."""
        return LightBoxPage(self.bench, self.refuse)

    @cached_property
    def verdicts(self) -> VerdictPage:
        """Verdicts and faults."""
        return VerdictPage(self.bench, self.refuse)

    @cached_property
    def paired(self) -> PairedPage:
        """Strips judged side by side."""
        from vadrin.ui.stations.read.paired_page import PairedPage

        return PairedPage(self.bench, self.refuse)

    @cached_property
    def patches(self) -> PatchPage:
        """Patches of a colour chart."""
        from vadrin.ui.stations.read.patch_page import PatchPage

        return PatchPage(self.given, self.refuse, self._stack.bring_into_view)

    @cached_property
    def trace(self) -> TracePage:
        """A curve off a picture of it."""
        from vadrin.ui.stations.read.trace_page import TracePage

        return TracePage(self.given, self.refuse, self._stack.bring_into_view)

    @property
    def field(self) -> Field:
        """Where a density is typed."""
        return self.densities.field

    def _offer_all(self) -> None:
        self.offer(
            hint("Enter", "take the reading and go on; on a read frame, add a repeat"),
            hint("Ctrl+Enter", "put this reading in place of the frame's readings"),
            hint("↑ ↓", "the frame before, the frame after"),
            Action(
                "read.leave_out",
                "exclude the frame from the curve, or include it again",
                self.densities.toggle_left_out,
                ("Ctrl+L",),
            ),
            Action(
                "read.press",
                "connect the densitometer; press the button of a simulated one",
                self.densities.meter.press_or_connect,
                ("F6",),
            ),
            Action(
                "read.densities", "type densities", partial(self.turn_to, "densities"), ("Alt+D",)
            ),
            Action("read.scan", "read a scan", partial(self.turn_to, "scan"), ("Alt+S",)),
            Action(
                "read.light_box",
                "judge on the light box",
                partial(self.turn_to, "light box"),
                ("Alt+B",),
            ),
            Action(
                "read.verdicts",
                "verdicts and faults",
                partial(self.turn_to, "verdicts"),
                ("Alt+J",),
            ),
            Action(
                "read.paired",
                "judge strips side by side, openly or blind",
                partial(self.turn_to, "side by side"),
                ("Alt+P",),
            ),
            Action(
                "read.patches",
                "patches of a colour chart",
                partial(self.turn_to, "patches"),
                ("Alt+C",),
            ),
            Action(
                "read.trace",
                "trace a curve from a picture",
                partial(self.turn_to, "trace"),
                ("Alt+T",),
            ),
            hint("Y N T", "on the light box: I can see a difference, I can't, I am not sure"),
            hint("1 … 9, N D S U", "a verdict on the selected frame"),
        )

    def page_named(self, name: str) -> QWidget:
        """One of the ways of reading, made when it is first turned to."""
        page: QWidget = getattr(self, _PAGES[name][1])
        return page

    def first_page_now(self) -> str:
        """A data sheet is traced; film is read."""
        loaded = self.bench.loaded
        return "trace" if loaded is not None and is_data_sheet(loaded) else self.first_page

    def question_of(self, _name: str) -> str:
        """The question of all of them."""
        return "Densities and judgements"

    def page_turned(self, name: str) -> None:
        """What is refused stands beside its cause: not on a page that is not shown.

        While an eye judges, what the readings found would lead it: it is not shown.
        """
        self.wants_finding = name != "light box"
        if name == "densities":
            self.densities.take_refusal(self.refusal)
        else:
            self.column.addWidget(self.refusal)

    def turn_to(self, name: str) -> None:
        """Show one of the ways of reading."""
        super().turn_to(name)
        if name == "light box":
            self.light_box.point_out()

    def _page(self) -> _WayOfReading:
        return cast(_WayOfReading, self.shown_page)

    def show_state(self, scene: ViewState) -> None:
        """Show the page that is turned to."""
        if scene.loaded is not None:
            self._head.offer("patches", takes_patches(scene.loaded))
            self._head.offer("trace", is_data_sheet(scene.loaded))
        super().show_state(scene)

    def take_file(self, path: Path) -> bool:
        """A picture belongs to the page that is turned to, if that reads one, else to Scan."""
        if not is_picture(path):
            return False
        page = self.shown_page
        if isinstance(page, PointingPage):
            page.open(path)
            return True
        if page is not vars(self).get("scan"):
            self.turn_to("scan")
        self.scan.open(path)
        return True

    def take_key(self, event: QKeyEvent) -> bool:
        """A key belongs to the way of reading that is turned to."""
        return self._page().take_key(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Keys that no field took: the arrows walk along the film in every way of reading."""
        ways = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}
        page = self.shown_page
        if isinstance(page, VerdictPage):
            # As on the contact sheet: whichever arrow one is used to, the frame goes on.
            ways |= {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}
        # Where a picture is pointed at, the arrows are its crosshair's.
        pointing = isinstance(page, PointingPage) and page.pointing
        if pointing and event is not None and self.take_key(event):
            return
        if event is not None and event.key() in ways:
            self.densities.walk(ways[Qt.Key(event.key())])
        elif event is None or not self.take_key(event):
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """Type at once."""
        if self.shown_page is self.densities:
            self.densities.take_focus()
        else:
            self.setFocus()
