"""What the demo notebook holds that nobody shot as a test: a maker's sheet, a roll of pictures."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.library.named_records import developer_named, stock_named
from vadrin.app.plan.drafting import lay_out
from vadrin.app.read.data_sheet_tracing import TRACED
from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin
from vadrin.core.planning.test_options import SheetSource
from vadrin.core.planning.test_types.data_sheet import DataSheet
from vadrin.core.planning.test_types.wrong_setting import WrongSetting
from vadrin.core.simulation.film import densities, typical_film
from vadrin.notebook.records import Frame, Reading, Strip, Test
from vadrin.notebook.store import Notebook

_SHEET_DAY = "2026-09-05T10:00:00+00:00"


def write_roll(notebook: Notebook) -> None:
    """A roll of the film that was decided on, shot at another film's EI."""
    note = "The meter still stood at the fast film's speed."
    enter_roll(notebook, "Merrow Pan 125", "Sable", "1+1", "24 frames at EI 200")
    for test in [t for t in notebook.all(Test) if t.kind == WrongSetting.key]:
        notebook.put(replace(test, created_at="2026-11-15T17:00:00+00:00", note=note))


def write_data_sheet(notebook: Notebook) -> None:
    """The sheet that came with the winter's film, its curves traced off the picture."""
    stock = stock_named(notebook, "Merrow Pan 125", 125.0)
    developer = developer_named(notebook, "Sable", "1+1")
    test = notebook.add(
        Test(
            uid=f"demosheet{_SHEET_DAY[:10]}",
            kind=DataSheet.key,
            stock_id=stock.id,
            developer_id=developer.id,
            created_at=_SHEET_DAY,
            exposure_index=125.0,
            options=SheetSource(speed_found="by the standard"),
            note="What the maker promises, before we try it ourselves.",
        )
    )
    lay_out(notebook, test, (6.0, 9.0))
    _trace(notebook, test)


def _trace(notebook: Notebook, test: Test) -> None:
    """Points as they come off a printed curve."""
    log_h = np.linspace(-3.0, 0.6, 20)
    for strip in notebook.all(Strip, test_id=test.id):
        for frame in notebook.all(Frame, strip_id=strip.id):
            notebook.remove(frame)
        printed = densities(typical_film(125.0), strip.planned_min or 8.0, log_h)
        for place, (x, dense) in enumerate(zip(log_h, printed, strict=True)):
            frame = notebook.add(
                Frame(
                    strip_id=strip.id,
                    position=place,
                    turn=place,
                    name=str(place + 1),
                    role=FrameRole.BRACKET,
                    state=FrameState.EXPOSED,
                    log_h=round(float(x), 3),
                )
            )
            notebook.add(
                Reading(
                    frame_id=frame.id,
                    density=round(float(dense), 3),
                    way=TRACED,
                    read_at=test.created_at,
                )
            )
        notebook.put(replace(strip, time_min=strip.planned_min, time_from=Origin.TOLD))
