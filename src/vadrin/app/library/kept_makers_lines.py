"""Lines of a maker's table, kept of a film in a developer."""

from __future__ import annotations

from collections.abc import Iterable

from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.core.process.makers_table import MakersLine
from vadrin.notebook.records import MakerTime
from vadrin.notebook.store import Notebook


def keep_makers_lines(notebook: Notebook, loaded: LoadedTest, lines: Iterable[MakersLine]) -> None:
    """Keep lines of the table, each in the place of one for the same thing; as one edit."""
    with notebook.change(f"the maker's times of {loaded.stock.name}"):
        for line in lines:
            for old in loaded.makers:
                if _alike(old, line):
                    notebook.remove(old)
            notebook.add(
                MakerTime(
                    stock_id=loaded.test.stock_id,
                    developer_id=loaded.test.developer_id,
                    stops=line.stops,
                    exposure_index=line.exposure_index,
                    temperature_c=line.temperature_c,
                    time_min=line.minutes,
                )
            )


def _alike(kept: MakerTime, line: MakersLine) -> bool:
    """Whether a kept line says the time of the same thing."""
    mine = (line.stops, line.exposure_index, line.temperature_c)
    return (kept.stops, kept.exposure_index, kept.temperature_c) == mine
