"""Where the finding stands: in a column beside the station, folded to a line, or in its place."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QBoxLayout

from vadrin.app.document.workbench import Workbench
from vadrin.ui.finding_beside.finding_line import FindingLine
from vadrin.ui.stations.station import Station
from vadrin.ui.stations.station_pages import StationPages
from vadrin.ui.widgets.deleting import delete_now

if TYPE_CHECKING:
    from vadrin.ui.finding_beside.finding_column import FindingColumn


class FindingPlace:
    """Shows the finding where there is room for it.

    Parameters
    ----------
    bench : Workbench
    row : QBoxLayout
        Rail, line, station and column, in this order.
    pages : StationPages
        What gives way to the unfolded finding.

    Attributes
    ----------
    line : FindingLine
    column : FindingColumn or None
        Made with the first finding that is shown.
    folded : bool
        Whether it is a line: the window is narrow.
    unfolded : bool
        Whether it lies in the place of the station.
    """

    def __init__(self, bench: Workbench, row: QBoxLayout, pages: StationPages) -> None:
        self.bench, self._row, self._pages = bench, row, pages
        self.line = FindingLine(self.unfold, bench.go)
        self.line.hide()
        self.column: FindingColumn | None = None
        self.folded, self.unfolded = False, False

    def _station(self) -> Station:
        return self._pages.station(self.bench.station)

    def show(self) -> None:
        """Show it beside a station that wants it."""
        station, loaded = self._station(), self.bench.loaded
        unread = loaded is not None and not loaded.read()
        lent = station.side_panel if unread else None
        self.unfolded = self.unfolded and self.folded and station.wants_finding
        in_a_line = self.folded and station.wants_finding and loaded is not None
        self.line.setVisible(in_a_line)
        self._pages.setVisible(not self.unfolded)
        if in_a_line and self.bench.state is not None:
            self.line.show_finding(self.bench.state, self.bench.station, lent is not None)
        wanted = station.wants_finding and (self.unfolded or not self.folded)
        column = self._made() if wanted else self.column
        if column is None:
            return
        column.setVisible(wanted)
        if wanted:
            column.spread(self.unfolded)
            self._row.setStretchFactor(column, int(self.unfolded))
            column.lend(lent)
            column.show_finding(self.bench.state, self.bench.station)

    def _made(self) -> FindingColumn:
        if self.column is None:
            # The first window may have no test on the bench, and need not wait for it.
            from vadrin.app.overview.finding_notes import beside_finding
            from vadrin.ui.finding_beside.finding_column import FindingColumn

            self.column = FindingColumn(
                self.bench.go, lambda state: beside_finding(self.bench.notebook, state)
            )
            self._row.addWidget(self.column)
        return self.column

    def unfold(self) -> None:
        """Open it in the place of the station, where it is folded; or fold it again."""
        if not self.folded:
            self.bench.said.emit("The finding stands beside the station.")
            return
        self.unfolded = not self.unfolded
        self.show()
        if not self.unfolded:
            self._station().take_focus()

    def let_go(self) -> None:
        """It is made anew, in type of another size."""
        if self.column is not None:
            self.column.hide()
            delete_now(self.column)
            self.column = None
