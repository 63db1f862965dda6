"""What every readings file becomes, and the errors that name the place."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import NamedTuple

from vadrin.core.channels import Channel
from vadrin.core.exposure.arithmetic import METER_CONSTANT, exact_ei, log_h_of_frame
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.restated_time import usual_reference
from vadrin.core.step_deviation import step_deviation
from vadrin.core.wording import list_text
from vadrin.formats.readings.cell_numbers import number_of

CHANNELS = tuple(Channel)
DENSITY_LOW, DENSITY_HIGH, DENSITY_SD = "density_low", "density_high", "density_sd"
"""Further columns of a reading that is no plain number: the steps of a wedge that it lies between,
or the standard deviation that a scan gave it."""


_HIGHEST = 10.0


NO_EXTRA: Mapping[str, str] = MappingProxyType({})


class TableRow(NamedTuple):
    """One reading as a file states it; a tuple, for a file may hold a million.

    Attributes
    ----------
    row : int
        Line or row number in the file, counted from 1 with the header.
    log_h : float or None
        As written; rows with `ei` get theirs from the meter constant.
    """

    row: int
    strip: str
    frame: str
    density: float
    time_min: float | None = None
    temperature_c: float | None = None
    log_h: float | None = None
    ei: float | None = None
    stops: float | None = None
    channel: str = "visual"
    note: str = ""
    extra: Mapping[str, str] = NO_EXTRA

    @property
    def stops_told(self) -> float | None:
        """Stops as they are written: a frame at the meter's own EI says 0, lest it pass for a
        blank where the column is there."""
        metered = self.ei is not None and self.log_h is None
        return 0.0 if metered and self.stops is None else self.stops

    @property
    def step(self) -> tuple[float, float] | None:
        """The densities it lies between, where a wedge told it."""
        try:
            low, high = (number_of(self.extra.get(c, "")) for c in (DENSITY_LOW, DENSITY_HIGH))
        except ValueError:
            return None
        return (low, high) if 0 <= low < high <= _HIGHEST and low <= self.density <= high else None

    @property
    def own_deviation(self) -> float:
        """The standard deviation it brings itself; 0 where only the noise makes it unsure."""
        step = self.step
        if step is not None:
            return step_deviation(*step)
        try:
            told = number_of(self.extra.get(DENSITY_SD, ""))
        except ValueError:
            return 0.0
        return told if 0 < told <= _HIGHEST else 0.0

    def exposure(self, meter_constant: float) -> float | None:
        """Lg exposure of the frame; None for a blank."""
        if self.log_h is not None:
            return self.log_h
        if self.ei is None:
            return None
        return float(log_h_of_frame(exact_ei(self.ei), self.stops or 0.0, meter_constant))


@dataclass(frozen=True)
class CellProblem:
    """A cell that could not be read."""

    row: int
    column: str
    text: str
    remedy: str

    def sentence(self) -> str:
        """The problem in one sentence."""
        shown = f"“{self.text[:40]}”" if self.text else "empty"
        return f"row {self.row}, column {self.column}: {shown}; {self.remedy}"


@dataclass(frozen=True)
class ReadingsTable:
    """A readings file: the rows that could be read, the cells that could not, and what else the
    file holds."""

    source: str
    rows: tuple[TableRow, ...]
    problems: tuple[CellProblem, ...] = ()
    extra_columns: tuple[str, ...] = ()
    left_out: tuple[str, ...] = ()

    @property
    def left_out_words(self) -> str:
        """What of the file was not read, in a sentence; empty where all was."""
        return f"Left out: {list_text(self.left_out)}." if self.left_out else ""

    @property
    def exposures_known(self) -> bool:
        """Whether any row tells its exposure; without, every frame would pass for blank."""
        return any(r.log_h is not None or r.ei is not None for r in self.rows)


def strips_of(
    table: ReadingsTable, meter_constant: float = METER_CONSTANT, channel: str | None = None
) -> tuple[StripReadings, ...]:
    """Group the rows of one channel into strips, in the order of the file.

    Parameters
    ----------
    table : ReadingsTable
    meter_constant : float
        Turns EI and stops into exposure.
    channel : str, optional
        Default visual, or the first channel there is.
    """
    present = [c for c in CHANNELS if any(r.channel == c for r in table.rows)]
    chosen = channel or (present[0] if present else "visual")
    grouped: dict[str, list[TableRow]] = {}
    for row in table.rows:
        if row.channel == chosen:
            grouped.setdefault(row.strip, []).append(row)
    strips = []
    reference = usual_reference([r.temperature_c for rows in grouped.values() for r in rows])
    for label, rows in grouped.items():
        readings = tuple(
            Reading(r.frame, r.exposure(meter_constant), r.density, r.own_deviation) for r in rows
        )
        time = next((r.time_min for r in rows if r.time_min is not None), None)
        temperature = next((r.temperature_c for r in rows if r.temperature_c is not None), None)
        strips.append(
            StripReadings(label, time, temperature, readings, chosen, reference_c=reference)
        )
    return tuple(strips)
