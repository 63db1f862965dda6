"""A light meter's constant: taken as it is, or found from measured exposures."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vadrin.app.entry.numbers import number_within, pairs_typed
from vadrin.core.exposure.corrections import calibrated_meter_constant
from vadrin.core.wording import counted
from vadrin.errors import EntryError
from vadrin.notebook.records import LightMeter, Test
from vadrin.notebook.store import Notebook

HINT = "8.125, 10, or EIs with the lux seconds measured at the film, 100: 0.082, 200: 0.041"
_LEAST, _MOST = 1.0, 50.0
_FOUND = "constant from "


@dataclass(frozen=True)
class MeterConstant:
    """A constant in lux seconds, and where it comes from; empty where it was only typed."""

    value: float
    source: str = ""


def meter_constant_typed(words: str) -> MeterConstant:
    """Read a constant, or find it from pairs of an EI and the exposure a metered target got.

    Raises
    ------
    EntryError
    """
    refusal = f"a meter constant lies between {_LEAST:g} and {_MOST:g} lux seconds"
    if ":" not in words:
        return MeterConstant(number_within(words, _LEAST, _MOST, refusal, HINT))
    pairs = np.array(pairs_typed(words, HINT))
    if (pairs <= 0).any():
        raise EntryError("EIs and measured lux seconds lie above 0")
    found = calibrated_meter_constant(pairs[:, 0], pairs[:, 1])
    if found.value is None or not _LEAST <= found.value <= _MOST:
        raise EntryError(f"that comes to {found.value or 0:.3g}; {refusal}")
    source = f"{_FOUND}{counted(len(pairs), 'measurement')}"
    if found.low is not None and found.high is not None:
        source += f", {found.low:.2f} to {found.high:.2f}"
    return MeterConstant(round(found.value, 3), source)


def set_meter_constant(notebook: Notebook, meter: LightMeter, typed: MeterConstant) -> LightMeter:
    """Write a meter's constant down, as one edit; the tests it metered follow."""
    own = (part for part in meter.note.split("; ") if not part.startswith(_FOUND))
    note = "; ".join(part for part in (*own, typed.source) if part)
    with notebook.change(f"meter constant of {meter.name}"):
        for test in notebook.all(Test, meter_id=meter.id):
            if test.meter_constant != typed.value:
                notebook.put(replace(test, meter_constant=typed.value))
        return notebook.put(replace(meter, constant=typed.value, note=note))
