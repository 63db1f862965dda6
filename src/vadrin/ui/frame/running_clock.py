"""A clock that ran when the program ended runs on: film is in the tank."""

from __future__ import annotations

from contextlib import suppress

from vadrin.app.document.workbench import Workbench
from vadrin.app.instruments import THERMOMETER
from vadrin.errors import EntryError
from vadrin.ui.ears import Ears
from vadrin.ui.frame.updates import Updates
from vadrin.ui.stations.station_pages import StationPages
from vadrin.ui.widgets.banner import Banner


def go_to_running_clock(
    bench: Workbench, ears: Ears, updates: Updates, pages: StationPages, banner: Banner
) -> None:
    """Open the test whose clock runs at its clock, listen again, and say what was missed."""
    ears.listening.clocks_changed()
    running = ears.listening.running_test()
    if running is None or bench.notebook.read_only:
        return
    bench.open_test(running)
    bench.go("process")
    updates.flush()
    pages.station(bench.station).turn_to("clock")
    ears.look()
    missed, read = ears.listening.went_on()
    if read:
        with suppress(EntryError):
            ears.listening.listen(THERMOMETER)
            ears.look()
    if missed:
        banner.complain(missed)
    title = bench.loaded.title if bench.loaded is not None else ""
    bench.said.emit(f"The clock of {title} went on: film is in the tank.")
