"""Instruments on lines: what each says, and what is done with it, whatever page is shown.

A kind of instrument is a file here with its `TYPE`; the station it is listened to at names it
(`PLACES` in `app.document.stations`).
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

from vadrin.app.document.stations import instruments_heard

if TYPE_CHECKING:
    from vadrin.app.instruments.instrument_type import InstrumentType

THERMOMETER, DENSITOMETER = "thermometer", "densitometer"


def type_of_instrument(kind: str) -> InstrumentType:
    """A kind of instrument; loaded when it is asked for.

    Raises
    ------
    KeyError
        If no station names it.
    """
    if kind not in instruments_heard():
        raise KeyError(kind)
    made: InstrumentType = import_module(f"{__name__}.{kind.replace(' ', '_')}").TYPE
    return made
