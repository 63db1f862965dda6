"""What a kind of instrument that is listened to is: its words, and how it is begun."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from vadrin.app.document.workbench import Workbench


class HeardLine(Protocol):
    """An instrument for as long as it is listened to."""

    name: str

    @property
    def trouble(self) -> str:
        """Why nothing comes, in words; asked once, empty while all is well."""
        ...

    def hear(self, bench: Workbench) -> bool:
        """Take what came since the last time to where it belongs; whether there was anything."""
        ...

    def close(self) -> None:
        """Listen no more."""
        ...


@dataclass(frozen=True)
class InstrumentType:
    """A kind of instrument.

    Attributes
    ----------
    kind : str
        What the cupboard calls it.
    ask, stop : str
        Words of the button: before it is listened to, and meanwhile, with ``{name}`` in them.
    begin : callable
        Listens to the one in the cupboard; raises `EntryError` where there is none, or it does
        not answer.
    own_place : bool
        Whether a page of its station has a place for it; the others stand below the station.
    """

    kind: str
    ask: str
    stop: str
    begin: Callable[[Workbench], HeardLine]
    own_place: bool = False
