"""Which frame is up, and what a test has come to, for who does not see the screen."""

from __future__ import annotations

from collections.abc import Callable

from vadrin.app.document.stations import station_place
from vadrin.app.document.workbench import Topic, Workbench
from vadrin.ui.light_table.strip_table import StripTable
from vadrin.ui.stations.station import Station


class WhatCame:
    """Says a frame and an answer once.

    Parameters
    ----------
    bench : Workbench
    table : StripTable
    station : callable
        Gives the station that is shown.
    say : callable
    """

    def __init__(
        self,
        bench: Workbench,
        table: StripTable,
        station: Callable[[], Station],
        say: Callable[[str], None],
    ) -> None:
        self._bench, self._table, self._station, self._say = bench, table, station, say
        self._heard: tuple[int | None, str] = (None, "")

    def say_frame(self, told: Topic) -> None:
        """The frame that is up; the light table says it itself, and so does a station that is
        turned to."""
        itself = self._table.hasFocus() or self._station().says_its_frame
        if Topic.STATION not in told and station_place(self._bench.station).film and not itself:
            self._say(self._table.accessibleName())

    def say_answer(self, _told: Topic) -> None:
        """An answer that is another than the one heard last, of the same test."""
        # Imported here so that the first window need not wait for numpy.
        from vadrin.app.results.headline import headline_of
        from vadrin.app.results.spoken_answer import spoken_answer

        state = self._bench.state
        here = state.loaded.test.id if state is not None else None
        words = spoken_answer(state) if state is not None else ""
        if state is not None and words and here == self._heard[0] and words != self._heard[1]:
            # What comes next is said with it, and is no reason to say it again.
            act = headline_of(state).next_act
            self._say("; ".join(part for part in (words, act) if part))
        if here != self._heard[0] or words:
            self._heard = here, words
