"""What a maker's table tells of the pushes of a test."""

from __future__ import annotations

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of, temperature_factor_of
from vadrin.core.process.makers_table import MakersLine, makers_times
from vadrin.core.process.process_kinds import kind_of_process
from vadrin.core.restated_time import DEFAULT_Q10, REFERENCE_TEMPERATURE_C
from vadrin.notebook.records import MakerTime, Process, Stock, Test
from vadrin.notebook.store import Notebook


def line_of(kept: MakerTime) -> MakersLine:
    """A kept line as the core knows it."""
    return MakersLine(kept.time_min, kept.stops, kept.exposure_index, kept.temperature_c)


def makers_of_test(loaded: LoadedTest) -> tuple[tuple[float, float], ...]:
    """Stops and minutes of the table of a test that is there, at its process's temperature."""
    lines = tuple(line_of(m) for m in loaded.makers)
    reference, q10 = reference_of(loaded), temperature_factor_of(loaded)
    return makers_times(lines, loaded.stock.box_speed, reference, q10)


def makers_told(notebook: Notebook, test: Test) -> tuple[tuple[float, float], ...]:
    """The same for a test that has no strips yet; empty where no table is kept."""
    kept = notebook.all(MakerTime, stock_id=test.stock_id, developer_id=test.developer_id)
    stock = notebook.get(Stock, test.stock_id)
    if not kept or stock is None:
        return ()
    routine = notebook.get(Process, test.process_id) if test.process_id else None
    reference = routine.temperature_c if routine else REFERENCE_TEMPERATURE_C
    q10 = (routine.q10 or kind_of_process(routine.kind).q10) if routine else DEFAULT_Q10
    return makers_times(tuple(line_of(m) for m in kept), stock.box_speed, reference, q10)
