"""Strips and frames, and what happened to them in the camera."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.frames import FrameRole, FrameState
from vadrin.core.origin import Origin


@dataclass(frozen=True)
class Strip:
    """One strip of a test: `planned_min` as planned, `time_min` as it really was.

    What is None or empty is as the test says; `push` is stops from the test's EI. `time_from` and
    `temperature_from` tell how the two came to be known.
    """

    id: int = 0
    test_id: int = 0
    position: int = 0
    label: str = ""
    planned_min: float | None = None
    time_min: float | None = None
    temperature_c: float | None = None
    note: str = ""
    roll: int = 1
    push: float | None = None
    stock_id: int | None = None
    batch_id: int | None = None
    developer_id: int | None = None
    camera_id: int | None = None
    agitation: str = ""
    process_id: int | None = None
    time_from: Origin = Origin.UNKNOWN
    temperature_from: Origin = Origin.UNKNOWN


@dataclass(frozen=True)
class Frame:
    """One frame of a strip, in the order shot.

    Its exposure is `log_h`, or `exposure_index` and `stops` from the meter reading; a blank
    frame has neither. `wanted_stops`, `seconds`, `aperture`, `filter_stops`, `dial_index` and
    `compensation` are what the script asked for, as marked on the camera; `turn` orders the
    shooting across strips.
    """

    id: int = 0
    strip_id: int = 0
    position: int = 0
    name: str = ""
    log_h: float | None = None
    exposure_index: float | None = None
    stops: float | None = None
    state: FrameState = FrameState.PLANNED
    exposed_at: str = ""
    note: str = ""
    role: FrameRole = FrameRole.BRACKET
    wanted_stops: float | None = None
    seconds: float | None = None
    aperture: float | None = None
    filter_stops: float = 0.0
    dial_index: float | None = None
    compensation: float | None = None
    turn: int = 0

    @property
    def blank(self) -> bool:
        """Whether the frame was kept from light."""
        unlit = self.log_h is None and self.exposure_index is None
        return unlit and self.role not in (FrameRole.FOGGED, FrameRole.LOST)


@dataclass(frozen=True)
class Exposure:
    """One opening of the shutter on a frame; a frame exposed twice has two."""

    id: int = 0
    frame_id: int = 0
    position: int = 0
    exposed_at: str = ""
    stops: float | None = None
    seconds: float | None = None
    aperture: float | None = None
    note: str = ""


@dataclass(frozen=True)
class MeterReading:
    """What the meter said during a roll, in stops from the first reading."""

    id: int = 0
    test_id: int = 0
    frame_id: int | None = None
    taken_at: str = ""
    stops: float = 0.0
    note: str = ""
