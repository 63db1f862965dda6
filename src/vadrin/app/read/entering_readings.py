"""Readings of frames: one more, another in its place, left out."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.display.words import counted
from vadrin.app.entry.densities import Step, TypedReading
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedTest
from vadrin.app.stamps import now
from vadrin.core.channels import Channel
from vadrin.core.planning.test_types import type_of
from vadrin.notebook.records import Reading
from vadrin.notebook.store import Notebook

WEDGE = "wedge"
"""How a reading was made that lies between two steps."""


def add_reading(
    notebook: Notebook,
    loaded: LoadedFrame,
    density: float,
    channel: Channel = Channel.VISUAL,
    step: Step | None = None,
) -> Reading:
    """Write one more reading of a frame; `step` is what it lies between where a wedge told it."""
    low, high = step or (None, None)
    with notebook.change(f"read {density:.2f} on frame {loaded.number}"):
        return notebook.add(
            Reading(
                frame_id=loaded.frame.id,
                position=len(loaded.readings),
                density=density,
                channel=channel,
                read_at=now(),
                low=low,
                high=high,
                way=WEDGE if step else "",
            )
        )


def reading_text(reading: Reading) -> str:
    """A reading as it was typed."""
    channel = "" if reading.channel == Channel.VISUAL else f" {reading.channel}"
    if reading.low is not None and reading.high is not None:
        return f"{reading.low:.2f}-{reading.high:.2f}{channel}"
    return f"{reading.density:.2f}{channel}"


def readings_words(readings: tuple[Reading, ...]) -> str:
    """What a frame was read as: each channel by itself, with its mean where there are several."""
    if not readings:
        return "not read yet"
    by_channel: dict[str, list[Reading]] = {}
    for reading in readings:
        by_channel.setdefault(reading.channel, []).append(reading)
    return f"read {'; '.join(_of_channel(*pair) for pair in by_channel.items())}"


def _of_channel(channel: str, readings: list[Reading]) -> str:
    named = "" if channel == Channel.VISUAL else f"{channel} "
    if len(readings) == 1:
        return f"{named}{_plain_text(readings[0])}"
    used = [r.density for r in readings if not r.left_out]
    mean = f"{sum(used) / len(used):.2f}, " if used else ""
    each = ", ".join(_plain_text(r) for r in readings)
    return f"{named}{mean}mean of {counted(len(readings), 'reading')}: {each}"


def _plain_text(reading: Reading) -> str:
    """A reading without its channel."""
    return reading_text(reading).removesuffix(f" {reading.channel}")


def replace_readings(
    notebook: Notebook,
    loaded: LoadedFrame,
    density: float,
    channel: Channel = Channel.VISUAL,
    step: Step | None = None,
) -> None:
    """Put one reading in the place of all readings of a frame in its channel."""
    with notebook.change(f"read frame {loaded.number} again"):
        for reading in loaded.readings:
            if reading.channel == channel:
                notebook.remove(reading)
        others = tuple(r for r in loaded.readings if r.channel != channel)
        add_reading(notebook, replace(loaded, readings=others), density, channel, step)


def keep_typed_readings(
    notebook: Notebook, loaded: LoadedFrame, typed: tuple[TypedReading, ...], again: bool
) -> None:
    """Write what was typed of a frame, as one edit; `again` puts it in the place of what it had."""
    act = replace_readings if again and loaded.readings else add_reading
    if len(typed) == 1:
        act(notebook, loaded, typed[0].density, typed[0].channel, typed[0].step)
        return
    with notebook.change(f"read the layers of frame {loaded.number}"):
        for one in typed:
            act(notebook, loaded, one.density, one.channel, one.step)


def usual_channel(loaded: LoadedTest | None, named_last: str) -> Channel | None:
    """The channel a bare number is of where layers are read apart; None on other film."""
    kind = type_of(loaded.test.kind) if loaded is not None else None
    return Channel(named_last) if kind is not None and kind.channels_apart else None


def leave_out(notebook: Notebook, loaded: LoadedFrame, out: bool) -> None:
    """Leave all readings of a frame out of the curve, or take them in again."""
    words = "leave out" if out else "take in"
    with notebook.change(f"{words} frame {loaded.number}"):
        for reading in loaded.readings:
            notebook.put(replace(reading, left_out=out))
