"""Readings of frames: one more, another in its place, left out."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.stamps import now
from vadrin.app.test_sheet import FrameSheet
from vadrin.core.channels import Channel
from vadrin.notebook.records import Reading
from vadrin.notebook.store import Notebook


def add_reading(
    notebook: Notebook, sheet: FrameSheet, density: float, channel: Channel = Channel.VISUAL
) -> Reading:
    """Write one more reading of a frame."""
    with notebook.change(f"read {density:.2f} on frame {sheet.number}"):
        return notebook.add(
            Reading(
                frame_id=sheet.frame.id,
                position=len(sheet.readings),
                density=density,
                channel=channel,
                read_at=now(),
            )
        )


def replace_readings(notebook: Notebook, sheet: FrameSheet, density: float) -> None:
    """Put one reading in the place of all readings of a frame."""
    with notebook.change(f"read frame {sheet.number} again"):
        for reading in sheet.readings:
            notebook.remove(reading)
        add_reading(notebook, replace(sheet, readings=()), density)


def leave_out(notebook: Notebook, sheet: FrameSheet, out: bool) -> None:
    """Leave all readings of a frame out of the curve, or take them in again."""
    words = "leave out" if out else "take in"
    with notebook.change(f"{words} frame {sheet.number}"):
        for reading in sheet.readings:
            notebook.put(replace(reading, left_out=out))
