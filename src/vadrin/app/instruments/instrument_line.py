"""An instrument of the cupboard on its line, or the stand-in for it that ships with the program."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Generic, Protocol, TypeVar

import numpy as np

from vadrin.app.document.stations import key_to
from vadrin.errors import EntryError
from vadrin.instruments.line_format import LineFormat, LineReading
from vadrin.instruments.serial_line import SerialLine
from vadrin.instruments.simulated import SIMULATED
from vadrin.instruments.watched_folder import WatchedFolder
from vadrin.notebook.records import Instrument
from vadrin.notebook.store import Notebook


class StandIn(Protocol):
    """A made-up instrument on a port of its own."""

    port: str

    def close(self) -> None: ...


S = TypeVar("S", bound=StandIn)


class InstrumentLine(Generic[S]):
    """An instrument that is listened to.

    Parameters
    ----------
    kept : Instrument
        The one in the cupboard.
    usual_line : str
        A line as such instruments send it, with the number in braces.
    make_stand_in : callable
        Makes the stand-in, where the cupboard names that in the place of a port.

    Raises
    ------
    EntryError
        If its port or its line does not do.
    """

    def __init__(
        self, kept: Instrument, usual_line: str, make_stand_in: Callable[[np.random.Generator], S]
    ) -> None:
        self.name = kept.name
        self.stand_in: S | None = None
        port = kept.port
        if port == SIMULATED:
            self.stand_in = make_stand_in(np.random.default_rng(kept.id))
            port = self.stand_in.port
        try:
            line_format = LineFormat(kept.line_format or usual_line)
            self._line: SerialLine | WatchedFolder = (
                WatchedFolder(port, line_format)
                if Path(port).is_dir()
                else SerialLine(port, line_format, silent=self.stand_in is not None)
            )
        except ValueError as error:
            raise EntryError(f"{kept.name}: {error}") from error
        except OSError as error:
            raise EntryError(
                f"{kept.name} does not answer at {port}; check its cable, and its port in the "
                f"cupboard ({key_to('cupboard')})"
            ) from error

    def take_all(self) -> list[LineReading]:
        """The readings that came since the last time."""
        return self._line.take_all()

    def trouble(self, instead: str) -> str:
        """Why nothing comes, in words, with what to do instead; empty while all is well."""
        if self._line.lost:
            return f"{self.name} no longer answers: {instead}."
        if strange := self._line.passed_over.take():
            return f"{self.name} says “{strange}”, unlike its line in the cupboard."
        return ""

    def close(self) -> None:
        """Listen no more."""
        self._line.close()
        if self.stand_in is not None:
            self.stand_in.close()


def instrument_on_a_line(
    notebook: Notebook, kind: str, first: Instrument | None = None
) -> Instrument:
    """An instrument of a kind that has a port, `first` before the others.

    Raises
    ------
    EntryError
        If there is none.
    """
    for kept in (*([first] if first else []), *notebook.all(Instrument)):
        if kept.kind == kind and kept.port:
            return kept
    raise EntryError(
        f"no {kind} with a port in the cupboard yet ({key_to('cupboard')}, under instruments); "
        "its port may be "
        f"“{SIMULATED}”"
    )
